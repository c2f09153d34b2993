"""What a frame shows of the screen's light, cell by cell, in lux."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..camera.exposure import grey_lux
from ..camera.level_schools import key_channel
from ..camera.screen_grid import Grid, screen_grid
from ..camera.turned import turns_taken, upright_places
from ..camera.view import View, view_of
from ..colour.curves import decode
from ..frames.frame import Frame
from ..frames.reading import FrameReading
from ..geometry.vectors import Floats
from ..plan import Plan

IntArray = npt.NDArray[np.int_]
COLUMNS, ROWS = 31, 21
EDGE = 0.012
CLIPS = 0.97
"""A cell counts where the screen is seen this far round it, in parts of the frame."""


@dataclass(frozen=True)
class ObservedLight:
    """The screen's light at cells (N, 2) in m: lux of the key channel (N,), and `rgb` (N, 3) of each channel."""

    at: Floats
    lux: Floats
    rgb: Floats


def cells_of(grid: Grid, at: Floats) -> tuple[IntArray, IntArray]:
    """Row and column (N,) of the grid's cells at places (N, 2) m."""
    column = np.rint((at[:, 0] - grid.x[0]) / (grid.x[1] - grid.x[0])).astype(int)
    row = np.rint((at[:, 1] - grid.y[0]) / (grid.y[1] - grid.y[0])).astype(int)
    return np.clip(row, 0, len(grid.y) - 1), np.clip(column, 0, len(grid.x) - 1)


def observed_light(plan: Plan, frame: Frame, reading: FrameReading, view: View | None = None) -> ObservedLight | None:
    """Cells of the screen that the frame shows; `view` where the camera is known better than planned.

    None without a screen in the frame.
    """
    if reading.found is None:
        return None
    view = view or view_of(plan.camera, plan.subject)
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    points = grid.points()
    place, depth = view.project(points)
    place = upright_places(place, turns_taken(plan.camera, frame.width, frame.height))
    mask = reading.found.core
    height, width = mask.shape
    room = cv2.distanceTransform(np.pad(mask.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    column, row = np.floor(place[:, 0] * width).astype(int), np.floor(place[:, 1] * height).astype(int)
    framed = (depth > 0.0) & (column >= 0) & (column < width) & (row >= 0) & (row < height)
    inside = framed.copy()
    inside[framed] = room[row[framed], column[framed]] > EDGE * width
    signal = cv2.GaussianBlur(frame.reduced(max(width, height)), (0, 0), max(0.8, 0.004 * width))
    # What clips says nothing of the light.
    inside[framed] &= signal[row[framed], column[framed]].max(axis=-1) < CLIPS
    camera = plan.camera
    linear = decode(signal[row[inside], column[inside]].astype(np.float64), camera.curve, camera.curve_table)
    ink = np.array(plan.screen.reflectance)
    rgb = linear * grey_lux(camera) / np.maximum(ink, 1e-4)
    return ObservedLight(points[inside, :2], rgb[:, key_channel(plan.screen.hue, ink)], rgb)
