"""Places spread over a lamp's face, one in the middle of each of many like cells."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from ..geometry.vectors import Floats
from .emitters import Face

CELLS = 64
"""An edge of a shadow across the face is placed exactly where it lies along a row of cells, else to about 0.7 %."""
OF_A_DISC = 1.2
"""Cells of a disc are no squares: so many times as many across for the same exactness."""


def face_cells(face: Face, most: int = CELLS) -> tuple[Floats, float]:
    """Middles (S, 3) of cells of equal area, about as wide as high, and the width in m of one; a point is one place
    of no width."""
    if face.area == 0.0:
        return face.centre[None, :], 0.0
    if len(face.outline) == 4:
        a, b, d = face.outline[0], face.outline[1], face.outline[3]
        columns = min(most, max(1, round(math.sqrt(most * math.dist(a, b) / math.dist(a, d)))))
        rows = max(1, round(most / columns))
        s, t = _middles(columns, rows)
        return a + s * (b - a) + t * (d - a), math.sqrt(face.area / len(s))
    side = round(OF_A_DISC * math.sqrt(most))
    x, y = _of_a_disc(side)
    radius = math.sqrt(face.area / math.pi)
    return face.centre + radius * (x * face.right + y * face.up), math.sqrt(face.area / len(x))


def face_oblongs(face: Face, columns: int, rows: int) -> tuple[Floats, Floats]:
    """Middles (S, 3) of cells of a face and half their two sides (2, 3): of a panel so many side by side and above
    each other, of a disc about as many squares."""
    if len(face.outline) != 4:
        cells, width = face_cells(face, columns * rows)
        return cells, 0.5 * width * np.stack([face.right, face.up])
    a, b, d = face.outline[0], face.outline[1], face.outline[3]
    s, t = _middles(columns, rows)
    return a + s * (b - a) + t * (d - a), 0.5 * np.stack([(b - a) / columns, (d - a) / rows])


@lru_cache(maxsize=64)
def _middles(columns: int, rows: int) -> tuple[Floats, Floats]:
    """Of the cells of a square 0..1, (S, 1) each way."""
    s, t = np.meshgrid((np.arange(columns) + 0.5) / columns, (np.arange(rows) + 0.5) / rows)
    return s.reshape(-1, 1), t.reshape(-1, 1)


@lru_cache(maxsize=8)
def _of_a_disc(side: int) -> tuple[Floats, Floats]:
    s, t = _middles(side, side)
    return _on_disc(2.0 * s - 1.0, 2.0 * t - 1.0)


def _on_disc(x: Floats, y: Floats) -> tuple[Floats, Floats]:
    """A square -1..1 on the unit disc, equal areas to equal areas (Shirley and Chiu, J. Graphics Tools 1997)."""
    wide = np.abs(x) > np.abs(y)
    radius = np.where(wide, x, y)
    rest = np.where(wide, y, x) / np.where(radius == 0.0, 1.0, radius)
    turn = np.where(wide, 0.25 * math.pi * rest, math.pi / 2.0 - 0.25 * math.pi * rest)
    return radius * np.cos(turn), radius * np.sin(turn)
