"""What may be wrong on a set, how often it is, and how far it may reach: the stories that a frame is asked about.

Every deviation is always allowed for within the care with which sets are built; a story lets one of them go far.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..geometry.vectors import Floats
from .light_model import PER_LAMP

Kind = Literal[
    "as planned", "exposure", "white balance", "lens", "dimmer", "off", "moved", "colour", "obstacle", "stranger"
]
CAMERA_KINDS: tuple[Kind, ...] = ("exposure", "white balance", "lens", "stranger")
LAMP_KINDS: tuple[Kind, ...] = ("dimmer", "off", "moved", "colour", "obstacle")
ODDS: dict[Kind, float] = {
    "as planned": 0.37, "lens": 0.03, "exposure": 0.08, "white balance": 0.08, "dimmer": 0.14, "off": 0.08,
    "moved": 0.10, "colour": 0.07, "obstacle": 0.03, "stranger": 0.02,
}  # fmt: skip
"""How often each is what is wrong, before a frame is seen; a lamp's kinds are shared among the lamps."""

CAREFUL_CAMERA = np.array([0.05, 3.0, 0.8, 0.03, 0.021])
"""Exposure (ln), balance (mired, thousandths of Duv), fall-off of the lens at the corner in r2 and r4 (ln)."""
CAREFUL_LAMP = np.array([0.04, 4.0, 0.8, 0.03, 0.03, 0.03])
"""Level, colour (mired, thousandths of Duv), place across, up and away (m)."""
FAR_LENS = (0.5, 0.35)
"""Of a fast or wide lens wide open: up to a stop and more at the corner."""
FAR_EXPOSURE, FAR_BALANCE, FAR_LEVEL, FAR_COLOUR = 0.6, 70.0, 0.5, 70.0
FAR_PLACE = np.array([0.4, 0.25, 0.4])
MOST_PLACE, MOST_COLOUR = 1.3, 250.0
"""A search ends here; what comes out at its end is no finding."""
MOST_LEVEL = 6.0


@dataclass(frozen=True)
class Culprit:
    """One thing that is wrong: its kind, and the lamp's place in the model's list (None: no lamp's)."""

    kind: Kind
    lamp: int | None = None


Story = tuple[Culprit, ...]
"""None (all as planned), one or two parts."""


def singles(lamps: int) -> list[Story]:
    found: list[Story] = [(), *((Culprit(kind),) for kind in CAMERA_KINDS)]
    return found + [(Culprit(kind, i),) for i in range(lamps) for kind in LAMP_KINDS]


def prior(story: Story, lamps: int) -> float:
    """Odds of a story; a pair's are those of its parts over that of none."""
    each = [ODDS[p.kind] / (max(1, lamps) if p.lamp is not None else 1) for p in story]
    return float(np.prod(each)) / ODDS["as planned"] ** (len(each) - 1) if each else ODDS["as planned"]


def spreads(story: Story, lamps: int) -> Floats:
    """Standard deviation of every deviation (5 + 6 L,) as a story has it."""
    found = np.concatenate([CAREFUL_CAMERA, np.tile(CAREFUL_LAMP, lamps)])
    for part in story:
        at = 5 + PER_LAMP * (part.lamp or 0)
        if part.kind == "exposure":
            found[0] = FAR_EXPOSURE
        elif part.kind == "white balance":
            found[1:3] = FAR_BALANCE, 4.0
        elif part.kind == "lens":
            found[3:5] = FAR_LENS
        elif part.kind == "dimmer":
            found[at] = FAR_LEVEL
        elif part.kind == "off":
            found[at] = 1e-3
        elif part.kind == "colour":
            found[at + 1 : at + 3] = FAR_COLOUR, 6.0
        elif part.kind == "moved":
            found[at + 3 : at + 6] = FAR_PLACE
    return found


def centre(story: Story, lamps: int) -> Floats:
    """What every deviation is thought to be before a frame is seen: none, but for a lamp that is off."""
    found = np.concatenate([np.zeros(5), np.tile([1.0, 0.0, 0.0, 0.0, 0.0, 0.0], lamps)])
    for part in story:
        if part.kind == "off" and part.lamp is not None:
            found[5 + PER_LAMP * part.lamp] = 0.0
    return found


def begins(story: Story, lamps: int) -> list[Floats]:
    """Where to begin: a colour far enough out to leave the plateau, a place to either side."""
    found = [centre(story, lamps)]
    for part in story:
        at = 5 + PER_LAMP * (part.lamp or 0)
        ways: list[tuple[int, float]] = []
        if part.kind == "white balance":
            ways = [(1, by) for by in (40.0, 80.0, -60.0)]
        elif part.kind == "colour":
            ways = [(at + 1, by) for by in (40.0, 80.0, -60.0)]
        elif part.kind == "moved":
            ways = [(at + axis, by) for axis in (3, 5) for by in (-0.3, 0.3)]
        elif part.kind == "dimmer":
            ways = [(at, 0.5)]
        if ways:
            found = [_set(one, *way) for one in found for way in ways]
    return found


def _set(vector: Floats, at: int, value: float) -> Floats:
    found = vector.copy()
    found[at] = value
    return found


def bounds(lamps: int) -> tuple[Floats, Floats]:
    low = np.concatenate([np.full(5, -np.inf), np.tile([0.0, -MOST_COLOUR, -30.0, *[-MOST_PLACE] * 3], lamps)])
    high = np.concatenate([np.full(5, np.inf), np.tile([MOST_LEVEL, MOST_COLOUR, 30.0, *[MOST_PLACE] * 3], lamps)])
    low[1], high[1] = -MOST_COLOUR, MOST_COLOUR
    return low, high
