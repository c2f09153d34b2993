"""Contour lines of the screen's level at whole steps, drawn by `contourpy`."""

from __future__ import annotations

from dataclasses import dataclass

import contourpy
import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats


@dataclass(frozen=True)
class Contour:
    """One line (N, 2) in m on the screen's plane along which the level is `level` %."""

    level: float
    line: Floats


def contour_step(values: Floats) -> float:
    """A whole step in % that gives a handful of lines."""
    reach = float(np.ptp(values)) if values.size else 0.0
    return next((step for step in (1.0, 2.0, 5.0) if reach / step <= 8.0), 10.0)


def contours(values: Floats, grid: Grid, step: float) -> list[Contour]:
    """Lines of values (H, W) in % at multiples of `step`."""
    if min(values.shape) < 2 or not np.isfinite(values).all():
        return []
    drawn = contourpy.contour_generator(grid.x, grid.y, values)
    levels = np.arange(np.ceil(values.min() / step), np.floor(values.max() / step) + 1) * step
    return [
        Contour(float(level), np.asarray(line))
        for level in levels
        for line in drawn.lines(float(level))
        if len(line) > 1
    ]
