"""The key of a capture by both colour differences: windows measured one by one, the person whom it costs most, the
kinder formula.

Of a window nothing need stay but what was measured: with its layers and keys it is some 30 MB.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from contextvars import copy_context
from dataclasses import dataclass, field, replace

import cv2
import numpy as np

from ..camera.coverage import coverage_of
from ..damage.damage import KINDER
from ..damage.scale import QualityPart, quality_of
from ..geometry.vectors import Bools
from .capture import Capture
from .key_windows import WHOLE, edge_window, overview_window, part_in
from .pixel_window import PixelWindow
from .pull import Keyer, Pulled, pull, pull_by
from .quality import Measures, held_out, joined, measured
from .render import Drawn, draw
from .shoot import Codec
from .window_shot import NoScreen, Shot, away_px, by, figure_in, recorded

EDGE = 3.0
USUAL: Keyer = "colour difference"
FORMULAS: tuple[Keyer, ...] = (USUAL, "larger channel")
SHOWS_SCREEN = 0.1
"""Of a window: where less of it lies before the screen there is nothing to key."""


@dataclass(frozen=True, eq=False)
class Keyed:
    """What was measured by one formula of the person whom it costs most, and its quality; `shots`: the windows keyed
    by it, where they are held."""

    formula: Keyer
    measures: Measures
    person: int
    shots: dict[str, Shot] = field(default_factory=dict)

    @property
    def parts(self) -> tuple[QualityPart, ...]:
        return self.measures.parts

    @property
    def quality(self) -> float:
        return quality_of(self.parts)


@dataclass(frozen=True, eq=False)
class _Whole:
    """The whole picture, coarse and clean: as each who is looked at sees it, and pulled by each formula."""

    shot: Shot
    seen: Mapping[int, Drawn]
    pulled: Mapping[Keyer, Pulled | None]


@dataclass(frozen=True, eq=False)
class _MeasuredWindow:
    """What one window shows: measures by the formulas that found screen in it or beside it, `alone` those that found
    it in the window itself. `shot`: keyed by the usual formula; None where it is not held."""

    name: str
    person: int
    measures: Mapping[Keyer, Measures]
    alone: Collection[Keyer]
    shot: Shot | None


def score(capture: Capture, windows: dict[str, PixelWindow], codec: Codec) -> float:
    """Quality of a changed capture: what levers are ranked by. Raises NoScreen."""
    return keyed(capture, windows, codec, hold=False)[0].quality


def measure_all(capture: Capture, windows: dict[str, PixelWindow], codec: Codec) -> tuple[Measures, dict[str, Shot]]:
    """Measures over all windows by the kinder formula, and the windows themselves. Raises NoScreen."""
    kinder, _ = keyed(capture, windows, codec)
    return kinder.measures, kinder.shots


def keyed(capture: Capture, windows: dict[str, PixelWindow], codec: Codec, hold: bool = True) -> tuple[Keyed, Keyed]:
    """All windows by both colour differences, the kinder one first; that one's shots are held. Raises NoScreen."""
    with ThreadPoolExecutor(2) as both:
        # Each in the context of whoever asked: by that it is told when nobody waits for it any more.
        whole = both.submit(copy_context().run, _whole_of, capture, codec)

        def found_in(some: dict[str, PixelWindow]) -> list[_MeasuredWindow]:
            every = {**windows, **some}
            begun = [
                both.submit(copy_context().run, _window_of, name, every, whole, capture, codec, hold) for name in some
            ]
            return [one.result() for one in begun]

        found = found_in(windows)
        usual, larger = _by_each(found, whole.result(), capture)
        if "edge" not in windows and not any(
            one is not None and _shows_edge(one, capture) for one in (usual, larger)
        ):
            # A head or a hand that fills its window shows little screen there; its edge elsewhere does.
            found += found_in(edge_window(capture))
            usual, larger = _by_each(found, whole.result(), capture)
    if usual is None and larger is None:
        raise NoScreen("nothing to key: no screen is in the picture where the figure is")
    usual, larger = usual or larger, larger or usual
    assert usual is not None
    assert larger is not None
    kinder, other = (larger, usual) if larger.quality > usual.quality + KINDER else (usual, larger)
    return replace(kinder, shots=_shots(kinder.formula, found, whole.result(), capture)), other


def _whole_of(capture: Capture, codec: Codec) -> _Whole:
    coarse = overview_window(capture.plan, WHOLE)
    shot = recorded(replace(capture, recording=None), coarse, codec)
    others = [person for person in capture.looked_at if person != 0]
    seen = {0: shot.drawn} | {person: draw(capture, replace(coarse, person=person)) for person in others}
    away, needed, figure = away_px(capture, coarse), _needed(capture, shot), figure_in(shot)
    pulled = {
        formula: pull(shot.linear, capture.key, capture.picked, away, formula, needed=needed, figure=figure)
        for formula in FORMULAS
    }
    return _Whole(shot, {person: seen[person] for person in capture.looked_at}, pulled)


