"""Configuration factors: which share of the light leaving a flat four-cornered patch arrives at an element.

    element, normal n          E = factor * exitance of the patch
      ^        _______
      |       / patch/         Lambert's contour formula, clipped to the element's horizon:
    --o--    /______/          factor = 1/2pi * sum(angle_i * n . unit(v_i x v_i+1))

Source: Lambert (Photometria, 1760); as configuration factor in Howell, A Catalog of Radiation Heat
Transfer Configuration Factors. Clipping matters: what lies below the horizon must not be subtracted.
"""

from __future__ import annotations

import math

import numpy as np

from ..geometry.vectors import Bools, Floats, Ints, crossed, dot, over, pairs_in

FAR = 5.0
"""Beyond this many half diagonals a patch counts as a point: at most 1.5 % off."""
CHUNK = 40_000
AT_ONCE = 60_000
"""Pairs that are worked out in arrays which stay in a core's own memory."""


def patch_factors(points: Floats, normals: Floats, corners: Floats, outward: Floats, areas: Floats) -> Floats:
    """Factors (P, Q) from patches to elements.

    points, normals (P, 3), unit length; corners (Q, 4, 3) counter-clockwise seen from the front,
    outward (Q, 3) unit normals, areas (Q,) in m2. Patches light only what is in front of them.
    """
    centres = corners.mean(axis=1)
    reach = np.linalg.norm(corners - centres[:, None, :], axis=2).max(axis=1)
    factors, near = np.empty((len(points), len(centres))), np.empty((len(points), len(centres)), dtype=bool)
    rows = max(1, AT_ONCE // max(1, len(centres)))
    for begin in range(0, len(points), rows):
        some = slice(begin, begin + rows)
        _as_points(points[some], normals[some], centres, outward, areas, reach, factors[some], near[some])
    p, q = pairs_in(near)
    # Axes before places: what a pair needs is then taken from short rows that stay in a core's own memory.
    at, facing, outlines = points.T.copy(), normals.T.copy(), corners.transpose(1, 2, 0).copy()
    for begin in range(0, len(p), CHUNK):
        a, b = p[begin : begin + CHUNK], q[begin : begin + CHUNK]
        to, n = outlines.take(b, axis=2), facing.take(a, axis=1)
        to -= at.take(a, axis=1)
        factors[a, b] = contour(to, n, over(to, n))
    return factors


def _as_points(
    points: Floats,
    normals: Floats,
    centres: Floats,
    outward: Floats,
    areas: Floats,
    reach: Floats,
    factors: Floats,
    near: Bools,
) -> None:
    """Puts into `factors` (P, Q) what patches of a `reach` (Q,) send as if each were a point, and into `near` (P, Q)
    which are too near for that."""
    # As products of matrices, offsets among them: no array of every way in three axes is made.
    one, ones = np.ones((len(points), 1)), np.ones((len(centres), 1))
    from_points = np.hstack([points, one, dot(points, points)[:, None]])
    r2 = from_points @ np.hstack([-2.0 * centres, dot(centres, centres)[:, None], ones]).T
    leaving = from_points[:, :4] @ np.hstack([outward, -dot(centres, outward)[:, None]]).T
    arriving = np.hstack([normals, -dot(points, normals)[:, None]]) @ np.hstack([centres, ones]).T
    near[:] = r2 < (FAR * reach) ** 2
    near &= leaving > 1e-9
    near &= arriving > -reach
    np.multiply(np.maximum(leaving, 0.0, out=leaving), np.maximum(arriving, 0.0, out=arriving), out=factors)
    np.maximum(r2, 1e-12, out=r2)
    factors /= np.multiply(r2, r2, out=r2)
    factors *= areas / math.pi


def contour_factors(points: Floats, normals: Floats, corners: Floats) -> Floats:
    """Factors (K,) of K elements, each with its own patch: points, normals (K, 3), corners (K, 4, 3).

    The caller sees to it that each element is in front of its patch.
    """
    to, n = seen_from(points, corners), np.ascontiguousarray(normals.T)
    return contour(to, n, over(to, n))


def seen_from(points: Floats, corners: Floats) -> Floats:
    """Ways (N, 3, K) from points (K, 3) to the corners (K, N, 3) of an outline each: axis before pairs, so that every
    array operation runs over the pairs."""
    return np.asarray(np.subtract(corners.transpose(1, 2, 0), np.ascontiguousarray(points.T), order="C"))


def clipped(to: Floats, heights: Floats) -> Floats:
    """Convex outlines to (N, 3, K) without what is below nought: (N + 1, 3, K), corners that are not needed lying on
    others, all on one where nothing is left. Heights (N, K) of the corners over any plane."""
    sides, inside = len(to), heights > 0.0
    count = inside.sum(axis=0)
    # Corners are counted from the first one inside: then those inside lie one after another.
    first = np.argmax(inside & ~np.roll(inside, 1, axis=0), axis=0)
    turn = (first + np.arange(sides)[:, None]) % sides
    to, heights = _corners(to, turn), _heights(heights, turn)
    leave = _crossing(to, heights, np.maximum(count - 1, 0), np.minimum(count, sides - 1))
    enter = _between(to[-1], to[0], heights[-1], heights[0])
    enter = np.where(count == 0, leave, enter)
    slot = np.arange(sides + 1)[:, None, None]
    kept = np.concatenate([to, to[-1:]])
    return np.asarray(np.where(slot < count, kept, np.where(slot == count, leave, enter)))


def _corners(to: Floats, which: Ints) -> Floats:
    """Of outlines to (N, 3, K) the corners `which` (..., K) of each: (..., 3, K)."""
    _, axes, pairs = to.shape
    return np.asarray(to.take((which * (axes * pairs))[..., None, :] + np.arange(axes * pairs).reshape(axes, pairs)))


def _heights(heights: Floats, which: Ints) -> Floats:
    """The same of their heights (N, K): (..., K)."""
    pairs = heights.shape[1]
    return np.asarray(heights.take(which * pairs + np.arange(pairs)))


def _crossing(to: Floats, heights: Floats, a: Ints, b: Ints) -> Floats:
    """Where (3, K) the side from corner a to corner b (K,) meets the plane."""
    return _between(_corners(to, a), _corners(to, b), _heights(heights, a), _heights(heights, b))


def _between(begin: Floats, end: Floats, ha: Floats, hb: Floats) -> Floats:
    """Where (3, K) a side meets the plane, by the heights (K,) of its ends."""
    step = ha - hb
    share = np.clip(ha / np.where(np.abs(step) < 1e-300, 1.0, step), 0.0, 1.0)
    return np.asarray(begin + share * (end - begin))


def contour(to: Floats, n: Floats, heights: Floats) -> Floats:
    """Factors (K,) to elements that face n (3, K) of the parts of outlines to (N, 3, K) whose heights (N, K) over any
    plane are not negative; those lie above the horizon."""
    above = heights.max(axis=0) > 0.0
    # Most outlines that are not all above the plane stand on it, as walls do on the floor.
    whole = above & (heights.min(axis=0) >= 0.0)
    if whole.all():
        return _of_whole(to, n)
    cut = above & ~whole
    if 4 * np.count_nonzero(cut) > 3 * len(cut):
        return _of_cut(to, n, heights)
    found = np.zeros(len(cut))
    own, open_ones = np.flatnonzero(whole), np.flatnonzero(cut)
    found[own] = _of_whole(to[:, :, own], n[:, own])
    found[open_ones] = _of_cut(to[:, :, open_ones], n[:, open_ones], heights[:, open_ones])
    return found


def _of_whole(to: Floats, n: Floats) -> Floats:
    total = sum(_edge(to[i - 1], to[i], n) for i in range(len(to)))
    return np.asarray(np.abs(total) / (2.0 * math.pi))


def _of_cut(to: Floats, n: Floats, heights: Floats) -> Floats:
    """Outlines that may lie across the plane: what it cuts open it closes itself."""
    total = np.zeros(to.shape[2])
    leave, enter = np.zeros(to.shape[1:]), np.zeros(to.shape[1:])
    for i in range(len(to)):
        j = (i + 1) % len(to)
        a, b, ha, hb = to[i], to[j], heights[i], heights[j]
        up_a, up_b = ha > 0.0, hb > 0.0
        step = ha - hb
        share = np.clip(ha / np.where(np.abs(step) < 1e-15, 1.0, step), 0.0, 1.0)
        crossing = a + share * (b - a)
        goes, comes = up_a & ~up_b, ~up_a & up_b
        leave, enter = np.where(goes, crossing, leave), np.where(comes, crossing, enter)
        a, b = np.where(comes, crossing, a), np.where(goes, crossing, b)
        total += np.where(up_a | up_b, _edge(a, b, n), 0.0)
    return np.asarray(np.abs(total + _edge(leave, enter, n)) / (2.0 * math.pi))


def _edge(a: Floats, b: Floats, n: Floats) -> Floats:
    """Angle between a and b times the height of their unit vector product; all (3, K)."""
    x, y, z = crossed(a, b)
    length = np.sqrt(x * x + y * y + z * z)
    angle = np.arctan2(length, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])
    return np.asarray(angle * (x * n[0] + y * n[1] + z * n[2]) / np.maximum(length, 1e-300))
