"""The clean plate of a shot's set-up: is there one, and is it still of this light, this camera and this screen?"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..plan import Plan
from ..plan.fields import Part
from ..sentences import tell
from .take_document import SetState
from .take_rules import TakeFinding, graded

VOIDS = ("take.screen-moved", "take.camera-turned", "take.level", "take.hue", "take.white-balance")
"""Findings of a take against the clean plate that make it useless."""
WORDS = {"lamps": "a lamp", "camera": "the camera", "screen": "the screen"}
SETTING_WORDS = {
    "iso": "ISO", "shutter_s": "shutter", "f_number": "f-number", "white_balance_k": "white balance",
    "fps": "frame rate",
}  # fmt: skip
MOST_PERCENT = 1.0
"""Mean difference of the background outside of the figure, % of signal."""


@dataclass(frozen=True)
class CleanPlateState:
    """`holds`; or missing, changed (the plan's lamps, camera or screen), drifted (measured): what voids it."""

    state: Literal["holds", "missing", "changed", "drifted"]
    finding: TakeFinding | None


def clean_plate_state(
    plate: SetState | None,
    now: SetState,
    drifted: list[TakeFinding],
    differs_percent: float | None,
    at_wrap: bool = False,
    settings: tuple[str, ...] = (),
) -> CleanPlateState:
    """`plate`: the set-up when the clean plate was filmed, None where there is none; `drifted`: what a later
    take shows against it; `differs_percent`: its background's mean difference; `settings` of the camera that were
    others. At wrap what is missing stops."""
    excess = 1.0 if at_wrap else 0.25
    if plate is None:
        return CleanPlateState("missing", graded("take.clean-plate", 0.0, tell("take.clean-plate/missing"), excess))
    changed = what_changed(plate, now)
    if changed:
        told = tell("take.clean-plate/changed", what=" and ".join(WORDS[one] for one in changed))
        return CleanPlateState("changed", graded("take.clean-plate", 1.0, told, excess))
    if settings:
        told = tell("take.clean-plate/settings", what=" and ".join(SETTING_WORDS[one] for one in settings))
        return CleanPlateState("changed", graded("take.clean-plate", 1.0, told, excess))
    void = next((finding for finding in drifted if finding.id in VOIDS), None)
    if void is not None:
        told = tell("take.clean-plate/drift", what=void.says[0].lower() + void.says[1:])
        return CleanPlateState("drifted", graded("take.clean-plate", 1.0, told, excess))
    if differs_percent is not None and differs_percent > MOST_PERCENT:
        # Looked at, not void: a figure that stands elsewhere takes light from the screen too.
        told = tell("take.clean-plate/differs", percent=differs_percent)
        seen = replace(graded("take.clean-plate", differs_percent, told, excess), severity="consider")
        return CleanPlateState("holds", seen)
    return CleanPlateState("holds", None)


def state_of(plan: Plan) -> SetState:
    """Fingerprints of lamps (with the cloths before them), camera and screen of a plan."""
    return SetState(
        lamps=_print(plan.lights, plan.flags), camera=_print((plan.camera,), ()), screen=_print((plan.screen,), ())
    )


def _print(*groups: Sequence[Part]) -> str:
    text = json.dumps([[part.model_dump(mode="json") for part in group] for group in groups], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def what_changed(was: SetState, now: SetState) -> tuple[str, ...]:
    """Of lamps, camera and screen, those that are otherwise since."""
    before, after = was.model_dump(), now.model_dump()
    return tuple(part for part in WORDS if before[part] != after[part])
