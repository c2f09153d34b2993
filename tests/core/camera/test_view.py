from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.camera.view import angle_of_view, camera_axes, frame_size, image_distance, view_of
from tests.conftest import MakePlan


def test_frame_size_is_sensor_times_distance_over_image_distance(make: MakePlan) -> None:
    camera = make(camera={"focal_mm": 50}).camera
    image = 50.0 * 4000.0 / 3950.0
    assert frame_size(camera, 4.0) == pytest.approx((23.5 * 4.0 / image, 13.2 * 4.0 / image))
    assert image_distance(50.0, 0.1) == pytest.approx(100.0)
    assert angle_of_view(36.0, 18.0) == pytest.approx(90.0)


def test_eyes_are_where_people_have_them(make: MakePlan) -> None:
    """Standing eye height over stature: 0.93 to 0.94 in body surveys."""
    subject = make(subject={"x": 0.3, "z": 2.1, "height": 1.8}).subject
    assert subject is not None
    assert subject.eyes == pytest.approx((0.3, 1.674, 2.1))


def test_axes_turn_the_way_the_plan_says() -> None:
    assert camera_axes(0, 0, 0) == pytest.approx(np.array([[1, 0, 0], [0, 1, 0], [0, 0, -1]]))
    assert camera_axes(90, 0, 0)[2] == pytest.approx([1, 0, 0])
    assert camera_axes(0, 30, 0)[2] == pytest.approx([0, 0.5, -math.cos(math.pi / 6)])
    assert camera_axes(0, 0, 90)[1] == pytest.approx([1, 0, 0])


@pytest.mark.parametrize("pose", [(0, 0, 0), (12, -7, 3), (-20, 10, 90)])
def test_projecting_and_casting_back_meet(make: MakePlan, pose: tuple[float, float, float]) -> None:
    pan, tilt, roll = pose
    plan = make(camera={"pan": pan, "tilt": tilt, "roll": roll, "x": 0.4})
    view = view_of(plan.camera, plan.subject)
    points = np.array([[0.3, 1.2, 0.0], [-0.8, 0.2, 1.0], [0.0, 2.0, 2.4]])
    frame, depth = view.project(points)
    assert view.lens + view.rays(frame) * depth[:, None] == pytest.approx(points)


def test_the_frame_centre_is_on_the_axis_and_up_is_up(make: MakePlan) -> None:
    plan = make()
    view = view_of(plan.camera, plan.subject)
    frame, _ = view.project(np.array([[0.0, 1.5, 0.0], [0.5, 2.0, 0.0]]))
    assert frame[0] == pytest.approx([0.5, 0.5])
    assert frame[1, 0] > 0.5 > frame[1, 1]
