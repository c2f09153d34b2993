"""Which screen colour? Evidence, surface by surface, for green, for blue and for the plan's own.

A surface is in danger when the key takes it for screen. The colour difference says how much:
d = K - (A + B)/2 in linear light, and 1 - d/d_screen is what the matte would be under equal light:
1 is solid, 0 is screen. Distances in colour are those of the recorded Cb, Cr (BT.709) at the grey exposure.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..camera.level_schools import key_channel
from ..colour.curves import rec709
from ..colour.rec709 import LUMA, colour_differences
from ..geometry.vectors import Floats
from ..plan import Plan, Subject, edit, of_person, people_of

SOLID = 0.9
"""Matte below this is a hole that a white clip no longer closes without eating edges."""
REFERENCE: dict[edit.Hue, tuple[float, float, float]] = {"green": (0.06, 0.34, 0.10), "blue": (0.05, 0.10, 0.40)}
FAIR = 0.2
"""Luminance of hair from which it counts as fair."""


@dataclass(frozen=True)
class Evidence:
    """One surface before one screen colour: matte 0..1, distance in Cb, Cr (0..1) and in luma (points of %)."""

    surface: str
    screen: str
    matte: float
    chroma_distance: float
    luma_distance: float


@dataclass(frozen=True)
class Advice:
    """The colour to take, why, and what it costs."""

    colour: str
    reasons: tuple[str, ...]
    costs: tuple[str, ...]


def surfaces(plan: Plan) -> dict[str, Floats]:
    """Reflectance (3,) of everything of the people that the key must keep, by name; with a companion's own name."""
    found: dict[str, Floats] = {}
    for person in people_of(plan):
        found |= {of_person(person, name): np.array(rgb) for name, rgb in _surfaces(person).items()}
    return found


def _surfaces(person: Subject) -> dict[str, tuple[float, float, float]]:
    found = {"skin": person.skin}
    if person.hair_kind != "none":
        found["hair"] = person.hair
    found |= {garment.name: garment.reflectance for garment in person.seen_wardrobe if garment.keying == "kept"}
    matt = (prop for prop in person.props if prop.kind == "matt" and prop.keying == "kept")
    return found | {prop.name: prop.reflectance for prop in matt}


def is_fair(person: Subject) -> bool:
    """Has somebody fair hair?"""
    return person.hair_kind != "none" and float(np.array(person.hair) @ LUMA) > FAIR


def difference(rgb: Floats, channel: int) -> float:
    return float(rgb[channel] - (rgb.sum() - rgb[channel]) / 2.0)


def matte_of(surface: Floats, screen: Floats, channel: int) -> float:
    """What the matte of a surface would be under the light of the screen, 0..1."""
    return float(np.clip(1.0 - difference(surface, channel) / max(difference(screen, channel), 1e-6), 0.0, 1.0))


def _chroma(rgb: Floats) -> Floats:
    return np.array(colour_differences(rec709(rgb)))


def evidence(plan: Plan) -> list[Evidence]:
    """Every surface before green, blue and, where it is another, the plan's own screen."""
    screens: dict[str, Floats] = {name: np.array(rgb) for name, rgb in REFERENCE.items()}
    if plan.screen.hue == "other":
        screens["own"] = np.array(plan.screen.reflectance)
    rows = []
    for colour, screen in screens.items():
        channel = key_channel(colour, screen)
        for name, rgb in surfaces(plan).items():
            rows.append(
                Evidence(
                    name,
                    colour,
                    matte_of(rgb, screen, channel),
                    float(np.hypot(*(_chroma(rgb) - _chroma(screen)))),
                    100.0 * abs(float(rec709(rgb) @ LUMA) - float(rec709(screen) @ LUMA)),
                )
            )
    return rows


def advice(plan: Plan) -> Advice:
    """Green unless something of the subject is green, or fair hair tips the scales."""
    rows = evidence(plan)
    least = {c: min((r.matte for r in rows if r.screen == c), default=1.0) for c in REFERENCE}
    nearest = {c: min((r for r in rows if r.screen == c), key=lambda r: r.matte, default=None) for c in REFERENCE}
    fair = any(is_fair(person) for person in people_of(plan))
    reasons = []
    for colour, row in nearest.items():
        if row is not None and row.matte < SOLID:
            reasons.append(f"{row.surface} before {colour} keys at {100 * row.matte:.0f} % of solid")
    if least["green"] < SOLID and least["blue"] >= least["green"]:
        colour = "blue"
    elif least["blue"] < SOLID or not fair:
        colour = "green"
    else:
        colour = "blue"
        reasons.append("fair hair carries less of blue's darker spill")
    if not reasons:
        reasons.append("nothing of the subject is near green, and cameras resolve green best")
    more_light = np.log2(REFERENCE["green"][1] / REFERENCE["blue"][2] * _luminance_ratio())
    blue_costs = (f"about {more_light:.1f} stops more light for the same luma", "more noise in the key channel")
    return Advice(colour, tuple(reasons), blue_costs if colour == "blue" else ())


def _luminance_ratio() -> float:
    """How much brighter green is than blue per unit of key-channel reflectance."""
    green, blue = (np.array(REFERENCE[c]) @ LUMA for c in ("green", "blue"))
    return float(green / blue * REFERENCE["blue"][2] / REFERENCE["green"][1])
