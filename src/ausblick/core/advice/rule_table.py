"""All rules in the order of the work. Documentation and the interface read this table."""

from __future__ import annotations

from .rule import Rule
from .rules import (
    camera_rules as camera,
)
from .rules import (
    caution_rules as caution,
)
from .rules import (
    daylight_rules as daylight,
)
from .rules import (
    flash_rules as flash,
)
from .rules import (
    framing_rules as framing,
)
from .rules import (
    key_rules as key,
)
from .rules import (
    light_rules as light,
)
from .rules import (
    mirror_rules as mirror,
)
from .rules import (
    people_rules as people,
)
from .rules import (
    picture_rules as picture,
)
from .rules import (
    plate_rules as plate,
)
from .rules import (
    recording_rules as recording,
)
from .rules import (
    rim_rules as rim,
)
from .rules import (
    safety_rules as safety,
)
from .rules import (
    screen_rules as screen,
)
from .rules import (
    shadow_rules as shadow,
)
from .rules import (
    softness_rules as softness,
)
from .rules import (
    space_rules as space,
)
from .rules import (
    spill_rules as spill,
)
from .rules import (
    subject_rules as subject,
)
from .rules import (
    texture_rules as texture,
)
from .rules import (
    wardrobe_rules as wardrobe,
)
from .rules import (
    wind_rules as wind,
)

RULES: tuple[Rule, ...] = (
    *key.RULES,
    *plate.RULES,
    *softness.RULES,
    *space.RULES,
    *framing.RULES,
    *screen.RULES,
    *wind.RULES,
    *wardrobe.RULES,
    *light.RULES,
    *shadow.RULES,
    *texture.RULES,
    *daylight.RULES,
    *subject.RULES,
    *people.RULES,
    *spill.RULES,
    *mirror.RULES,
    *rim.RULES,
    *safety.RULES,
    *caution.RULES,
    *camera.RULES,
    *flash.RULES,
    *picture.RULES,
    *recording.RULES,
)
