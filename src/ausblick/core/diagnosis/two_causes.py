"""Two things wrong at once: two stands, a stand and another lamp's dimmer, or one lamp's stand and dimmer."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from itertools import combinations, permutations

import numpy as np
from scipy.optimize import least_squares

from ..geometry.vectors import Floats
from .fit_text import FitPart
from .lamp_model import LampModel, Try, judged, movable, own_direct

REACH = 1.6
"""A stand is looked for this far, m, to every side of where it was planned."""
DIMMED = (0.2, 2.5)


def pairs(lit: LampModel, lux: Floats) -> Iterator[Try]:
    """Every pair of changes of the lamps that can be judged, each where it explains the frame best; where one of the
    two comes out as next to nothing it is no pair."""
    return (found for found in _all(lit, lux) if all(part.clear for part in found.parts))


def _all(lit: LampModel, lux: Floats) -> Iterator[Try]:
    lamps = judged(lit)
    moving = {i: light for i in lamps if (light := movable(lit, i)) is not None}
    for i, j in combinations(moving, 2):
        yield _fitted(lit, lux, (i, j), _both_moved(lit, moving, i, j), 4)
    for i, j in permutations(lamps, 2):
        if i in moving:
            yield _fitted(lit, lux, (i, j), _moved_and_dimmed(lit, moving, i, j), 3)
    for i in moving:
        yield _fitted(lit, lux, (i, i), _moved_and_dimmed(lit, moving, i, i), 3)


Model = Callable[[Floats], Floats]


def _both_moved(lit: LampModel, moving: dict[int, Model], i: int, j: int) -> Model:
    others = lit.expected - own_direct(lit, i) - own_direct(lit, j)
    return lambda v: np.asarray(others + moving[i](v[:2]) + moving[j](v[2:]))


def _moved_and_dimmed(lit: LampModel, moving: dict[int, Model], i: int, j: int) -> Model:
    """Lamp i moved by v[:2], lamp j at v[2] times its planned light, with what the set returns of it."""
    whole = lit.planned[j] * lit.maps[j]
    if i == j:
        back = whole - own_direct(lit, i)
        others = lit.expected - whole
        return lambda v: np.asarray(others + v[2] * (moving[i](v[:2]) + back))
    others = lit.expected - own_direct(lit, i) - whole
    return lambda v: np.asarray(others + moving[i](v[:2]) + v[2] * whole)


def _fitted(lit: LampModel, lux: Floats, lamps: tuple[int, int], model: Model, freedom: int) -> Try:
    level = max(float(lux.mean()), 1e-9)
    dims = freedom == 3
    start = np.array([0.0, 0.0, 1.0]) if dims else np.zeros(4)
    low, high = np.full(freedom, -REACH), np.full(freedom, REACH)
    if dims:
        low[2], high[2] = DIMMED

    def off(v: Floats) -> Floats:
        return np.asarray((model(v) - lux) / level)

    found = least_squares(
        off, start, loss="soft_l1", f_scale=0.03, bounds=(low, high),
        diff_step=np.full(freedom, 0.05), x_scale=np.full(freedom, 0.3), max_nfev=14,
    )  # fmt: skip
    x = [float(v) for v in found.x]
    first, last = FitPart(lamps[0], (x[0], x[1]), None), FitPart(lamps[1], None, x[2])
    parts = (first, last) if dims else (first, FitPart(lamps[1], (x[2], x[3]), None))
    return Try("pair", lamps[0], (), model(found.x), freedom, parts)
