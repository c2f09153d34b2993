"""The figures' shadow: how much of each lamp's light they keep off the screen and the floor.

 lamp    ( )  sphere, radius 0.12 m, at 0.965 x height     lost share of a place = weighted share
[====]   | |  upright capped cylinder, radius 0.22 m,      of the lamp's face that the figure hides
         |_|  up to 0.87 x height

Somebody seated has knees and a chair before that, a lower cylinder.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import chain

import numpy as np

from ..camera.screen_grid import Grid, parts_by_grid, places_of
from ..geometry.vectors import Bools, Floats, Ints, cross, unit
from ..plan import Light, Plan, Subject, people_of
from ..plan.people import SEAT
from .basis import BasisStore
from .emission import Emission, emission_of
from .every_other import every_other_first
from .face_samples import CELLS, face_cells
from .keys import blocking_key, lamp_keys, place_key, together
from .occlusion import Touched, before_wall, blocked_by, touching
from .solids import Ball, Pillar, Solid, Ways, hidden, near_enough, paired, ways

BODY_RADIUS, BODY_TOP = 0.22, 0.87
HEAD_RADIUS, HEAD_AT = 0.12, 0.965
SUN_AWAY = 1000.0
UP = np.array([0.0, 1.0, 0.0])
DRAWN = 36
"""Cells of a lamp's face for a shadow that is only looked at."""
MANY = 800
"""Places that a shadow may reach: of more, every other one is worked out first."""
CHUNK = 240
"""Places at a time: what is worked out of them and a lamp's cells stays in a core's own memory."""

LAP_RADIUS, LAP_TOP, LAP_AHEAD = 0.2, 0.12, 0.16
"""Knees and chair of somebody seated: radius and height over the seat in m, how far before the mark in shares of
stature: usual proportions."""
Figure = tuple[Pillar, Ball] | tuple[Pillar, Ball, Pillar]


def figure_of(subject: Subject) -> Figure:
    """Body and head of the figure that casts shadows, and its lap where it is seated."""
    x, z = subject.x, subject.z
    body = Pillar(x, z, BODY_RADIUS, subject.up(BODY_TOP))
    head = Ball(x, subject.up(HEAD_AT), z, HEAD_RADIUS)
    if subject.posture == "standing":
        return body, head
    return body, head, Pillar(x, z + LAP_AHEAD * subject.height, LAP_RADIUS, SEAT + LAP_TOP)


def figures_of(plan: Plan) -> tuple[Figure, ...]:
    """Of everybody in the picture, in one order whoever of them is the subject."""
    return tuple(sorted((figure_of(one) for one in people_of(plan)), key=_place))


def _place(figure: Figure) -> tuple[float, float, float]:
    body = figure[0]
    return body.x, body.z, body.top


def solids_of(figures: Iterable[Figure]) -> tuple[Solid, ...]:
    """All bodies and heads."""
    return tuple(chain.from_iterable(figures))


def hidden_by(solids: tuple[Solid, ...], starts: Floats, ends: Floats) -> Bools:
    """Which (K,) of the stretches from starts (K, 3) to ends (K, 3) meet any of the solids."""
    if not solids:
        return np.zeros(len(starts), dtype=bool)
    rays = paired(starts, ends)
    return np.asarray(np.any([hidden(solid, rays)[:, 0] > 0.5 for solid in solids], axis=0))


def lost_share(
    lamp: Emission, solids: tuple[Solid, ...], points: Floats, facing: Floats, occluders: Floats, most: int = CELLS
) -> Floats:
    """Share (P,) of a lamp's light that solids keep off points (P, 3) that face `facing`, (3,) or (P, 3); by about
    `most` cells of its face."""
    if lamp.normal_lux is not None:
        return hidden_by(solids, points, points - SUN_AWAY * lamp.face.axis).astype(float)
    return _lost_of(lamp, solids, points, facing, occluders, _touched(lamp, solids, points), most)


