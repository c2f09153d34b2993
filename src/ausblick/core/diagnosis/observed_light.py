"""What a frame shows of the screen's light, cell by cell, in lux, on every surface of the screen that it sees."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import cv2
import numpy as np

from ..camera.exposure import grey_lux
from ..camera.pane_film import film_before_screen
from ..camera.screen_grid import Grid, Sheet, shown_sheets
from ..camera.turned import turns_taken, upright_places
from ..camera.view import View, view_of
from ..colour.curves import decode
from ..frames.frame import Frame
from ..frames.reading import FrameReading
from ..geometry.vectors import Bools, Floats
from ..plan import Plan
from .observed_face import ObservedFace, observed_face

WALL_CELLS, SIDE_CELLS = (17, 12), (10, 6)
EDGE = 0.012
BLURS = 3.0
"""No cell is read nearer than so many times the blur's spread to where its surface ends."""
CLIPS = 0.95
"""A cell counts where the screen is seen this far round it, in parts of the frame."""


@dataclass(frozen=True)
class ObservedCells:
    """Cells (H, W) of a surface's grid that a frame shows; of all of them one after another `rgb` (N, 3): light of
    each channel in lux, and `frame` (N, 2): where they are in the picture."""

    grid: Grid
    seen: Bools
    rgb: Floats
    frame: Floats


@dataclass(frozen=True)
class ObservedLight:
    """All surfaces, the wall first, then the subject's face. `coloured`: are the channels measured, or only one level
    for all of them?

    `noise`, `chroma`: how exactly each cell's level, and its colour, are known, one standard deviation as a share.
    """

    surfaces: tuple[ObservedCells, ...]
    coloured: bool = True
    noise: float = 0.006
    chroma: float = 0.004
    face: ObservedFace | None = None

    @property
    def cells(self) -> int:
        """How many there are of the screen; what is of the face comes after them."""
        return sum(len(one.rgb) for one in self.surfaces)

    @cached_property
    def rgb(self) -> Floats:
        return np.concatenate([*(one.rgb for one in self.surfaces), *([self.face.rgb] if self.face else [])])

    @cached_property
    def frame(self) -> Floats:
        return np.concatenate([*(one.frame for one in self.surfaces), *([self.face.frame] if self.face else [])])

    @cached_property
    def places(self) -> Floats:
        """Of the screen's cells (N, 3) in m."""
        return np.concatenate([one.grid.points()[one.seen.ravel()] for one in self.surfaces])

    def picked(self, keep: Bools) -> ObservedLight:
        """Only some (N,) of the screen's cells."""
        found, begin = [], 0
        for one in self.surfaces:
            some = keep[begin : begin + len(one.rgb)]
            begin += len(some)
            seen = one.seen.copy()
            seen[one.seen] = some
            found.append(ObservedCells(one.grid, seen, one.rgb[some], one.frame[some]))
        return replace(self, surfaces=tuple(found))


def observed_light(plan: Plan, frame: Frame, reading: FrameReading, view: View | None = None) -> ObservedLight | None:
    """Cells of the screen that the frame shows; `view` where the camera is known better than planned.

    None without a screen in the frame.
    """
    if reading.found is None:
        return None
    view = view or view_of(plan.camera, plan.subject)
    mask = reading.found.core
    height, width = mask.shape
    room = cv2.distanceTransform(np.pad(mask.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    blur = max(0.8, 0.004 * width)
    plain = frame.reduced(max(width, height))
    signal = cv2.GaussianBlur(plain, (0, 0), blur)
    turns = turns_taken(plan.camera, frame.width, frame.height)
    camera, ink = plan.camera, np.maximum(np.array(plan.screen.reflectance), 1e-4)
    surfaces = []
    for sheet in shown_sheets(plan.screen):
        grid = sheet.grid(*(WALL_CELLS if sheet.name == "wall" else SIDE_CELLS))
        place, ahead = _in_frame(view, sheet, grid)
        place = upright_places(place, turns)
        column, row = (np.floor(place[:, k] * size).astype(int) for k, size in ((0, width), (1, height)))
        seen = ahead & (column >= 0) & (column < width) & (row >= 0) & (row < height)
        seen[seen] = room[row[seen], column[seen]] > EDGE * width
        rim = BLURS * blur / np.array([width, height])
        seen &= ~_near_its_end(view, sheet, grid, place, turns, rim)
        # What clips says nothing of the light.
        seen[seen] = signal[row[seen], column[seen]].max(axis=-1) < CLIPS
        shown = signal[row[seen], column[seen]].astype(np.float64)
        rgb = decode(shown, camera.curve, camera.curve_table) * grey_lux(camera) / (film_before_screen(plan) * ink)
        if seen.any() or sheet.name == "wall":
            surfaces.append(ObservedCells(grid, seen.reshape(grid.shape), rgb, place[seen]))
    return ObservedLight(tuple(surfaces), face=observed_face(plan, plain, turns, reading, view))


def _near_its_end(view: View, sheet: Sheet, grid: Grid, place: Floats, turns: int, rim: Floats) -> Bools:
    """Cells (N,) so near in the picture to where their surface ends that the blur mixes in what lies beyond."""
    xs, ys = (values.ravel() for values in np.meshgrid(grid.x, grid.y))
    found = np.zeros(len(xs), dtype=bool)
    ends = [(np.full_like(xs, x), ys) for x in sheet.width] + [(xs, np.full_like(ys, y)) for y in sheet.height]
    for x, y in ends:
        end, depth = view.project(sheet.places(x, y))
        away = np.abs(upright_places(end, turns) - place) / rim
        found |= (np.hypot(away[:, 0], away[:, 1]) < 1.0) & (depth > 0.0)
    return found


def _in_frame(view: View, sheet: Sheet, grid: Grid) -> tuple[Floats, Bools]:
    """Where a grid's cells (N,) are in the frame, and which of them face the lens before it."""
    points, front = grid.points(), grid.axes()[2]
    place, depth = view.project(points)
    return place, np.asarray((depth > 0.0) & (((view.lens - points) * front).sum(axis=1) > 0.0))
