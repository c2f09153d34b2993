"""All rules in the order of the work. Documentation and the interface read this table."""

from __future__ import annotations

from . import (
    camera,
    flash,
    light,
    mirror,
    picture,
    plate,
    recording,
    safety,
    screen,
    shadow,
    space,
    spill,
    subject,
    texture,
    wardrobe,
)
from .model import Rule

RULES: tuple[Rule, ...] = (
    *plate.RULES,
    *space.RULES,
    *screen.RULES,
    *wardrobe.RULES,
    *light.RULES,
    *shadow.RULES,
    *texture.RULES,
    *subject.RULES,
    *spill.RULES,
    *mirror.RULES,
    *safety.RULES,
    *camera.RULES,
    *flash.RULES,
    *picture.RULES,
    *recording.RULES,
)
