"""Points and areas that stand for a convex flat face in a sum: Gauss and Legendre on triangles."""

from __future__ import annotations

from functools import cache

import numpy as np

from ..geometry.vectors import Floats, cross, unit


@cache
def _unit_interval(order: int) -> tuple[Floats, Floats]:
    """Gauss's rule on 0..1 by the eigenvalues of Legendre's recurrence (Golub and Welsch, 1969)."""
    k = np.arange(1, order)
    nodes, ways = np.linalg.eigh(np.diag(k / np.sqrt(4.0 * k * k - 1.0), 1), UPLO="U")
    return 0.5 * (nodes + 1.0), ways[0] ** 2


FAR_RAYS, FAR_ORDER = 8, 6
"""Rays that a disc needs from afar: of light that nothing hides they leave out less than a thousandth."""


def polygon_points(polygon: Floats, order: int, open_view: bool = False) -> tuple[Floats, Floats]:
    """Points (S, 3) and areas (S,) over a convex polygon (N, 3); the areas sum to the polygon's. `open_view`: nothing
    hides any part of it, so that few will do from afar.

    The polygon is fanned into triangles, each mapped from the unit square (Duffy, 1982). A
    parallelogram is taken as it is, which needs fewer points.
    """
    if is_parallelogram(polygon):
        return _parallelogram(polygon, order)
    # Many-sided faces are covered by many triangles; each then needs fewer points.
    each = max(3, order // 2) if len(polygon) > 8 else order
    if len(polygon) > 8 and _even_sided(polygon):
        return _round(polygon, each, open_view and order <= FAR_ORDER)
    nodes, weights = _unit_interval(each)
    u, v = np.meshgrid(nodes, nodes, indexing="ij")
    w = np.outer(weights, weights) * u
    places, areas = [], []
    for i in range(1, len(polygon) - 1):
        a, b, c = polygon[0], polygon[i], polygon[i + 1]
        places.append((a + u[..., None] * (b - a) + (u * v)[..., None] * (c - b)).reshape(-1, 3))
        areas.append((w * float(np.linalg.norm(cross(b - a, c - a)))).ravel())
    return np.concatenate(places), np.concatenate(areas)


def is_parallelogram(polygon: Floats) -> bool:
    """Has a polygon (N, 3) four corners, and opposite ones the same middle?"""
    return len(polygon) == 4 and bool(np.abs(polygon[0] + polygon[2] - polygon[1] - polygon[3]).max() < 1e-9)


def _even_sided(polygon: Floats) -> bool:
    sides = np.linalg.norm(np.roll(polygon, -1, axis=0) - polygon, axis=1)
    return bool(sides.max() < 1.5 * sides.min())


def _round(polygon: Floats, order: int, few: bool) -> tuple[Floats, Floats]:
    """A disc's outline: Gauss's rule outward from its middle, one ray through the middle of each side (`few`: of
    several together), as long as the sector of a circle that has their area. Round a circle equal steps converge as
    fast as Gauss's rule does outward (Davis and Rabinowitz, Methods of Numerical Integration, 1984, 2.9)."""
    nodes, weights = _unit_interval(order)
    middle = polygon.mean(axis=0)
    a, b = polygon - middle, np.roll(polygon, -1, axis=0) - middle
    doubled = np.linalg.norm(cross(a, b), axis=1)
    angles, ways = np.arctan2(doubled, (a * b).sum(axis=1)), unit(a + b)
    if few and len(polygon) % FAR_RAYS == 0:
        doubled, angles = (each.reshape(FAR_RAYS, -1).sum(axis=1) for each in (doubled, angles))
        ways = unit(ways.reshape(FAR_RAYS, -1, 3).sum(axis=1))
    rays = ways * np.sqrt(doubled / angles)[:, None]
    places = middle + nodes[:, None, None] * rays
    areas = (2.0 * weights * nodes)[:, None] * (0.5 * doubled)
    return places.reshape(-1, 3), areas.ravel()


def _parallelogram(polygon: Floats, order: int) -> tuple[Floats, Floats]:
    nodes, weights = _unit_interval(order)
    u, v = np.meshgrid(nodes, nodes, indexing="ij")
    side, other = polygon[1] - polygon[0], polygon[3] - polygon[0]
    places = polygon[0] + u[..., None] * side + v[..., None] * other
    areas = np.outer(weights, weights) * float(np.linalg.norm(cross(side, other)))
    return places.reshape(-1, 3), areas.ravel()
