from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.screen_grid import Grid, screen_grid, wall_of
from ausblick.core.colour.rec709 import LUMA
from ausblick.core.colour.white_point import light_rgb, planck_uv
from ausblick.core.evaluation.contours import contour_step, contours
from ausblick.core.light.balance import balanced_dimmers
from ausblick.core.light.basis import BasisStore, lamp_maps
from ausblick.core.light.mix import scalar_lux
from ausblick.core.plan import Change, Screen, apply_changes
from tests.conftest import MakePlan, screen_light


def test_a_lamp_of_the_cameras_white_balance_is_white() -> None:
    assert light_rgb(3200, 0.0, 3200, 0.0) == pytest.approx([1, 1, 1])
    assert light_rgb(5600, 0.003, 5600, 3.0) == pytest.approx([1, 1, 1])


def test_colours_go_the_right_way_and_keep_the_lux() -> None:
    warm, cold, greenish = light_rgb(3200, 0, 5600, 0), light_rgb(9000, 0, 5600, 0), light_rgb(5600, 0.01, 5600, 0)
    assert warm[0] > 1.2 > 0.6 > warm[2]
    assert cold[2] > 1.1 > 1.0 > cold[0]
    assert greenish[1] > max(greenish[0], greenish[2])
    for rgb in (warm, cold, greenish):
        assert rgb @ LUMA == pytest.approx(1.0)


def test_planckian_locus_at_published_points() -> None:
    # CIE illuminant A (2856 K): u = 0.25597, v = 0.34950 (CIE 15).
    assert planck_uv(2856) == pytest.approx([0.25597, 0.34950], abs=3e-4)


def test_only_what_moved_is_computed_again(make: MakePlan) -> None:
    store = BasisStore()
    plan = make(lights=[{"position": [-2, 2, 2]}, {"position": [2, 2, 2]}])
    grid = screen_grid(plan.screen, 11, 7)
    first = lamp_maps(plan, grid, store)
    # Of each lamp what falls on the cloth's front, and what on its back.
    assert len(store._maps._kept) == 4
    lamp_maps(apply_changes(plan, [Change("lights[0].dimmer", 0.2), Change("lights[1].on", False)]), grid, store)
    lamp_maps(apply_changes(plan, [Change("screen.transmittance", 0.2)]), grid, store)
    assert len(store._maps._kept) == 4
    moved = lamp_maps(apply_changes(plan, [Change("lights[0].position", [-2.0, 2.0, 1.5])]), grid, store)
    assert len(store._maps._kept) == 6
    assert moved[1] == pytest.approx(first[1])
    assert not np.allclose(moved[0], first[0])


def test_the_store_forgets_the_oldest() -> None:
    store = BasisStore(most=2)
    for key in "abca":
        store.get(key, lambda: np.zeros(1))
    assert list(store._maps._kept) == ["c", "a"]


def test_balancing_finds_dimmers_that_even_the_screen(make: MakePlan) -> None:
    lights = [
        {"id": "a", "position": [-2.2, 1.3, 2.0], "aim": [0.4, 1.3, 0], "dimmer": 0.3},
        {"id": "b", "position": [2.2, 1.3, 2.0], "aim": [-0.4, 1.3, 0], "dimmer": 0.9},
        {"id": "k", "role": "key", "position": [0, 2, 5], "aim": [0, 1.5, 2.4], "dimmer": 0.1},
    ]
    dark = {"reflectance": {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}}
    plan, store = make(lights=lights, room=dark, subject=None), BasisStore()
    grid = screen_grid(plan.screen, 31, 21)
    cells = np.ones(grid.shape, dtype=bool)
    solved = balanced_dimmers(plan, [(grid, cells)], 200.0, store)
    assert set(solved) == {"a", "b"}
    assert solved["a"] == pytest.approx(solved["b"], rel=1e-3)
    changed = apply_changes(plan, [Change(f"lights[{i}].dimmer", solved[k]) for i, k in enumerate("ab")])
    before, after = (scalar_lux(screen_light(p, grid, store)) for p in (plan, changed))
    assert after.mean() == pytest.approx(200, rel=0.05)
    assert np.ptp(np.log2(after)) < np.ptp(np.log2(before)) - 0.5


def test_contours_lie_where_the_level_is() -> None:
    grid = Grid(np.linspace(0, 1, 21), np.linspace(0, 1, 11), wall_of(Screen()))
    values = np.broadcast_to(10 * grid.x, grid.shape)
    lines = contours(values, grid, 5.0)
    assert {0.0, 5.0} <= {line.level for line in lines}
    middle = next(line for line in lines if line.level == 5.0)
    assert middle.line[:, 0] == pytest.approx(np.full(len(middle.line), 0.5))
    assert contour_step(np.array([0.0, 7.0])) == 1.0
    assert contour_step(np.array([0.0, 60.0])) == 10.0