def _lost_of(
    lamp: Emission,
    solids: tuple[Solid, ...],
    points: Floats,
    facing: Floats,
    occluders: Floats,
    touched: Bools,
    most: int = CELLS,
) -> Floats:
    """The same of a lamp with a place, where it is known which places each solid may touch (N, P)."""
    lost, face = np.zeros(len(points)), lamp.face
    near = np.flatnonzero(touched.any(axis=0))
    lit = np.ones(len(near), dtype=bool)
    flags = touching(points[near], face.outline if face.area > 0.0 else face.centre[None, :], occluders)
    for one in flags:
        # Where a flag hides the whole lamp the figure has nothing left to take.
        lit[one.rows[one.wholly]] = False
    (chosen,) = np.nonzero(lit)
    for begin in range(0, len(chosen), CHUNK):
        some = chosen[begin : begin + CHUNK]
        place = np.full(len(near), -1)
        place[some] = np.arange(len(some))
        own = near[some]
        toward = facing if facing.ndim == 1 else facing[own]
        before = tuple(solid for solid, rows in zip(solids, touched, strict=True) if rows[own].any())
        lost[own] = _lost(lamp, before, points[own], toward, [one.among(place) for one in flags], most)
    return lost


def _touched(lamp: Emission, solids: tuple[Solid, ...], points: Floats) -> Bools:
    """Of each solid the places (N, P) from where some of a lamp may be behind it."""
    face = lamp.face
    reach = float(np.linalg.norm(face.outline - face.centre, axis=1).max()) if face.area > 0.0 else 0.0
    return near_enough(solids, points, face.centre, reach)


def strength_along(lamp: Emission, on: Ways, facing: Floats) -> Floats:
    """How much (P, S) each cell of a lamp's face gives to places that face `facing`, (3,) or (P, 3); of any unit."""
    way, facing = on.way, facing.astype(on.way.dtype)
    distance = np.maximum(np.sqrt(way[0] * way[0] + way[1] * way[1] + way[2] * way[2]), 1e-4)
    toward = (
        np.tensordot(facing, way, 1)
        if facing.ndim == 1
        else np.einsum("ips,ip->ps", way, np.ascontiguousarray(facing.T))
    )
    return np.asarray(lamp.candela(-way, distance) * np.clip(toward, 0.0, None) / (distance * distance * distance))


def _lost(
    lamp: Emission, solids: tuple[Solid, ...], places: Floats, facing: Floats, flags: Sequence[Touched], most: int
) -> Floats:
    cells, width = face_cells(lamp.face, most)
    on = ways(places, cells, width)
    strength = strength_along(lamp, on, facing)
    if flags:
        # What a flag hides already can't be lost a second time.
        strength[blocked_by(flags, places, cells)] = 0.0
    left = np.ones_like(strength)
    for solid in solids:
        left *= 1.0 - hidden(solid, on)
    total = strength.sum(axis=1, dtype=np.float64)
    lost = (strength * (1.0 - left)).sum(axis=1, dtype=np.float64)
    return np.where(total > 0.0, lost / np.maximum(total, 1e-300), 0.0)


