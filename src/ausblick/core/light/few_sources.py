"""A lamp's face as a few small sources: how a body and its shadow are lit in pictures."""

from __future__ import annotations

from math import atan, cos, sin, sqrt

import numpy as np

from ..geometry.vectors import Floats
from .emitters import Face
from .quadrature import is_parallelogram, polygon_points

LOOKS = (0.03, 0.2, 0.45)
"""A face is one source, four, five, or nine: by its half diagonal over its distance."""
COUNTS = (1, 4, 5, 9)


def few_sources(face: Face, seen_from: Floats) -> tuple[Floats, Floats]:
    """Places (S, 3) that stand for a face as a place (3,) sees it, and their shares (S,) of its light."""
    if face.area == 0.0:
        return face.centre[None, :], np.ones(1)
    away = float(np.linalg.norm(face.centre - seen_from))
    looks = float(np.linalg.norm(face.outline - face.centre, axis=1).max()) / max(away, 1e-6)
    count = COUNTS[int(np.searchsorted(LOOKS, looks))]
    if len(face.outline) > 4:
        return _over_disc(face, count)
    if count in (4, 5) and is_parallelogram(face.outline):
        return _ring(face, count)
    places, areas = polygon_points(face.outline, round(sqrt(count)))
    return places, areas / face.area


def _ring(face: Face, count: int) -> tuple[Floats, Floats]:
    """Four places of equal weight on a ring, or five with one in the middle, turned so that across and up they lie in
    even steps: a shadow's border, which is upright or level mostly, shows as many (a grid of nine: three).

    Whatever is of third order over the face is summed as exactly as by Gauss's grid of four (Stroud, Approximate
    Calculation of Multiple Integrals, 1971, rule C2: 3-1, which holds at any turn of the ring).
    """
    middle = count - 4
    reach, turn = sqrt(2.0 / 3.0 * count / 4.0), atan(1.0 / (3.0 - middle))
    x, y = reach * cos(turn), reach * sin(turn)
    at = np.array([(x, y), (-y, x), (-x, -y), (y, -x), (0.0, 0.0)][:count])
    half = 0.5 * (face.outline[[1, 3]] - face.outline[0])
    return face.outline[0] + half.sum(axis=0) + at @ half, np.full(count, 1.0 / count)


def _over_disc(face: Face, count: int) -> tuple[Floats, Floats]:
    """Places of equal weight on a round face, along a sunflower's spiral (Vogel, 1979)."""
    i = np.arange(count) + 0.5
    r, turn = np.sqrt(face.area / np.pi * i / count), np.pi * (3.0 - np.sqrt(5.0)) * i
    if count == 1:
        r = np.zeros(1)
    places = face.centre + (r * np.cos(turn))[:, None] * face.right + (r * np.sin(turn))[:, None] * face.up
    return places, np.full(count, 1.0 / count)
