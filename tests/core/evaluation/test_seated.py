"""Somebody on a chair: eyes, action, shadow and picture come down together, and nothing above the hips is shorter."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.render import draw
from ausblick.core.plan import Change, Plan, apply_changes
from tests.conftest import MakePlan, lamp

KEY = lamp(id="k", role="key", flux_lm=6000, position=[-3.4, 2.2, 4.6], aim=[0, 1.3, 2.4])
LOWERED = 0.47 * 1.72 - 0.45


def both(make: MakePlan, **subject: object) -> tuple[Plan, Plan]:
    standing, seated = (
        make(lights=[KEY], subject={"height": 1.72, "z": 2.4, "posture": one, **subject})
        for one in ("standing", "seated")
    )
    return standing, seated


def test_the_eyes_of_somebody_seated_are_a_seat_and_a_trunk_up(make: MakePlan) -> None:
    standing, seated = both(make, framing="waist")
    assert standing.subject is not None
    assert seated.subject is not None
    assert seated.subject.eyes[1] == pytest.approx(0.45 + (0.93 - 0.47) * 1.72)
    assert seated.subject.eyes[1] == pytest.approx(standing.subject.eyes[1] - LOWERED)
    assert (seated.subject.up(0.0), seated.subject.up(0.47)) == (0.0, pytest.approx(0.45))


def test_what_is_needed_of_the_screen_comes_down_with_the_head(make: MakePlan) -> None:
    standing, seated = (evaluate(plan, BasisStore()) for plan in both(make, framing="waist"))
    assert standing.coverage.needed is not None
    assert seated.coverage.needed is not None
    # Similar triangles from the lens, 2.4 m of its distance to the mark behind the mark.
    away = standing.plan.camera.z / (standing.plan.camera.z - 2.4 + 0.3)
    assert standing.coverage.needed[3] - seated.coverage.needed[3] == pytest.approx(LOWERED * away, rel=0.25)
    assert seated.exposure.subject_lux != standing.exposure.subject_lux


@pytest.mark.torture
def test_the_picture_shows_a_head_as_large_and_as_much_lower(make: MakePlan) -> None:
    """By the pinhole: 24 mm before a sensor of so many mm, 5 m away."""
    tops, wide = [], []
    for plan in both(make, framing="full"):
        plan = apply_changes(plan, [Change("camera", {"z": 7.4, "y": 1.2, "focal_mm": 24.0})])
        sensor = plan.camera.sensor
        window = PixelWindow(0.0, 0.0, 960, round(960 * sensor.px_h / sensor.px_w), sensor.px_w / 960)
        alpha = draw(capture_of(evaluate(plan, BasisStore()), BasisStore()), window).alpha
        tops.append(int(np.flatnonzero(alpha.max(axis=1) > 0.5)[0]))
        wide.append(int((alpha[tops[-1] : tops[-1] + 20] > 0.5).sum(axis=1).max()))
    assert wide[0] == pytest.approx(wide[1], abs=2)
    assert tops[1] - tops[0] == pytest.approx(LOWERED * 960 * 24.0 / sensor.width_mm / 5.0, abs=1.5)


def test_who_is_seated_sits_on_a_chair(make: MakePlan) -> None:
    """A front leg of it stands on the floor beside the shins, and its back rail is above the seat."""
    covers = []
    for plan in both(make, framing="full"):
        plan = apply_changes(plan, [Change("camera", {"z": 7.4, "y": 1.2, "focal_mm": 24.0, "tilt": -6.0})])
        sensor = plan.camera.sensor
        window = PixelWindow(0.0, 0.0, 960, round(960 * sensor.px_h / sensor.px_w), sensor.px_w / 960)
        capture = capture_of(evaluate(plan, BasisStore()), BasisStore())
        frame = capture.view.project(np.array([(0.205, 0.06, 2.4), (0.195, 0.82, 2.4)]))[0]
        alpha = draw(capture, window).alpha
        covers.append([float(alpha[int(v * window.height), int(u * window.width)]) for u, v in frame])
    standing, seated = covers
    assert standing[0] == 0.0
    assert min(seated) > 0.9
