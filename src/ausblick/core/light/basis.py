"""Light is linear: each lamp's light on the screen at full power, worked out once and kept.

Dimmers, switches and colours are weights on these maps. A `BasisStore` remembers maps by the
geometry that made them, so that a dimmer costs a weighted sum and a moved lamp costs one map.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from functools import partial
from typing import Any, TypeVar

import numpy as np

from ..camera.screen_grid import Grid, parts_by_grid, places_of
from ..geometry.vectors import Floats
from ..plan import Camera, Light, Plan
from ..remembered.shelf import Shelf
from .direct import direct_lux, direct_lux_on
from .emission import emission_of
from .keys import StoreKey, blocking_key, lamp_keys, together
from .occlusion import before_wall, flag_triangles, set_triangles

S = TypeVar("S")
FRONT = np.array([0.0, 0.0, 1.0])
MOST_BYTES = 64 * 2**20
"""Of maps that are remembered: numbers need some 2 MB of a plan, a picture 10."""


class BasisStore:
    """Remembers maps by the geometry that made them, and whole scenes. Holds no plan.

    `go_on` is called whenever something is asked for; it may raise, to end a computation that nobody waits for.
    """

    def __init__(self, most: int = 3000, scenes: int = 36, go_on: Callable[[], None] = lambda: None) -> None:
        self._go_on = go_on
        self._maps: Shelf[Floats] = Shelf(most, MOST_BYTES, size=lambda made: made.nbytes)
        self._scenes: Shelf[Any] = Shelf(scenes)
        self._records: Shelf[Any] = Shelf(most)
        self._lit: Shelf[Any] = Shelf(scenes)

    def get(self, key: Hashable, make: Callable[[], Floats]) -> Floats:
        self._go_on()

        def frozen() -> Floats:
            made = make()
            made.setflags(write=False)
            return made

        return self._maps.get(key, frozen)

    def each_lamp(self, plan: Plan, ground: StoreKey, make: Callable[[Light], Floats]) -> list[Floats]:
        """What is made of each of a plan's lamps, remembered by the lamp and `ground`: all else that decides it."""
        self._go_on()
        keys = [(ground, lamp) for lamp in lamp_keys(plan)]
        found = self._maps.all_known(keys)
        return [
            self.get(key, partial(make, lamp)) if one is None else one
            for key, lamp, one in zip(keys, plan.lights, found, strict=True)
        ]

    def get_all(self, keys: Sequence[Hashable], make: Callable[[], Sequence[Floats]]) -> list[Floats]:
        """Several that are made at once where any of them is not remembered."""
        self._go_on()
        known = self._maps.all_known(keys)
        if any(one is None for one in known):
            return [self.get(key, partial(np.asarray, made)) for key, made in zip(keys, make(), strict=True)]
        return [one for one in known if one is not None]

    def scene(self, key: Hashable, make: Callable[[], S]) -> S:
        """What is large and rebuilt seldom; few are kept."""
        self._go_on()
        found: S = self._scenes.get(key, make)
        return found

    def lit(self, key: Hashable, make: Callable[[], S]) -> S:
        """What a set's light as a whole gives: every step of a drag makes its own, and few are kept."""
        self._go_on()
        found: S = self._lit.get(key, make)
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
    return lamp_maps_on(plan, [grid], store)[0]


def lamp_maps_on(plan: Plan, grids: Sequence[Grid], store: BasisStore) -> list[Floats]:
    """The same on several surfaces: what is in the way of a lamp is found once for all but the wall."""
    walls = [grid for grid in grids if grid.sheet.name == "wall"]
    beside = [grid for grid in grids if grid.sheet.name != "wall"]
    found = {id(grid): np.zeros((0, *grid.shape)) for grid in grids}
    found |= _of_each_lamp(plan, walls, "map", _on_wall, store)
    found |= _of_each_lamp(plan, beside, "map", _beside, store)
    if plan.screen.transmittance > 0.0:
        for grid, behind in _of_each_lamp(plan, walls, "behind", _behind, store).items():
            found[grid] = found[grid] + plan.screen.transmittance * behind
    return [found[id(grid)] for grid in grids]


def _of_each_lamp(
    plan: Plan,
    grids: Sequence[Grid],
    name: str,
    make: Callable[[Plan, Light, Sequence[Grid]], list[Floats]],
    store: BasisStore,
) -> dict[int, Floats]:
    """Maps (N, H, W) by the grid's identity; those of a lamp are made together and remembered one by one."""
    if not grids or not plan.lights:
        return {}
    ground = [together(name, grid.key, blocking_key(plan)) for grid in grids]
    made = [
        store.get_all([(each, key) for each in ground], partial(make, plan, lamp, grids))
        for lamp, key in zip(plan.lights, lamp_keys(plan), strict=True)
    ]
    return {id(grid): np.stack(maps) for grid, maps in zip(grids, zip(*made, strict=True), strict=True)}


def _on_wall(plan: Plan, lamp: Light, grids: Sequence[Grid]) -> list[Floats]:
    emission, blocking = emission_of(lamp, plan), before_wall(plan)
    return [direct_lux(emission, grid.points(), FRONT, blocking).reshape(grid.shape) for grid in grids]


def _behind(plan: Plan, lamp: Light, grids: Sequence[Grid]) -> list[Floats]:
    """On the wall's back, of which the cloth lets a share through."""
    emission, blocking = emission_of(lamp, plan), flag_triangles(plan.flags)
    return [direct_lux(emission, grid.points(), -FRONT, blocking).reshape(grid.shape) for grid in grids]


def _beside(plan: Plan, lamp: Light, grids: Sequence[Grid]) -> list[Floats]:
    points, facing = places_of(grids)
    lux = direct_lux_on(emission_of(lamp, plan), points, facing, set_triangles(plan))
    return parts_by_grid(lux, grids)


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
