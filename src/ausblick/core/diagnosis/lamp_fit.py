"""From a measured frame to the lamp that is wrong: the screen's light as the sum of the plan's lamps.

    y(cell) = sum of w_i * M_i(cell) + everything else

M_i is lamp i's light on the screen at full power (own light less the figure's shadow, and what the set returns
of it), w_i its dimmer. Simple stories are tried first: nothing is wrong; all of it is brighter or darker (the
exposure); one dimmer; one stand; where none of them holds, two changes at once. The one that explains the frame
best for the number of things it changes is explained.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np
from scipy.optimize import least_squares, nnls

from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..plan import Plan
from .fit_text import (
    AS_PLANNED,
    CLEARLY,
    Explanation,
    Hypothesis,
    LampFit,
    dimmer_words,
    exposure_words,
    pair_words,
    several_words,
    stand_words,
)
from .lamp_model import LampModel, Try, judged, lamp_model_of, movable, own_direct, spread
from .observed_light import ObservedLight
from .two_causes import pairs

POOR, SURE = 0.045, 0.02
"""Relative misfit: above the first the story does not hold, below the second it is explained without doubt."""
STRANGE, STRANGE_SHARE = 0.10, 0.06
"""Creases and spots reach this far over fewer places; more of it is light that nobody planned."""
WELL = 0.006
"""Misfit of a single change that leaves nothing to ask; above it two changes at once are tried."""
LEAST_CELLS, CELLS_FOR_TWO = 12, 60


def fit_lamps(plan: Plan, observed: ObservedLight, store: BasisStore, least: int = LEAST_CELLS) -> LampFit | None:
    """None where the plan has no lamp on, or fewer than `least` places of the screen are observed."""
    if len(observed.lux) < least or not any(lamp.on for lamp in plan.lights):
        return None
    lit = lamp_model_of(plan, observed, store)
    if lit.expected.mean() <= 0.0:
        return None
    tries = list(_tries(lit, observed.lux))
    best = min(tries, key=lambda t: t.cost(observed.lux))
    unsettled = best.story == "several" or best.misfit(observed.lux) > WELL
    if unsettled and len(observed.lux) >= CELLS_FOR_TWO:
        tries += pairs(lit, observed.lux)
        best = min(tries, key=lambda t: t.cost(observed.lux))
    return _explained(lit, observed, best, tries)


def _tries(lit: LampModel, lux: Floats) -> Iterator[Try]:
    yield Try("as planned", None, (), lit.expected, 0)
    gain = _ratio(lit.expected, lux)
    yield Try("exposure", None, (gain,), gain * lit.expected, 1)
    for i in judged(lit):
        own = lit.planned[i] * lit.maps[i]
        factor = _ratio(own, lux - (lit.expected - own))
        if factor > 0.0:
            yield Try("dimmer", i, (factor,), lit.expected - own + factor * own, 1)
        moved = _moved(lit, i, lux)
        if moved is not None:
            yield moved
    if len(lit.planned):
        scaled = lit.planned[:, None] * lit.maps
        level = max(float(lux.mean()), 1e-9)
        # A pull toward the plan where two lamps light the screen alike and nothing tells them apart.
        pull = 0.02 * math.sqrt(len(lux)) * np.eye(len(scaled))
        found, _ = nnls(
            np.vstack([scaled.T / level, pull]), np.concatenate([(lux - lit.rest) / level, pull.sum(axis=1)])
        )
        yield Try("several", None, tuple(found), found @ scaled + lit.rest, len(judged(lit)))


def _ratio(model: Floats, lux: Floats) -> float:
    """The factor of a model that meets the light best, spots and creases left out."""
    keep = np.ones(len(lux), dtype=bool)
    factor = 1.0
    for _ in range(3):
        factor = float((model[keep] @ lux[keep]) / max(float(model[keep] @ model[keep]), 1e-12))
        off = factor * model - lux
        keep = np.abs(off - np.median(off)) < 3.0 * spread(off)
        if keep.sum() < 8:
            break
    return factor


def _moved(lit: LampModel, i: int, lux: Floats) -> Try | None:
    """The lamp's stand moved across and away: position searched, its aim kept."""
    light = movable(lit, i)
    if light is None:
        return None
    level, others = max(float(lux.mean()), 1e-9), lit.expected - own_direct(lit, i)

    def off(by: Floats) -> Floats:
        return np.asarray((others + light(by) - lux) / level)

    found = least_squares(
        off, np.zeros(2), loss="soft_l1", f_scale=0.03, bounds=(-1.6, 1.6),
        diff_step=[0.05, 0.05], x_scale=0.3, max_nfev=14,
    )  # fmt: skip
    return Try("stand", i, (float(found.x[0]), float(found.x[1])), others + light(found.x), 2)


