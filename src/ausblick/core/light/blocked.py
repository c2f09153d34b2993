"""Which stretches between many places and many others are blocked: plane by plane, as one block of each two sides.

What lies in one plane, as the parts of a wall round a window do, is met at the same place: that is worked out once.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..geometry.vectors import Bools, Floats, Ints
from .occlusion import ON_PLANE, Piece, pieces

AT_ONCE = 30_000
"""Stretches that are worked out in one array, which then stays in a core's own memory."""


@dataclass(frozen=True, eq=False)
class Flat:
    """Pieces in one plane, and what turns a place along the edges of the first into one along each other's."""

    first: Piece
    others: tuple[tuple[Piece, Floats, Floats], ...]

    def hit(self, s: Floats, t: Floats) -> Bools:
        """Do places along the first one's edges lie in any of them?"""
        found = _within(self.first, s, t)
        for piece, of_u, of_v in self.others:
            found |= _within(piece, _along(of_u, s, t), _along(of_v, s, t))
        return found


def blocked_grid(points: Floats, sources: Floats, occluders: Floats) -> Bools:
    """Which (P, S) of the stretches from points (P, 3) to sources (S, 3) cross any of the triangles (T, 3, 3)."""
    blocked = np.zeros((len(points), len(sources)), dtype=bool)
    for flat in _flats(occluders.tobytes()):
        a, b = flat.first.height(points), flat.first.height(sources)
        (u0, v0), (u1, v1) = flat.first.within(points), flat.first.within(sources)
        for rows, columns in _across(a, b):
            high, ends = b[columns], (u1[columns], v1[columns])
            for some in _chunks(rows, len(columns)):
                share = a[some, None] / (a[some, None] - high)
                begins = u0[some, None], v0[some, None]
                s, t = (begin + share * (end - begin) for begin, end in zip(begins, ends, strict=True))
                blocked[np.ix_(some, columns)] |= flat.hit(s, t)
    return blocked


def _across(a: Floats, b: Floats) -> Iterator[tuple[Ints, Ints]]:
    """Points (rows) and sources (columns) on different sides of a plane, by their heights a (P,) and b (S,)."""
    for side in (1.0, -1.0):
        rows, columns = np.flatnonzero(side * a > ON_PLANE), np.flatnonzero(side * b < -ON_PLANE)
        if len(rows) and len(columns):
            yield rows, columns


def _chunks(rows: Ints, columns: int) -> Iterator[Ints]:
    step = max(1, AT_ONCE // columns)
    for begin in range(0, len(rows), step):
        yield rows[begin : begin + step]


def _within(piece: Piece, s: Floats, t: Floats) -> Bools:
    found = (s >= 0.0) & (t >= 0.0)
    return np.asarray(found & ((s <= 1.0) & (t <= 1.0) if piece.whole else s + t <= 1.0))


def _along(of: Floats, s: Floats, t: Floats) -> Floats:
    """Begin, step along s and step along t (3,): edges that run alike need one of the two."""
    begin, by_s, by_t = of
    found = begin
    if by_s:
        found = found + by_s * s
    return np.asarray(found + by_t * t if by_t else found)


@lru_cache(maxsize=256)
def _flats(data: bytes) -> tuple[Flat, ...]:
    every = pieces(np.frombuffer(data).reshape(-1, 3, 3))
    groups: list[list[Piece]] = []
    for piece in every:
        for group in groups:
            if np.abs(group[0].height(piece.corners)).max() <= ON_PLANE:
                group.append(piece)
                break
        else:
            groups.append([piece])
    return tuple(Flat(first, tuple(_turned(first, other) for other in others)) for first, *others in groups)


def _turned(first: Piece, other: Piece) -> tuple[Piece, Floats, Floats]:
    at = np.array(other.within(first.corner))
    steps = np.array([[edge @ along for edge in first.edges] for along in (other.along_u, other.along_v)])
    steps[np.abs(steps) < 1e-12] = 0.0
    of_u, of_v = np.column_stack([at, steps])
    return other, of_u, of_v
