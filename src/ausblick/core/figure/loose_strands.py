"""Single hairs that stand off the head, in the plane of the mark; units are shares of stature."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats, Reals
from ..remembered.shelf import remembered
from .body_file import HEADS


@dataclass(frozen=True)
class Strands:
    """Single hairs as polylines: points (S, P, 2) in shares of the height; `width` of a hair in m."""

    points: Floats
    width: float


KINDS = {
    "smooth": (0.006, 2.0, 0.2, 900), "fine": (0.022, 2.0, 0.7, 2000), "curly": (0.032, 1.4, 2.4, 2000),
    "none": (0.0, 1.0, 0.0, 0),
}  # fmt: skip
"""How far strands stand off in shares of the height, how alike in that (of curls most end near the others, a few far
out), how much they wind, and how many there are."""
BENDS = 40
"""Places of a polyline: with fewer, curls have corners."""
MIDDLE, TALLER = 0.952, 1.08
"""How high the middle of an adult's head is, and how much taller than wide the head."""
ROOT = 0.0505
"""How far from the middle of the head strands begin: under the surface of the hair, in the dips of curls too."""


@remembered(6)
def strands(build: str, kind: str, seed: int) -> Strands:
    """Loose hair round the head; the same for the same seed."""
    off, alike, wind, count = KINDS[kind]
    rng = np.random.default_rng(seed)
    t = np.linspace(0.0, 1.0, BENDS)[None, :]
    root = rng.uniform(-0.15 * math.pi, 1.15 * math.pi, (count, 1))
    reach = off * rng.gamma(alike, 1.0 / alike, (count, 1))
    bend = wind * rng.normal(0.0, 0.5, (count, 1))
    phase = rng.uniform(0.0, 2.0 * math.pi, (count, 1))
    turn = root + bend * t * 0.6 + 0.18 * wind * np.sin(7.0 * t + phase) * t
    radius = ROOT + reach * t
    x = radius * np.cos(turn)
    # Hair falls: what stands off sideways hangs a little lower at its end.
    y = MIDDLE + TALLER * radius * np.sin(turn) - 0.5 * reach * t * t
    size = HEADS[build]
    return Strands(np.stack([size * x, 1.0 + size * (y - 1.0)], axis=2), 0.0002)


def light_on_strands(places: Mapping[str, Floats]) -> Floats:
    """Mean light (3,) on loose hair, of the light on places of the figure by their names: our mix of what it stands
    beside, a tenth more than a surface gets."""
    return np.asarray(0.6 * places["shoulders"] + 0.5 * places["face"])


def round_the_head(build: str, x: Reals, y: Reals) -> Reals:
    """Where round the head's middle places of the figure's plane are, in shares of the height: radians from its +x
    over the crown, from -pi / 2 on."""
    size = HEADS[build]
    angle = np.arctan2((1.0 + (y - 1.0) / size - MIDDLE) / TALLER, x / size)
    return np.where(angle < -0.5 * math.pi, angle + 2.0 * math.pi, angle)
