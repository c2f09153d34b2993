"""Small polygon work shared by optics and light: clipping and densifying."""

from __future__ import annotations

import numpy as np

from .vectors import Floats


def clip_half_plane(polygon: Floats, normal: Floats, offset: float) -> Floats:
    """The part of a convex polygon (N, D) where normal . p >= offset (Sutherland and Hodgman, 1974)."""
    if len(polygon) == 0:
        return polygon
    height = (polygon @ normal - offset).tolist()
    if min(height) >= 0.0:
        return polygon
    # Of a few corners in plain numbers: an array for each would take ten times as long.
    corners = polygon.tolist()
    kept: list[list[float]] = []
    for here, there, a, b in zip(corners, corners[1:] + corners[:1], height, height[1:] + height[:1], strict=True):
        if a >= 0.0:
            kept.append(here)
        if (a >= 0.0) != (b >= 0.0):
            share = a / (a - b)
            kept.append([p + (q - p) * share for p, q in zip(here, there, strict=True)])
    return np.array(kept) if len(kept) >= 3 else np.zeros((0, polygon.shape[1]))


def dense(polygon: Floats, per_edge: int) -> Floats:
    """The outline (N * per_edge, D) of a polygon with extra points along each edge."""
    steps = np.arange(per_edge)[None, :, None] / per_edge
    following = np.roll(polygon, -1, axis=0)
    filled = polygon[:, None, :] * (1.0 - steps) + following[:, None, :] * steps
    return np.asarray(filled.reshape(-1, polygon.shape[1]))
