"""Single hairs round the head: a strand thinner than a pixel covers 1 - exp(-density)."""

from __future__ import annotations

import numpy as np

from ..figure.loose_strands import strands
from ..geometry.vectors import Floats, Floats32
from ..plan import Subject
from ..remembered.shelf import remembered
from .drawn_place import DrawnPlace

STEP, LEAST_STEPS, MOST_STEPS = 1.2, 14, 800
"""Places along a strand, of its px: with fewer it would be a row of dots."""
ALIKE = 6
"""Strands are drawn in so many parts, each as finely as its longest needs."""


def loose_hair(subject: Subject, place: DrawnPlace, seed: int) -> Floats32:
    """Cover (H, W) of the strands of a figure, the same for the same seed."""
    return _drawn(place, subject.body, subject.hair_kind, subject.height, seed)


@remembered(12)
def _drawn(place: DrawnPlace, build: str, kind: str, height: float, seed: int) -> Floats32:
    found = strands(build, kind, seed)
    points = found.points
    lengths = np.linalg.norm(np.diff(points, axis=1), axis=2).sum(axis=1) * place.px_per_height
    density = np.zeros(place.shape)
    for some in np.array_split(np.argsort(lengths), ALIKE):
        if len(some):
            at, each = _along(points[some], lengths[some], found.width / height * place.px_per_height)
            density += _splat(at.reshape(-1, 2) @ place.matrix.T + place.foot - 0.5, each, place.shape)
    return np.asarray(1.0 - np.exp(-density), dtype=np.float32)


def _along(points: Floats, lengths: Floats, width: float) -> tuple[Floats, Floats]:
    """Places (S, steps, 2) along strands (S, P, 2) of about one length (S,) in px, and what each of them weighs."""
    steps = int(np.clip(STEP * lengths.max(), LEAST_STEPS, MOST_STEPS))
    t = np.linspace(0.0, points.shape[1] - 1.0, steps)
    i = np.minimum(t.astype(int), points.shape[1] - 2)
    f = (t - i)[None, :, None]
    return points[:, i] * (1.0 - f) + points[:, i + 1] * f, np.repeat(width * lengths / steps, steps)


def _splat(at: Floats, weights: Floats, shape: tuple[int, int]) -> Floats:
    """Weights (K,) at places (K, 2) in px shared among the four nearest pixels (H, W)."""
    rows, columns = shape
    inside = (at[:, 0] > -1) & (at[:, 1] > -1) & (at[:, 0] < columns) & (at[:, 1] < rows)
    x, y, weights = at[inside, 0] + 1.0, at[inside, 1] + 1.0, weights[inside]
    if not len(x):
        return np.zeros(shape)
    left, top = int(x.min()), int(y.min())
    high, wide = int(y.max()) - top + 2, int(x.max()) - left + 2
    column, row = x.astype(int), y.astype(int)
    x, y = x - column, y - row
    place = (row - top) * wide + column - left
    part = np.zeros(high * wide)
    for more, share in ((0, (1.0 - x) * (1.0 - y)), (1, x * (1.0 - y)), (wide, (1.0 - x) * y), (wide + 1, x * y)):
        part += np.bincount(place + more, weights=share * weights, minlength=len(part))
    total = np.zeros((rows + 3, columns + 3))
    total[top : top + high, left : left + wide] = part.reshape(high, wide)
    return total[1 : rows + 1, 1 : columns + 1]
