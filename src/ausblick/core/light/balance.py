"""Evening out the screen with dimmers alone: bounded linear least squares on the lamps' maps."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Bools, Floats
from ..plan import Plan
from .basis import BasisStore
from .mix import dimmed
from .total import light_without_lamps, total_maps

Cells = Sequence[tuple[Grid, Bools]]
"""Surfaces of the screen, each with the cells (H, W) of it that count."""


def balanced_dimmers(plan: Plan, cells: Cells, target_lux: float, store: BasisStore) -> dict[str, float]:
    """Dimmer 0..1 by lamp id, for the lit screen lamps, that bring `cells` nearest to target_lux.

    The other lamps stay as they are. Empty when there is no lamp to dim or no cell to even out.
    """
    movable = [i for i, lamp in enumerate(plan.lights) if lamp.role == "screen" and lamp.on]
    if not movable or not any(some.any() for _, some in cells) or target_lux <= 0.0:
        return {}
    maps = np.concatenate([total_maps(plan, grid, store)[:, some] for grid, some in cells], axis=1)
    dark = np.concatenate([light_without_lamps(plan, grid, store)[some] for grid, some in cells])
    others = [i for i in range(len(plan.lights)) if i not in movable]
    fixed = dark + dimmed(plan, maps)[others].sum(axis=0)
    solved = _bounded(maps[movable].T / target_lux, 1.0 - fixed / target_lux)
    return {plan.lights[i].id: float(x) for i, x in zip(movable, solved, strict=True)}


def _bounded(columns: Floats, wanted: Floats) -> Floats:
    """The x (N,) in 0..1 that brings columns (M, N) times x nearest to wanted (M,)."""
    free = np.linalg.lstsq(columns, wanted)[0]
    if ((free >= 0.0) & (free <= 1.0)).all():
        return np.asarray(free)
    # Imported where it is used: it brings half of SciPy along, and most judgements do without.
    from scipy.optimize import lsq_linear

    return np.asarray(lsq_linear(columns, wanted, bounds=(0.0, 1.0)).x)
