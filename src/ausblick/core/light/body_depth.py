"""What a small source sees of a body, as depth: so its shadow is cast, on itself and on the set.

A place is in shadow where something of the body lies nearer to the source (Williams, Casting curved shadows on curved
surfaces, SIGGRAPH 1978).
"""

from __future__ import annotations

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cached_property
from threading import Lock

import cv2
import numpy as np

from ..figure.solid_body import PARTS, BodyShape, SolidBody
from ..geometry.raster import depth_picture
from ..geometry.vectors import Floats, Floats32, Ints, Ints32, unit
from ..remembered.shelf import Shelf, remembered
from .solids import Ball, Pillar, Solid, near_enough

PICTURE, COARSER = 320, 160
"""Cells over the body's whole reach in its depth as a lamp sees it, and as one of many directions of the sky does."""
CLEAR = 1.1
"""Times the body's reach: from nearer a picture is as wide as what is seen asks for."""
WIDEST = 3.0
"""How far the widest picture reaches aside at a distance of one: farther, and the source looks all round."""
ALL_ROUND, NEAREST = 240, 0.02
"""Cells of a picture from near by over a width of two at a distance of one, each of six that look all round among
them; and what is too near for it, m."""
BEHIND = np.float32(1e-6)
"""What is no farther before a source than that, m, is not seen from it."""
SUN_FROM = 60.0
"""From where parallel light is looked along, m."""
NEARER = 0.008
"""A place is in the body's shadow where something lies so much nearer to the source, m."""
CASTER = {"head": 0.004, "hand": 0.004, "moving hand": 0.004}
COARSE = 0.018
"""The body casts its shadow as a mesh with corners no closer than that share of stature."""
SOFT = 0.03
"""A cell of a picture at the body is narrower than that, m."""


@dataclass(frozen=True, eq=False)
class _DepthSeen:
    """What a small source sees of a body: its axes (3, 3), how many cells its picture has over a width of one at a
    distance of one, and how far the body is along its axis in each cell (H, W), inf where there is nothing of it."""

    axes: Floats32
    fine: float
    depth: Floats32

    def lit(self, local: Floats32) -> Floats32:
        """Share (V,) of the source that reaches places (3, V) in its axes: soft over a cell."""
        (high, wide), distance = self.depth.shape, np.maximum(-local[2], BEHIND)
        scale = np.float32(self.fine) / distance
        x, y = local[0] * scale + np.float32(wide / 2.0 - 0.5), np.float32(high / 2.0 - 0.5) - local[1] * scale
        left, right, top, bottom = self.filled
        within = (distance > BEHIND) & (x > left - 1) & (x < right + 1) & (y > top - 1) & (y < bottom + 1)
        distance -= np.float32(NEARER)
        column, row = _cells(x, wide), _cells(y, high)
        within &= self.nearest.take(row * (wide - 1) + column) < distance
        # Most places have nothing before them in any of the four cells.
        rows = np.flatnonzero(within)
        found = np.ones(len(x), dtype=np.float32)
        found[rows] = _nearer(self.depth, x[rows], y[rows], distance[rows])
        return found

    @cached_property
    def filled(self) -> tuple[int, int, int, int]:
        """First and last column and row in which there is something of the body."""
        left, top, wide, high = cv2.boundingRect(np.isfinite(self.depth).view(np.uint8))
        return left, left + wide - 1, top, top + high - 1

    @cached_property
    def nearest(self) -> Floats32:
        """The nearest in each four cells (H - 1, W - 1)."""
        beside = np.minimum(self.depth[:, :-1], self.depth[:, 1:])
        return np.minimum(beside[:-1], beside[1:])


KEPT = 96
_SEEN: dict[int, Shelf[tuple[_DepthSeen, ...]]] = {PICTURE: Shelf(KEPT), COARSER: Shelf(64)}
"""By their cells: body, screen and floor ask for the shadow of the same sources; of the sky all are asked once. Some
20 and 2 MB, and a few more where a lamp is close."""
_LOOKING = Lock()


