"""What is known before a frame is explained: the plan's lamps at the cells observed, and how a story is judged."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..camera.level_schools import key_channel
from ..camera.screen_grid import screen_grid
from ..geometry.vectors import Floats
from ..light.basis import FRONT, BasisStore, lamp_maps, weights
from ..light.direct import direct_lux
from ..light.emission import emission_of
from ..light.figure_shadow import lost_maps
from ..light.mix import lamp_rgb
from ..light.occlusion import flag_triangles, wing_triangles
from ..light.returned import returned_maps
from ..light.total import light_without_lamps
from ..plan import Plan
from .fit_text import FitPart, Hypothesis
from .observed_light import COLUMNS, ROWS, ObservedLight, cells_of

PATCHES = 40.0
"""Places on a screen that tell something of their own; neighbours say nearly the same."""
LEAST_SHARE = 0.04
"""A lamp that gives less of the screen's light than this can't be judged by it."""


@dataclass(frozen=True)
class LampModel:
    """The plan's lamps at the cells observed: maps (L, N) at full power, planned weights (L,), the rest (N,)."""

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
class Try:
    story: Hypothesis
    lamp: int | None
    values: tuple[float, ...]
    model: Floats
    freedom: int
    parts: tuple[FitPart, ...] = ()

    @property
    def lamps(self) -> frozenset[int | None]:
        """Whom the story blames; None for no single one."""
        return frozenset(part.lamp for part in self.parts) or frozenset((self.lamp,))

    def misfit(self, lux: Floats) -> float:
        """Robust relative misfit: creases and spots shall not decide."""
        off = (self.model - lux) / max(float(lux.mean()), 1e-9)
        return float(np.sqrt(np.minimum(off * off, (2.5 * spread(off)) ** 2).mean()))

    def cost(self, lux: Floats) -> float:
        """Less is better: what is unexplained, and the number of things that had to change."""
        return PATCHES * 2.0 * math.log(self.misfit(lux) + 0.004) + 2.2 * self.freedom


def spread(off: Floats) -> float:
    return max(1.4826 * float(np.median(np.abs(off - np.median(off)))), 1e-4)


def lamp_model_of(plan: Plan, observed: ObservedLight, store: BasisStore) -> LampModel:
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    tint = np.array([lamp_rgb(plan, lamp)[channel] for lamp in plan.lights])
    direct, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    whole = direct * (1.0 - lost) * tint[:, None, None] + returned_maps(plan, grid, store)[..., channel]
    row, column = cells_of(grid, observed.at)
    rest = light_without_lamps(plan, grid, store)[row, column]
    return LampModel(
        plan,
        observed.at,
        whole[:, row, column],
        weights(plan),
        rest,
        direct[:, row, column],
        lost[:, row, column],
        tint,
    )


def judged(lit: LampModel) -> list[int]:
    """Lamps that give enough of the screen's light to be judged by it."""
    level = max(float(lit.expected.mean()), 1e-9)
    return [i for i in range(len(lit.planned)) if lit.planned[i] * lit.maps[i].mean() > LEAST_SHARE * level]


def movable(lit: LampModel, i: int) -> Callable[[Floats], Floats] | None:
    """A lamp's own light (N,) on the screen with its stand moved by (x, z) m, its aim kept; None for the sun."""
    lamp = lit.plan.lights[i]
    if lamp.fixture.emitter.shape == "sun":
        return None
    points = np.column_stack([lit.at, np.zeros(len(lit.at))])
    occluders = np.concatenate([flag_triangles(lit.plan.flags), wing_triangles(lit.plan.screen)])
    share = lit.planned[i] * lit.tint[i] * (1.0 - lit.lost[i])

    def light(by: Floats) -> Floats:
        x, y, z = lamp.position
        shifted = lamp.model_copy(update={"position": (x + by[0], y, max(0.3, z + by[1]))})
        return np.asarray(share * direct_lux(emission_of(shifted, lit.plan), points, FRONT, occluders, most=3))

    return light


def own_direct(lit: LampModel, i: int) -> Floats:
    """The same (N,) where it stands in the plan."""
    return np.asarray(lit.planned[i] * lit.tint[i] * lit.direct[i] * (1.0 - lit.lost[i]))
