"""A lamp in the window pane: how bright, where, and that nothing keys it away."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.exposure import grey_lux
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.pane_image import sheet_reflectance
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.render import draw
from ausblick.core.plan import Change, Plan, apply_changes
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

PANE = {"x": 0.3, "y": 1.6, "z": 1.0, "width": 1.2, "height": 1.3}
WHOLE = PixelWindow(0.0, 0.0, 960, 540, 4.0)


def bare(make: MakePlan, **more: Any) -> Plan:
    """A soft panel behind the camera, square to a pane that shows it, and nothing else alight."""
    panel = lamp(emitter={"shape": "rect", "width": 0.4, "height": 0.3}, flux_lm=6000.0, position=[0.6, 1.7, 8.0],
                 aim=[0.6, 1.7, 0.0], role="other")  # fmt: skip
    return make(window=PANE, lights=[panel], **more)


def captured(plan: Plan) -> Capture:
    return capture_of(evaluate(plan, STORE), STORE)


def added(plan: Plan) -> tuple[np.ndarray[Any, Any], tuple[int, int]]:
    """What the pane adds to the picture (540, 960, 3), and the (row, column) where `check` puts the lamp."""
    evaluation = evaluate(plan, STORE)
    with_pane = draw(capture_of(evaluation, STORE), WHOLE).frame
    without = draw(captured(apply_changes(plan, [Change("window", None)])), WHOLE).frame
    [reflection] = evaluation.reflections
    assert reflection.at is not None
    u, v = evaluation.view.project(np.array([[*reflection.at, PANE["z"]]]))[0][0]
    return with_pane - without, (int(v * 540), int(u * 960))


def test_a_sheet_of_glass_sends_back_eight_per_cent() -> None:
    assert sheet_reflectance(1.0) == pytest.approx(0.0817, abs=1e-4)
    assert sheet_reflectance(0.5) == pytest.approx(0.169, abs=1e-3)
    assert sheet_reflectance(1e-9) == pytest.approx(1.0, abs=1e-6)


def test_the_lamp_stands_where_check_says_and_as_bright_as_its_luminance(make: MakePlan) -> None:
    plan = bare(make, subject=None)
    light, (row, column) = added(plan)
    # A soft panel's luminance is flux / (pi area): pi times that is its exitance.
    wanted = 6000.0 / 0.12 * sheet_reflectance(1.0) / grey_lux(plan.camera)
    assert light[row, column] == pytest.approx(np.full(3, wanted), rel=0.02)
    size = float((light[..., 1] > 0.5 * wanted).mean())
    # Mirrored, it stands 1 - 7 = -6 m deep: 12.4 m from the lens at 6.4 m.
    frame = 2.0 * math.tan(math.atan(plan.camera.sensor.width_mm / 2.0 / plan.camera.focal_mm)) * 12.4
    shape = plan.camera.sensor.height_mm / plan.camera.sensor.width_mm
    assert size == pytest.approx(0.12 / (frame * frame * shape), rel=0.06)


@pytest.mark.parametrize("change", [("lights[0].on", False), ("lights[0].aim", [0.6, 1.7, 12.0])])
def test_a_lamp_that_is_off_or_turned_away_adds_nothing(make: MakePlan, change: tuple[str, Any]) -> None:
    plan = apply_changes(bare(make, subject=None), [Change(*change)])
    assert captured(plan).in_pane == ()


def test_before_the_figure_the_lamp_shines_over_it_and_the_layers_stay_exact(make: MakePlan) -> None:
    behind = bare(make, subject={"x": 0.45, "z": 2.0})
    before = apply_changes(behind, [Change("window.z", 2.6)])
    shares = []
    for plan in (behind, before):
        capture = captured(plan)
        drawn = draw(capture, WHOLE)
        composite = drawn.foreground + (1.0 - drawn.alpha[..., None]) * drawn.background
        assert np.abs(composite - drawn.frame).max() < 1e-9
        light = float(capture.in_pane[0].lux[1])
        figure = drawn.alpha > 0.999
        shares.append(float((drawn.frame[figure][:, 1] > 0.9 * light).mean()))
    assert shares[0] == 0.0
    assert shares[1] > 0.002


@pytest.mark.parametrize("kind", ["point", "sun"])
def test_a_lamp_without_a_size_is_a_bulb_and_the_sun_a_disc(make: MakePlan, kind: str) -> None:
    more: dict[str, Any] = {"emitter": {"shape": "point"}, "peak_cd": 500, "beam": {"kind": "cosine", "n": 0}}
    if kind == "sun":
        more = {"emitter": {"shape": "sun"}, "normal_lux": 20000.0}
    light = lamp(
        position=[0.6, 1.7, 8.0], aim=[0.6, 1.7, 0.0] if kind == "point" else [0.4, 1.6, 0.0], role="other", **more
    )
    plan = make(window=PANE, lights=[light], subject=None)
    seen, (row, column) = added(plan)
    near = seen[row - 3 : row + 4, column - 3 : column + 4, 1]
    assert near.max() > 0.1
    assert seen[..., 1].max() == pytest.approx(near.max())
