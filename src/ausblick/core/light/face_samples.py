"""Places spread over a lamp's face, one in the middle of each of many like cells."""

from __future__ import annotations

import math

import numpy as np

from ..geometry.vectors import Floats
from .emitters import Face

CELLS = 100
"""An edge of a shadow across the face is placed exactly where it lies along a row of cells, else to about 0.5 %."""
OF_A_DISC = 1.2
"""Cells of a disc are no squares: so many times as many across for the same exactness."""


def face_cells(face: Face, most: int = CELLS) -> tuple[Floats, float]:
    """Middles (S, 3) of cells of equal area, about as wide as high, and the width in m of one; a point is one place
    of no width."""
    if face.area == 0.0:
        return face.centre[None, :], 0.0
    if len(face.outline) == 4:
        a, b, d = face.outline[0], face.outline[1], face.outline[3]
        wide, high = float(np.linalg.norm(b - a)), float(np.linalg.norm(d - a))
        columns = min(most, max(1, round(math.sqrt(most * wide / high))))
        rows = max(1, round(most / columns))
        s, t = (v.ravel() for v in np.meshgrid(_middles(columns), _middles(rows)))
        return a + s[:, None] * (b - a) + t[:, None] * (d - a), math.sqrt(face.area / len(s))
    side = round(OF_A_DISC * math.sqrt(most))
    x, y = _on_disc(*(v.ravel() for v in np.meshgrid(2.0 * _middles(side) - 1.0, 2.0 * _middles(side) - 1.0)))
    radius = math.sqrt(face.area / math.pi)
    return face.centre + radius * (x[:, None] * face.right + y[:, None] * face.up), math.sqrt(face.area / len(x))


def _middles(count: int) -> Floats:
    return np.asarray((np.arange(count) + 0.5) / count)


def _on_disc(x: Floats, y: Floats) -> tuple[Floats, Floats]:
    """A square -1..1 on the unit disc, equal areas to equal areas (Shirley and Chiu, J. Graphics Tools 1997)."""
    wide = np.abs(x) > np.abs(y)
    radius = np.where(wide, x, y)
    rest = np.where(wide, y, x) / np.where(radius == 0.0, 1.0, radius)
    turn = np.where(wide, 0.25 * math.pi * rest, math.pi / 2.0 - 0.25 * math.pi * rest)
    return radius * np.cos(turn), radius * np.sin(turn)
