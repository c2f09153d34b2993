"""How much of each lamp's light the other lamps' bodies keep off the screen.

By pairs of a lamp and a body in its way, each remembered for itself, so that a moved lamp costs its own pairs and no
other's; those of one lamp are worked out together, on all surfaces at once.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache, partial

import cv2
import numpy as np

from ..camera.screen_grid import Grid, Sheet, sheets_of, usual_grid
from ..geometry.vectors import Floats, Floats32, Ints
from ..plan import Light, Plan
from .basis import BasisStore
from .emission import Emission, emission_of
from .face_samples import face_oblongs
from .figure_shadow import SUN_AWAY, hidden_by, strength_along
from .keys import StoreKey, blocking_key, lamp_key, lamp_keys, together
from .lamp_bodies import LampBody, body_of
from .occlusion import Touched, blocked_pairs, covered_by_piece, touching
from .returned import linear_between
from .solids import Ball, Pillar, Solid, hidden, hidden_by_each, near_enough, ways

AHEAD = 0.02
"""A body shades another lamp's light where it reaches this far before that lamp's face, m."""
FOR_POLES, FOR_CARDS = (10, 2), (6, 3)
"""Columns and rows of a lamp's face: a pole's shadow is narrow, and the same all the way up."""


def body_maps(plan: Plan, grids: Sequence[Grid], store: BasisStore) -> tuple[Floats, ...]:
    """Share (L, H, W) of each lamp's light on each of the surfaces that the other lamps' bodies keep off."""
    if not plan.lights:
        return tuple(np.zeros((0, *grid.shape)) for grid in grids)
    ground = ("bodies", tuple(grid.key for grid in grids), blocking_key(plan))
    every = lamp_keys(plan)
    return store.record((*ground, every), lambda: _body_maps(plan, grids, store))


def body_maps_at(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """The same on any other grid of a surface, read off the usual one: a pole's shadow is narrow."""
    sheet = next(sheet for sheet in sheets_of(plan.screen) if sheet.name == grid.sheet.name)
    fine = usual_grid(sheet)
    to_x, to_y = (linear_between(a, b, store) for a, b in ((fine.x, grid.x), (fine.y, grid.y)))
    (maps,) = body_maps(plan, [fine], store)
    return np.asarray(to_y @ maps @ to_x.T)


def _body_maps(plan: Plan, grids: Sequence[Grid], store: BasisStore) -> tuple[Floats, ...]:
    left = [np.ones((len(plan.lights), *grid.shape)) for grid in grids]
    standing = [lamp for lamp in plan.lights if not lamp.is_daylight]
    ground = together("shade", tuple(grid.key for grid in grids), blocking_key(plan))
    for i, lamp in enumerate(plan.lights):
        others = [other for other in standing if other is not lamp]
        for shares in _lost_to_each(plan, lamp, others, ground, grids, store):
            for rows, lost in zip(left, shares, strict=True):
                if lost is not None:
                    rows[i] *= 1.0 - lost
    made = tuple(1.0 - rows for rows in left)
    for maps in made:
        maps.setflags(write=False)
    return made


def _may(own: LampBody, hull: Floats32, body: LampBody) -> bool:
    """Does a body reach before a lamp's face, and in between as seen from above?"""
    face = own.face
    if face.area > 0.0 and float(((body.corners - face.centre) @ face.axis).max()) < AHEAD:
        return False
    inside = cv2.pointPolygonTest(hull, (body.bound.x, body.bound.z), True)
    return bool(inside > -(body.reach + own.reach))


def _hull(own: LampBody, grids: Sequence[Grid]) -> Floats32:
    """Seen from above, all that lies between a lamp and the surfaces."""
    flat = np.vstack([_from_above(tuple(grid.sheet for grid in grids)), [[own.bound.x, own.bound.z]]])
    return np.asarray(cv2.convexHull(flat.astype(np.float32)), dtype=np.float32)


@lru_cache(maxsize=16)
def _from_above(sheets: tuple[Sheet, ...]) -> Floats:
    """The hull (N, 2) of surfaces, x and z in m."""
    flat = np.vstack([sheet.outline()[:, [0, 2]] for sheet in sheets])
    return np.asarray(cv2.convexHull(flat.astype(np.float32))[:, 0], dtype=float)


