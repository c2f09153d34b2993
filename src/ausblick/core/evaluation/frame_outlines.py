"""What the camera sees, as outlines in an upright picture: u to the right, v down, 0..1 each."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..camera.coverage import Coverage
from ..camera.screen_grid import Grid, shown_sheets
from ..camera.turned import UPRIGHT, turns_of
from ..camera.view import NEAREST, View, focus_distance
from ..figure.outline import figure_parts
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.keys import framing_key
from ..plan import Plan, people_of


@dataclass(frozen=True)
class Picture:
    """Outlines (N, 2) in the upright picture; `width`, `height` its pixels.

    `plane` (3, 3) takes (x, y, 1) on the screen's plane to homogeneous picture coordinates.
    `surfaces`: wall, curve, floor run, wings by name. `figure`: (part, outline) of everybody, farthest first.
    `lamps`: (id, u, v) of lamps whose place is inside the frame.
    """

    width: int
    height: int
    plane: Floats
    surfaces: tuple[tuple[str, Floats], ...]
    needed: Floats
    figure: tuple[tuple[str, Floats], ...]
    lamps: tuple[tuple[str, float, float], ...]


def picture_of(plan: Plan, view: View, coverage: Coverage, store: BasisStore) -> Picture:
    still = store.record(("picture", framing_key(plan)), lambda: _without_lamps(plan, view, coverage))
    return replace(still, lamps=tuple(_lamps(plan, view)))


def _without_lamps(plan: Plan, view: View, coverage: Coverage) -> Picture:
    turns = turns_of(plan.camera)
    upright = np.array(UPRIGHT[turns], dtype=float)
    sensor = plan.camera.sensor
    size = (sensor.px_w, sensor.px_h) if turns % 2 == 0 else (sensor.px_h, sensor.px_w)

    def seen(polygon: Floats) -> Floats:
        return _seen(view, upright, polygon)

    people = sorted(people_of(plan), key=lambda one: -focus_distance(plan.camera, one))
    figure = [part for one in people for part in figure_parts(one, plan.camera)]
    needed = coverage.frame_outline[:: max(1, len(coverage.frame_outline) // 160)]
    return Picture(
        *size,
        plane=upright @ _plane(view),
        surfaces=tuple((sheet.name, seen(sheet.outline())) for sheet in shown_sheets(plan.screen)),
        needed=_turned(upright, needed),
        figure=tuple((name, seen(polygon)) for name, polygon in figure),
        lamps=(),
    )


def lattice_in_picture(plan: Plan, view: View, grid: Grid, store: BasisStore) -> tuple[Floats, Floats]:
    """Corners of a grid's cells in the upright picture: u, v (H + 1, W + 1) each; far outside behind the lens."""
    return store.record(("lattice", grid.key, framing_key(plan)), lambda: _lattice(plan, view, grid))


def _lattice(plan: Plan, view: View, grid: Grid) -> tuple[Floats, Floats]:
    sheet = grid.sheet
    (x0, x1), (y0, y1) = sheet.width, sheet.height
    x, y = np.meshgrid(np.linspace(x0, x1, len(grid.x) + 1), np.linspace(y0, y1, len(grid.y) + 1))
    frame, depth = view.project(sheet.places(x, y))
    turned = _turned(np.array(UPRIGHT[turns_of(plan.camera)], dtype=float), frame)
    turned = np.where((depth > NEAREST)[..., None], np.clip(turned, -20.0, 20.0), -20.0)
    return turned[..., 0], turned[..., 1]


def _seen(view: View, upright: Floats, polygon: Floats) -> Floats:
    """Outline in the picture of what lies in front of the lens; it may reach beyond the frame."""
    return np.clip(_turned(upright, view.shown(polygon)), -20.0, 20.0)


def _turned(upright: Floats, frame: Floats) -> Floats:
    return np.asarray(frame @ upright[:2, :2].T + upright[:2, 2])


def _plane(view: View) -> Floats:
    """Homography (3, 3) from the screen's plane z = 0 to the frame."""
    right, up, forward = view.axes
    rows = np.stack([right / view.tan_h, up / view.tan_v, forward])
    across, over, depth = np.concatenate([rows[:, :2], (-rows @ view.lens)[:, None]], axis=1)
    return np.stack([0.5 * (depth + across), 0.5 * (depth - over), depth])


def _lamps(plan: Plan, view: View) -> list[tuple[str, float, float]]:
    lamps = [lamp for lamp in plan.lights if not lamp.is_daylight]
    if not lamps:
        return []
    frame, depth = view.project(np.array([lamp.position for lamp in lamps]))
    places = _turned(np.array(UPRIGHT[turns_of(plan.camera)], dtype=float), frame)
    seen = (depth > NEAREST) & np.all((frame > 0.0) & (frame < 1.0), axis=1)
    return [(lamps[i].id, float(places[i, 0]), float(places[i, 1])) for i in np.flatnonzero(seen)]


def field_on_screen(plan: Plan, view: View) -> tuple[float, float, float, float] | None:
    """x0, y0, x1, y1 in m on the screen's plane of the middles of the frame's edges; None if it misses."""
    upright = np.linalg.inv(np.array(UPRIGHT[turns_of(plan.camera)], dtype=float))
    edges = np.array([[0.0, 0.5], [0.5, 1.0], [1.0, 0.5], [0.5, 0.0]])
    rays = view.rays(_turned(upright, edges))
    if np.any(rays[:, 2] > -1e-6) or view.lens[2] <= 0.0:
        return None
    hits = view.lens + rays * (-view.lens[2] / rays[:, 2])[:, None]
    return float(hits[0, 0]), float(hits[1, 1]), float(hits[2, 0]), float(hits[3, 1])
