"""What stands in the light's way: flags, and the screen's own surfaces, as triangles."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..arrays import Bools, Floats, cross
from ..plan import Flag, Screen

NONE: Floats = np.zeros((0, 3, 3))
ON_WALL = 0.02
"""A surface this near to a wall or the floor replaces it and blocks nothing, m."""


def quad(corners: Sequence[Sequence[float]]) -> Floats:
    """Two triangles (2, 3, 3) for a four-cornered surface (4, 3), in m."""
    a, b, c, d = (np.array(p, dtype=float) for p in corners)
    return np.array([[a, b, c], [a, c, d]])


def flag_triangles(flags: Sequence[Flag]) -> Floats:
    return np.concatenate([NONE, *(quad(flag.corners) for flag in flags)])


def wing_triangles(screen: Screen) -> Floats:
    """The screen's returns: upright, along z from its side edges, as high as the screen."""
    low, high = screen.bottom, screen.bottom + screen.height
    sides = []
    for edge, length in (
        (screen.x_centre - screen.width / 2.0, screen.wing_left),
        (screen.x_centre + screen.width / 2.0, screen.wing_right),
    ):
        if length > 0.0:
            sides.append(quad([(edge, low, 0.0), (edge, low, length), (edge, high, length), (edge, high, 0.0)]))
    return np.concatenate([NONE, *sides])


def screen_triangles(screen: Screen) -> Floats:
    """The screen itself, for light on its way between front and back."""
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    low, high = screen.bottom, screen.bottom + screen.height
    return quad([(left, low, 0.0), (right, low, 0.0), (right, high, 0.0), (left, high, 0.0)])


def visible_share(points: Floats, sources: Floats, weights: Floats, occluders: Floats) -> Floats:
    """Share (P,) of the weighted source points that each point sees.

    points (P, 3); sources (1 or P, S, 3); weights (1 or P, S); occluders (T, 3, 3). Metres.
    """
    blocked = np.zeros((len(points), sources.shape[1]), dtype=bool)
    for triangle in occluders:
        if _between(points, sources.reshape(-1, 3), triangle):
            blocked |= _crosses(points, sources, triangle)
    total = np.broadcast_to(weights, blocked.shape).sum(axis=1)
    seen = np.where(blocked, 0.0, weights).sum(axis=1)
    return np.where(total > 0.0, seen / np.where(total > 0.0, total, 1.0), 1.0)


def _between(points: Floats, sources: Floats, triangle: Floats) -> bool:
    """Can the triangle be between them at all? Not when all lie on one side of its plane."""
    normal = cross(triangle[1] - triangle[0], triangle[2] - triangle[0])
    a, b = (points - triangle[0]) @ normal, (sources - triangle[0]) @ normal
    return bool(min(a.min(), b.min()) < 0.0 < max(a.max(), b.max()))


def _crosses(points: Floats, sources: Floats, triangle: Floats) -> Bools:
    """Does the stretch from each point to each source cross the triangle? (Moller and Trumbore, 1997)

    Touching an end does not count, so that a surface never shades itself.
    """
    way = sources - points[:, None, :]
    e1, e2 = triangle[1] - triangle[0], triangle[2] - triangle[0]
    p = cross(way, e2)
    det = p @ e1
    with np.errstate(divide="ignore", invalid="ignore"):
        inv = 1.0 / det
        t0 = points - triangle[0]
        u = np.einsum("psi,pi->ps", p, t0) * inv
        q = cross(t0, e1)
        v = np.einsum("psi,pi->ps", way, q) * inv
        t = (q @ e2)[:, None] * inv
        hit = (u >= 0.0) & (v >= 0.0) & (u + v <= 1.0) & (t > 1e-6) & (t < 1.0 - 1e-6)
    return np.asarray(hit & (np.abs(det) > 1e-12))
