"""Shadows of people on the screen as their own bodies cast them: for pictures. The numbers know cylinder and ball."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..camera.screen_grid import Grid
from ..evaluation.screen_light import SurfaceLight
from ..figure.solid_body import SolidBody, solid_body
from ..geometry.lattice import at_lattice
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.body_light import shadow_on
from ..light.body_overhead import hidden_from_above
from ..light.emission import emission_of
from ..light.figure_shadow import SKY_FAR, hidden_round
from ..light.keys import blocking_key, together
from ..light.mix import summed
from ..light.past_cards import left_by_cards
from ..plan import Light, Plan, people_of

CELL = 0.03
"""Width of the lattice's cells, m: a foot is some 10 cm wide."""


def finer_grid(grid: Grid) -> Grid:
    """The same surface in cells that show a foot's shadow."""
    (x0, x1), (y0, y1) = grid.sheet.width, grid.sheet.height
    return grid.sheet.grid(max(len(grid.x), round((x1 - x0) / CELL)), max(len(grid.y), round((y1 - y0) / CELL)))


def resampled(values: Floats, grid: Grid, finer: Grid) -> Floats:
    """Values (H, W, ...) of a grid's cells at those of a finer one of the same surface."""
    return at_lattice(values, grid.x, grid.y, finer.x, finer.y)


def left_by_bodies(plan: Plan, light: SurfaceLight, finer: Grid, store: BasisStore) -> Floats:
    """Share (V, U, 3) of all light on a surface that people's bodies leave to the cells of a finer grid."""
    bodies = [solid_body(one, plan.camera) for one in people_of(plan)]
    open_ = resampled(light.open, light.grid, finer)
    taken, around = np.zeros_like(open_), open_
    if plan.lights:
        direct = np.stack([resampled(one, light.grid, finer) for one in light.maps * (1.0 - light.bodies)])
        taken, around = summed(plan, direct * _lost(plan, bodies, finer, store)), open_ - summed(plan, direct)
    taken = taken + np.clip(around, 0.0, None) * _dark(plan, bodies, light, finer, store)[..., None]
    return np.asarray(np.clip(1.0 - taken / np.maximum(open_, 1e-9), 0.0, 1.0))


def _lost(plan: Plan, bodies: Sequence[SolidBody], finer: Grid, store: BasisStore) -> Floats:
    """Share (L, V, U) of each lamp's light that bodies keep off."""
    points = finer.points()

    def of(lamp: Light) -> Floats:
        emission, left = emission_of(lamp, plan), np.ones(len(points))
        for body in bodies:
            left *= 1.0 - shadow_on(body, emission, points)
        return (1.0 - left).reshape(finer.shape)

    ground = together("cast", finer.key, tuple(body.key for body in bodies), blocking_key(plan))
    return np.stack(store.each_lamp(plan, ground, of))


def _dark(plan: Plan, bodies: Sequence[SolidBody], light: SurfaceLight, finer: Grid, store: BasisStore) -> Floats:
    """Share (V, U) of light from all round that bodies and lamps' heads keep off."""
    grid = light.grid
    points = grid.points()
    cards = left_by_cards(plan, points, np.array(np.broadcast_to(grid.facing(), points.shape)), store)
    return np.asarray(
        1.0 - _left_by_people(plan, bodies, grid, finer, store) * resampled(cards.reshape(grid.shape), grid, finer)
    )


def _left_by_people(plan: Plan, bodies: Sequence[SolidBody], grid: Grid, finer: Grid, store: BasisStore) -> Floats:
    """Share (V, U) of light from all round that people leave: by their bodies on level ground, elsewhere by cylinder
    and ball, at every other cell."""
    if finer.sheet.name != "floor run":
        few = Grid(grid.x[::2], grid.y[::2], grid.sheet)
        return 1.0 - resampled(hidden_round(plan, few, store, SKY_FAR), few, finer)

    def left() -> Floats:
        points = finer.points()
        by_body = [1.0 - hidden_from_above(body, points) for body in bodies]
        return np.asarray(np.prod([np.ones(len(points)), *by_body], axis=0).reshape(finer.shape))

    return store.get(("past bodies", tuple(body.key for body in bodies), finer.key), left)
