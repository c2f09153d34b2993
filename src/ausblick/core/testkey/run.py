"""The test key from a plan: windows drawn, shot, pulled and measured, beside an ideal and a border capture."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..arrays import Floats32
from ..evaluate import evaluate
from ..key.keyer import AWAY
from ..light.basis import BasisStore
from ..plan import Plan
from .capture import Capture, border_of, capture_of, ideal_of
from .figure import HAND_AT
from .pull import Pulled, pull
from .quality import Measures, Part, joined, measured, parts_of, quality_of
from .render import Drawn, Window, draw, figure_place
from .shoot import Codec, shoot

OVERVIEW = 960
WHOLE = 480
"""Width of the picture on which the clip for the whole screen is read; nothing is lost to a codec there."""
CROP = (576, 432)
EDGE = 3.0


class NoScreen(ValueError):
    """No screen is in the picture: nothing to key."""


@dataclass(frozen=True, eq=False)
class Shot:
    """One window: what was drawn, the decoded frame in linear light, and the key (None: no screen in it)."""

    window: Window
    drawn: Drawn
    linear: Floats32
    pulled: Pulled | None


@dataclass(frozen=True, eq=False)
class SimulatedKey:
    """`crops` by name (hair, hand); measures of the plan, the ideal and the border capture; quality 0..100."""

    overview: Shot
    crops: dict[str, Shot]
    measures: Measures
    ideal: Measures
    border: Measures
    parts: tuple[Part, ...]
    quality: float
    capture: Capture


Step = Callable[[str], None]


def simulate(
    plan: Plan,
    store: BasisStore,
    codec: Codec,
    seed: int = 7,
    step: Step = lambda _: None,
    overview: Shot | None = None,
) -> SimulatedKey:
    """The whole of it; the same plan and seed give the same result. `step` is told what begins.

    `overview`: what `quick` gave for the same plan and seed, so that it is not drawn twice.

    Raises NoScreen.
    """
    capture = capture_of(evaluate(plan, store), store, seed)
    step("overview")
    overview = overview or take(capture, overview_window(plan), codec)
    if overview.pulled is None:
        raise NoScreen("nothing to key: no screen is in the picture, or no light on it")
    step("crops")
    windows = crop_windows(capture)
    own, crops = measure_all(capture, windows, codec)
    step("ideal and border")
    ideal, _ = measure_all(ideal_of(capture), windows, codec)
    border, _ = measure_all(border_of(capture), windows, codec)
    parts = parts_of(own, ideal, border)
    return SimulatedKey(overview, crops, own, ideal, border, parts, quality_of(parts), capture)


def score(capture: Capture, windows: dict[str, Window], codec: Codec, ideal: Measures, border: Measures) -> float:
    """Quality of a changed capture against the same ideal and border: what levers are ranked by."""
    own, _ = measure_all(capture, windows, codec)
    return quality_of(parts_of(own, ideal, border))


def quick(plan: Plan, store: BasisStore, codec: Codec, seed: int = 7) -> Shot:
    """The overview alone: the first picture while planning. Raises NoScreen."""
    shot = take(capture_of(evaluate(plan, store), store, seed), overview_window(plan), codec)
    if shot.pulled is None:
        raise NoScreen("nothing to key: no screen is in the picture, or no light on it")
    return shot


def overview_window(plan: Plan, longest: int = OVERVIEW) -> Window:
    sensor = plan.camera.sensor
    width = min(longest, sensor.px_w) // 2 * 2
    scale = sensor.px_w / width
    return Window(0.0, 0.0, width, max(2, round(sensor.px_h / scale) // 2 * 2), scale)


def crop_windows(capture: Capture) -> dict[str, Window]:
    """Pixel for pixel round the hair and the moving hand, where they are in the picture."""
    plan = capture.plan
    sensor, found = plan.camera.sensor, {}
    width, height = min(CROP[0], sensor.px_w) // 2 * 2, min(CROP[1], sensor.px_h) // 2 * 2
    if plan.subject is None:
        middle = Window((sensor.px_w - width) / 2.0, (sensor.px_h - height) / 2.0, width, height, 1.0)
        return {"screen": middle}
    for name, (x, y) in {"hair": (0.0, 0.955), "hand": HAND_AT}.items():
        at = figure_place(capture, x, y)
        if not (0.0 <= at[0] <= sensor.px_w and 0.0 <= at[1] <= sensor.px_h):
            continue
        left = float(np.clip(round(at[0] - width / 2.0), 0, sensor.px_w - width))
        top = float(np.clip(round(at[1] - height / 2.0), 0, sensor.px_h - height))
        found[name] = Window(left, top, width, height, 1.0)
    if not found:
        found["middle"] = Window((sensor.px_w - width) / 2.0, (sensor.px_h - height) / 2.0, width, height, 1.0)
    return found


def take(capture: Capture, window: Window, codec: Codec) -> Shot:
    drawn = draw(capture, window)
    sensor = capture.plan.camera.sensor
    share = window.width * window.height / (sensor.px_w * sensor.px_h)
    # An overview stands for the whole frame: it gets the whole rate, less what fewer pixels need.
    linear = shoot(capture, drawn, share if window.scale == 1.0 else window.scale**-1.5, codec)
    away = AWAY * sensor.px_h / window.scale * (0.5 if window.scale == 1.0 else 1.0)
    return Shot(window, drawn, linear, pull(linear, capture.key, min(away, 0.12 * window.height)))


def measure_all(capture: Capture, windows: dict[str, Window], codec: Codec) -> tuple[Measures, dict[str, Shot]]:
    """Measures over all windows, and the windows themselves. Raises NoScreen."""
    shots = {name: take(capture, window, codec) for name, window in windows.items()}
    found = [
        measured(shot.drawn, shot.linear, shot.pulled, capture.key, EDGE)
        for shot in shots.values()
        if shot.pulled is not None
    ]
    if not found:
        raise NoScreen("nothing to key: no screen is in the picture where the figure is")
    whole = take(replace(capture, recording=None), overview_window(capture.plan, WHOLE), codec)
    return replace(joined(found), needed_clip=whole.pulled.needed_clip if whole.pulled else None), shots
