"""A hand of five fingers as a field, in hundredths of stature."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from .fields import Floats, joined, round_cone

Bones = tuple[tuple[float, float, float], float]
FINGERS = ((-1.9, 3.4), (-0.65, 4.1), (0.65, 3.9), (1.85, 3.0))
"""Where each finger begins across the palm, and how long it is; the thumb's side first."""


@dataclass(frozen=True)
class Hand:
    """Its wrist at `at`; fingers point along `along`, the palm faces `palm`; `side`: 1 where the thumb lies to the
    left of the fingers as one looks at the palm; `curl`: how far fingers bend toward the palm, in degrees a joint."""

    at: tuple[float, float, float]
    along: tuple[float, float, float]
    palm: tuple[float, float, float]
    side: float
    curl: float
    size: float = 1.0
    spread: float = 7.0


def hand_field(p: Floats, hand: Hand) -> Floats:
    along = np.array(hand.along) / np.linalg.norm(hand.along)
    palm = np.array(hand.palm) - (np.array(hand.palm) @ along) * along
    palm /= np.linalg.norm(palm)
    across = hand.side * np.cross(along, palm)
    q = (p - np.array(hand.at)) @ np.stack([across, along, palm], axis=1) / hand.size
    bones = []
    for x, _ in FINGERS:
        bones.append(round_cone(q, (0.45 * x, 0.2, 0.0), 0.85, (x, 4.6, 0.0), 0.82))
    hull = joined(0.7, *bones, round_cone(q, (0.0, -1.5, 0.0), 1.1, (0.0, 0.6, 0.0), 1.2))
    ball = round_cone(q, (-1.2, 0.9, 0.35), 0.85, (-2.1, 2.6, 0.5), 0.75)
    thumb = joined(
        0.3,
        round_cone(q, (-2.1, 2.4, 0.5), 0.75, (-3.35, 4.0, 0.75), 0.62),
        round_cone(q, (-3.35, 4.0, 0.75), 0.62, (-3.75, 5.7, 0.95), 0.46),
    )
    found = joined(0.5, hull, ball, thumb)
    fingers = None
    for i, (x, long) in enumerate(FINGERS):
        one = _finger(q, x, long, math.radians(hand.spread) * (i - 1.5) * 0.55, math.radians(hand.curl))
        fingers = one if fingers is None else joined(0.08, fingers, one)
    assert fingers is not None
    return joined(0.4, found, fingers) * hand.size


def _finger(q: Floats, x: float, long: float, lean: float, curl: float) -> Floats:
    at, bend, found = np.array([x, 4.7, 0.0]), 0.35 * curl, None
    radius = 0.66
    for share, thinner in ((0.45, 0.60), (0.31, 0.54), (0.24, 0.44)):
        way = np.array([math.sin(lean) * math.cos(bend), math.cos(lean) * math.cos(bend), math.sin(bend)])
        end = at + share * long * way
        piece = round_cone(q, tuple(at), radius, tuple(end), thinner)
        found = piece if found is None else joined(0.12, found, piece)
        at, radius, bend = end, thinner, bend + curl
    assert found is not None
    return found
