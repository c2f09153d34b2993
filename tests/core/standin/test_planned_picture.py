"""The planned set drawn for the frame: upright, in the plan's curve, its screen as bright as the evaluation says."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Bytes
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import draw
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.last_light import LastLight
from ausblick.core.standin.planned_picture import planned_picture
from tests.conftest import MakePlan, lamp
from tests.stores import STORE


@pytest.fixture
def lit(make: MakePlan) -> Plan:
    lamps = [lamp(position=[x, 1.5, 2.4], aim=[0.2 * x, 1.4, 0.0], flux_lm=6000) for x in (-2.2, 2.2)]
    return make(lights=lamps, subject=None, screen={"width": 6.0, "height": 3.4}, camera={"z": 4.0, "focal_mm": 35.0})


def drawn(plan: Plan) -> Bytes:
    return planned_picture(plan, lambda one: evaluate(one, STORE), 320, STORE, LastLight()).frame


@pytest.mark.parametrize("curve", ["rec709", "hlg"])
def test_the_screen_is_as_bright_as_the_evaluation_says(lit: Plan, curve: str) -> None:
    plan = apply_changes(lit, [Change("camera.curve", curve)])
    picture = drawn(plan)
    assert picture.shape == (180, 320, 3)
    luma = picture[70:110, 130:190] @ np.array([0.2126, 0.7152, 0.0722]) / 2.55
    screen_map = evaluate(plan, STORE).screen_map
    middle = screen_map.luma[np.ix_(np.abs(screen_map.grid.y - 1.5) < 0.3, np.abs(screen_map.grid.x) < 0.3)]
    assert luma.mean() == pytest.approx(middle.mean(), abs=1.0)


def test_a_camera_on_its_side_gives_an_upright_picture(lit: Plan) -> None:
    assert drawn(apply_changes(lit, [Change("camera.roll", 90.0)])).shape == (320, 180, 3)


def test_what_is_kept_of_a_figure_for_the_next_lamp_gives_the_same_picture(make: MakePlan) -> None:
    """The light of a moved lamp goes through what was worked out before it moved."""
    key = lamp(position=[1.2, 2.2, 4.4], aim=[0.0, 1.5, 2.4], role="key", flux_lm=6000)
    plan = make(lights=[key], subject={"z": 2.4, "speed": 1.0, "props": [{"name": "jar", "held": True}]})
    window = overview_window(plan, 320)
    draw(capture_of(evaluate(plan, STORE), STORE), window, again=True)
    moved = apply_changes(plan, [Change("lights[0].position", [-0.8, 2.0, 4.0])])
    capture = capture_of(evaluate(moved, STORE), STORE)
    kept, fresh = draw(capture, window, again=True), draw(capture, window)
    assert fresh.alpha.max() > 0.99
    assert np.abs(kept.frame - fresh.frame).max() < 1e-4 * fresh.frame.max()
    assert np.array_equal(kept.alpha, fresh.alpha)
