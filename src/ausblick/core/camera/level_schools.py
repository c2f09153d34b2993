"""The schools of screen level: what each asks for, and from what it follows."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeVar

import numpy as np

from ..geometry.vectors import Floats
from ..plan import LevelSchool, Plan
from ..standards.schools import (
    AROUND,
    BELOW_FACE,
    COLOUR_HELPS,
    EDGE_LEAST,
    EDGE_MOST,
    EDGE_STEP,
    MID_GREY,
    PLATE_FROM,
    PLATE_LEAST,
    PLATE_MOST,
    PLATE_SLOPE,
    LevelBand,
)
from .exposure import luma, signal


@dataclass(frozen=True)
class LevelTarget:
    """Wanted level of the screen in %, with the band that counts as met, and why."""

    school: LevelSchool
    level: float
    low: float
    high: float
    why: str


def edge_levels(plan: Plan, subject_light: Floats) -> dict[str, float]:
    """Luma in % of everything of the subject that touches the screen in the picture."""
    if plan.subject is None:
        return {}
    surfaces = {"skin": plan.subject.skin}
    if plan.subject.hair_kind != "none":
        surfaces["hair"] = plan.subject.hair
    surfaces |= {garment.name: garment.reflectance for garment in plan.subject.wardrobe}
    return {name: float(luma(signal(np.array(rgb), subject_light, plan.camera))) for name, rgb in surfaces.items()}


def level_target(plan: Plan, subject_light: Floats) -> LevelTarget:
    """What the plan's school wants the screen to read, in % of its trace."""
    school = plan.targets.level_school
    if school == "away-from-edge":
        return _away_from_edge(plan, subject_light)
    if school == "below-face":
        why = "Low and even keeps the screen saturated and the spill small; the face stays above it."
        return _target(school, BELOW_FACE, why)
    if school == "mid-grey":
        return _target(school, MID_GREY, "One mid-grey shade: the strongest signal with the least noise in it.")
    if school == "follow-plate":
        mean = plan.plate.mean_level
        level = float(np.clip(PLATE_FROM + PLATE_SLOPE * mean, PLATE_LEAST, PLATE_MOST))
        why = f"A plate that averages {mean:.0f} % wants a screen to match, so that what spill remains looks right."
        return _target(school, _around(level), why)
    return _target(school, _around(plan.targets.screen_level), "The level set for this production.")


def _target(school: LevelSchool, band: LevelBand, why: str) -> LevelTarget:
    return LevelTarget(school, band.level, band.low, band.high, why)


def _around(level: float) -> LevelBand:
    return LevelBand(level, level - AROUND, level + AROUND)


def _away_from_edge(plan: Plan, subject_light: Floats) -> LevelTarget:
    """The level between 30 and 60 % that is farthest from every edge.

    Hair, and cloth that shares the screen's hue, are cut by brightness alone; the colour of the rest
    helps, so that half the gap does.
    """
    edges = edge_levels(plan, subject_light)
    if not edges:
        return _target("away-from-edge", _around(BELOW_FACE.level), "Nothing touches the screen yet.")
    levels = np.arange(EDGE_LEAST, EDGE_MOST + EDGE_STEP, EDGE_STEP)
    ease = {name: 1.0 if _cut_by_brightness(plan, name) else COLOUR_HELPS for name in edges}
    gaps = np.min([ease[name] * np.abs(levels - level) for name, level in edges.items()], axis=0)
    # Of equally good levels the lower one spills less.
    best = float(levels[int(np.argmax(np.round(gaps, 3)))])
    nearest = min(edges, key=lambda name: abs(edges[name] - best))
    why = f"Nearest edge is {nearest} at {edges[nearest]:.0f} %: the wider the gap in brightness, the surer the cut."
    return _target("away-from-edge", _around(best), why)


def _cut_by_brightness(plan: Plan, edge: str) -> bool:
    assert plan.subject is not None
    if edge == "hair":
        return True
    cloth = next((g.reflectance for g in plan.subject.wardrobe if g.name == edge), plan.subject.skin)
    channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    others = (sum(cloth) - cloth[channel]) / 2.0
    return cloth[channel] > 1.25 * others


def key_channel(plan_hue: str, reflectance: Floats) -> int:
    """Index of the channel that the key is cut from: green 1, blue 2, other: the strongest."""
    return {"green": 1, "blue": 2}.get(plan_hue, int(np.argmax(reflectance)))


def screen_levels(plan: Plan, light: Floats) -> tuple[Floats, Floats]:
    """Luma (...) and key-channel level (...) in % of the screen under light (..., 3) in lux."""
    reflectance = np.array(plan.screen.reflectance)
    encoded = signal(reflectance, light, plan.camera)
    return luma(encoded), np.asarray(encoded[..., key_channel(plan.screen.hue, reflectance)])


Levels = TypeVar("Levels", float, Floats)


def trace_of(plan: Plan, luma_level: Levels, key_level: Levels) -> Levels:
    """The one of the two that the plan's targets are read on."""
    return luma_level if plan.targets.level_trace == "luma" else key_level
