"""The figure's shadow on the floor round the mark."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Light, Plan
from .basis import BasisStore, weight
from .direct import direct_lux
from .emission import emission_of
from .figure_shadow import lost_by_lamp
from .keys import blocking_key, place_key, together
from .mix import dimmed
from .occlusion import set_triangles

FLOOR_REACH, FLOOR_CELLS = 2.0, 25
UP = np.array([0.0, 1.0, 0.0])


@dataclass(frozen=True)
class FloorShadow:
    """Share (Z, X) of the lamps' own light on the floor that the figure keeps off, at x (X,), z (Z,) in m."""

    x: Floats
    z: Floats
    lost: Floats


def floor_shadow(plan: Plan, store: BasisStore) -> FloorShadow | None:
    """On the floor round the mark, as far as a shadow matters to the picture; None where nobody stands on it."""
    if plan.subject is None:
        return None
    room, (x, z) = plan.room, (plan.subject.x, plan.subject.z)
    left, right, end = -np.inf, np.inf, np.inf
    if room.kind == "interior":
        left, right, end = room.x_min, room.x_max, room.z_max
    if not (left < x < right and 0.0 < z < end):
        return None
    xs, zs = _cells(x, left, right), _cells(z, 0.0, end)
    across, along = np.meshgrid(xs, zs)
    points = np.stack([across.ravel(), np.zeros(across.size), along.ravel()], axis=1)
    lit = tuple(lamp for lamp in plan.lights if weight(lamp, plan.camera) > 0.0)
    burning = plan if lit == plan.lights else plan.model_copy(update={"lights": lit})
    lux = dimmed(burning, floor_maps(burning, points, store))
    total, lost = lux.sum(axis=0), (lux * lost_by_lamp(burning, points, UP, store)).sum(axis=0)
    return FloorShadow(xs, zs, np.where(total > 0.0, lost / np.maximum(total, 1e-12), 0.0).reshape(across.shape))


def _cells(middle: float, low: float, high: float) -> Floats:
    """Middles (FLOOR_CELLS,) of cells round a mark that end where the floor does."""
    low, high = max(middle - FLOOR_REACH, low), min(middle + FLOOR_REACH, high)
    return low + (np.arange(FLOOR_CELLS) + 0.5) * (high - low) / FLOOR_CELLS


def floor_maps(plan: Plan, points: Floats, store: BasisStore) -> Floats:
    """Light (L, P) in lux of each lamp at full power on places (P, 3) of the floor."""
    ground = together("floor", place_key(points), blocking_key(plan))
    occluders = set_triangles(plan)

    def of(lamp: Light) -> Floats:
        return direct_lux(emission_of(lamp, plan), points, UP, occluders)

    return np.stack(store.each_lamp(plan, ground, of)) if plan.lights else np.zeros((0, len(points)))
