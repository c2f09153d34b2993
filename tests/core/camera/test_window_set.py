"""A window in a wall: of the screen only what the pane shows from the lens is needed, to the centimetre."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.coverage import behind_window_wall, coverage_of
from ausblick.core.camera.view import view_of
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.mix import probe_light
from ausblick.core.plan import Change, Plan, apply_changes, plan_from
from tests.conftest import MakePlan, lamp


def shed(**window: object) -> Plan:
    """A pane of 1.2 by 1.0 m, 2 m before the screen, seen from 6 m by a lens that sees all of it."""
    pane = {"x": 0.3, "y": 1.5, "z": 2.0, "width": 1.2, "height": 1.0, **window}
    return plan_from(
        {
            "format": "ausblick-plan", "version": 1, "window": pane, "screen": {"width": 4.0, "height": 3.0},
            "camera": {"x": -0.4, "y": 1.4, "z": 6.0, "focal_mm": 24.0},
            "subject": {"z": 3.6, "framing": "waist"},
            "lights": [{"role": "screen", "position": [-1.6, 2.0, 1.2], "fixture": {"flux_lm": 9000}}],
        }
    )  # fmt: skip


def test_needed_is_the_opening_seen_from_the_lens() -> None:
    plan = shed()
    needed = coverage_of(plan, view_of(plan.camera, plan.subject)).needed
    # Similar triangles: from the lens through the pane's edges on to the screen, 6 m against 4 m away.
    camera = np.array([-0.4, 1.4])
    low, high = (camera + (np.array(corner) - camera) * 6.0 / 4.0 for corner in ((-0.3, 1.0), (0.9, 2.0)))
    assert needed == pytest.approx((*low, *high), abs=0.01)


def test_a_loose_pane_and_one_that_is_not_between_hide_nothing() -> None:
    whole = coverage_of(*(lambda plan: (plan, view_of(plan.camera, plan.subject)))(shed(in_wall=False)))
    behind = coverage_of(*(lambda plan: (plan, view_of(plan.camera, plan.subject)))(shed(z=7.0)))
    assert whole.needed == behind.needed
    assert whole.needed is not None
    assert whole.needed[0] < -0.65


def test_a_screen_that_is_too_small_for_the_opening_is_told_by_how_much() -> None:
    plan = apply_changes(shed(), [Change("screen.width", 2.5)])
    found = coverage_of(plan, view_of(plan.camera, plan.subject))
    # The opening's right edge lands at 1.55 m, the screen ends at 1.25.
    assert found.margin_m == pytest.approx(-0.30, abs=0.01)
    assert not found.covered


def test_evenness_is_judged_in_the_opening_only() -> None:
    store = BasisStore()
    opening, whole = (evaluate(shed(in_wall=wall), store).screen for wall in (True, False))
    assert opening.uniformity is not None
    assert whole.uniformity is not None
    assert opening.spread_stops < whole.spread_stops


def test_the_wall_round_a_window_keeps_light_to_its_side(make: MakePlan) -> None:
    """A lamp outside reaches the inside through the opening only, and the other way round: along straight lines."""
    outside = lamp(id="sun", emitter={"shape": "point"}, peak_cd=4000, position=[0.3, 1.6, 0.2], aim=[0.3, 1.6, 3.0])
    wall = {"x": 0.3, "y": 1.6, "z": 1.2, "width": 1.2, "height": 1.3}
    open_, walled = (
        make(lights=[outside], window={**wall, "in_wall": flat}, subject=None, room={"ambient_lux": 0})
        for flat in (False, True)
    )
    facing = np.array([0.0, 0.0, -1.0])
    # 1.8 m behind the wall the opening is 0.6 m x 2.8 / 1 wide to either side.
    for x, seen in ((0.3 + 1.6, True), (0.3 + 1.75, False), (0.3 - 1.6, True), (0.3 - 1.75, False)):
        at = np.array([x, 1.6, 3.0])
        found, free = (float(probe_light(plan, at, facing, BasisStore())[1]) for plan in (walled, open_))
        assert found == pytest.approx(free if seen else 0.0)


def test_a_lamp_behind_the_windows_wall_is_in_nobodys_picture(make: MakePlan) -> None:
    plan = make(window={"x": 0.0, "y": 1.5, "z": 1.2, "width": 1.0, "height": 1.0})
    beside, within = np.array([[1.2, 1.5, 0.8]]), np.array([[0.3, 1.5, 0.8]])
    assert behind_window_wall(plan, beside)[0]
    assert not behind_window_wall(plan, within)[0]
    # A face that reaches into the opening is seen.
    assert not behind_window_wall(plan, np.array([[0.6, 1.5, 0.8]]), 0.3)[0]
    assert not behind_window_wall(plan, np.array([[1.2, 1.5, 2.0]]))[0]
