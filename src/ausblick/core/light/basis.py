"""Light is linear: each lamp's light on the screen at full power, worked out once and kept.

Dimmers, switches and colours are weights on these maps. A `BasisStore` remembers maps by the
geometry that made them, so that a dimmer costs a weighted sum and a moved lamp costs one map.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from functools import partial
from threading import Lock

import numpy as np

from ..arrays import Floats
from ..optics.grid import Grid
from ..plan import Light, Plan
from .direct import direct_lux
from .occlusion import flag_triangles, wing_triangles

FRONT = np.array([0.0, 0.0, 1.0])


@dataclass
class BasisStore:
    """Least-recently-used memory of maps, bounded in number. Holds no plan; threads may share it."""

    most: int = 512
    _kept: OrderedDict[Hashable, Floats] = field(default_factory=OrderedDict)
    _lock: Lock = field(default_factory=Lock)

    def get(self, key: Hashable, make: Callable[[], Floats]) -> Floats:
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = make()
        made.setflags(write=False)
        with self._lock:
            self._kept[key] = made
            if len(self._kept) > self.most:
                self._kept.popitem(last=False)
        return made


def not_computed(light: Light) -> str | None:
    """Why this version leaves a lamp's light out of the sum, or None."""
    if light.fixture.beam.kind == "ies":
        return "its photometry file is stored, but not read yet"
    if light.modifier.kind != "none":
        return f"its {light.modifier.kind} is stored, but not computed yet"
    return None


def lamp_maps(plan: Plan, grid: Grid, store: BasisStore) -> tuple[list[Light], Floats]:
    """Lamps that count, and their light (N, H, W) in lux on the screen's face at full power.

    Light on the back of the screen is included through its transmittance.
    """
    lamps = [lamp for lamp in plan.lights if not_computed(lamp) is None]
    ground = (
        grid.x.tobytes(),
        grid.y.tobytes(),
        plan.screen.transmittance,
        tuple(flag.corners for flag in plan.flags),
        plan.screen.wing_left,
        plan.screen.wing_right,
    )
    maps = [
        store.get((*ground, lamp.fixture, lamp.position, lamp.aim), partial(_map, plan, lamp, grid)) for lamp in lamps
    ]
    return lamps, np.stack(maps) if maps else np.zeros((0, *grid.shape))


def _map(plan: Plan, lamp: Light, grid: Grid) -> Floats:
    points = grid.points()
    flags = flag_triangles(plan.flags)
    in_the_way = np.concatenate([flags, wing_triangles(plan.screen)])
    lux = direct_lux(lamp, points, FRONT, in_the_way)
    if plan.screen.transmittance > 0.0:
        lux = lux + plan.screen.transmittance * direct_lux(lamp, points, -FRONT, flags)
    return lux.reshape(grid.shape)


def weight(lamp: Light) -> float:
    """Dimmer and switch as one factor."""
    return lamp.dimmer if lamp.on else 0.0
