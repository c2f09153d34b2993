"""What changes slowly over a surface, worked out at every other cell first and between them only where it must be.

o . o . o      o worked out
. . . # .      . linear between those round it, which are alike
o . o # o      # worked out as well: those round it differ
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache

import cv2
import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats, Ints

ALIKE = 0.05
"""Shares that differ by no more are alike: what is between them is linear to about an eighth of it."""


def every_other_first(grids: Sequence[Grid], worked_out: Callable[[Ints], Floats]) -> Floats:
    """Shares (P,) at all cells of several grids, one after another; `worked_out` gives those of some (rows)."""
    begins = np.cumsum([0, *(len(grid.x) * len(grid.y) for grid in grids)])
    chosen = [_chosen(*grid.shape) for grid in grids]
    first = np.concatenate([begin + (own[0][:, None] * len(grid.x) + own[1]).ravel()
                            for begin, grid, own in zip(begins, grids, chosen, strict=False)])  # fmt: skip
    values = worked_out(first)
    found, left, at = np.empty(begins[-1]), [], 0
    for begin, grid, (rows, columns) in zip(begins, grids, chosen, strict=False):
        known = values[at : at + len(rows) * len(columns)].reshape(len(rows), len(columns))
        at += known.size
        end = begin + len(grid.x) * len(grid.y)
        found[begin:end] = _linear(known, grid, rows, columns).ravel()
        left.append(begin + np.flatnonzero(_unlike(known, grid, rows, columns)))
    rest = np.concatenate(left)
    if len(rest):
        found[rest] = worked_out(rest)
    return found


@lru_cache(maxsize=64)
def _chosen(height: int, width: int) -> tuple[Ints, Ints]:
    """Every other row and column, and the last."""
    rows, columns = (np.array(sorted({*range(0, count, 2), count - 1})) for count in (height, width))
    return rows, columns


def _linear(known: Floats, grid: Grid, rows: Ints, columns: Ints) -> Floats:
    to_y, to_x = _weights(grid.y.tobytes(), rows.tobytes()), _weights(grid.x.tobytes(), columns.tobytes())
    return np.asarray(to_y @ known @ to_x.T)


def linear_weights(nodes: Floats, at: Floats) -> Floats:
    """Weights (A, M) of linear interpolation from the nodes (M,) to places (A,)."""
    return np.stack([np.interp(at, nodes, row) for row in np.eye(len(nodes))], axis=1)


@lru_cache(maxsize=64)
def _weights(places: bytes, chosen: bytes) -> Floats:
    at = np.frombuffer(places)
    return linear_weights(at[np.frombuffer(chosen, dtype=np.intp)], at)


def _unlike(known: Floats, grid: Grid, rows: Ints, columns: Ints) -> np.ndarray[tuple[int, ...], np.dtype[np.bool_]]:
    """Which cells (H, W) that are not worked out lie between some that differ."""
    square = np.ones((3, 3), np.uint8)
    differs = cv2.dilate(known, square) - cv2.erode(known, square) > ALIKE
    marked = np.zeros(grid.shape, np.uint8)
    marked[np.ix_(rows, columns)] = differs
    around = cv2.dilate(marked, square) > 0
    around[np.ix_(rows, columns)] = False
    return np.asarray(around)
