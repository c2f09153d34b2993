"""The figure's shadow: how much of each lamp's light it keeps off the screen and the floor.

 lamp    ( )  sphere, radius 0.12 m, at 0.965 x height     lost share of a place = weighted share
[====]   | |  upright capped cylinder, radius 0.22 m,      of the lamp's face that the figure hides
         |_|  up to 0.87 x height
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from ..geometry.vectors import Bools, Floats
from ..plan import Light, Plan, Subject
from .basis import BasisStore
from .emission import Emission, emission_of
from .keys import blocking_key, lamp_key, place_key
from .occlusion import blocked_grid, flag_triangles, wing_triangles

BODY_RADIUS, BODY_TOP = 0.22, 0.87
HEAD_RADIUS, HEAD_AT = 0.12, 0.965
SAMPLES = 144
"""Fibonacci lattice over a lamp's face: an edge across it is placed to about 1 %."""
SUN_AWAY = 1000.0
CHUNK = 2000


@dataclass(frozen=True)
class Figure:
    """Foot (x, z) in m and the heights of its two bodies."""

    x: float
    z: float
    top: float
    head: float


def figure_of(subject: Subject) -> Figure:
    return Figure(subject.x, subject.z, BODY_TOP * subject.height, HEAD_AT * subject.height)


def hidden_by(figure: Figure, starts: Floats, ends: Floats) -> Bools:
    """Which (K,) of the stretches from starts (K, 3) to ends (K, 3) meet the figure."""
    return _meets(figure, starts, (ends - starts).T)


def _meets(figure: Figure, starts: Floats, way: Floats) -> Bools:
    """Which stretches `way` (3, ...) from starts (K, 3) meet the figure; there may be many (3, K, S) from each."""
    x, y, z = (starts[:, axis].reshape(-1, *[1] * (way.ndim - 2)) for axis in range(3))
    fx, fz = x - figure.x, z - figure.z
    wx, wy, wz = way
    flat, along = wx * wx + wz * wz, fx * wx + fz * wz
    gap = fx * fx + fz * fz
    body = _meets_body(figure, y, wy, flat, along, gap)
    return body | _meets_head(figure, y - figure.head, wy, flat, along, gap)


def _meets_body(figure: Figure, y: Floats, wy: Floats, flat: Floats, along: Floats, gap: Floats) -> Bools:
    """An upright cylinder: `flat` the square of the way on the floor, `along` its part toward the axis, `gap` the
    square of the axis's distance from the start."""
    c = gap - BODY_RADIUS**2
    root = along * along - flat * c
    reach = np.sqrt(np.maximum(root, 0.0))
    safe = np.maximum(flat, 1e-12)
    upright = flat < 1e-12
    enter = np.where(upright, 0.0, np.clip((-along - reach) / safe, 0.0, 1.0))
    leave = np.where(upright, 1.0, np.clip((-along + reach) / safe, 0.0, 1.0))
    y0, y1 = y + enter * wy, y + leave * wy
    within = np.where(upright, c < 0.0, (root > 0.0) & (leave > enter))
    return np.asarray(within & (np.minimum(y0, y1) < figure.top) & (np.maximum(y0, y1) > 0.0))


def _meets_head(figure: Figure, fy: Floats, wy: Floats, flat: Floats, along: Floats, gap: Floats) -> Bools:
    """A sphere: the square of the way's least distance from its middle."""
    length2 = np.maximum(flat + wy * wy, 1e-12)
    toward = along + fy * wy
    nearest = np.clip(-toward / length2, 0.0, 1.0)
    return np.asarray(gap + fy * fy + nearest * (2.0 * toward + nearest * length2) < HEAD_RADIUS**2)


@cache
def _lattice() -> tuple[Floats, Floats]:
    i = np.arange(SAMPLES)
    return (i + 0.5) / SAMPLES, (i * 89.0 / SAMPLES + 0.5 / SAMPLES) % 1.0


