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

FLOOR_REACH, FLOOR_CELLS = 1.9, 25
UP = np.array([0.0, 1.0, 0.0])


@dataclass(frozen=True)
class FloorShadow:
    """Share (Z, X) of the lamps' own light on the floor that the figure keeps off, at x (X,), z (Z,) in m."""

    x: Floats
    z: Floats
    lost: Floats


def floor_shadow(plan: Plan, store: BasisStore) -> FloorShadow | None:
    """On the floor round the mark, as far as a shadow matters to the picture."""
    if plan.subject is None:
        return None
    x, z = plan.subject.x, plan.subject.z
    xs = np.linspace(x - FLOOR_REACH, x + FLOOR_REACH, FLOOR_CELLS)
    zs = np.linspace(max(0.03, z - FLOOR_REACH), z + FLOOR_REACH, FLOOR_CELLS)
    across, along = np.meshgrid(xs, zs)
    points = np.stack([across.ravel(), np.zeros(across.size), along.ravel()], axis=1)
    lit = tuple(lamp for lamp in plan.lights if weight(lamp, plan.camera) > 0.0)
    burning = plan if lit == plan.lights else plan.model_copy(update={"lights": lit})
    lux = dimmed(burning, floor_maps(burning, points, store))
    total, lost = lux.sum(axis=0), (lux * lost_by_lamp(burning, points, UP, store)).sum(axis=0)
    return FloorShadow(xs, zs, np.where(total > 0.0, lost / np.maximum(total, 1e-12), 0.0).reshape(across.shape))


def floor_maps(plan: Plan, points: Floats, store: BasisStore) -> Floats:
    """Light (L, P) in lux of each lamp at full power on places (P, 3) of the floor."""
    ground = together("floor", place_key(points), blocking_key(plan))
    occluders = set_triangles(plan)

    def of(lamp: Light) -> Floats:
        return direct_lux(emission_of(lamp, plan), points, UP, occluders)

    return np.stack(store.each_lamp(plan, ground, of)) if plan.lights else np.zeros((0, len(points)))
