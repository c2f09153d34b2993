"""Each lamp's whole effect on the screen: its own light less the figure's shadow, and what the set returns.

Linear like everything else: these maps are what dimmers are weights on.
"""

from __future__ import annotations

import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats
from ..plan import Plan
from .basis import FRONT, BasisStore, lamp_maps
from .figure_shadow import lost_maps
from .mix import ambient_rgb, scalar_lux, tints
from .returned import returned_maps, returned_to_screen, scene_light


def light_around(plan: Plan, grid: Grid) -> Floats:
    """Light (3,) or (H, 1, 3) in lux on a surface that comes from no lamp first-hand: ambient, and on the wall what
    comes through the cloth."""
    if grid.sheet.name == "wall":
        return ambient_rgb(plan, FRONT) + plan.screen.transmittance * plan.screen.behind_lux
    return ambient_rgb(plan, grid.sheet.normals(grid.y))[:, None, :]


def total_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Scalar lux (L, H, W) on the screen that each lamp causes at full power."""
    direct = lamp_maps(plan, grid, store) * (1.0 - lost_maps(plan, grid, store))
    return np.asarray(direct * tints(plan)[:, None, None] + scalar_lux(returned_maps(plan, grid, store)))


def light_without_lamps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Scalar lux (H, W) on the screen with every lamp off: ambient, through the cloth, and its return."""
    dark = plan.model_copy(update={"lights": ()})
    around = light_around(plan, grid)
    returned = returned_to_screen(grid, scene_light(dark, store), store)
    return np.asarray(scalar_lux(around + returned))