def face_samples(lamp: Emission) -> Floats:
    """Places (S, 3) spread evenly over a lamp's face; one for a point."""
    face = lamp.face
    if face.area == 0.0:
        return face.centre[None, :]
    s, t = _lattice()
    if len(face.outline) == 4:
        a, b, d = face.outline[0], face.outline[1], face.outline[3]
        return np.asarray(a + s[:, None] * (b - a) + t[:, None] * (d - a))
    radius = np.sqrt(s * face.area / np.pi)
    turn = 2.0 * np.pi * t
    return np.asarray(
        face.centre + (radius * np.cos(turn))[:, None] * face.right + (radius * np.sin(turn))[:, None] * face.up
    )


def lost_share(lamp: Emission, figure: Figure, points: Floats, normal: Floats, occluders: Floats) -> Floats:
    """Share (P,) of a lamp's light that the figure keeps off points (P, 3) facing `normal` (3,)."""
    lost = np.zeros(len(points))
    if lamp.normal_lux is not None:
        return hidden_by(figure, points, points - SUN_AWAY * lamp.face.axis).astype(float)
    near = _candidates(lamp, figure, points)
    if not near.any():
        return lost
    samples, (chosen,) = face_samples(lamp), np.nonzero(near)
    for begin in range(0, len(chosen), CHUNK):
        some = chosen[begin : begin + CHUNK]
        lost[some] = _lost(lamp, figure, points[some], normal, samples, occluders)
    return lost


def _lost(
    lamp: Emission, figure: Figure, places: Floats, normal: Floats, samples: Floats, occluders: Floats
) -> Floats:
    away = places.T[:, :, None] - samples.T[:, None, :]
    distance = np.maximum(np.sqrt(away[0] * away[0] + away[1] * away[1] + away[2] * away[2]), 1e-4)
    facing = np.clip(-np.tensordot(normal, away, 1) / distance, 0.0, None)
    strength = lamp.candela(away, distance) * facing / distance**2
    if len(occluders):
        # What a flag hides already can't be lost a second time.
        strength[blocked_grid(places, samples, occluders)] = 0.0
    lost = np.where(_meets(figure, places, -away), strength, 0.0).sum(axis=1)
    total = strength.sum(axis=1)
    return np.where(total > 0.0, lost / np.maximum(total, 1e-300), 0.0)


def _candidates(lamp: Emission, figure: Figure, points: Floats) -> Bools:
    """Points whose line to the lamp passes the figure near enough to be touched by its shadow."""
    reach = BODY_RADIUS
    if lamp.face.area > 0.0:
        reach += float(np.linalg.norm(lamp.face.outline - lamp.face.centre, axis=1).max())
    way = (lamp.face.centre - points)[:, [0, 2]]
    to = np.array([figure.x, figure.z]) - points[:, [0, 2]]
    share = np.clip((to * way).sum(axis=1) / np.maximum((way * way).sum(axis=1), 1e-12), 0.0, 1.0)
    return np.asarray(np.linalg.norm(to - share[:, None] * way, axis=1) < reach)


def lost_by_lamp(plan: Plan, points: Floats, normal: Floats, store: BasisStore) -> Floats:
    """Share (L, P) of each lamp's light that the plan's figure keeps off; zero without a figure."""
    if plan.subject is None or not plan.lights:
        return np.zeros((len(plan.lights), len(points)))
    figure = figure_of(plan.subject)
    ground = ("lost", place_key(points, normal), figure, blocking_key(plan))
    occluders = np.concatenate([flag_triangles(plan.flags), wing_triangles(plan.screen)])

    def of(lamp: Light) -> Floats:
        def make() -> Floats:
            return lost_share(emission_of(lamp, plan), figure, points, normal, occluders)

        return store.get((*ground, lamp_key(plan, lamp)), make)

    return np.stack([of(lamp) for lamp in plan.lights])
