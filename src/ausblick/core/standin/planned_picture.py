"""The planned set as the camera would see it: drawn like the test key, without noise and codec."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..camera.turned import side_turns, upright
from ..camera.view import View, view_of
from ..colour.curves import encode
from ..evaluation.results import Evaluation
from ..geometry.vectors import Bytes, Floats32
from ..light.basis import BasisStore
from ..light.body_light import looked_from_lamps
from ..matte.background import background_of
from ..matte.capture import capture_of
from ..matte.figure_picture import outlines
from ..matte.key_windows import overview_window
from ..matte.pixel_window import PixelWindow
from ..matte.render import Drawn, draw
from ..plan import Plan
from .last_light import LastLight, moved_to

SEED = 7
DIGITS = 5
"""Of the angle of view's tangents: a hundredth of a pixel at the picture's edge."""


@dataclass(frozen=True, eq=False)
class PlannedPicture:
    """A frame (H, W, 3), 8 bit, upright, in the plan's curve. `settled`: in the plan's own light, not in that of the
    last picture before people or the camera moved."""

    frame: Bytes
    settled: bool


def planned_picture(
    plan: Plan, evaluated: Callable[[Plan], Evaluation], width: int, store: BasisStore, last: LastLight
) -> PlannedPicture:
    """The frame, at most `width` px wide before it is set upright, in its own light, which `last` keeps. `evaluated`
    gives the plan's evaluation; what does not hang on it is worked out meanwhile."""
    view, window = _steady(view_of(plan.camera, plan.subject)), overview_window(plan, width)
    with ThreadPoolExecutor(1) as beside:
        ahead = beside.submit(_without_light, plan, view, window)
        capture = capture_of(replace(evaluated(plan), view=view), store, SEED)
        ahead.result()

    def behind() -> tuple[Floats32, Floats32]:
        found = background_of(capture, window)
        last.keep(capture, found)
        return found

    return PlannedPicture(_encoded(plan, draw(capture, window, again=True, behind=behind)), settled=True)


def picture_at_once(plan: Plan, width: int, store: BasisStore, last: LastLight) -> PlannedPicture | None:
    """The frame in the light that is known, somebody who moved a little rougher; None where none is."""
    view, window = _steady(view_of(plan.camera, plan.subject)), overview_window(plan, width)
    known = last.of(plan)
    if known is None:
        return None
    settled = known.capture.plan == plan
    capture = known.capture if settled else moved_to(known, plan, view, store)
    if capture is None:
        return None
    if not settled:
        window = replace(window, seen=1)
    with ThreadPoolExecutor(2) as beside:
        ahead = [beside.submit(one) for one in outlines(plan, view, window, SEED, again=settled)]
        behind = known.behind_of(plan, view, window) or background_of(capture, window)
        for one in ahead:
            one.result()
    return PlannedPicture(_encoded(plan, draw(capture, window, again=settled, behind=lambda: behind)), settled)


def _encoded(plan: Plan, drawn: Drawn) -> Bytes:
    signal = encode(drawn.frame, plan.camera.curve, plan.camera.curve_table)
    # Rounds as NumPy does, without a picture in between.
    return upright(np.asarray(cv2.convertScaleAbs(signal, alpha=255.0), dtype=np.uint8), side_turns(plan.camera))


def _without_light(plan: Plan, view: View, window: PixelWindow) -> None:
    """What casts shadows as lamps see it, and what the camera sees of it."""
    looked_from_lamps(plan)
    for outline in outlines(plan, view, window, SEED, again=True):
        outline()


def _steady(view: View) -> View:
    """The same but for what no pixel of such a picture shows: focus that follows who walks aside changes the angle of
    view by millionths, and all that its rays meet would be looked for anew."""
    return replace(view, tan_h=float(f"{view.tan_h:.{DIGITS}g}"), tan_v=float(f"{view.tan_v:.{DIGITS}g}"))