def look(body: SolidBody, sources: Floats, cells: int = PICTURE) -> None:
    """Makes the pictures of the body that sources (S, 3) are asked for next, two at a time: a library draws them.
    Who asks for the same meanwhile waits for them."""
    with _LOOKING:
        new = [source for source in sources if _SEEN[cells].known((body.key, source.tobytes())) is None]
        if new:
            _casting(body)
            with ThreadPoolExecutor(2) as both:
                list(both.map(lambda source: _seen_from(body, source, cells), new))


def within_reach(body: SolidBody, sources: Floats, places: Floats) -> Ints:
    """Places (R,) of some (P, 3) that a body may keep from any of the sources (S, 3) of one lamp."""
    middle = sources.mean(axis=0)
    half = float(np.linalg.norm(sources - middle, axis=1).max())
    return np.flatnonzero(near_enough(_casting(body).bounds, places, middle, half).all(axis=0))


def _seen_from(body: SolidBody, source: Floats, cells: int) -> tuple[_DepthSeen, ...]:
    return _SEEN[cells].get((body.key, source.tobytes()), lambda: _depth_seen(body, source, cells))


def lit(body: SolidBody, asked: Floats32, source: Floats, cells: int = PICTURE) -> Floats32:
    """Share (V,) of a small source that the body itself leaves to places (3, V)."""
    away = asked - source.astype(np.float32)[:, None]
    found = np.ones(asked.shape[1], dtype=np.float32)
    for one in _seen_from(body, source, cells):
        np.minimum(found, one.lit(one.axes @ away), out=found)
    return found


def _depth_seen(body: SolidBody, source: Floats, cells: int) -> tuple[_DepthSeen, ...]:
    """One picture, or from very near those of six ways in which there is something of the body."""
    caster = _casting(body)
    middle, radius, triangles = caster.middle, caster.radius, caster.toward(source)
    away = float(np.linalg.norm(source - middle))
    toward = caster.corners - source.astype(np.float32)
    axes = _axes(unit(source - middle)).astype(np.float32)
    local = toward @ axes.T
    wide, high = _slopes(local)
    if max(wide, high) > WIDEST:
        ways = (_axes(sign * one) for one in np.eye(3) for sign in (1.0, -1.0))
        looks = (_one_way(toward, triangles, axes.astype(np.float32), away + radius) for axes in ways)
        return tuple(one for one in looks if one is not None)
    # As fine at the body as a picture that just holds it, and no finer than that of one who looks all round.
    near = away < CLEAR * radius
    fine = 0.5 * ALL_ROUND if near else 0.5 * cells * float(np.sqrt(away * away - radius * radius)) / radius
    shape = 2 * math.ceil(fine * high) + 2, 2 * math.ceil(fine * wide) + 2
    return (
        _DepthSeen(axes, fine, _depth(local, triangles, shape, fine, (max(NEAREST, away - radius), away + radius))),
    )


def _slopes(local: Floats32) -> tuple[float, float]:
    """How far all corners (N, 3) reach aside and up at a distance of one; inf where some are not ahead."""
    ahead = -local[:, 2]
    if float(ahead.min()) < NEAREST:
        return np.inf, np.inf
    return float((np.abs(local[:, 0]) / ahead).max()), float((np.abs(local[:, 1]) / ahead).max())


def _one_way(toward: Floats32, triangles: Ints32, axes: Floats32, far: float) -> _DepthSeen | None:
    """What is seen a quarter of the way round; None where that is nothing of the body."""
    local = toward @ axes.T
    within = np.maximum(np.abs(local[:, 0]), np.abs(local[:, 1])) < -1.05 * local[:, 2]
    shown = triangles[within[triangles].any(axis=1) & (local[triangles, 2] < -NEAREST).all(axis=1)]
    if not len(shown):
        return None
    fine = 0.5 * ALL_ROUND
    return _DepthSeen(axes, fine, _depth(local, shown, (ALL_ROUND, ALL_ROUND), fine, (NEAREST, far)))


def _depth(
    local: Floats32, triangles: Ints32, shape: tuple[int, int], fine: float, span: tuple[float, float]
) -> Floats32:
    depth = depth_picture(np.asarray(local, dtype=np.float32), triangles, shape, 0.5 * shape[0] / fine, *span)
    # Where nothing of the body is seen nothing is in the way, however far.
    depth[depth > 0.999 * span[1]] = np.inf
    return depth


