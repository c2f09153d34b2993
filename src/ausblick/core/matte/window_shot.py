"""One window of the picture: drawn, recorded, and keyed by a formula."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..geometry.vectors import Bools, Floats32
from .capture import Capture
from .keyer import AWAY
from .pixel_window import PixelWindow
from .pull import Keyer, Pulled, pull
from .quality import held_out
from .render import Drawn, draw
from .shoot import Codec, shoot

SOLID = 0.5


class NoScreen(ValueError):
    """No screen is in the picture: nothing to key."""


@dataclass(frozen=True, eq=False)
class Shot:
    """One window: what was drawn, the decoded frame in linear light, and the key (None: no screen in it).

    `next`: the frame that follows; `second`: the same frame by the chroma distance.
    """

    window: PixelWindow
    drawn: Drawn
    linear: Floats32
    pulled: Pulled | None
    next: Floats32
    second: Pulled | None = None


def recorded(
    capture: Capture, window: PixelWindow, codec: Codec, seen: Callable[[Drawn], None] = lambda _: None
) -> Shot:
    """A window not keyed yet; `seen` is given the clean picture before it is recorded."""
    drawn = draw(capture, window)
    seen(drawn)
    sensor = capture.plan.camera.sensor
    share = window.width * window.height / (sensor.px_w * sensor.px_h)
    # An overview stands for the whole frame: it gets the whole rate, less what fewer pixels need.
    linear, after = shoot(capture, drawn, share if window.scale == 1.0 else window.scale**-1.5, codec)
    return Shot(window, drawn, linear, None, after)


def by(formula: Keyer, shot: Shot, capture: Capture) -> Shot:
    """The shot keyed by a formula."""
    away = away_px(capture, shot.window)
    pulled = pull(shot.linear, capture.key, capture.picked, away, formula, figure=figure_in(shot))
    return replace(shot, pulled=None if pulled is None else held_out(pulled, shot.drawn))


def figure_in(shot: Shot) -> Bools:
    """Who picks the screen sees where somebody stands: a shirt of its hue is no part of it."""
    height, width = shot.linear.shape[:2]
    return np.asarray(shot.drawn.alpha[:height, :width] > SOLID)


def away_px(capture: Capture, window: PixelWindow) -> float:
    """Drawn px that the flat screen keeps from the figure."""
    away = AWAY * capture.plan.camera.sensor.px_h / window.scale * (0.5 if window.scale == 1.0 else 1.0)
    return min(away, 0.12 * window.height)
