"""Which cells of the screen's surfaces the frame needs, and how much each counts: framing and figure decide it,
no lamp does."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..camera.coverage import Coverage
from ..camera.screen_grid import Grid, frame_share, seen_cells, sheets_of, usual_grid
from ..camera.view import View
from ..geometry.vectors import Bools, Floats
from ..light.basis import BasisStore
from ..light.figure_shadow import figure_of, hidden_by, solids_of
from ..light.keys import framing_key
from ..plan import Plan, people_of


@dataclass(frozen=True, eq=False)
class JudgedCells:
    """Of a surface's grid: the judged cells (H, W) and how much each counts (H, W)."""

    grid: Grid
    judged: Bools
    share: Floats


def judged_cells(plan: Plan, coverage: Coverage, view: View, store: BasisStore) -> tuple[JudgedCells, ...]:
    """Of every surface, the wall first. Its cells count alike (the plan document promises so), the others by their
    size in the picture beside one of the wall's."""
    return store.record(("judged", framing_key(plan)), lambda: _judged_cells(plan, coverage, view))


def _judged_cells(plan: Plan, coverage: Coverage, view: View) -> tuple[JudgedCells, ...]:
    grids = [usual_grid(sheet) for sheet in sheets_of(plan.screen)]
    judged = _unhidden(plan, grids, [seen_cells(grid, coverage, view, plan.screen) for grid in grids], view)
    sizes = [frame_share(grid, view) for grid in grids]
    scale = 1.0 / float(sizes[0][judged[0]].mean()) if judged[0].any() else 1.0
    shares = [np.ones(grids[0].shape), *(scale * size for size in sizes[1:])]
    for made in (*judged, *shares):
        made.setflags(write=False)
    return tuple(JudgedCells(*one) for one in zip(grids, judged, shares, strict=True))


def _unhidden(plan: Plan, grids: list[Grid], needed: list[Bools], view: View) -> list[Bools]:
    """Needed cells that no figure hides; all needed ones where every one is hidden. Of hands alone no body is in the
    picture."""
    bodies = [figure_of(one) for one in people_of(plan) if one.framing != "hands"]
    if not bodies or not any(cells.any() for cells in needed):
        return needed
    solids = solids_of(bodies)

    def seen(grid: Grid, cells: Bools) -> Bools:
        points = grid.points()
        behind = hidden_by(solids, points, np.broadcast_to(view.lens, points.shape))
        return np.asarray(cells & ~behind.reshape(grid.shape))

    found = [seen(grid, cells) if cells.any() else cells for grid, cells in zip(grids, needed, strict=True)]
    return found if any(cells.any() for cells in found) else needed
