"""The schools of screen level: what each asks for, and from what it follows."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeVar

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Camera, LevelSchool, Plan, Trace
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
from .exposure import light_for_channel, light_for_luma, luma, signal
from .pane_film import film_before_screen


@dataclass(frozen=True)
class LevelTarget:
    """Wanted level of the screen in %, with the band that counts as met, and why. A school asks for an amount of
    light: `level`, `low` and `high` are what the plan's curve makes of it, on its `trace`; `rec709` is the same as
    Rec.709 has it, which is how schools are told; `lux_low`, `lux_high`: white light on the screen."""

    school: LevelSchool
    level: float
    low: float
    high: float
    why: str
    trace: Trace
    rec709: LevelBand
    lux_low: float
    lux_high: float


def edge_levels(plan: Plan, subject_light: Floats) -> dict[str, float]:
    """Luma in %, as Rec.709 has it, of everything of the subject that touches the screen in the picture."""
    if plan.subject is None:
        return {}
    surfaces = {"skin": plan.subject.skin}
    if plan.subject.hair_kind != "none":
        surfaces["hair"] = plan.subject.hair
    surfaces |= {
        garment.name: garment.reflectance for garment in plan.subject.seen_wardrobe if garment.keying == "kept"
    }
    plain = plan.camera.model_copy(update={"curve": "rec709"})
    return {name: float(luma(signal(np.array(rgb), subject_light, plain))) for name, rgb in surfaces.items()}


def level_trace_of(plan: Plan) -> Trace:
    """On what the screen's level is told: of a blue screen the blue channel, whose luma says next to nothing."""
    return "key-channel" if plan.screen.hue == "blue" else plan.targets.level_trace


def level_target(plan: Plan, subject_light: Floats) -> LevelTarget:
    """What the plan's school wants the screen to read: the same light whatever the curve."""
    school, band, why = _school(plan, subject_light)
    trace, plain = level_trace_of(plan), plan.camera.model_copy(update={"curve": "rec709"})
    lux = [_light_for(plan, trace, level, plain) for level in (band.low, band.level, band.high)]
    low, level, high = (_reads(plan, trace, light) for light in lux)
    passes = film_before_screen(plan)
    return LevelTarget(school, level, low, high, why, trace, band, lux[0] / passes, lux[2] / passes)


def _light_for(plan: Plan, trace: Trace, level: float, camera: Camera) -> float:
    ink = np.array(plan.screen.reflectance)
    if trace == "luma":
        return light_for_luma(ink, level, camera)
    return light_for_channel(float(ink[key_channel(plan.screen.hue, ink)]), level, camera)


def _reads(plan: Plan, trace: Trace, lux: float) -> float:
    own, key = screen_levels(plan, np.full(3, lux))
    return float(own if trace == "luma" else key)


def _school(plan: Plan, subject_light: Floats) -> tuple[LevelSchool, LevelBand, str]:
    """The plan's school, its band as Rec.709 has it, and why."""
    school = plan.targets.level_school
    if school == "away-from-edge":
        return _away_from_edge(plan, subject_light)
    if school == "below-face":
        why = "Low and even keeps the screen saturated and the spill small; the face stays above it."
        return school, BELOW_FACE, why
    if school == "mid-grey":
        return (school, MID_GREY, "One mid-grey shade: the strongest signal with the least noise in it.")
    if school == "follow-plate":
        mean = plan.plate.mean_level
        level = float(np.clip(PLATE_FROM + PLATE_SLOPE * mean, PLATE_LEAST, PLATE_MOST))
        why = f"A plate that averages {mean:.0f} % wants a screen to match, so that what spill remains looks right."
        return school, _around(level), why
    return school, _around(plan.targets.screen_level), "The level set for this production."


def _around(level: float) -> LevelBand:
    return LevelBand(level, level - AROUND, level + AROUND)


def _away_from_edge(plan: Plan, subject_light: Floats) -> tuple[LevelSchool, LevelBand, str]:
    """The level between 30 and 60 % that is farthest from every edge.

    Hair, and cloth that shares the screen's hue, are cut by brightness alone; the colour of the rest
    helps, so that half the gap does.
    """
    edges = edge_levels(plan, subject_light)
    if not edges:
        return "away-from-edge", _around(BELOW_FACE.level), "Nothing touches the screen yet."
    levels = np.arange(EDGE_LEAST, EDGE_MOST + EDGE_STEP, EDGE_STEP)
    ease = {name: 1.0 if _cut_by_brightness(plan, name) else COLOUR_HELPS for name in edges}
    gaps = np.min([ease[name] * np.abs(levels - level) for name, level in edges.items()], axis=0)
    # Of equally good levels the lower one spills less.
    best = float(levels[int(np.argmax(np.round(gaps, 3)))])
    nearest = min(edges, key=lambda name: abs(edges[name] - best))
    why = f"Nearest edge is {nearest} at {edges[nearest]:.0f} %: the wider the gap in brightness, the surer the cut."
    return "away-from-edge", _around(best), why


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
