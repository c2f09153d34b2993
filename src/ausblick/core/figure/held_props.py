"""Things in the figure's hands: where each is held, how large it is, and its outline as a signed distance.

Units are shares of the height, x to the right as the camera sees it, y up from the floor.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Subject
from ..plan.people import PropShape

HAND_AT, HANDS_ALONE_AT = (0.213, 0.846), (0.155, 0.592)
"""Middle of the moving hand: raised, and of hands alone."""


@dataclass(frozen=True)
class Held:
    """A thing whose middle is at (x, y), `half` wide and `tall` up and down from there."""

    x: float
    y: float
    half: float
    tall: float

    def distance(self, shape: PropShape, x: Floats, y: Floats) -> Floats:
        """Signed distance (...) from its outline at places x, y (...); inside < 0."""
        if shape == "sphere":
            return np.asarray(np.hypot(x - self.x, y - self.y) - self.half)
        rounded = 0.25 * self.half
        across, up = np.abs(x - self.x) - (self.half - rounded), np.abs(y - self.y) - (self.tall - rounded)
        outside = np.hypot(np.maximum(across, 0.0), np.maximum(up, 0.0))
        return np.asarray(outside + np.minimum(np.maximum(across, up), 0.0) - rounded)

    def outline(self, shape: PropShape) -> Floats:
        """Polygon (N, 2) of it."""
        if shape == "sphere":
            turn = 2.0 * np.pi * np.arange(24) / 24
            return np.stack([self.x + self.half * np.cos(turn), self.y + self.half * np.sin(turn)], axis=1)
        corners = np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]])
        return np.asarray((self.x, self.y) + corners * (self.half, self.tall))

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """x0, y0, x1, y1, of whatever shape it is."""
        reach = max(self.half, self.tall)
        return self.x - self.half, self.y - reach, self.x + self.half, self.y + reach


HELD = (Held(-0.228, 0.856, 0.024, 0.048), Held(-0.186, 0.851, 0.015, 0.030))
HELD_LOW = (Held(-0.229, 0.615, 0.030, 0.046), Held(-0.180, 0.603, 0.018, 0.036))
"""Where the first and the second prop are held, by a standing figure and by reaching hands."""
BEFORE = 0.05
"""How far before the middle of the body."""


def held_by(subject: Subject) -> tuple[Held, ...]:
    """Places of the props, the first ones of as many as can be held."""
    return (HELD_LOW if subject.framing == "hands" else HELD)[: len(subject.props)]


def hand_at(subject: Subject) -> tuple[float, float]:
    """Middle of the moving hand in shares of the height."""
    return HANDS_ALONE_AT if subject.framing == "hands" else HAND_AT
