"""Evening out the screen with dimmers alone: bounded linear least squares on the lamps' maps."""

from __future__ import annotations

import numpy as np
from scipy.optimize import lsq_linear

from ..arrays import Bools, Floats
from ..optics.grid import Grid
from ..plan import Plan
from .basis import BasisStore, lamp_maps, weight
from .mix import ambient_rgb, scalar_lux


def balanced_dimmers(plan: Plan, grid: Grid, cells: Bools, target_lux: float, store: BasisStore) -> dict[str, float]:
    """Dimmer 0..1 by lamp id, for the lit screen lamps, that bring `cells` nearest to target_lux.

    The other lamps stay as they are. Empty when there is no lamp to dim or no cell to even out.
    """
    lamps, maps = lamp_maps(plan, grid, store)
    movable = [i for i, lamp in enumerate(lamps) if lamp.role == "screen" and lamp.on]
    if not movable or not cells.any() or target_lux <= 0.0:
        return {}
    fixed = _fixed_light(plan, grid, cells)
    for i, lamp in enumerate(lamps):
        if i not in movable:
            fixed = fixed + weight(lamp) * maps[i][cells]
    columns = np.stack([maps[i][cells] for i in movable], axis=1)
    solved = lsq_linear(columns / target_lux, 1.0 - fixed / target_lux, bounds=(0.0, 1.0))
    return {lamps[i].id: float(x) for i, x in zip(movable, solved.x, strict=True)}


def _fixed_light(plan: Plan, grid: Grid, cells: Bools) -> Floats:
    around = float(scalar_lux(ambient_rgb(plan, np.array([0.0, 0.0, 1.0]))))
    through = plan.screen.transmittance * plan.screen.behind_lux
    return np.full(int(cells.sum()), around + through)