@dataclass(frozen=True, eq=False)
class _Casting:
    """The mesh that casts a body's shadow, where the body stands: corners (N, 3), triangles (T, 3), normals (T, 3) of
    no certain length and where along them the triangles lie (T,); its middle (3,), and how far it reaches from it,
    m."""

    corners: Floats32
    triangles: Ints32
    normals: Floats32
    along: Floats32
    middle: Floats
    radius: float

    @cached_property
    def bounds(self) -> tuple[Solid, ...]:
        """Ball and pillar that hold all of it, and as much more as a shadow's border is soft."""
        (x, y, z), flat = self.middle, (self.corners - self.middle)[:, [0, 2]]
        aside = float(np.linalg.norm(flat, axis=1).max())
        return Ball(x, y, z, self.radius + SOFT), Pillar(x, z, aside + SOFT, y + self.radius)

    def toward(self, source: Floats) -> Ints32:
        """Triangles that face a source: of a closed body none that it sees first faces away."""
        return self.triangles[self.normals @ source.astype(np.float32) > self.along]


_CASTING: Shelf[_Casting] = Shelf(8)


def _casting(body: SolidBody) -> _Casting:
    return _CASTING.get(body.key, lambda: _cast_by(body))


def _cast_by(body: SolidBody) -> _Casting:
    shares, triangles = _caster(body.shape)
    corners = body.mark.at(shares).astype(np.float32)
    middle = 0.5 * (corners.min(axis=0) + corners.max(axis=0)).astype(np.float64)
    a, b, c = (corners[triangles[:, i]] for i in range(3))
    normals = np.cross(b - a, c - a).astype(np.float32)
    along = np.einsum("ij,ij->i", normals, a).astype(np.float32)
    reach = float(np.linalg.norm(corners - middle, axis=1).max())
    return _Casting(corners, triangles, normals, along, middle, reach)


def _cells(at: Floats32, most: int) -> Ints:
    """The first (V,) of the two cells that places along a picture of `most` cells lie between."""
    return np.clip(at, 0.0, most - 2.0).astype(np.intp)


def _nearer(depth: Floats32, x: Floats32, y: Floats32, distance: Floats32) -> Floats32:
    """Share (V,) of the four cells round each place that are not nearer than `distance`, weighted by how near they
    are."""
    high, step = depth.shape
    column, row = _cells(x, step), _cells(y, high)
    fx, fy = (np.clip(at - first.astype(np.float32), 0.0, 1.0) for at, first in ((x, column), (y, row)))
    flat, at = depth.ravel(), row * step + column
    seen = [(flat.take(at + more) >= distance).astype(np.float32) for more in (0, 1, step, step + 1)]
    upper, lower = seen[0] + fx * (seen[1] - seen[0]), seen[2] + fx * (seen[3] - seen[2])
    return np.asarray(upper + fy * (lower - upper), dtype=np.float32)


def _axes(toward: Floats) -> Floats:
    """Rows right, up, and toward the eye."""
    right = np.cross([0.0, 1.0, 0.0] if abs(toward[1]) < 0.95 else [0.0, 0.0, 1.0], toward)
    right /= np.linalg.norm(right)
    return np.stack([right, np.cross(toward, right), toward])


@remembered(4)
def _caster(body: BodyShape) -> tuple[Floats, Ints32]:
    """A coarser mesh of the body (corners in shares of stature, triangles): corners in one cell become their mean."""
    size = np.array([CASTER.get(name, COARSE) for name in PARTS], dtype=np.float32)[body.part]
    cell = np.floor(body.own / size[:, None]).astype(np.int64) + 1024
    coded = (body.part.astype(np.int64) << 36) + (cell[:, 0] << 24) + (cell[:, 1] << 12) + cell[:, 2]
    _, which = np.unique(coded, return_inverse=True)
    count = np.bincount(which)
    corners = np.stack([np.bincount(which, weights=body.shares[:, i]) / count for i in range(3)], axis=1)
    triangles = which[body.triangles]
    kept = (triangles[:, 0] != triangles[:, 1]) & (triangles[:, 1] != triangles[:, 2])
    kept &= triangles[:, 0] != triangles[:, 2]
    return corners, triangles[kept].astype(np.int32)
