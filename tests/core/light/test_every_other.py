"""What is worked out at every other cell, or in one sweep over many planes, is what it is cell by cell."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.screen_grid import sheets_of, usual_grid
from ausblick.core.geometry.vectors import Floats, Ints
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.direct import direct_lux, direct_lux_on
from ausblick.core.light.emission import emission_of
from ausblick.core.light.every_other import every_other_first
from ausblick.core.light.figure_shadow import figures_of, lost_maps, lost_share, solids_of
from ausblick.core.light.occlusion import NONE, before_wall
from ausblick.core.plan import Plan
from ausblick.demo.fern_house import scree
from ausblick.demo.fern_house_2 import fern_dancer, potting_shed
from tests.conftest import MakePlan


@pytest.mark.parametrize("plan", [fern_dancer(), potting_shed()], ids=lambda plan: plan.title)
def test_a_broad_shadow_is_what_it_is_cell_by_cell(plan: Plan) -> None:
    wall = usual_grid(sheets_of(plan.screen)[0])
    drawn = lost_maps(plan, wall, BasisStore())
    solids = solids_of(figures_of(plan))
    for lamp, lost in zip(plan.lights, drawn, strict=True):
        alone = lost_share(emission_of(lamp, plan), solids, wall.points(), wall.facing(), before_wall(plan))
        assert np.abs(lost.ravel() - alone).max() < 0.01


def test_where_neighbours_differ_the_cell_itself_is_asked() -> None:
    """A step: linear between its sides it would be half of it."""
    grid = usual_grid(sheets_of(scree().screen)[0])
    step = (grid.points()[:, 0] > 0.03).astype(float)
    asked: list[int] = []

    def worked_out(rows: Ints) -> Floats:
        asked.extend(rows.tolist())
        return step[rows % len(step)]

    found = every_other_first([grid, grid], worked_out)
    assert np.array_equal(found, np.tile(step, 2))
    assert len(asked) < 0.8 * len(found)


@pytest.mark.parametrize("modifier", [{"kind": "grid", "deg": 40}, {"kind": "none"}])
def test_a_lobed_lamp_gives_many_planes_what_it_gives_each(make: MakePlan, modifier: dict[str, object]) -> None:
    fixture = {"emitter": {"shape": "disc", "diameter": 0.3}, "flux_lm": 5000.0, "beam": {"kind": "beam", "deg": 50}}
    plan = make(
        lights=[{"position": [0.4, 1.8, 2.4], "aim": [0.0, 1.2, 0.0], "fixture": fixture, "modifier": modifier}]
    )
    lamp, draw = emission_of(plan.lights[0], plan), np.random.default_rng(3)
    across, up, along = draw.uniform(-2.5, 2.5, 60), draw.uniform(0.1, 3.0, 60), draw.uniform(0.1, 5.0, 60)
    none = np.zeros(60)
    planes = [
        (np.column_stack([across, none, along]), np.array([0.0, 1.0, 0.0])),
        (np.column_stack([across, up, none]), np.array([0.0, 0.0, 1.0])),
        (np.column_stack([none - 3.0, up, along]), np.array([1.0, 0.0, 0.0])),
        # The lamp's own face is cut by this one.
        (np.column_stack([across, none + 1.8, along]), np.array([0.0, 1.0, 0.0])),
    ]
    each = np.concatenate([direct_lux(lamp, points, normal, NONE) for points, normal in planes])
    points = np.concatenate([points for points, _ in planes])
    normals = np.concatenate([np.tile(normal, (60, 1)) for _, normal in planes])
    assert each.max() > 100.0
    assert direct_lux_on(lamp, points, normals, NONE) == pytest.approx(each, abs=0.002 * each.max())
