"""What lamps and their stands keep off: each lamp's body in the light of the others, as simple solids.

A lamp with a face is a card as large as the face, a little behind it; a point is a ball. Both stand on a pole unless
they hang from the ceiling. Bodies shade the screen; they reflect nothing.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..camera.screen_grid import Grid, Sheet
from ..geometry.vectors import Floats, Floats32
from ..plan import Light, Plan
from .basis import BasisStore
from .emission import emission_of
from .figure_shadow import lost_share
from .keys import blocking_key, lamp_key, place_key
from .occlusion import NONE, before_wall, quad
from .solids import Ball, Pillar, Solid

BEHIND = 0.02
HEAD = 0.1
"""Radius of the head of a lamp without a face, m."""
POLE = 0.0175
"""Radius of a stand's pole, m."""
HANGS = 0.35
"""A lamp this near to the ceiling hangs from it, m."""


class LampBody:
    """`solids` block as they are; `card` (T, 3, 3) does within `bound`, the ball round it."""

    def __init__(self, plan: Plan, lamp: Light) -> None:
        face = emission_of(lamp, plan).face
        x, y, z = (float(v) for v in face.centre)
        self.card = NONE
        self.solids: tuple[Solid, ...] = (Ball(x, y, z, HEAD),)
        self.reach = HEAD
        if face.area > 0.0:
            flat = (face.outline - face.centre) @ np.stack([face.right, face.up]).T
            w, h = np.abs(flat).max(axis=0)
            back = face.centre - BEHIND * face.axis
            ends = [back + i * w * face.right + j * h * face.up for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
            self.card, self.reach, self.solids = quad(ends), float(np.hypot(w, h)), ()
        self.bound = Ball(x, y, z, self.reach)
        if y < plan.room.height - HANGS or plan.room.kind == "exterior":
            self.solids += (Pillar(x, z, POLE, y),)


def body_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Share (L, H, W) of each lamp's light on a surface of the screen that the other lamps' bodies keep off."""
    lost = np.zeros((len(plan.lights), *grid.shape))
    standing = [lamp for lamp in plan.lights if lamp.fixture.emitter.shape != "sun"]
    if len(standing) < 2:
        return lost
    bodies = {lamp.id: _body(plan, lamp, store) for lamp in standing}
    ground = ("bodies", grid.sheet, place_key(grid.x, grid.y), blocking_key(plan))
    for row, lamp in zip(lost, plan.lights, strict=True):
        if lamp.fixture.emitter.shape == "sun":
            others = standing
        else:
            hull = _hull(bodies[lamp.id], grid.sheet)
            others = [o for o in standing if o is not lamp and _reaches(hull, bodies[lamp.id], bodies[o.id])]
        if others:
            key = (*ground, lamp_key(plan, lamp), tuple(lamp_key(plan, other) for other in others))
            row[:] = store.get(key, lambda: _lost(plan, lamp, [bodies[o.id] for o in others], grid))  # noqa: B023
    return lost


def _body(plan: Plan, lamp: Light, store: BasisStore) -> LampBody:
    key = ("body", plan.room.height, plan.room.kind, lamp_key(plan, lamp))
    return store.record(key, lambda: LampBody(plan, lamp))


def _hull(own: LampBody, sheet: Sheet) -> Floats32:
    """Seen from above, all that lies between a lamp and a surface."""
    x, y = (v.ravel() for v in np.meshgrid(np.array(sheet.width), np.array(sheet.height)))
    flat = np.vstack([sheet.places(x, y)[:, [0, 2]], [[own.bound.x, own.bound.z]]])
    return np.asarray(cv2.convexHull(flat.astype(np.float32)), dtype=np.float32)


def _reaches(hull: Floats32, own: LampBody, other: LampBody) -> bool:
    inside = cv2.pointPolygonTest(hull, (other.bound.x, other.bound.z), True)
    return bool(inside > -(other.reach + own.reach))


def _lost(plan: Plan, lamp: Light, bodies: list[LampBody], grid: Grid) -> Floats:
    points, emission, flags = grid.points(), emission_of(lamp, plan), before_wall(plan)
    lost = np.zeros(len(points))
    solids = tuple(solid for body in bodies for solid in body.solids)
    cards = [(body.bound, body.card) for body in bodies if len(body.card)]
    for cells, facing in grid.facings():
        lost[cells] = lost_share(emission, solids, points[cells], facing, flags, cards)
    return lost.reshape(grid.shape)
