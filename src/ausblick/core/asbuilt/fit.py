"""From a measured frame to the lamp that is wrong: the screen's light as the sum of the plan's lamps.

    y(cell) = sum of w_i * M_i(cell) + everything else

M_i is lamp i's light on the screen at full power (own light less the figure's shadow, and what the set returns
of it), w_i its dimmer. Simple stories are tried first: nothing is wrong; all of it is brighter or darker (the
exposure); one dimmer; one stand. The one that explains the frame best for the number of things it changes is told.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares, nnls

from ..arrays import Floats
from ..light.basis import FRONT, BasisStore, lamp_maps, weights
from ..light.direct import direct_lux
from ..light.emission import emission_of
from ..light.mix import lamp_rgb
from ..light.occlusion import flag_triangles, wing_triangles
from ..light.returned import returned_maps
from ..light.total import light_without_lamps, lost_maps
from ..optics.grid import screen_grid
from ..plan import Plan
from ..signal.schools import key_channel
from .seen import COLUMNS, ROWS, Seen, cells_of
from .words import (
    AS_PLANNED,
    CLEARLY,
    LampFit,
    Story,
    Told,
    dimmer_words,
    exposure_words,
    several_words,
    stand_words,
)

PATCHES = 40.0
"""Places on a screen that tell something of their own; neighbours say nearly the same."""
POOR, SURE = 0.045, 0.02
"""Relative misfit: above the first the story does not hold, below the second it is told without doubt."""
STRANGE, STRANGE_SHARE = 0.10, 0.06
"""Creases and spots reach this far over fewer places; more of it is light that nobody planned."""
LEAST_CELLS = 12
LEAST_SHARE = 0.04
"""A lamp that gives less of the screen's light than this can't be judged by it."""


@dataclass(frozen=True)
class _Set:
    """The plan's lamps at the cells seen: maps (L, N) at full power, planned weights (L,), the rest (N,)."""

    plan: Plan
    at: Floats
    maps: Floats
    planned: Floats
    rest: Floats
    direct: Floats
    lost: Floats
    tint: Floats

    @property
    def expected(self) -> Floats:
        return np.asarray(self.planned @ self.maps + self.rest)


@dataclass(frozen=True)
class _Try:
    story: Story
    lamp: int | None
    values: tuple[float, ...]
    model: Floats
    freedom: int

    def misfit(self, lux: Floats) -> float:
        """Robust relative misfit: creases and spots shall not decide."""
        off = (self.model - lux) / max(float(lux.mean()), 1e-9)
        return float(np.sqrt(np.minimum(off * off, (2.5 * _spread(off)) ** 2).mean()))


def _spread(off: Floats) -> float:
    return max(1.4826 * float(np.median(np.abs(off - np.median(off)))), 1e-4)


def fit_lamps(plan: Plan, seen: Seen, store: BasisStore, least: int = LEAST_CELLS) -> LampFit | None:
    """None where the plan has no lamp on, or fewer than `least` places of the screen are seen."""
    if len(seen.lux) < least or not any(lamp.on for lamp in plan.lights):
        return None
    known = _set(plan, seen, store)
    if known.expected.mean() <= 0.0:
        return None
    tries = list(_tries(known, seen.lux))
    best = min(tries, key=lambda t: PATCHES * 2.0 * math.log(t.misfit(seen.lux) + 0.004) + 2.2 * t.freedom)
    return _told(known, seen, best, tries)


def _set(plan: Plan, seen: Seen, store: BasisStore) -> _Set:
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    tint = np.array([lamp_rgb(plan, lamp)[channel] for lamp in plan.lights])
    direct, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    whole = direct * (1.0 - lost) * tint[:, None, None] + returned_maps(plan, grid, store)[..., channel]
    row, column = cells_of(grid, seen.at)
    rest = light_without_lamps(plan, grid, store)[row, column]
    return _Set(
        plan, seen.at, whole[:, row, column], weights(plan), rest, direct[:, row, column], lost[:, row, column], tint
    )


def _tries(known: _Set, lux: Floats) -> Iterator[_Try]:
    lamps = known.planned @ known.maps
    yield _Try("as planned", None, (), known.expected, 0)
    gain = _ratio(known.expected, lux)
    yield _Try("exposure", None, (gain,), gain * known.expected, 1)
    for i in _judged(known):
        own = known.planned[i] * known.maps[i]
        factor = _ratio(own, lux - (known.expected - own))
        if factor > 0.0:
            yield _Try("dimmer", i, (factor,), known.expected - own + factor * own, 1)
        moved = _moved(known, i, lux)
        if moved is not None:
            yield moved
    if len(lamps):
        scaled = known.planned[:, None] * known.maps
        level = max(float(lux.mean()), 1e-9)
        # A pull toward the plan where two lamps light the screen alike and nothing tells them apart.
        pull = 0.02 * math.sqrt(len(lux)) * np.eye(len(scaled))
        found, _ = nnls(
            np.vstack([scaled.T / level, pull]), np.concatenate([(lux - known.rest) / level, pull.sum(axis=1)])
        )
        yield _Try("several", None, tuple(found), found @ scaled + known.rest, len(_judged(known)))


def _judged(known: _Set) -> list[int]:
    level = max(float(known.expected.mean()), 1e-9)
    return [i for i in range(len(known.planned)) if known.planned[i] * known.maps[i].mean() > LEAST_SHARE * level]


