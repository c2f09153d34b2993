"""What stands in the light's way: flags, and the screen's own surfaces, as triangles."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..arrays import Bools, Floats, cross
from ..plan import Flag, Plan, Screen

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


def set_triangles(plan: Plan) -> Floats:
    """Everything that blocks light between two places in the set: flags, screen, wings (T, 3, 3).

    What lies on a wall or on the floor (as a floor run does) replaces that part of it, and walls and
    floor never block a lamp.
    """
    on_wall = plan.room.kind == "interior" and abs(plan.room.z_min) <= ON_WALL
    own = NONE if on_wall else screen_triangles(plan.screen)
    return np.concatenate([flag_triangles(plan.flags), own, wing_triangles(plan.screen)])


ON_PLANE = 1e-7
"""A place this near to a surface's plane lies in it, and the surface does not shade it, m."""


def visible_share(points: Floats, sources: Floats, weights: Floats, occluders: Floats) -> Floats:
    """Share (P,) of the weighted source points that each point sees.

    points (P, 3); sources (S, 3); weights (1 or P, S); occluders (T, 3, 3). Metres.
    """
    shape = (len(points), len(sources))
    blocked = np.zeros(shape, dtype=bool)
    for triangle in occluders:
        p, s = np.nonzero(opposite(points, sources, triangle) & ~blocked)
        if len(p):
            blocked[p, s] = _crosses(points[p], sources[s], triangle)
    if not blocked.any():
        return np.ones(len(points))
    total = np.broadcast_to(weights, shape).sum(axis=1)
    seen = np.where(blocked, 0.0, weights).sum(axis=1)
    return np.where(total > 0.0, seen / np.where(total > 0.0, total, 1.0), 1.0)


def between_any(points: Floats, sources: Floats, occluders: Floats) -> Bools:
    """Points (P,) that have the plane of some triangle between them and some source."""
    found = np.zeros(len(points), dtype=bool)
    for triangle in occluders:
        a, b = _height(points, triangle), _height(sources, triangle)
        found |= ((a > ON_PLANE) & (b.min() < -ON_PLANE)) | ((a < -ON_PLANE) & (b.max() > ON_PLANE))
    return found


def blocked_pairs(starts: Floats, ends: Floats, occluders: Floats) -> Bools:
    """Which (K,) of the stretches from starts (K, 3) to ends (K, 3) cross any of the triangles."""
    blocked = np.zeros(len(starts), dtype=bool)
    for triangle in occluders:
        a, b = _height(starts, triangle), _height(ends, triangle)
        (k,) = np.nonzero(_apart(a, b) & ~blocked)
        if len(k):
            blocked[k] = _crosses(starts[k], ends[k], triangle)
    return blocked


def opposite(points: Floats, sources: Floats, triangle: Floats) -> Bools:
    """Which pairs (P, S) of points (P, 3) and sources (S, 3) lie on different sides of the triangle's plane."""
    return _apart(_height(points, triangle)[:, None], _height(sources, triangle)[None, :])


def _height(points: Floats, triangle: Floats) -> Floats:
    normal = cross(triangle[1] - triangle[0], triangle[2] - triangle[0])
    length = float(np.linalg.norm(normal))
    return np.asarray((points - triangle[0]) @ (normal / max(length, 1e-300)))


def _apart(a: Floats, b: Floats) -> Bools:
    return np.asarray(((a > ON_PLANE) & (b < -ON_PLANE)) | ((a < -ON_PLANE) & (b > ON_PLANE)))


def _crosses(starts: Floats, ends: Floats, triangle: Floats) -> Bools:
    """Does each stretch (K, 3) to (K, 3) cross the triangle? (Moller and Trumbore, 1997)

    Touching an end does not count, so that a surface never shades itself.
    """
    way = ends - starts
    e1, e2 = triangle[1] - triangle[0], triangle[2] - triangle[0]
    p = cross(way, e2)
    det = p @ e1
    with np.errstate(divide="ignore", invalid="ignore"):
        inv = 1.0 / det
        t0 = starts - triangle[0]
        u = np.einsum("ki,ki->k", p, t0) * inv
        q = cross(t0, e1)
        v = np.einsum("ki,ki->k", way, q) * inv
        t = (q @ e2) * inv
        hit = (u >= 0.0) & (v >= 0.0) & (u + v <= 1.0) & (t > 1e-6) & (t < 1.0 - 1e-6)
    return np.asarray(hit & (np.abs(det) > 1e-12))