def lost_by_lamp(plan: Plan, points: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Share (L, P) of each lamp's light that the plan's figures keep off points (P, 3); zero without a figure. As
    closely as a drawing shows it."""
    if plan.subject is None or not plan.lights:
        return np.zeros((len(plan.lights), len(points)))
    solids = solids_of(figures_of(plan))
    ground = together("lost", place_key(points, facing), solids, blocking_key(plan))
    occluders = before_wall(plan)

    def of(lamp: Light) -> Floats:
        return lost_share(emission_of(lamp, plan), solids, points, facing, occluders, DRAWN)

    return np.stack(store.each_lamp(plan, ground, of))


def lost_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """The same (L, H, W) on a surface of the screen."""
    return lost_maps_on(plan, [grid], store)[0]


def lost_maps_on(plan: Plan, grids: Sequence[Grid], store: BasisStore) -> list[Floats]:
    """On several surfaces at once."""
    if plan.subject is None or not plan.lights:
        return [np.zeros((len(plan.lights), *grid.shape)) for grid in grids]
    figures = figures_of(plan)
    solids = solids_of(figures)
    ground = [together("lost on", grid.key, solids, blocking_key(plan)) for grid in grids]

    def of(lamp: Light, key: Hashable) -> list[Floats]:
        def make() -> list[Floats]:
            _, facing = places_of(grids)
            points = np.concatenate([_beside_feet(figures, grid) for grid in grids])
            return parts_by_grid(
                _lost_on(emission_of(lamp, plan), solids, points, facing, before_wall(plan), grids), grids
            )

        return store.get_all([(each, key) for each in ground], make)

    by_lamp = [of(lamp, key) for lamp, key in zip(plan.lights, lamp_keys(plan), strict=True)]
    return [np.stack(maps) for maps in zip(*by_lamp, strict=True)]


def _lost_on(
    lamp: Emission,
    solids: tuple[Solid, ...],
    points: Floats,
    facing: Floats,
    occluders: Floats,
    grids: Sequence[Grid],
) -> Floats:
    """Share (P,) at all cells of some grids. The shadow of a lamp that is large and near is soft, and nearly
    everywhere."""
    if lamp.normal_lux is not None:
        return lost_share(lamp, solids, points, facing, occluders)
    touched = _touched(lamp, solids, points)
    if np.count_nonzero(touched) <= MANY:
        return _lost_of(lamp, solids, points, facing, occluders, touched)

    def at(rows: Ints) -> Floats:
        toward = facing if facing.ndim == 1 else facing[rows]
        return _lost_of(lamp, solids, points[rows], toward, occluders, touched[:, rows])

    return every_other_first(grids, at)


def _beside_feet(figures: Sequence[Figure], grid: Grid) -> Floats:
    """A surface's cells (P, 3), on the ground out of the feet's way."""
    points = grid.points()
    return out_of_feet(figures, points) if grid.sheet.name in ("curve", "floor run") else points


def out_of_feet(figures: Sequence[Figure], points: Floats) -> Floats:
    """Places (P, 3) of the ground, those under any body moved to its rim."""
    for figure in figures:
        points = out_of_foot(figure[0], points)
    return points


def out_of_foot(body: Pillar, points: Floats) -> Floats:
    """Places under the body moved to its rim: two feet stand there and not a solid, and between them it is about as
    dark as beside them."""
    away = points[:, [0, 2]] - (body.x, body.z)
    far = np.maximum(np.hypot(away[:, 0], away[:, 1]), 1e-6)
    inside = far < RIM * body.radius
    moved = points.copy()
    moved[inside, 0] = body.x + away[inside, 0] * RIM * body.radius / far[inside]
    moved[inside, 2] = body.z + away[inside, 1] * RIM * body.radius / far[inside]
    return moved


RIM = 1.05


SKY_RINGS, SKY_TURNS = 10, 24
SKY_FAR, SKY_NEAR = 6.0, 2.5
"""Light from all round comes this far, and the figure hides none of it beyond that distance from it, m."""


def hidden_round(plan: Plan, grid: Grid, store: BasisStore, within: float = SKY_NEAR) -> Floats:
    """Share (H, W) of light that comes from all round, evenly, that the figures hide from a surface: what makes the
    ground dark at their feet; `within` so many m of them. Directions in rings of equal cosine-weighted area."""
    figures = figures_of(plan)
    if not figures:
        return np.zeros(grid.shape)

    def make() -> Floats:
        points = grid.points()
        facing = np.broadcast_to(grid.facing(), points.shape)
        return (1.0 - left_of_round(figures, points, facing, within)).reshape(grid.shape)

    return store.get(("hidden round", grid.key, figures, within), make)


def left_of_round(figures: Sequence[Figure], points: Floats, facing: Floats, within: float) -> Floats:
    """Share (P,) of light from all round that figures leave to points (P, 3) that face `facing` (P, 3)."""
    # What two hide is nearly what each does: seldom is it the same part of the sky.
    return np.asarray(np.prod([1.0 - _from_round(figure, points, facing, within) for figure in figures], axis=0))


def _from_round(figure: Figure, places: Floats, facing: Floats, within: float) -> Floats:
    points, lost = out_of_foot(figure[0], places), np.zeros(len(places))
    near = np.hypot(points[:, 0] - figure[0].x, points[:, 2] - figure[0].z) < within
    for normal, alike in _by_facing(facing):
        (some,) = np.nonzero(near & alike)
        if len(figure) == 2 and normal[1] == 1.0 and not points[some, 1].any():
            lost[some] = _on_the_ground(figure, points[some])
            continue
        for begin in range(0, len(some), CHUNK):
            few = some[begin : begin + CHUNK]
            lost[few] = _hidden_sky(figure, points[few], normal)
    return lost


def _by_facing(facing: Floats) -> Iterator[tuple[Floats, Bools]]:
    """Each way (3,) that places face, and which (P,) of them do; most surfaces are flat, and not looked through."""
    if not len(facing):
        return
    if (facing == facing[0]).all():
        yield facing[0], np.ones(len(facing), dtype=bool)
        return
    normals, which = np.unique(facing, axis=0, return_inverse=True)
    for number, normal in enumerate(normals):
        yield normal, which.ravel() == number


ON_THE_GROUND = np.geomspace(BODY_RADIUS, SKY_FAR, 72)
"""How far from a figure, m, it is worked out what somebody who stands hides from the ground: on all sides alike, and
between them it is linear."""
SIDES = 4


def _on_the_ground(figure: Figure, places: Floats) -> Floats:
    """Share (P,) that a standing figure hides from level places (P, 3) at its feet's height."""
    body, head = figure[:2]
    away = np.hypot(places[:, 0] - body.x, places[:, 2] - body.z)
    return np.interp(away, ON_THE_GROUND, _by_distance(body.radius, body.top, head.y, head.radius))


@lru_cache(maxsize=32)
def _by_distance(radius: float, top: float, head_at: float, head_radius: float) -> Floats:
    figure = Pillar(0.0, 0.0, radius, top), Ball(0.0, head_at, 0.0, head_radius)
    turns = 2.0 * np.pi / SKY_TURNS * np.arange(SIDES) / SIDES
    away = np.stack([np.cos(turns), np.zeros(SIDES), np.sin(turns)], axis=1)
    places = (ON_THE_GROUND[:, None, None] * away).reshape(-1, 3)
    return np.asarray(_hidden_sky(figure, places, UP).reshape(-1, SIDES).mean(axis=1))


def _hidden_sky(figure: Figure, places: Floats, facing: Floats) -> Floats:
    rings, turns = (np.arange(SKY_RINGS) + 0.5) / SKY_RINGS, 2.0 * np.pi * (np.arange(SKY_TURNS) + 0.5) / SKY_TURNS
    r, turn = (v.ravel() for v in np.meshgrid(np.sqrt(rings), turns))
    aside = unit(cross(facing, np.array([0.0, 0.0, 1.0]) if abs(facing[2]) < 0.9 else np.array([0.0, 1.0, 0.0])))
    other = cross(facing, aside)
    ahead = np.sqrt(1.0 - r * r)
    way = r * np.cos(turn) * aside[:, None] + r * np.sin(turn) * other[:, None] + ahead * facing[:, None]
    begin = np.ascontiguousarray(places.T, dtype=np.float32)[:, :, None]
    rays = Ways(begin, SKY_FAR * way[:, None, :].astype(np.float32), SKY_FAR * float(np.sqrt(np.pi / len(r))))
    left = np.prod([1.0 - hidden(solid, rays) for solid in figure], axis=0)
    return np.asarray(1.0 - left.mean(axis=1))
