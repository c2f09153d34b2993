"""The planned set laid over a picture of it: where on the screen a mark is, and which lamps stand in the outline.

Places in the picture are in parts of it, y down, of a picture that stands upright however the camera lay.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..camera.screen_grid import curve_radius, shown_sheets
from ..camera.sheet_met import met
from ..camera.turned import recorded_places, side_turns, upright_places
from ..camera.view import NEAREST, view_of
from ..geometry.vectors import Bools, Floats
from ..light.lamp_bodies import LampBody, pole_places, round_the_lens
from ..plan import Light, Plan

POLE_PX = 1
"""Half the width that a pole is drawn with on the reduced picture."""


def place_on_screen(plan: Plan, u: float, v: float) -> tuple[float, float, float] | None:
    """The place of the set (x, y, z) in m that a place in the picture shows of the screen; None beside it."""
    view = view_of(plan.camera, plan.subject)
    at = recorded_places(np.array([[u, v]]), side_turns(plan.camera))
    ray = view.rays(at)[None]
    hits = [met(sheet, curve_radius(plan.screen), view.lens, ray)[0] for sheet in shown_sheets(plan.screen)]
    reach = min((float(hit[0, 0]) for hit in hits), default=np.inf)
    if not np.isfinite(reach):
        return None
    x, y, z = (float(part) for part in view.lens + reach * ray[0, 0])
    return x, y, z


def standing_inside(plan: Plan, outline: Bools, figure: Bools) -> tuple[str, ...]:
    """Lamps whose body or stand is seen inside the outline (h, w); one that the figure (h, w) hides is not."""
    lamps = [lamp for lamp in plan.lights if not (lamp.is_daylight or round_the_lens(plan, lamp))]
    found = []
    for lamp in lamps:
        drawn = _drawn(plan, lamp, outline.shape)
        behind = plan.subject is not None and lamp.position[2] < plan.subject.z
        seen = drawn & ~figure if behind else drawn
        if (seen & outline).any():
            found.append(lamp.name)
    return tuple(found)


def _drawn(plan: Plan, lamp: Light, shape: tuple[int, ...]) -> Bools:
    """Where in the picture (h, w) a lamp's head and pole are, as the plan has them."""
    height, width = shape
    canvas = np.zeros((height, width), np.uint8)
    if lamp.position[2] < 0.0:
        return canvas.astype(bool)
    body = LampBody(plan, lamp)
    head = _pixels(plan, body.card.reshape(-1, 3) if len(body.card) else body.face.centre[None], width, height)
    if len(head) >= 3:
        cv2.fillConvexPoly(canvas, cv2.convexHull(head), 1)
    elif len(head):
        cv2.circle(canvas, (int(head[0, 0]), int(head[0, 1])), 2 * POLE_PX, 1, -1)
    pole = _pixels(plan, pole_places(plan, lamp), width, height)
    if len(pole) > 1:
        cv2.polylines(canvas, [pole], False, 1, 2 * POLE_PX + 1)
    return canvas.astype(bool)


def _pixels(plan: Plan, places: Floats, width: int, height: int) -> np.ndarray[tuple[int, int], np.dtype[np.int32]]:
    """Of places (N, 3) before the lens; far outside of the picture stays outside."""
    if not len(places):
        return np.zeros((0, 2), np.int32)
    frame, depth = view_of(plan.camera, plan.subject).project(places)
    upright = upright_places(frame[depth > NEAREST], side_turns(plan.camera))
    return np.round(np.clip(upright, -8.0, 8.0) * (width, height) - 0.5).astype(np.int32)
