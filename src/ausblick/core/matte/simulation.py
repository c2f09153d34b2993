"""The test key from a plan: its pictures, its figures by the kinder formula, and what another keyer says."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..damage.scale import QualityPart
from ..evaluation.evaluate import evaluate
from ..light.basis import BasisStore
from ..plan import Plan
from .both_formulas import EDGE, USUAL, Keyed, keyed
from .capture import Capture, capture_of
from .key_windows import crop_windows, overview_window
from .pull import Keyer, pull
from .quality import Measures, held_out, joined, measured
from .render import Drawn
from .shoot import Codec
from .window_shot import NoScreen, Shot, away_px, by, figure_in, recorded


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
    overview = overview or by(USUAL, recorded(capture, overview_window(plan), codec), capture)
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


def with_second(shot: Shot, capture: Capture) -> Shot:
    """The shot with the other keyer's pull."""
    return replace(shot, second=by("chroma distance", shot, capture).pulled)


def _flicker(crops: dict[str, Shot], capture: Capture, formula: Keyer) -> float | None:
    """Mean change of the matte where it is neither 0 nor 1, in %."""
    changes = []
    for shot in crops.values():
        away = away_px(capture, shot.window)
        after = pull(shot.next, capture.key, capture.picked, away, formula, figure=figure_in(shot))
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


def quick(
    plan: Plan, store: BasisStore, codec: Codec, seed: int = 7, drawn: Callable[[Drawn], None] = lambda _: None
) -> Shot:
    """The overview alone; `drawn` is given the clean picture before it is recorded. Raises NoScreen."""
    capture = capture_of(evaluate(plan, store), store, seed)
    shot = by(USUAL, recorded(capture, overview_window(plan), codec, drawn), capture)
    if shot.pulled is None:
        raise NoScreen("nothing to key: no screen is in the picture, or no light on it")
    return shot