Shares = tuple[Floats | None, ...]
"""Of each surface the share (H, W) that is kept off; None where nothing is."""


def _lost_to_each(
    plan: Plan, lamp: Light, others: list[Light], ground: StoreKey, grids: Sequence[Grid], store: BasisStore
) -> list[Shares]:
    """What each of the other lamps' bodies keeps off a lamp's light."""
    own = together(ground, lamp_key(plan, lamp))
    keys = {other.id: (own, lamp_key(plan, other)) for other in others}
    known = {other.id: store.known_record(keys[other.id]) for other in others}
    fresh = {other.id: body_of(plan, other, store) for other in others if known[other.id] is None}
    if fresh:
        made = _fresh(plan, lamp, fresh, grids, store)
        for name, shares in made.items():
            known[name] = store.record(keys[name], partial(tuple, shares))
    return [known[other.id] for other in others]


def _fresh(
    plan: Plan, lamp: Light, bodies: dict[str, LampBody], grids: Sequence[Grid], store: BasisStore
) -> dict[str, Shares]:
    """What bodies, by their lamps' names, keep off a lamp's light; those that can't stand in its way nothing."""
    in_the_way = bodies
    if lamp.fixture.emitter.shape != "sun":
        own = body_of(plan, lamp, store)
        hull = _hull(own, grids)
        in_the_way = {name: body for name, body in bodies.items() if _may(own, hull, body)}
    nothing: Shares = (None,) * len(grids)
    found = dict.fromkeys(bodies, nothing)
    if in_the_way:
        made = _made(emission_of(lamp, plan), list(in_the_way.values()), grids, store)
        found |= dict(zip(in_the_way, made, strict=True))
    return found


@dataclass(frozen=True, eq=False)
class Spots:
    """Places (P, 3) of several surfaces one after another, their normals (P, 3), and the width (P,) of the spot that
    each stands for, m."""

    points: Floats
    facing: Floats
    width: Floats


@lru_cache(maxsize=16)
def _coarse(sheets: tuple[Sheet, ...]) -> tuple[tuple[Grid, ...], Spots]:
    """Every other cell of surfaces, each standing for a spot of four."""
    fine = [usual_grid(sheet) for sheet in sheets]
    coarse = tuple(Grid(grid.x[::2], grid.y[::2], grid.sheet) for grid in fine)
    points = [grid.points() for grid in coarse]
    return coarse, Spots(
        np.concatenate(points),
        np.concatenate([np.broadcast_to(g.facing(), p.shape) for g, p in zip(coarse, points, strict=True)]),
        np.concatenate([np.full(len(p), 2.0 * math.sqrt(g.cell_area)) for g, p in zip(fine, points, strict=True)]),
    )


def _made(lamp: Emission, bodies: list[LampBody], grids: Sequence[Grid], store: BasisStore) -> list[Shares]:
    """At every other cell; between them it is linear."""
    coarse, spots = _coarse(tuple(grid.sheet for grid in grids))
    lost = _from_the_sun(lamp, bodies, spots) if lamp.normal_lux is not None else _from_a_lamp(lamp, bodies, spots)
    ends = np.cumsum([len(grid.x) * len(grid.y) for grid in coarse])[:-1]
    by_grid = [
        _between(part.reshape(-1, *few.shape), few, grid, store)
        for part, few, grid in zip(np.split(lost, ends, axis=1), coarse, grids, strict=True)
    ]
    return [tuple(shares[i] for shares in by_grid) for i in range(len(bodies))]


def _between(lost: Floats, coarse: Grid, grid: Grid, store: BasisStore) -> list[Floats | None]:
    to_x, to_y = (linear_between(a, b, store) for a, b in ((coarse.x, grid.x), (coarse.y, grid.y)))
    return [np.asarray(to_y @ one @ to_x.T) if one.any() else None for one in lost]


