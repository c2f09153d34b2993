"""What of a lamp's face cloths, flags and leaves hide from a point, in closed form.

      _______                    A flat piece hides what lies behind its plane and within the planes through
o - -|piece | - - [face]         the point and its edges: of a flat face that is one convex part, whose light is
      -------                    Lambert's contour. What two pieces hide is what each does less what both do.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations

import numpy as np

from ..geometry.vectors import Bools, Floats, Ints, over
from .factors import clipped, contour, seen_from
from .occlusion import ON_PLANE, Piece, Touched

MOST_AT_ONCE = 2
"""Pieces that are taken together; each one more doubles the parts."""
SEAM = 1e-6
"""Pieces that overlap by less than this share of an edge lie beside each other."""


def alike(found: Sequence[Touched], left: Bools) -> Iterator[tuple[list[Touched], Ints]]:
    """Points (rows) that are left (P,), by the pieces that are in their way; more than two are not told apart.

    Pieces that lie all beside each other are told one by one, as what each hides is no other's."""
    if all(beside(a.piece, b.piece) for a, b in combinations(found, 2)):
        yield from (([one], rows) for one in found if len(rows := one.rows[left[one.rows]]))
        return
    touched = np.zeros((len(found), len(left)), dtype=bool)
    for own, one in zip(touched, found, strict=True):
        own[one.rows] = True
    touched &= left
    count = touched.sum(axis=0)
    for own, one in zip(touched, found, strict=True):
        rows = np.flatnonzero(own & (count == 1))
        if len(rows):
            yield [one], rows
    both = np.flatnonzero(count == 2)
    if len(both):
        pairs = np.argsort(~touched[:, both], axis=0, kind="stable")[:2].T
        kinds, which = np.unique(pairs, axis=0, return_inverse=True)
        for number, (i, j) in enumerate(kinds):
            yield [found[i], found[j]], both[which.ravel() == number]
    many = np.flatnonzero(count > MOST_AT_ONCE)
    if len(many):
        yield list(found), many


def hidden_factors(front: Floats, points: Floats, normals: Floats, which: Sequence[Touched]) -> Floats:
    """Factors (K,) to elements at points (K, 3) with normals (K, 3) of what pieces hide of an outline (N, 3)."""
    to = seen_from(points, np.broadcast_to(front, (len(points), *front.shape)))
    n = np.ascontiguousarray(normals.T)
    horizon = over(to, n)
    if not (horizon > 0.0).all():
        to = clipped(to, horizon)
    hidden = np.zeros(len(points))
    for size in range(1, len(which) + 1):
        for some in combinations(which, size):
            if any(beside(a.piece, b.piece) for a, b in combinations(some, 2)):
                continue
            sides = [(piece, side) for piece in some for side in range(piece.sides)]
            hidden += (-1) ** (size + 1) * _behind(to, n, points, sides)
    return hidden


def beside(one: Piece, other: Piece) -> bool:
    """Do two pieces lie in one plane without overlapping, as the parts of a wall round a window? Then nothing is
    hidden by both of them."""
    corners = other.corners
    if np.abs(one.height(corners)).max() > ON_PLANE:
        return False
    u, v = one.within(corners)
    least = (u.min(), v.min()) if one.whole else ((u + v).min(),)
    return bool(min(u.max(), v.max()) <= SEAM or max(least) >= 1.0 - SEAM)


def _behind(to: Floats, n: Floats, points: Floats, sides: Sequence[tuple[Touched, int]]) -> Floats:
    """Factors (K,) of the part of outlines to (N, 3, K) that lies within all the sides of pieces, one at least."""
    for piece, side in sides[:-1]:
        to = clipped(to, piece.depth(side, points, to))
    piece, side = sides[-1]
    return contour(to, n, piece.depth(side, points, to))
