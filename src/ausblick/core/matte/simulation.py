"""The test key from a plan: windows drawn, shot, pulled by both colour differences and measured."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..camera.coverage import coverage_of
from ..damage.damage import KINDER
from ..damage.scale import QualityPart, quality_of
from ..evaluation.evaluate import evaluate
from ..geometry.vectors import Bools, Floats32
from ..light.basis import BasisStore
from ..plan import Plan
from .capture import Capture, capture_of
from .key_windows import WHOLE, crop_windows, edge_window, overview_window, part_in
from .keyer import AWAY
from .pixel_window import PixelWindow
from .pull import Keyer, Pulled, pull, pull_by
from .quality import Measures, held_out, joined, measured
from .render import Drawn, draw
from .shoot import Codec, shoot

EDGE = 3.0
SOLID = 0.5


class NoScreen(ValueError):
    """No screen is in the picture: nothing to key."""


FORMULAS: tuple[Keyer, ...] = ("colour difference", "larger channel")


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


@dataclass(frozen=True, eq=False)
class Keyed:
    """The windows keyed by one formula, what was measured of the person whom it costs most, and its quality."""

    formula: Keyer
    shots: dict[str, Shot]
    measures: Measures
    person: int

    @property
    def parts(self) -> tuple[QualityPart, ...]:
        return self.measures.parts

    @property
    def quality(self) -> float:
        return quality_of(self.parts)


@dataclass(frozen=True, eq=False)
class SimulatedKey:
    """`crops` by name (hair, hand) and measures by the kinder formula; quality 0..100 on the fixed scale.

    `other`: the key by the other formula. Left out of the quality: `second`, the plan's measures by the chroma
    distance, and `flicker_percent`, how much the matte changes from frame to frame along its edge (a codec freezes
    noise, so it is no judge).
    """

    overview: Shot
    kinder: Keyed
    other: Keyed
    second: Measures | None
    flicker_percent: float | None
    capture: Capture

    @property
    def crops(self) -> dict[str, Shot]:
        return self.kinder.shots

    @property
    def measures(self) -> Measures:
        return self.kinder.measures

    @property
    def parts(self) -> tuple[QualityPart, ...]:
        return self.kinder.parts

    @property
    def quality(self) -> float:
        return self.kinder.quality


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
    kinder, other = keyed(capture, crop_windows(capture), codec)
    step("second keyer")
    crops = {name: with_second(shot, capture) for name, shot in kinder.shots.items()}
    return SimulatedKey(
        overview=with_second(by(kinder.formula, overview, capture), capture),
        kinder=replace(kinder, shots=crops),
        other=other,
        second=_second([one for one in crops.values() if one.window.person == kinder.person], capture),
        flicker_percent=_flicker(crops, capture, kinder.formula),
        capture=capture,
    )


def by(formula: Keyer, shot: Shot, capture: Capture) -> Shot:
    """The shot keyed by a formula."""
    away = _away(capture, shot.window)
    pulled = pull(shot.linear, capture.key, capture.picked, away, formula, figure=_figure(shot))
    return replace(shot, pulled=None if pulled is None else held_out(pulled, shot.drawn))


def _figure(shot: Shot) -> Bools:
    """Who picks the screen sees where somebody stands: a shirt of its hue is no part of it."""
    height, width = shot.linear.shape[:2]
    return np.asarray(shot.drawn.alpha[:height, :width] > SOLID)


def with_second(shot: Shot, capture: Capture) -> Shot:
    """The shot with the other keyer's pull."""
    return replace(shot, second=by("chroma distance", shot, capture).pulled)


def _flicker(crops: dict[str, Shot], capture: Capture, formula: Keyer) -> float | None:
    """Mean change of the matte where it is neither 0 nor 1, in %."""
    changes = []
    for shot in crops.values():
        away = _away(capture, shot.window)
        after = pull(shot.next, capture.key, capture.picked, away, formula, figure=_figure(shot))
        if shot.pulled is None or after is None:
            continue
        after = held_out(after, shot.drawn)
        edge = (shot.pulled.matte > 0.02) & (shot.pulled.matte < 0.98)
        if edge.any():
            changes.append(float(np.abs(after.matte - shot.pulled.matte)[edge].mean()))
    return 100.0 * float(np.mean(changes)) if changes else None


def _second(crops: Sequence[Shot], capture: Capture) -> Measures | None:
    found = [measured(shot.drawn, shot.linear, shot.second, capture.key, EDGE) for shot in crops if shot.second]
    return joined(found) if found else None


def score(capture: Capture, windows: dict[str, PixelWindow], codec: Codec) -> float:
    """Quality of a changed capture: what levers are ranked by."""
    return keyed(capture, windows, codec)[0].quality


def quick(
    plan: Plan, store: BasisStore, codec: Codec, seed: int = 7, drawn: Callable[[Drawn], None] = lambda _: None
) -> Shot:
    """The overview alone; `drawn` is given the clean picture before it is recorded. Raises NoScreen."""
    shot = take(capture_of(evaluate(plan, store), store, seed), overview_window(plan), codec, drawn)
    if shot.pulled is None:
        raise NoScreen("nothing to key: no screen is in the picture, or no light on it")
    return shot


def take(capture: Capture, window: PixelWindow, codec: Codec, seen: Callable[[Drawn], None] = lambda _: None) -> Shot:
    drawn = draw(capture, window)
    seen(drawn)
    sensor = capture.plan.camera.sensor
    share = window.width * window.height / (sensor.px_w * sensor.px_h)
    # An overview stands for the whole frame: it gets the whole rate, less what fewer pixels need.
    linear, after = shoot(capture, drawn, share if window.scale == 1.0 else window.scale**-1.5, codec)
    return by("colour difference", Shot(window, drawn, linear, None, after), capture)


