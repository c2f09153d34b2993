"""What is known before a frame is explained: the plan's lamps at the cells seen, and how a story is judged."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

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
from .words import Part, Story

PATCHES = 40.0
"""Places on a screen that tell something of their own; neighbours say nearly the same."""
LEAST_SHARE = 0.04
"""A lamp that gives less of the screen's light than this can't be judged by it."""


@dataclass(frozen=True)
class Known:
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
class Try:
    story: Story
    lamp: int | None
    values: tuple[float, ...]
    model: Floats
    freedom: int
    parts: tuple[Part, ...] = ()

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


def known_of(plan: Plan, seen: Seen, store: BasisStore) -> Known:
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    tint = np.array([lamp_rgb(plan, lamp)[channel] for lamp in plan.lights])
    direct, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    whole = direct * (1.0 - lost) * tint[:, None, None] + returned_maps(plan, grid, store)[..., channel]
    row, column = cells_of(grid, seen.at)
    rest = light_without_lamps(plan, grid, store)[row, column]
    return Known(
        plan, seen.at, whole[:, row, column], weights(plan), rest, direct[:, row, column], lost[:, row, column], tint
    )


def judged(known: Known) -> list[int]:
    """Lamps that give enough of the screen's light to be judged by it."""
    level = max(float(known.expected.mean()), 1e-9)
    return [i for i in range(len(known.planned)) if known.planned[i] * known.maps[i].mean() > LEAST_SHARE * level]


def movable(known: Known, i: int) -> Callable[[Floats], Floats] | None:
    """A lamp's own light (N,) on the screen with its stand moved by (x, z) m, its aim kept; None for the sun."""
    lamp = known.plan.lights[i]
    if lamp.fixture.emitter.shape == "sun":
        return None
    points = np.column_stack([known.at, np.zeros(len(known.at))])
    occluders = np.concatenate([flag_triangles(known.plan.flags), wing_triangles(known.plan.screen)])
    share = known.planned[i] * known.tint[i] * (1.0 - known.lost[i])

    def light(by: Floats) -> Floats:
        x, y, z = lamp.position
        shifted = lamp.model_copy(update={"position": (x + by[0], y, max(0.3, z + by[1]))})
        return np.asarray(share * direct_lux(emission_of(shifted, known.plan), points, FRONT, occluders, most=3))

    return light


def own_direct(known: Known, i: int) -> Floats:
    """The same (N,) where it stands in the plan."""
    return np.asarray(known.planned[i] * known.tint[i] * known.direct[i] * (1.0 - known.lost[i]))
