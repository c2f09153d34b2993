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
from typing import Any, Generic, TypeVar

import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats
from ..plan import Camera, Light, Plan
from .direct import direct_lux, direct_lux_facing
from .emission import emission_of
from .keys import blocking_key, lamp_key, together
from .occlusion import before_wall, flag_triangles, set_triangles

T = TypeVar("T")
S = TypeVar("S")
FRONT = np.array([0.0, 0.0, 1.0])


@dataclass
class Shelf(Generic[T]):
    """Least-recently-used memory, bounded in number. Threads may share it."""

    most: int
    _kept: OrderedDict[Hashable, T] = field(default_factory=OrderedDict)
    _lock: Lock = field(default_factory=Lock)

    def known(self, key: Hashable) -> T | None:
        """What is remembered under a key, without making it."""
        with self._lock:
            return self._kept.get(key)

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        with self._lock:
            found = self._kept.get(key)
            if found is not None:
                self._kept.move_to_end(key)
                return found
        made = make()
        with self._lock:
            self._kept[key] = made
            if len(self._kept) > self.most:
                self._kept.popitem(last=False)
        return made


class BasisStore:
    """Remembers maps by the geometry that made them, and whole scenes. Holds no plan.

    `go_on` is called whenever something is asked for; it may raise, to end a computation that nobody waits for.
    """

    def __init__(self, most: int = 3000, scenes: int = 24, go_on: Callable[[], None] = lambda: None) -> None:
        self._go_on = go_on
        self._maps: Shelf[Floats] = Shelf(most)
        self._scenes: Shelf[Any] = Shelf(scenes)
        self._records: Shelf[Any] = Shelf(most)

    def get(self, key: Hashable, make: Callable[[], Floats]) -> Floats:
        self._go_on()

        def frozen() -> Floats:
            made = make()
            made.setflags(write=False)
            return made

        return self._maps.get(key, frozen)

    def scene(self, key: Hashable, make: Callable[[], S]) -> S:
        """What is large and rebuilt seldom; few are kept."""
        self._go_on()
        found: S = self._scenes.get(key, make)
        return found

    def record(self, key: Hashable, make: Callable[[], S]) -> S:
        """What is small and no map."""
        found: S = self._records.get(key, make)
        return found

    def known_record(self, key: Hashable) -> Any:
        """What `record` remembers; None where it does not."""
        return self._records.known(key)


def lamp_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Light (N, H, W) in lux of each of the plan's lamps on a surface of the screen at full power.

    Light on the back of the wall is included through its transmittance.
    """
    ground = together("map", grid.key, plan.screen.transmittance, blocking_key(plan))
    maps = [store.get((ground, lamp_key(plan, lamp)), partial(_map, plan, lamp, grid)) for lamp in plan.lights]
    return np.stack(maps) if maps else np.zeros((0, *grid.shape))


def _map(plan: Plan, lamp: Light, grid: Grid) -> Floats:
    points, emission = grid.points(), emission_of(lamp, plan)
    on_wall = grid.sheet.name == "wall"
    in_the_way = before_wall(plan) if on_wall else set_triangles(plan)
    lux = direct_lux_facing(emission, points, grid.facing(), in_the_way)
    if on_wall and plan.screen.transmittance > 0.0:
        lux += plan.screen.transmittance * direct_lux(emission, points, -FRONT, flag_triangles(plan.flags))
    return lux.reshape(grid.shape)


def weight(lamp: Light, camera: Camera) -> float:
    """Dimmer and switch as one factor.

    A flash's maps are in lux seconds: spread over the shutter they are the steady lux that exposes the same.
    """
    if not lamp.on:
        return 0.0
    return lamp.dimmer if lamp.fixture.flash_lms is None else lamp.dimmer / camera.shutter_s


def weights(plan: Plan) -> Floats:
    """Of all lamps (N,)."""
    return np.array([weight(lamp, plan.camera) for lamp in plan.lights])
