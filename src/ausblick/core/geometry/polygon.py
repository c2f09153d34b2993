"""Small polygon work shared by optics and light: clipping and densifying."""

from __future__ import annotations

import numpy as np

from .vectors import Floats


def clip_half_plane(polygon: Floats, normal: Floats, offset: float) -> Floats:
    """The part of a convex polygon (N, D) where normal . p >= offset (Sutherland and Hodgman, 1974)."""
    if len(polygon) == 0:
        return polygon
    height = polygon @ normal - offset
    if np.all(height >= 0.0):
        return polygon
    kept: list[Floats] = []
    for i in range(len(polygon)):
        j = (i + 1) % len(polygon)
        a, b = height[i], height[j]
        if a >= 0.0:
            kept.append(polygon[i])
        if (a >= 0.0) != (b >= 0.0):
            kept.append(polygon[i] + (polygon[j] - polygon[i]) * (a / (a - b)))
    return np.array(kept) if len(kept) >= 3 else np.zeros((0, polygon.shape[1]))


def dense(polygon: Floats, per_edge: int) -> Floats:
    """The outline (N * per_edge, D) of a polygon with extra points along each edge."""
    steps = np.arange(per_edge)[None, :, None] / per_edge
    following = np.roll(polygon, -1, axis=0)
    filled = polygon[:, None, :] * (1.0 - steps) + following[:, None, :] * steps
    return np.asarray(filled.reshape(-1, polygon.shape[1]))
