"""Each lamp's whole effect on the screen: its own light less the figure's shadow, and what the set returns.

Linear like everything else: these maps are what dimmers are weights on.
"""

from __future__ import annotations

import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats
from ..plan import Plan
from .basis import FRONT, BasisStore, lamp_maps
from .figure_shadow import lost_by_lamp
from .mix import ambient_rgb, scalar_lux, tints
from .returned import returned_maps, returned_to_screen, scene_light


def lost_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Share (L, H, W) of each lamp's light on the screen that the figure keeps off."""
    return lost_by_lamp(plan, grid.points(), FRONT, store).reshape(len(plan.lights), *grid.shape)


def total_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Scalar lux (L, H, W) on the screen that each lamp causes at full power."""
    direct = lamp_maps(plan, grid, store) * (1.0 - lost_maps(plan, grid, store))
    return np.asarray(direct * tints(plan)[:, None, None] + scalar_lux(returned_maps(plan, grid, store)))


def light_without_lamps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Scalar lux (H, W) on the screen with every lamp off: ambient, through the cloth, and its return."""
    dark = plan.model_copy(update={"lights": ()})
    around = ambient_rgb(plan, FRONT) + plan.screen.transmittance * plan.screen.behind_lux
    returned = returned_to_screen(dark, grid, scene_light(dark, store), store)
    return np.asarray(scalar_lux(around + returned))