def _from_the_sun(lamp: Emission, bodies: list[LampBody], spots: Spots) -> Floats:
    far = spots.points - SUN_AWAY * lamp.face.axis
    hit = [hidden_by(body.solids, spots.points, far) | blocked_pairs(spots.points, far, body.card) for body in bodies]
    return np.array(hit, dtype=float).reshape(len(bodies), len(spots.points))


def _from_a_lamp(lamp: Emission, bodies: list[LampBody], spots: Spots) -> Floats:
    """Share (B, P) of a lamp's light that each body keeps off: by its card, its head and its pole as if each took
    from what the others leave."""
    left = np.ones((len(bodies), len(spots.points)))
    solids, cards = _near(lamp, bodies, spots)
    for i, own, hid in _behind_solids(lamp, solids, spots):
        left[i, own] *= 1.0 - hid
    for i, card, own in cards:
        left[i, own] *= 1.0 - _behind_card(lamp, card, spots.points[own], spots.facing[own])
    return 1.0 - left


Near = tuple[int, Solid, Ints]
"""Which body a solid is of, and the places (rows) whose light it may touch."""
NearCard = tuple[int, Touched, Ints]


def _behind_solids(lamp: Emission, near: Sequence[Near], spots: Spots) -> Iterator[tuple[int, Ints, Floats]]:
    """Share (R,) of a lamp's light that each solid of a body keeps off its own places; poles together."""
    if not near:
        return
    touched = np.zeros(len(spots.points), dtype=bool)
    for _, _, own in near:
        touched[own] = True
    (rows,) = np.nonzero(touched)
    at = np.cumsum(touched) - 1
    cells, half = face_oblongs(lamp.face, *FOR_POLES)
    width = 2.0 * float(np.linalg.norm(half[0]))
    on = ways(spots.points[rows], cells, width, spots.width[rows, None])
    strength = strength_along(lamp, on, spots.facing[rows])
    strength /= np.maximum(strength.sum(axis=1), 1e-30)[:, None]
    poles = [(i, pole, own) for i, pole, own in near if isinstance(pole, Pillar)]
    behind = hidden_by_each([pole for _, pole, _ in poles], on, [at[own] for _, _, own in poles])
    for (i, _, own), hid in zip(poles, behind, strict=True):
        yield i, own, np.einsum("rs,rs->r", strength[at[own]], hid)
    for i, ball, own in near:
        if isinstance(ball, Ball):
            yield i, own, np.einsum("rs,rs->r", strength[at[own]], hidden(ball, on.of(at[own])))


def _behind_card(lamp: Emission, card: Touched, points: Floats, facing: Floats) -> Floats:
    """Share (R,) of a lamp's light that a card keeps off points (R, 3)."""
    share = card.wholly.astype(float)
    rows = np.flatnonzero(~card.wholly)
    if len(rows):
        cells, half = face_oblongs(lamp.face, *FOR_CARDS)
        strength = strength_along(lamp, ways(points[rows], cells, 0.0), facing[rows])
        behind = covered_by_piece(card.piece, points[rows], cells, half)
        share[rows] = (strength * behind).sum(axis=1) / np.maximum(strength.sum(axis=1), 1e-30)
    return share


def _near(lamp: Emission, bodies: list[LampBody], spots: Spots) -> tuple[list[Near], list[NearCard]]:
    """Solids and cards of bodies (by their place among them) and the places (rows) whose light each may touch."""
    face = lamp.face
    flat = face.outline if face.area > 0.0 else face.centre[None, :]
    reach = float(np.linalg.norm(flat - face.centre, axis=1).max())
    parts = [(i, bound) for i, body in enumerate(bodies) for bound in body.bounds]
    by = near_enough([bound for _, bound in parts], spots.points, face.centre, reach, spots.width)
    solids: list[Near] = []
    cards: list[NearCard] = []
    for (i, bound), touched in zip(parts, by, strict=True):
        (own,) = np.nonzero(touched)
        card = bodies[i].card
        if len(own) and len(card) and bound is bodies[i].bound:
            # Its ball is larger than a card seen from its edge.
            cards += [(i, one, own[one.rows]) for one in touching(spots.points[own], flat, card)]
        elif len(own):
            solids.append((i, bound, own))
    return solids, cards
