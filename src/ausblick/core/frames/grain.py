"""Noise of a still: what is left after everything smooth is taken away.

J. Immerkaer, Fast noise variance estimation, CVIU 64 (1996): a Laplacian difference blind to slopes
and curvature. Taken tile by tile; the median tile passes over creases, marks and edges.
"""

from __future__ import annotations

import math

import cv2
import numpy as np

from ..geometry.vectors import Bools
from .frame import Frame, trace_signal

KERNEL = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], dtype=np.float32)
TILE, TILES = 48, 64


def noise_percent(frame: Frame, core: Bools, trace: str, channel: int) -> float | None:
    """Standard deviation in % of signal on the screen's core (mask of the reduced frame), or None."""
    tiles = _tiles_inside(frame, core)
    if not tiles:
        return None
    # All tiles in one column: the rows where two of them meet fall to the rim that is cut away anyway.
    column = np.concatenate([frame.pixels[y : y + TILE, x : x + TILE] for x, y in tiles])
    high = cv2.filter2D(trace_signal(frame.signal(column), trace, channel), -1, KERNEL)
    inner = np.abs(high.reshape(len(tiles), TILE, TILE)[:, 1:-1, 1:-1])
    return 100.0 * math.sqrt(math.pi / 2.0) * float(np.median(inner.mean(axis=(1, 2)))) / 6.0


def _tiles_inside(frame: Frame, core: Bools) -> list[tuple[int, int]]:
    """Upper left corners of native tiles that lie wholly on the screen, spread over it."""
    if frame.width < TILE or frame.height < TILE:
        return []
    rows, columns = core.shape
    across = max(1, -(-TILE * columns // frame.width)) + 1
    down = max(1, -(-TILE * rows // frame.height)) + 1
    inside = cv2.erode(core.astype(np.uint8), np.ones((down, across), np.uint8), anchor=(0, 0), borderValue=0)
    ys = np.arange(0, frame.height - TILE + 1, TILE)
    xs = np.arange(0, frame.width - TILE + 1, TILE)
    whole = inside[np.ix_(ys * rows // frame.height, xs * columns // frame.width)] > 0
    places = np.argwhere(whole)
    spread = places[:: max(1, len(places) // TILES)][:TILES]
    return [(int(xs[column]), int(ys[row])) for row, column in spread]