def _explained(lit: LampModel, observed: ObservedLight, best: Try, tries: list[Try]) -> LampFit:
    misfit = best.misfit(observed.lux)
    several = next(t for t in tries if t.story == "several")
    found = {lamp.id: float(v) for lamp, v in zip(lit.plan.lights, several.values, strict=True)}
    off = np.abs(best.model - observed.lux) / max(float(observed.lux.mean()), 1e-9)
    if misfit > POOR or float((off > STRANGE).mean()) > STRANGE_SHARE:
        cure = "Measure an empty screen, and check the plan against the set"
        return LampFit("unknown", None, 1.0, None, 100.0 * misfit, 0.0, _why_poor(observed, best), cure, (), found)
    story, lamp, explained = _hypothesis(lit, best)
    others = [t.misfit(observed.lux) for t in tries if _rivals(t, best)]
    lead = min(others, default=1.0) / max(misfit, 1e-4)
    sure = float(np.clip((lead - 1.0) / 0.6, 0.0, 1.0) * np.clip((POOR - misfit) / (POOR - SURE), 0.0, 1.0))
    if story == "as planned":
        sure = float(np.clip((POOR - misfit) / (POOR - SURE), 0.0, 1.0))
    ident = None if lamp is None else lit.plan.lights[lamp].id
    moved = (best.values[0], best.values[1]) if story == "stand" else best.parts[0].moved if best.parts else None
    single = story == "exposure" or best.story == "dimmer"
    factor = best.values[0] if single else found[ident] if ident else 1.0
    return LampFit(
        story, ident, factor, moved, 100.0 * misfit, sure, explained.says, explained.cure, explained.changes, found
    )


def _rivals(other: Try, best: Try) -> bool:
    """Does the other story send somebody to another lamp? One that only adds a change to the best one does not."""
    return other.story != "several" and not best.lamps <= other.lamps


def _hypothesis(lit: LampModel, best: Try) -> tuple[Hypothesis, int | None, Explanation]:
    plan = lit.plan
    if best.story == "exposure" and abs(best.values[0] - 1.0) >= CLEARLY:
        return "exposure", None, exposure_words(best.values[0])
    if best.story == "dimmer" and best.lamp is not None and abs(best.values[0] - 1.0) >= CLEARLY:
        return "dimmer", best.lamp, dimmer_words(plan, best.lamp, best.values[0])
    if best.story == "stand" and best.lamp is not None:
        return "stand", best.lamp, stand_words(plan, best.lamp, *best.values)
    if best.story == "pair":
        return "pair", best.lamp, pair_words(plan, best.parts)
    if best.story == "several":
        off = [(i, best.values[i]) for i in judged(lit) if abs(best.values[i] - 1.0) > CLEARLY]
        off.sort(key=lambda item: -abs(math.log2(max(item[1], 0.05))))
        if len(off) == 1:
            return "dimmer", off[0][0], dimmer_words(plan, *off[0])
        if off:
            return "several", off[0][0], several_words(plan, off)
    return "as planned", None, Explanation(AS_PLANNED)


def _why_poor(observed: ObservedLight, best: Try) -> str:
    off = (observed.lux - best.model) / max(float(observed.lux.mean()), 1e-9)
    worst = int(np.argmax(np.abs(off)))
    word = "brighter" if off[worst] > 0 else "darker"
    x, y = observed.at[worst]
    return (
        f"No change of the planned lamps explains this frame: near {x:.1f} m across, {y:.1f} m up it is "
        f"{100.0 * abs(off[worst]):.0f} % {word} than any of them makes it. "
        "A light that is not in the plan, or another geometry"
    )
