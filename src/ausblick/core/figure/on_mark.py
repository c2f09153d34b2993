"""Where and how the figure stands: its own axes in the set.

It faces the camera: x to the right as the camera sees it, y up, z toward the camera.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..geometry.vectors import Floats, Reals
from ..plan import Camera, Subject


@dataclass(frozen=True)
class OnMark:
    """`foot`: where the body's own zero is, m; `angle`: how far it is turned from the screen's axis, radians."""

    height: float
    foot: tuple[float, float, float]
    angle: float

    @cached_property
    def turn(self) -> Floats:
        """The body's axes in the set, as columns (3, 3)."""
        cos, sin = math.cos(self.angle), math.sin(self.angle)
        return np.array([[cos, 0.0, sin], [0.0, 1.0, 0.0], [-sin, 0.0, cos]])

    def at(self, shares: Reals) -> Floats:
        """Places (..., 3) m in the set of places (..., 3) of the body in shares of stature."""
        return np.asarray(self.height * shares @ self.turn.T + np.array(self.foot))

    def shares_of(self, places: Reals) -> Floats:
        """The other way: places (..., 3) of the set in shares of stature."""
        return np.asarray((places - np.array(self.foot)) @ self.turn / self.height)


def on_mark(subject: Subject, camera: Camera) -> OnMark:
    toward = camera.x - subject.x, camera.z - subject.z
    angle = round(math.atan2(*toward), 6) if math.hypot(*toward) > 1e-6 else 0.0
    return OnMark(subject.height, (subject.x, -subject.lowered, subject.z), angle)