def _window_of(
    name: str,
    windows: Mapping[str, PixelWindow],
    whole: Future[_Whole],
    capture: Capture,
    codec: Codec,
    hold: bool,
) -> _MeasuredWindow:
    """`windows`: all that are looked at, this one among them."""
    window = windows[name]
    shot = recorded(capture, window, codec)
    own = {formula: by(formula, shot, capture) for formula in FORMULAS}
    alone = {formula for formula, one in own.items() if one.pulled is not None}
    own = {formula: _by_whole(formula, one, whole.result(), capture) for formula, one in own.items()}
    parts = {part_in(each) for each, other in windows.items() if other.person == window.person}
    return _MeasuredWindow(
        name=name,
        person=window.person,
        measures={
            formula: _measured(part_in(name), one, parts, capture)
            for formula, one in own.items()
            if one.pulled is not None
        },
        alone=alone,
        shot=own[USUAL] if hold else None,
    )


def _by_whole(formula: Keyer, shot: Shot, whole: _Whole, capture: Capture) -> Shot:
    """A window that hair or a hand fills shows too little flat screen to be keyed by itself: it is keyed by what is
    known of the whole picture's."""
    every = whole.pulled[formula]
    if shot.pulled is not None or every is None or float((shot.drawn.screen > 0.5).mean()) < SHOWS_SCREEN:
        return shot
    screen = shot.window.read(every.screen, whole.shot.window)
    return replace(shot, pulled=held_out(pull_by(shot.linear, capture.key, screen, every, formula), shot.drawn))


def _measured(part: str, shot: Shot, among: Collection[str], capture: Capture) -> Measures:
    """Of one window; the moving hand counts where it is whole, not where another window cuts into it, and so does
    hair. What fills a window is no outline."""
    assert shot.pulled is not None
    found = measured(shot.drawn, shot.linear, shot.pulled, capture.key, EDGE)
    if part != "hand" and "hand" in among:
        found = replace(found, motion_error=None)
    if part == "edge" and "hair" in among:
        found = replace(found, hair_error=None)
    return found if shot.pulled.flat.any() else replace(found, edge_error=None)


def _by_each(found: Sequence[_MeasuredWindow], whole: _Whole, capture: Capture) -> list[Keyed | None]:
    return [_by_formula(formula, found, whole, capture) for formula in FORMULAS]


def _by_formula(formula: Keyer, found: Sequence[_MeasuredWindow], whole: _Whole, capture: Capture) -> Keyed | None:
    """Edges from the windows, clip and loss of matte from the whole picture, of the person whom it costs most; None
    where no window has screen."""
    if not any(formula in one.alone for one in found):
        return None
    each = [
        Keyed(formula, measures, person)
        for person in whole.seen
        if (measures := _of_person(person, formula, found, whole, capture)) is not None
    ]
    return min(each, key=lambda one: one.quality, default=None)


def _of_person(
    person: int, formula: Keyer, found: Sequence[_MeasuredWindow], whole: _Whole, capture: Capture
) -> Measures | None:
    own = [one.measures[formula] for one in found if one.person == person and formula in one.measures]
    if not own:
        return None
    every = whole.pulled[formula]
    if every is None:
        return replace(joined(own), needed_clip=None)
    drawn = whole.seen[person]
    over_all = measured(drawn, whole.shot.linear, held_out(every, drawn), capture.key, EDGE)
    return replace(joined(own), needed_clip=every.needed_clip, matte_loss=over_all.matte_loss)


def _shows_edge(one: Keyed, capture: Capture) -> bool:
    """Is the outline in any window? Curls may fill one and fingers the other; hands alone have none but a hand's."""
    subject = capture.plan.subject
    return subject is None or subject.framing == "hands" or one.measures.edge_error is not None


def _shots(formula: Keyer, found: Sequence[_MeasuredWindow], whole: _Whole, capture: Capture) -> dict[str, Shot]:
    """What was held, keyed by a formula."""
    held = {one.name: one.shot for one in found if one.shot is not None}
    if formula == USUAL:
        return held
    return {name: _by_whole(formula, by(formula, shot, capture), whole, capture) for name, shot in held.items()}


def _needed(capture: Capture, whole: Shot) -> Bools:
    """Where (H, W) the picture shows screen that is needed, well away from the figure. What is keyed away on purpose
    is no part of it: its own folds and shadows are seen in the matte."""
    height, width = whole.linear.shape[:2]
    corners = coverage_of(capture.plan, capture.view).frame_corners
    inside = np.zeros((height, width), dtype=np.uint8)
    if len(corners) >= 3:
        at = np.clip(np.round(corners * (width, height)), -(2**14), 2**14).astype(np.int32)
        cv2.fillConvexPoly(inside, cv2.convexHull(at), 1)
    drawn = whole.drawn
    empty = (drawn.alpha + drawn.away)[:height, :width] < 1e-3
    empty &= drawn.screen[:height, :width] > 0.99
    away = cv2.distanceTransform(empty.astype(np.uint8), cv2.DIST_L2, 3) > max(2.0, 0.02 * height)
    return np.asarray(away & (inside > 0))
