"""What of the figure's own plane has screen behind it, as the lens sees it: the rest is keyed by nobody."""

from __future__ import annotations

import math

import numpy as np

from ..camera.coverage import opening_of
from ..camera.view import View
from ..geometry.vectors import Floats
from ..plan import Plan


def has_screen_behind(plan: Plan, view: View, place: tuple[float, float, float]) -> bool:
    """Is a place in the picture, and before the screen or a window's opening?"""
    if not view.frames(place):
        return False
    low, high = screen_behind(plan, view, place[2])
    return bool(np.all((low < place[:2]) & (np.array(place[:2]) < high)))


def screen_behind(plan: Plan, view: View, z: float) -> tuple[Floats, Floats]:
    """Lower left and upper right (2,), m, of what of the plane at z has screen behind it. It has no end below where
    the screen runs on on the floor, and none beside where it has wings."""
    screen = plan.screen
    below = -math.inf if screen.floor_run > 0.0 else screen.bottom
    left = -math.inf if screen.wing_left > 0.0 else screen.x_centre - 0.5 * screen.width
    right = math.inf if screen.wing_right > 0.0 else screen.x_centre + 0.5 * screen.width
    found = _on_plane(view, np.array([[left, below], [right, screen.bottom + screen.height]]), 0.0, z)
    opening = opening_of(plan)
    if opening is not None and z > opening[0, 2]:
        frame = _on_plane(view, np.array([opening.min(axis=0)[:2], opening.max(axis=0)[:2]]), opening[0, 2], z)
        found = np.array([np.maximum(found[0], frame[0]), np.minimum(found[1], frame[1])])
    return found[0], found[1]


def _on_plane(view: View, corners: Floats, behind: float, z: float) -> Floats:
    """Corners (2, 2) of what stands at a depth behind, where the plane at z hides them."""
    if not behind < z < view.lens[2]:
        return np.array([[-math.inf, -math.inf], [math.inf, math.inf]])
    share = (view.lens[2] - z) / (view.lens[2] - behind)
    return np.asarray(view.lens[:2] + share * (corners - view.lens[:2]))
