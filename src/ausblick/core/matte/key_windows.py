"""Which parts of the frame a test key is made of: all of it small, and pixel for pixel where keys fail."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ..damage.crop import crop_corner, crop_size
from ..figure.held_props import hand_at, shown_props
from ..geometry.vectors import Floats
from ..plan import Plan, Sensor
from .capture import Capture
from .drawn_place import figure_place
from .pixel_window import PixelWindow
from .render import draw

OVERVIEW = 960
WHOLE = 480
"""Width of the picture on which the clip for the whole screen is read; nothing is lost to a codec there."""


def overview_window(plan: Plan, longest: int = OVERVIEW) -> PixelWindow:
    sensor = plan.camera.sensor
    width = min(longest, sensor.px_w) // 2 * 2
    scale = sensor.px_w / width
    return PixelWindow(0.0, 0.0, width, max(2, round(sensor.px_h / scale) // 2 * 2), scale)


def crop_windows(capture: Capture) -> dict[str, PixelWindow]:
    """Pixel for pixel round the hair and the moving hand of each who is looked at, where they are in the picture; a
    companion's are named with a number: hair2, hand2."""
    plan = capture.plan
    sensor = plan.camera.sensor
    width, height = crop_size(sensor)
    if plan.subject is None:
        middle = PixelWindow((sensor.px_w - width) / 2.0, (sensor.px_h - height) / 2.0, width, height, 1.0)
        return {"screen": middle}
    found = {name: window for person in capture.looked_at for name, window in _of(capture, person)}
    return found or edge_window(capture)


def part_in(name: str) -> str:
    """What a window is round, whoever it is of."""
    return name.rstrip("0123456789")


def _of(capture: Capture, person: int) -> Iterator[tuple[str, PixelWindow]]:
    own, sensor = capture.of(person), capture.plan.camera.sensor
    assert own.plan.subject is not None
    places = {"hand": hand_at(own.plan.subject)}
    if own.plan.subject.framing != "hands":
        places = {"hair": (0.0, _hair_at(own, crop_size(sensor))), **places}
    if props := shown_props(own.plan.subject):
        places["prop"] = props[0].shape.middle
    for name, (x, y) in places.items():
        at = figure_place(own, x, y)
        if 0.0 <= at[0] <= sensor.px_w and 0.0 <= at[1] <= sensor.px_h:
            yield f"{name}{person + 1}" if person else name, replace(_round(at, sensor), person=person)


HAIR, CROWN, INSIDE = 0.955, 1.02, 0.6
"""Shares of stature, and how far from the middle of its window, of the half of it, the crown may be at most."""


def _hair_at(capture: Capture, size: tuple[int, int]) -> float:
    """Where on the head a window is round the hair: so high that screen is seen past it, however large the head."""
    up = np.abs(figure_place(capture, 0.0, CROWN) - figure_place(capture, 0.0, HAIR)) / (CROWN - HAIR)
    reach = INSIDE * 0.5 * np.array(size) / np.maximum(up, 1e-6)
    return max(HAIR, CROWN - float(reach.min()))


def _round(at: Floats, sensor: Sensor) -> PixelWindow:
    """A window round a place (2,) in sensor px."""
    return PixelWindow(*crop_corner(at, sensor), *crop_size(sensor), 1.0)


def edge_window(capture: Capture) -> dict[str, PixelWindow]:
    """Round the figure's edge before the screen that is nearest to the middle of the picture; else round that."""
    sensor = capture.plan.camera.sensor
    coarse = overview_window(capture.plan, WHOLE)
    drawn = draw(capture, coarse)
    rows, columns = np.nonzero((drawn.alpha > 0.05) & (drawn.alpha < 0.95) & (drawn.screen > 0.5))
    middle = np.array([sensor.px_w, sensor.px_h]) / 2.0
    if len(rows):
        px = (np.column_stack([columns, rows]) + 0.5) * coarse.scale
        middle = px[int(np.argmin(((px - middle) ** 2).sum(axis=1)))]
    return {"edge": _round(middle, sensor)}
