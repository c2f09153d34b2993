"""Tracking marks for a moving camera: few, in every frame, and clear of hair and hands."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from itertools import product

import numpy as np

from ..geometry.vectors import Bools, Floats
from ..plan import Plan
from .coverage import coverage_of
from .view import View, camera_axes, view_of

EDGE = 0.08
"""Marks keep this far from the screen's edge, m."""
SHADE = 0.8
"""A mark reflects this share of the screen's light: the same hue, so that it keys out."""
SPACINGS = (1.2, 0.9, 0.7, 0.55, 0.42, 0.32, 0.25)
STEPS = 9


@dataclass(frozen=True)
class Move:
    """How the camera moves: whole ranges round where it stands. Degrees, metres, and longest over shortest lens."""

    pan: float = 0.0
    tilt: float = 0.0
    travel: float = 0.0
    zoom: float = 1.0


@dataclass(frozen=True)
class TrackingMarks:
    """`places` (N, 2) on the screen in m; `least` marks are in any frame of the move.

    `shade` is the marks' reflectance. `says` is empty when the wanted number is met.
    """

    places: Floats
    least: int
    shade: tuple[float, float, float]
    says: str


def tracking_marks(plan: Plan, move: Move, wanted: int) -> TrackingMarks:
    """The fewest marks of which at least `wanted` are in every frame of the move (1 to 50)."""
    views = _poses(plan, move)
    best: tuple[int, Floats] = (0, np.zeros((0, 2)))
    for spacing in SPACINGS:
        places = _grid(plan, spacing)
        places = places[~_behind_action(plan, places)]
        seen = _in_frames(views, places)
        least = int(seen.sum(axis=1).min()) if len(places) else 0
        if least > best[0]:
            best = (least, places)
        if least >= wanted:
            places = _thinned(places, seen, wanted)
            return TrackingMarks(places, int(_in_frames(views, places).sum(axis=1).min()), _shade(plan), "")
    says = f"Only {best[0]} marks stay in every frame: the screen ends before the move does, or the action fills it."
    return TrackingMarks(best[1], best[0], _shade(plan), says)


def _shade(plan: Plan) -> tuple[float, float, float]:
    red, green, blue = plan.screen.reflectance
    return red * SHADE, green * SHADE, blue * SHADE


def _poses(plan: Plan, move: Move) -> list[View]:
    """Views over the whole move, ends included."""
    base, camera = view_of(plan.camera, plan.subject), plan.camera
    found = []
    spans = (
        np.linspace(-0.5, 0.5, STEPS) if range_ > 0 else np.zeros(1) for range_ in (move.pan, move.tilt, move.travel)
    )
    zooms = (1.0, move.zoom) if move.zoom > 1.0 else (1.0,)
    for pan, tilt, travel, zoom in product(*spans, zooms):
        axes = camera_axes(camera.pan + pan * move.pan, camera.tilt + tilt * move.tilt, camera.roll)
        lens = base.lens + np.array([travel * move.travel, 0.0, 0.0])
        found.append(replace(base, lens=lens, axes=axes, tan_h=base.tan_h / zoom, tan_v=base.tan_v / zoom))
    return found


def _grid(plan: Plan, spacing: float) -> Floats:
    """A grid over the screen, every other row shifted by half a step."""
    screen = plan.screen
    wide, high = screen.width - 2 * EDGE, screen.height - 2 * EDGE
    columns, rows = max(1, math.floor(wide / spacing) + 1), max(1, math.floor(high / spacing) + 1)
    xs = screen.x_centre + (np.arange(columns) - (columns - 1) / 2.0) * spacing
    ys = screen.bottom + screen.height / 2.0 + (np.arange(rows) - (rows - 1) / 2.0) * spacing
    grid = np.array([[x + (0.5 * spacing if r % 2 else 0.0), y] for r, y in enumerate(ys) for x in xs])
    inside = np.abs(grid[:, 0] - screen.x_centre) <= wide / 2.0 + 1e-9
    return np.asarray(grid[inside])


def _behind_action(plan: Plan, places: Floats) -> Bools:
    """Marks that the reach of the action passes in front of, seen from where the camera stands."""
    if plan.subject is None:
        return np.zeros(len(places), dtype=bool)
    targets = plan.targets.model_copy(update={"coverage_school": "where-needed"})
    only = plan.model_copy(update={"targets": targets})
    needed = coverage_of(only, view_of(plan.camera, plan.subject)).needed
    if needed is None:
        return np.zeros(len(places), dtype=bool)
    x0, y0, x1, y1 = needed
    return np.asarray((places[:, 0] > x0) & (places[:, 0] < x1) & (places[:, 1] > y0) & (places[:, 1] < y1))


def _in_frames(views: list[View], places: Floats) -> Bools:
    """(views, places): is the mark in the frame?"""
    points = np.concatenate([places, np.zeros((len(places), 1))], axis=1)
    rows = []
    for view in views:
        frame, depth = view.project(points)
        rows.append((depth > 0.05) & (frame > 0.01).all(axis=1) & (frame < 0.99).all(axis=1))
    return np.array(rows).reshape(len(views), len(places))


def _thinned(places: Floats, seen: Bools, wanted: int) -> Floats:
    """Take away marks that no frame needs, those seen least first."""
    keep = np.ones(len(places), dtype=bool)
    count = seen.sum(axis=1)
    for index in np.argsort(seen.sum(axis=0), kind="stable"):
        without = count - seen[:, index]
        if without.min() >= wanted:
            keep[index], count = False, without
    return np.asarray(places[keep])
