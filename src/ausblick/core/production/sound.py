"""Sound on the set: two devices that do not depend on each other, and how far down a boom may come."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..camera.view import View
from ..plan import Plan
from .production_document import SoundDevice

CLEAR = 0.1
"""Above the picture's upper edge, m: a boom is never quite still."""


def independent(devices: Sequence[SoundDevice]) -> int:
    """How many ways of recording stand by themselves: worn, on a boom, another; two of one way are one."""
    return len({device.way for device in devices})


def boom_height(plan: Plan, view: View) -> float | None:
    """Lowest height of a boom over the mark that stays out of the picture, m; None where the edge is nowhere there.

    The highest point of the picture's upper edge where its plane of sight meets the mark's distance (ray and plane).
    """
    if plan.subject is None:
        return None
    edge = np.array([[0.0, 0.0], [0.5, 0.0], [1.0, 0.0]])
    rays = view.rays(edge)
    away = plan.subject.z - view.lens[2]
    if np.any(rays[:, 2] * away <= 0.0):
        return None
    heights = view.lens[1] + rays[:, 1] * away / rays[:, 2]
    highest = float(heights.max())
    return highest + CLEAR if math.isfinite(highest) else None
