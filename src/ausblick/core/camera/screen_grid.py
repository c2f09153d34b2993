"""The screen's surfaces divided into cells: the wall, and where there are such, curve, floor run and wings.

y ^ wall      y up the screen
  |
  ( curve     y along the arc, from the wall down to the floor
  +------> z  floor run: y along the floor, away from the wall; wings: x along the floor, y up
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Literal

import numpy as np

from ..geometry.vectors import Bools, Floats, cross, dot
from ..plan import Screen
from .coverage import Coverage
from .view import View

SurfaceName = Literal["wall", "curve", "floor run", "left wing", "right wing"]
Axis = tuple[float, float, float]
RIGHT, UP, TOWARD_CAMERA = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


@dataclass(frozen=True)
class Sheet:
    """One surface: x and y along it run over `width` and `height` (from, to) in m; `origin` is where both are 0.

    A flat one lies along `across` and `up` and faces `front`; a curve (radius > 0) bends from the wall to the floor.
    """

    name: SurfaceName
    width: tuple[float, float]
    height: tuple[float, float]
    origin: Axis = (0.0, 0.0, 0.0)
    across: Axis = RIGHT
    up: Axis = UP
    front: Axis = TOWARD_CAMERA
    radius: float = 0.0

    def grid(self, columns: int, rows: int) -> Grid:
        (x0, x1), (y0, y1) = self.width, self.height
        return Grid(
            x=x0 + (x1 - x0) * (np.arange(columns) + 0.5) / columns,
            y=y0 + (y1 - y0) * (np.arange(rows) + 0.5) / rows,
            sheet=self,
        )

    def outline(self) -> Floats:
        """Corners (N, 3) in m, one after another; of a curve with places along its bend."""
        (x0, x1), (y0, y1) = self.width, self.height
        along = np.linspace(y0, y1, 9 if self.radius > 0.0 else 2)
        left, right = (self.places(np.full_like(along, x), along) for x in (x0, x1))
        return np.concatenate([left, right[::-1]])

    def places(self, x: Floats, y: Floats) -> Floats:
        """Places (..., 3) in m of x, y (...) along the surface."""
        if self.radius > 0.0:
            turn = y / self.radius
            return np.stack([x, self.radius * (1.0 - np.sin(turn)), self.radius * (1.0 - np.cos(turn))], axis=-1)
        return np.asarray(self.origin + x[..., None] * np.array(self.across) + y[..., None] * np.array(self.up))

    def normals(self, y: Floats) -> Floats:
        """Unit normals (..., 3) at y (...) along the surface."""
        if self.radius > 0.0:
            turn = y / self.radius
            return np.stack([np.zeros_like(turn), np.sin(turn), np.cos(turn)], axis=-1)
        return np.broadcast_to(np.array(self.front), (*y.shape, 3))


@dataclass(frozen=True, eq=False)
class Grid:
    """Centres of a W x H division of a surface: x (W,), y (H,) in m along it, row by row."""

    x: Floats
    y: Floats
    sheet: Sheet

    @property
    def shape(self) -> tuple[int, int]:
        return len(self.y), len(self.x)

    @property
    def cell_area(self) -> float:
        """m2 of one cell."""
        (x0, x1), (y0, y1) = self.sheet.width, self.sheet.height
        return (x1 - x0) * (y1 - y0) / (len(self.x) * len(self.y))

    @cached_property
    def key(self) -> tuple[Sheet, bytes, bytes]:
        """What it is remembered by."""
        return self.sheet, self.x.tobytes(), self.y.tobytes()

    def points(self) -> Floats:
        """(H*W, 3), row by row."""
        return self._points

    @cached_property
    def _points(self) -> Floats:
        xs, ys = np.meshgrid(self.x, self.y)
        return self.sheet.places(xs.ravel(), ys.ravel())

    def facing(self) -> Floats:
        """Its unit normal (3,) where all cells face the same way, else that of every cell (H*W, 3)."""
        if self.sheet.radius > 0.0:
            return self.axes()[2]
        return np.array(self.sheet.front)

    def axes(self) -> tuple[Floats, Floats, Floats]:
        """Unit vectors (H*W, 3) across, up and out of the surface at every cell."""
        return self._axes

    @cached_property
    def _axes(self) -> tuple[Floats, Floats, Floats]:
        rows = self.sheet.normals(self.y)
        front = np.repeat(rows, len(self.x), axis=0)
        across = np.broadcast_to(np.array(self.sheet.across), front.shape)
        return across, cross(front, across), front


def places_of(grids: Sequence[Grid]) -> tuple[Floats, Floats]:
    """The cells of several surfaces one after another: places (P, 3) and what they face (P, 3)."""
    points = [grid.points() for grid in grids]
    facing = [np.broadcast_to(grid.facing(), each.shape) for grid, each in zip(grids, points, strict=True)]
    return np.concatenate(points), np.concatenate(facing)


def parts_by_grid(values: Floats, grids: Sequence[Grid]) -> list[Floats]:
    """Values (P,) of those cells, surface by surface (H, W)."""
    ends = np.cumsum([len(grid.x) * len(grid.y) for grid in grids])[:-1]
    return [part.reshape(grid.shape) for part, grid in zip(np.split(values, ends), grids, strict=True)]


def curve_radius(screen: Screen) -> float:
    """The radius in m with which the screen runs onto the floor; 0 where it has no run or hangs above it."""
    if screen.floor_run <= 0.0 or screen.bottom > LIES:
        return 0.0
    return min(screen.curve_radius, screen.floor_run, screen.height)


LIES = 0.02
"""A screen that ends this near to the floor runs on into its floor run, m."""


def shown_sheets(screen: Screen) -> tuple[Sheet, ...]:
    """All surfaces as they are seen: the wall ends where the curve begins."""
    wall, *beside = sheets_of(screen)
    low, high = wall.height
    return (replace(wall, height=(low + curve_radius(screen), high)), *beside)


def wall_of(screen: Screen) -> Sheet:
    left = screen.x_centre - screen.width / 2.0
    return Sheet("wall", (left, left + screen.width), (screen.bottom, screen.bottom + screen.height))


def sheets_of(screen: Screen) -> tuple[Sheet, ...]:
    """All surfaces of a screen, the wall first; it is as high as if there were no curve before it."""
    wall, radius = wall_of(screen), curve_radius(screen)
    found = [wall]
    if radius > 0.0:
        found.append(Sheet("curve", wall.width, (0.0, radius * math.pi / 2.0), radius=radius))
    if screen.floor_run > radius:
        found.append(Sheet("floor run", wall.width, (radius, screen.floor_run), up=TOWARD_CAMERA, front=UP))
    if screen.wing_left > 0.0:
        found.append(_wing("left wing", wall, wall.width[0], screen.wing_left, RIGHT))
    if screen.wing_right > 0.0:
        found.append(_wing("right wing", wall, wall.width[1], screen.wing_right, (-1.0, 0.0, 0.0)))
    return tuple(found)


def _wing(name: SurfaceName, wall: Sheet, x: float, length: float, front: Axis) -> Sheet:
    return Sheet(name, (0.0, length), wall.height, origin=(x, 0.0, 0.0), across=TOWARD_CAMERA, front=front)


def screen_grid(screen: Screen, columns: int, rows: int) -> Grid:
    """Of the wall."""
    return wall_of(screen).grid(columns, rows)


WALL_CELLS = (61, 41)
CELL, MOST = 0.1, (41, 33)
"""Size in m of the cells of curve, floor run and wings, and how many there are at the most across and up."""


@lru_cache(maxsize=64)
def usual_grid(sheet: Sheet) -> Grid:
    """The division by which a surface is judged."""
    if sheet.name == "wall":
        return sheet.grid(*WALL_CELLS)
    (x0, x1), (y0, y1) = sheet.width, sheet.height
    columns, rows = (
        min(most, max(6, math.ceil(side / CELL))) for side, most in zip((x1 - x0, y1 - y0), MOST, strict=True)
    )
    return sheet.grid(columns, rows)


def seen_cells(grid: Grid, coverage: Coverage, view: View, screen: Screen) -> Bools:
    """Cells (H, W) that the frame needs: their middle lies inside the needed outline; none when nothing is needed."""
    if len(coverage.outline) < 3:
        return np.zeros(grid.shape, dtype=bool)
    if grid.sheet.name == "wall":
        inside = _within(coverage.corners, grid.points()[:, :2]).reshape(grid.shape)
        return np.asarray(inside & (grid.y > grid.sheet.height[0] + curve_radius(screen))[:, None])
    points, front = grid.points(), grid.axes()[2]
    frame, depth = view.project(points)
    toward = dot(view.lens - points, front) > 1e-6
    inside = _within(coverage.frame_corners, frame) & (depth > 0.0) & toward
    return np.asarray(inside.reshape(grid.shape))


def _within(corners: Floats, places: Floats) -> Bools:
    """Which places (P, 2) lie in a convex outline (N, 2): on the same side of every edge."""
    edge = np.roll(corners, -1, axis=0) - corners
    normal = np.stack([-edge[:, 1], edge[:, 0]], axis=1)
    side = places @ normal.T - np.einsum("ei,ei->e", normal, corners)
    return np.asarray(np.all(side >= -1e-12, axis=1) | np.all(side <= 1e-12, axis=1))


def frame_share(grid: Grid, view: View) -> Floats:
    """How large each cell (H, W) is in the picture, as its solid angle from the lens in steradian."""
    points, front = grid.points(), grid.axes()[2]
    toward = view.lens - points
    r2 = np.maximum(dot(toward, toward), 1e-6)
    cosine = np.clip(dot(toward, front) / np.sqrt(r2), 0.0, None)
    return np.asarray((grid.cell_area * cosine / r2).reshape(grid.shape))
