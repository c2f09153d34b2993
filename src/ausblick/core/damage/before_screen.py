"""What round a place of the figure has screen behind it, as the lens sees it: the rest is keyed by nobody."""

from __future__ import annotations

import math

import numpy as np

from ..camera.coverage import opening_of
from ..camera.view import View
from ..geometry.vectors import Floats
from ..plan import Plan

NOWHERE = np.array([[math.inf, math.inf], [-math.inf, -math.inf]])
EVERYWHERE = -NOWHERE


def has_screen_behind(plan: Plan, view: View, place: tuple[float, float, float]) -> bool:
    """Is a place in the picture, and before the screen or a window's opening?"""
    if not view.frames(place):
        return False
    (left, low), (right, high) = screen_behind(plan, view, place)
    return bool(left < place[0] < right and low < place[1] < high)


def screen_behind(plan: Plan, view: View, place: tuple[float, float, float]) -> Floats:
    """Lower left and upper right (2, 2), m, of what has screen behind it of the upright plane through a place that
    faces the screen. Where the screen goes on as wings, or round a fold to the floor, it has no end there."""
    found = _screen(plan, view, place)
    opening = opening_of(plan)
    if opening is not None and place[2] > opening[0, 2]:
        ends = np.array([opening.min(axis=0)[:2], opening.max(axis=0)[:2]])
        frame = _toward(view, ends, (view.lens[2] - place[2]) / (view.lens[2] - opening[0, 2]))
        found = np.array([np.maximum(found[0], frame[0]), np.minimum(found[1], frame[1])])
    return found


def _screen(plan: Plan, view: View, place: tuple[float, float, float]) -> Floats:
    screen, lens = plan.screen, view.lens
    if not 0.0 < place[2] < lens[2]:
        return EVERYWHERE
    # How far the place is on the way to the wall's plane, and to the floor.
    wall, floor = (lens[2] - place[2]) / lens[2], (lens[1] - place[1]) / max(lens[1], 1e-9)
    left, right = screen.x_centre - 0.5 * screen.width, screen.x_centre + 0.5 * screen.width
    if floor > wall:
        if lens[2] + (place[2] - lens[2]) / floor >= screen.floor_run:
            return NOWHERE
        return _toward(view, np.array([[left, -math.inf], [right, math.inf]]), floor)
    left = -math.inf if screen.wing_left > 0.0 else left
    right = math.inf if screen.wing_right > 0.0 else right
    low = -math.inf if screen.floor_run > 0.0 else screen.bottom
    return _toward(view, np.array([[left, low], [right, screen.bottom + screen.height]]), wall)


def _toward(view: View, ends: Floats, share: float) -> Floats:
    """Ends (2, 2) of what stands behind, brought to a place that is such a share of the way to it."""
    return np.asarray(view.lens[:2] + share * (ends - view.lens[:2]))
