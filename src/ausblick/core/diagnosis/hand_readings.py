"""Without scopes: nine readings taken by hand, and the zebra method; the same verdict as from a frame.

Zebra: the aperture at the first stripe on the screen and at full stripes are 2 log2(N1/N2) stops apart.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..camera.exposure import grey_lux, light_for_luma, stops
from ..camera.level_schools import key_channel
from ..camera.pane_film import film_before_screen
from ..camera.screen_grid import Grid, wall_of
from ..camera.view import view_of
from ..colour.curves import decode
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..plan import Plan
from .cause import Cause, cause_of_light
from .observed_light import ObservedCells, ObservedLight

Unit = Literal["percent", "lux", "foot-candle", "stops"]
LUX_PER_FC = 10.7639104
FITS = 1.0 / 3.0
UNCERTAIN = {"percent": 0.08, "lux": 0.10, "foot-candle": 0.10, "stops": 0.10}
"""Relative uncertainty of one reading: a meter's 10 %, two points of a scope at mid level."""

BY_HAND = 0.03
"""What careful readings of one meter scatter by among each other."""


class ReadingError(ValueError):
    """A reading that can't be: names which."""


@dataclass(frozen=True)
class HandReading:
    """`spread_stops` between the brightest and the darkest zone (names), `mean_lux` (None for bare stops),
    `uncertain_stops` of the spread; the cause where lamps were told apart by nine places."""

    spread_stops: float
    uncertain_stops: float
    brightest: str
    darkest: str
    mean_lux: float | None
    state: Literal["holds", "tight", "fails"]
    says: str
    cause: Cause | None


@dataclass(frozen=True)
class Zebra:
    spread_stops: float
    state: Literal["holds", "tight", "fails"]
    says: str


ROWS, COLUMNS = ("upper", "middle", "lower"), ("left", "centre", "right")


def zone_name(index: int) -> str:
    return f"{ROWS[index // 3]} {COLUMNS[index % 3]}"


def read_nine(plan: Plan, values: Sequence[float | None], unit: Unit, store: BasisStore) -> HandReading:
    """Nine readings row by row from the upper left, None where there is no screen. Raises ReadingError."""
    if len(values) != 9:
        raise ReadingError(f"nine readings are needed, row by row from the upper left (got {len(values)})")
    known = [i for i, value in enumerate(values) if value is not None]
    if len(known) < 3:
        raise ReadingError("at least three of the nine readings are needed")
    lux = np.array([_lux(plan, float(values[i] or 0.0), unit, i) for i in known])
    spread = stops(float(lux.max() / lux.min()))
    unsure = math.log2(1.0 + UNCERTAIN[unit]) * math.sqrt(2.0)
    low, high = zone_name(known[int(np.argmin(lux))]), zone_name(known[int(np.argmax(lux))])
    cause = None if unit == "stops" else _cause(plan, lux, known, store)
    state, says = _verdict(spread, unsure, low, high)
    return HandReading(spread, unsure, high, low, None if unit == "stops" else float(lux.mean()), state, says, cause)


def _lux(plan: Plan, value: float, unit: Unit, index: int) -> float:
    """Light of the key channel in lux; for stops relative to any."""
    if not math.isfinite(value):
        raise ReadingError(f"{zone_name(index)}: must be a finite number")
    if unit == "stops":
        if abs(value) > 15.0:
            raise ReadingError(f"{zone_name(index)}: {value:g} stops are out of any set's range (-15 to 15)")
        return float(2.0**value)
    if value <= 0.0:
        raise ReadingError(f"{zone_name(index)}: must be above 0; leave it out where there is no screen")
    if unit == "percent":
        if value > 109.0:
            raise ReadingError(f"{zone_name(index)}: {value:g} % is above any scope's range (0 to 109 %)")
        return _lux_of_level(plan, value)
    return float(value * (LUX_PER_FC if unit == "foot-candle" else 1.0))


def _lux_of_level(plan: Plan, percent: float) -> float:
    """White light that makes the screen read a level on the plan's trace; bisection for luma."""
    ink, camera = film_before_screen(plan) * np.array(plan.screen.reflectance), plan.camera
    channel = key_channel(plan.screen.hue, ink)
    if plan.targets.level_trace == "key-channel":
        x = float(decode(np.array(percent / 100.0), camera.curve, camera.curve_table))
        return float(x * grey_lux(camera) / max(float(ink[channel]), 1e-4))
    return light_for_luma(ink, percent, camera)


def _cause(plan: Plan, lux: Floats, known: list[int], store: BasisStore) -> Cause | None:
    """Nine places can tell which of a few lamps it is, where the frame's zones fall on the screen."""
    view = view_of(plan.camera, plan.subject)
    frame = np.array([[(i % 3 + 0.5) / 3.0, (i // 3 + 0.5) / 3.0] for i in known])
    rays = view.rays(frame)
    ahead = rays[:, 2] < -1e-6
    reach = -view.lens[2] / np.where(ahead, rays[:, 2], -1.0)
    at = (view.lens + reach[:, None] * rays)[:, :2]
    s = plan.screen
    across, up = np.abs(at[:, 0] - s.x_centre), at[:, 1] - s.bottom
    on = ahead & (across < s.width / 2.0) & (up > 0.0) & (up < s.height)
    if on.sum() < 5:
        return None
    # Nine places and no grid: the diagonal of the one that their columns and rows would make.
    points, diagonal = Grid(at[on, 0], at[on, 1], wall_of(s)), np.eye(int(on.sum()), dtype=bool)
    cells = ObservedCells(points, diagonal, np.repeat(lux[on, None], 3, axis=1), frame[on])
    return cause_of_light(plan, ObservedLight((cells,), coloured=False, noise=BY_HAND), store, least=5)


def _verdict(spread: float, unsure: float, low: str, high: str) -> tuple[Literal["holds", "tight", "fails"], str]:
    between = f"{high} is {spread:.1f} stops brighter than {low}"
    if spread <= FITS:
        return "holds", f"Even: {between}, give or take {unsure:.1f}"
    if spread - unsure <= FITS:
        return "tight", f"Even within what such readings can tell: {between}, give or take {unsure:.1f}"
    return (
        "fails",
        f"{between[0].upper()}{between[1:]}, give or take {unsure:.1f}: light {low}, or take some from {high}",
    )


def zebra(first: float, full: float) -> Zebra:
    """f-numbers at the first stripe and with the whole screen striped. Raises ReadingError."""
    for name, value in (("first stripe", first), ("full stripes", full)):
        if not (math.isfinite(value) and 0.5 <= value <= 128.0):
            raise ReadingError(f"{name}: an f-number between 0.5 and 128 is needed")
    if full > first:
        raise ReadingError("full stripes come at a wider aperture than the first one: exchange the two")
    spread = 2.0 * math.log2(first / full)
    if spread <= FITS + 0.01:
        return Zebra(spread, "holds", f"Even within {spread:.1f} stops")
    state: Literal["tight", "fails"] = "tight" if spread <= 2.0 * FITS + 0.01 else "fails"
    return Zebra(spread, state, f"Uneven by {spread:.1f} stops: the stripes come last where light is missing")