def _away(capture: Capture, window: PixelWindow) -> float:
    """Drawn px that the flat screen keeps from the figure."""
    away = AWAY * capture.plan.camera.sensor.px_h / window.scale * (0.5 if window.scale == 1.0 else 1.0)
    return min(away, 0.12 * window.height)


def keyed(capture: Capture, windows: dict[str, PixelWindow], codec: Codec) -> tuple[Keyed, Keyed]:
    """All windows by both colour differences, the kinder one first. Raises NoScreen."""
    with ThreadPoolExecutor(2) as both:
        # Each in the context of whoever asked: by that it is told when nobody waits for it any more.
        begun = [both.submit(copy_context().run, take, capture, one, codec) for one in windows.values()]
        clean, coarse = replace(capture, recording=None), overview_window(capture.plan, WHOLE)
        small = both.submit(copy_context().run, take, clean, coarse, codec)
        shots = {name: one.result() for name, one in zip(windows, begun, strict=True)}
        whole = small.result()
        seen = {
            person: whole.drawn if person == 0 else draw(capture, replace(coarse, person=person))
            for person in capture.looked_at
        }

        def by_each(shots: Mapping[str, Shot]) -> list[Keyed | None]:
            each = [
                both.submit(copy_context().run, _by_formula, one, shots, whole, seen, capture) for one in FORMULAS
            ]
            return [one.result() for one in each]

        usual, larger = by_each(shots)
        if "edge" not in windows and not any(
            one is not None and _shows_edge(one, capture) for one in (usual, larger)
        ):
            # A head or a hand that fills its window shows little screen there; its edge elsewhere does.
            more = {name: take(capture, one, codec) for name, one in edge_window(capture).items()}
            usual, larger = by_each({**shots, **more})
    if usual is None and larger is None:
        raise NoScreen("nothing to key: no screen is in the picture where the figure is")
    usual, larger = usual or larger, larger or usual
    assert usual is not None
    assert larger is not None
    return (larger, usual) if larger.quality > usual.quality + KINDER else (usual, larger)


def _by_formula(
    formula: Keyer, shots: Mapping[str, Shot], whole: Shot, seen: Mapping[int, Drawn], capture: Capture
) -> Keyed | None:
    """Edges from the windows, clip and loss of matte from the whole picture, `seen` by each who is looked at, of the
    person whom it costs most; None where no window has screen."""
    every = pull(
        whole.linear, capture.key, capture.picked, _away(capture, whole.window), formula,
        needed=_needed(capture, whole), figure=_figure(whole),
    )  # fmt: skip
    own = {name: by(formula, shot, capture) for name, shot in shots.items()}
    if any(shot.pulled is not None for shot in own.values()):
        own = {name: _by_whole(formula, shot, every, whole, capture) for name, shot in own.items()}
    found = [
        Keyed(formula, own, measures, person)
        for person, drawn in seen.items()
        if (measures := _of_person(person, own, replace(whole, drawn=drawn), every, capture)) is not None
    ]
    return min(found, key=lambda one: one.quality, default=None)


def _shows_edge(one: Keyed, capture: Capture) -> bool:
    """Is the outline in any window? Curls may fill one and fingers the other; hands alone have none but a hand's."""
    subject = capture.plan.subject
    return subject is None or subject.framing == "hands" or one.measures.edge_error is not None


SHOWS_SCREEN = 0.1
"""Of a window: where less of it lies before the screen there is nothing to key."""


def _by_whole(formula: Keyer, shot: Shot, every: Pulled | None, whole: Shot, capture: Capture) -> Shot:
    """A window that hair or a hand fills shows too little flat screen to be keyed by itself: it is keyed by what is
    known of the whole picture's."""
    if shot.pulled is not None or every is None or float((shot.drawn.screen > 0.5).mean()) < SHOWS_SCREEN:
        return shot
    screen = shot.window.read(every.screen, whole.window)
    return replace(shot, pulled=held_out(pull_by(shot.linear, capture.key, screen, every, formula), shot.drawn))


def _of_person(
    person: int, own: Mapping[str, Shot], whole: Shot, every: Pulled | None, capture: Capture
) -> Measures | None:
    windows = {part_in(name): shot for name, shot in own.items() if shot.window.person == person}
    found = [_measured(part, shot, windows, capture) for part, shot in windows.items() if shot.pulled is not None]
    if not found:
        return None
    if every is None:
        return replace(joined(found), needed_clip=None)
    over_all = measured(whole.drawn, whole.linear, held_out(every, whole.drawn), capture.key, EDGE)
    return replace(joined(found), needed_clip=every.needed_clip, matte_loss=over_all.matte_loss)


def _measured(part: str, shot: Shot, among: Mapping[str, Shot], capture: Capture) -> Measures:
    """Of one window; the moving hand counts where it is whole, not where another window cuts into it, and so does
    hair. What fills a window is no outline."""
    assert shot.pulled is not None
    found = measured(shot.drawn, shot.linear, shot.pulled, capture.key, EDGE)
    if part != "hand" and "hand" in among:
        found = replace(found, motion_error=None)
    if part == "edge" and "hair" in among:
        found = replace(found, hair_error=None)
    return found if shot.pulled.flat.any() else replace(found, edge_error=None)


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


def measure_all(capture: Capture, windows: dict[str, PixelWindow], codec: Codec) -> tuple[Measures, dict[str, Shot]]:
    """Measures over all windows by the kinder formula, and the windows themselves. Raises NoScreen."""
    kinder, _ = keyed(capture, windows, codec)
    return kinder.measures, kinder.shots
