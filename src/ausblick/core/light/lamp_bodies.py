"""What lamps and their stands keep off: each lamp's body in the light of the others, as simple solids.

A lamp with a face is a card as large as the face, a little behind it; a point is a ball. Both stand on a pole unless
they hang from the ceiling. Bodies shade the screen; they reflect nothing.
"""

from __future__ import annotations

import math
from collections.abc import Hashable
from functools import partial

import cv2
import numpy as np

from ..camera.screen_grid import Grid, Sheet, sheets_of, usual_grid
from ..geometry.vectors import Floats, Floats32
from ..plan import Light, Plan
from .basis import BasisStore
from .emission import emission_of
from .figure_shadow import lost_share
from .keys import blocking_key, lamp_key
from .occlusion import NONE, quad
from .returned import linear_between
from .solids import Ball, Pillar, Solid

BEHIND = 0.02
HEAD = 0.1
"""Radius of the head of a lamp without a face, m."""
POLE = 0.0175
"""Radius of a stand's pole, m."""
AHEAD = 0.02
"""A body shades another lamp's light where it reaches this far before that lamp's face, m."""
CELLS = 16
"""Of a lamp's face, for what stands before it."""
HANGS = 0.35
"""A lamp this near to the ceiling hangs from it, m."""


class LampBody:
    """A lamp's `face`; `solids` block as they are; `card` (T, 3, 3) does within `bound`, the ball round it; `corners`
    (N, 3) span it all."""

    def __init__(self, plan: Plan, lamp: Light) -> None:
        self.face = face = emission_of(lamp, plan).face
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
        self.corners = np.vstack([self.card.reshape(-1, 3), face.centre[None, :]])
        if stands(plan, lamp):
            self.solids += (Pillar(x, z, POLE, y),)
            self.corners = np.vstack([self.corners, [[x, 0.0, z]]])


def stands(plan: Plan, lamp: Light) -> bool:
    """On a pole, and not from the ceiling or in the sky."""
    if lamp.fixture.emitter.shape == "sun":
        return False
    return lamp.position[1] < plan.room.height - HANGS or plan.room.kind == "exterior"


def pole_places(plan: Plan, lamp: Light) -> Floats:
    """Places (N, 3) in m along a lamp's pole; none where it hangs."""
    if not stands(plan, lamp):
        return np.zeros((0, 3))
    x, y, z = lamp.position
    return np.array([[x, share * y, z] for share in np.linspace(0.0, 0.95, 12)])


def body_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Share (L, H, W) of each lamp's light on a surface of the screen that the other lamps' bodies keep off."""
    ground = ("bodies", grid.key, blocking_key(plan))
    every = tuple(lamp_key(plan, lamp) for lamp in plan.lights)
    return store.get((*ground, every), lambda: _body_maps(plan, grid, ground, store))


def body_maps_at(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """The same on any other grid of a surface, read off the usual one: a pole's shadow is narrow."""
    sheet = next(sheet for sheet in sheets_of(plan.screen) if sheet.name == grid.sheet.name)
    fine = usual_grid(sheet)
    to_x, to_y = (linear_between(a, b, store) for a, b in ((fine.x, grid.x), (fine.y, grid.y)))
    return np.asarray(to_y @ body_maps(plan, fine, store) @ to_x.T)


def _body_maps(plan: Plan, grid: Grid, ground: tuple[Hashable, ...], store: BasisStore) -> Floats:
    left = np.ones((len(plan.lights), *grid.shape))
    standing = [lamp for lamp in plan.lights if lamp.fixture.emitter.shape != "sun"]
    for row, lamp in zip(left, plan.lights, strict=True):
        for other in _in_the_way(plan, grid.sheet, standing, lamp, store):
            # By pairs, so that a moved lamp costs its own and no other's.
            key = (*ground, lamp_key(plan, lamp), lamp_key(plan, other))
            row *= 1.0 - store.get(key, partial(_lost, plan, lamp, _body(plan, other, store), grid, store))
    return 1.0 - left


def _in_the_way(plan: Plan, sheet: Sheet, standing: list[Light], lamp: Light, store: BasisStore) -> list[Light]:
    """Lamps whose bodies may stand between a lamp and a surface."""
    if lamp.fixture.emitter.shape == "sun":
        return standing
    own, ground = lamp_key(plan, lamp), ("in the way", sheet, plan.room.height, plan.room.kind)

    def may(other: Light) -> bool:
        made = partial(_may, plan, sheet, lamp, other, store)
        return store.record((*ground, own, lamp_key(plan, other)), made)

    return [other for other in standing if other is not lamp and may(other)]


def _may(plan: Plan, sheet: Sheet, lamp: Light, other: Light, store: BasisStore) -> bool:
    """Does a body reach before a lamp's face, and in between as seen from above?"""
    own, body = _body(plan, lamp, store), _body(plan, other, store)
    face = own.face
    if face.area > 0.0 and float(((body.corners - face.centre) @ face.axis).max()) < AHEAD:
        return False
    hull = store.record(("hull", sheet, lamp_key(plan, lamp)), partial(_hull, own, sheet))
    inside = cv2.pointPolygonTest(hull, (body.bound.x, body.bound.z), True)
    return bool(inside > -(body.reach + own.reach))


def _body(plan: Plan, lamp: Light, store: BasisStore) -> LampBody:
    key = ("body", plan.room.height, plan.room.kind, lamp_key(plan, lamp))
    return store.record(key, lambda: LampBody(plan, lamp))


def _hull(own: LampBody, sheet: Sheet) -> Floats32:
    """Seen from above, all that lies between a lamp and a surface."""
    x, y = (v.ravel() for v in np.meshgrid(np.array(sheet.width), np.array(sheet.height)))
    flat = np.vstack([sheet.places(x, y)[:, [0, 2]], [[own.bound.x, own.bound.z]]])
    return np.asarray(cv2.convexHull(flat.astype(np.float32)), dtype=np.float32)


def _lost(plan: Plan, lamp: Light, body: LampBody, grid: Grid, store: BasisStore) -> Floats:
    """At every other cell, each standing for a spot of four; between them it is linear."""
    coarse = Grid(grid.x[::2], grid.y[::2], grid.sheet)
    emission = emission_of(lamp, plan)
    cards, spot = [(body.bound, body.card)] if len(body.card) else [], 2.0 * math.sqrt(grid.cell_area)
    lost = lost_share(emission, body.solids, coarse.points(), coarse.facing(), NONE, cards, spot, CELLS)
    to_x, to_y = (linear_between(a, b, store) for a, b in ((coarse.x, grid.x), (coarse.y, grid.y)))
    return np.asarray(to_y @ lost.reshape(coarse.shape) @ to_x.T)