def _ratio(model: Floats, lux: Floats) -> float:
    """The factor of a model that meets the light best, spots and creases left out."""
    keep = np.ones(len(lux), dtype=bool)
    factor = 1.0
    for _ in range(3):
        factor = float((model[keep] @ lux[keep]) / max(float(model[keep] @ model[keep]), 1e-12))
        off = factor * model - lux
        keep = np.abs(off - np.median(off)) < 3.0 * _spread(off)
        if keep.sum() < 8:
            break
    return factor


def _moved(known: _Set, i: int, lux: Floats) -> _Try | None:
    """The lamp's stand moved across and away: position searched, its aim kept."""
    lamp = known.plan.lights[i]
    if lamp.fixture.emitter.shape == "sun":
        return None
    points = np.column_stack([known.at, np.zeros(len(known.at))])
    occluders = np.concatenate([flag_triangles(known.plan.flags), wing_triangles(known.plan.screen)])
    own_direct = known.planned[i] * known.tint[i] * known.direct[i] * (1.0 - known.lost[i])
    level = max(float(lux.mean()), 1e-9)
    others = known.expected - own_direct

    def model(by: Floats) -> Floats:
        x, y, z = lamp.position
        shifted = lamp.model_copy(update={"position": (x + by[0], y, max(0.3, z + by[1]))})
        lit = direct_lux(emission_of(shifted, known.plan), points, FRONT, occluders, most=3)
        return np.asarray(others + known.planned[i] * known.tint[i] * lit * (1.0 - known.lost[i]))

    start = np.zeros(2)

    def off(by: Floats) -> Floats:
        return np.asarray((model(by) - lux) / level)

    found = least_squares(
        off, start, loss="soft_l1", f_scale=0.03, bounds=(-1.6, 1.6),
        diff_step=[0.05, 0.05], x_scale=0.3, max_nfev=14,
    )  # fmt: skip
    return _Try("stand", i, (float(found.x[0]), float(found.x[1])), model(found.x), 2)


def _told(known: _Set, seen: Seen, best: _Try, tries: list[_Try]) -> LampFit:
    misfit = best.misfit(seen.lux)
    several = next(t for t in tries if t.story == "several")
    found = {lamp.id: float(v) for lamp, v in zip(known.plan.lights, several.values, strict=True)}
    off = np.abs(best.model - seen.lux) / max(float(seen.lux.mean()), 1e-9)
    if misfit > POOR or float((off > STRANGE).mean()) > STRANGE_SHARE:
        cure = "Measure an empty screen, and check the plan against the set"
        return LampFit("unknown", None, 1.0, None, 100.0 * misfit, 0.0, _why_poor(seen, best), cure, (), found)
    story, lamp, told = _story(known, best)
    others = [t.misfit(seen.lux) for t in tries if t.lamp != best.lamp and t.story != "several"]
    lead = min(others, default=1.0) / max(misfit, 1e-4)
    sure = float(np.clip((lead - 1.0) / 0.6, 0.0, 1.0) * np.clip((POOR - misfit) / (POOR - SURE), 0.0, 1.0))
    if story == "as planned":
        sure = float(np.clip((POOR - misfit) / (POOR - SURE), 0.0, 1.0))
    ident = None if lamp is None else known.plan.lights[lamp].id
    moved = (best.values[0], best.values[1]) if story == "stand" else None
    single = story == "exposure" or best.story == "dimmer"
    factor = best.values[0] if single else found[ident] if ident else 1.0
    return LampFit(story, ident, factor, moved, 100.0 * misfit, sure, told.says, told.cure, told.changes, found)


def _story(known: _Set, best: _Try) -> tuple[Story, int | None, Told]:
    plan = known.plan
    if best.story == "exposure" and abs(best.values[0] - 1.0) >= CLEARLY:
        return "exposure", None, exposure_words(best.values[0])
    if best.story == "dimmer" and best.lamp is not None and abs(best.values[0] - 1.0) >= CLEARLY:
        return "dimmer", best.lamp, dimmer_words(plan, best.lamp, best.values[0])
    if best.story == "stand" and best.lamp is not None:
        return "stand", best.lamp, stand_words(plan, best.lamp, *best.values)
    if best.story == "several":
        off = [(i, best.values[i]) for i in _judged(known) if abs(best.values[i] - 1.0) > CLEARLY]
        off.sort(key=lambda item: -abs(math.log2(max(item[1], 0.05))))
        if len(off) == 1:
            return "dimmer", off[0][0], dimmer_words(plan, *off[0])
        if off:
            return "several", off[0][0], several_words(plan, off)
    return "as planned", None, Told(AS_PLANNED)


def _why_poor(seen: Seen, best: _Try) -> str:
    off = (seen.lux - best.model) / max(float(seen.lux.mean()), 1e-9)
    worst = int(np.argmax(np.abs(off)))
    word = "brighter" if off[worst] > 0 else "darker"
    x, y = seen.at[worst]
    return (
        f"No change of the planned lamps explains this frame: near {x:.1f} m across, {y:.1f} m up it is "
        f"{100.0 * abs(off[worst]):.0f} % {word} than any of them makes it. "
        "A light that is not in the plan, or another geometry"
    )
