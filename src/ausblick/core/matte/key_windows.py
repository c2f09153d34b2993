"""Which parts of the frame a test key is made of: all of it small, and pixel for pixel where keys fail."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ..damage.held_things import WINDOW
from ..figure.held_props import hand_at, shown_props
from ..geometry.vectors import Floats
from ..plan import Plan
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
    width, height = (min(most, px) // 2 * 2 for most, px in zip(WINDOW, (sensor.px_w, sensor.px_h), strict=True))
    if plan.subject is None:
        middle = PixelWindow((sensor.px_w - width) / 2.0, (sensor.px_h - height) / 2.0, width, height, 1.0)
        return {"screen": middle}
    found = {name: window for person in capture.looked_at for name, window in _of(capture, person, (width, height))}
    return found or {"edge": _edge_window(capture, width, height)}


def part_in(name: str) -> str:
    """What a window is round, whoever it is of."""
    return name.rstrip("0123456789")


def _of(capture: Capture, person: int, size: tuple[int, int]) -> Iterator[tuple[str, PixelWindow]]:
    own, sensor = capture.of(person), capture.plan.camera.sensor
    assert own.plan.subject is not None
    places = {"hand": hand_at(own.plan.subject)}
    if own.plan.subject.framing != "hands":
        places = {"hair": (0.0, 0.955), **places}
    if props := shown_props(own.plan.subject):
        places["prop"] = props[0].shape.middle
    for name, (x, y) in places.items():
        at = figure_place(own, x, y)
        if 0.0 <= at[0] <= sensor.px_w and 0.0 <= at[1] <= sensor.px_h:
            yield f"{name}{person + 1}" if person else name, replace(_round(at, size, capture), person=person)


def _round(at: Floats, size: tuple[int, int], capture: Capture) -> PixelWindow:
    """A window round a place (2,) in sensor px, as far as it is inside the frame."""
    sensor, (width, height) = capture.plan.camera.sensor, size
    left, top = (round(float(middle) - side / 2.0) for middle, side in zip(at, size, strict=True))
    inside = np.clip((left, top), 0, (sensor.px_w - width, sensor.px_h - height))
    return PixelWindow(float(inside[0]), float(inside[1]), width, height, 1.0)


def _edge_window(capture: Capture, width: int, height: int) -> PixelWindow:
    """The figure's edge before the screen that is nearest to the middle of the picture; else the middle."""
    sensor = capture.plan.camera.sensor
    coarse = overview_window(capture.plan, WHOLE)
    drawn = draw(capture, coarse)
    rows, columns = np.nonzero((drawn.alpha > 0.05) & (drawn.alpha < 0.95) & (drawn.screen > 0.5))
    middle = np.array([sensor.px_w, sensor.px_h]) / 2.0
    if not len(rows):
        return _round(middle, (width, height), capture)
    px = (np.column_stack([columns, rows]) + 0.5) * coarse.scale
    nearest = int(np.argmin(((px - middle) ** 2).sum(axis=1)))
    return _round(px[nearest], (width, height), capture)
