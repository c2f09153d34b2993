"""The screen divided into cells, and which of them the camera sees and the key needs."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Bools, Floats
from ..plan import Screen
from .coverage import Coverage


@dataclass(frozen=True)
class Grid:
    """Centres of a W x H division of the screen: x (W,), y (H,) in m, y from the lower edge up."""

    x: Floats
    y: Floats

    @property
    def shape(self) -> tuple[int, int]:
        return len(self.y), len(self.x)

    def points(self) -> Floats:
        """(H*W, 3), row by row."""
        xs, ys = np.meshgrid(self.x, self.y)
        return np.stack([xs.ravel(), ys.ravel(), np.zeros(xs.size)], axis=1)


def screen_grid(screen: Screen, columns: int, rows: int) -> Grid:
    left = screen.x_centre - screen.width / 2.0
    return Grid(
        x=left + screen.width * (np.arange(columns) + 0.5) / columns,
        y=screen.bottom + screen.height * (np.arange(rows) + 0.5) / rows,
    )


def seen_cells(grid: Grid, coverage: Coverage) -> Bools:
    """Cells (H, W) whose centre lies inside the needed outline; none when nothing is needed."""
    if len(coverage.outline) < 3:
        return np.zeros(grid.shape, dtype=bool)
    edge = np.roll(coverage.corners, -1, axis=0) - coverage.corners
    # The outline is convex: a point is inside when it is on the same side of every edge.
    normal = np.stack([-edge[:, 1], edge[:, 0]], axis=1)
    side = grid.points()[:, :2] @ normal.T - np.einsum("ei,ei->e", normal, coverage.corners)
    inside = np.all(side >= -1e-12, axis=1) | np.all(side <= 1e-12, axis=1)
    return np.asarray(inside.reshape(grid.shape))
