"""All rules in the order of the work. Documentation and the interface read this table."""

from __future__ import annotations

from . import camera, light, plate, screen, space, subject, wardrobe
from .model import Rule

RULES: tuple[Rule, ...] = (
    *plate.RULES,
    *space.RULES,
    *screen.RULES,
    *wardrobe.RULES,
    *light.RULES,
    *subject.RULES,
    *camera.RULES,
)
