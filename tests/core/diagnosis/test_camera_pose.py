"""Camera's place from the screen's corners: simulated frames with lens, place and tilt the code is not told."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.view import view_of
from ausblick.core.diagnosis.camera_pose import PoseError, find_corners, mark_of, pose_of, view_from
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Floats
from ausblick.core.plan import Plan, plan_from
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import screen_corners, standin_capture, standin_signal
from tests.stores import STORE

LIGHTS = [
    {"position": [x, 1.4, 2.6], "aim": [-0.2 * x, 1.3, 0], "fixture": {"flux_lm": 20000.0}} for x in (-2.4, 2.4)
]


def plan(**camera: float) -> Plan:
    base = {"x": 0.0, "y": 1.5, "z": 6.4, "focal_mm": 24.0, "sensor": {"px_w": 1920, "px_h": 1080}}
    return plan_from(
        {"format": "ausblick-plan", "version": 1, "lights": LIGHTS, "screen": {"bottom": 0.2, "height": 2.4},
         "room": {"x_min": -6, "x_max": 6, "z_max": 12, "height": 5,
                  "reflectance": {"walls": [0.1, 0.1, 0.1], "ceiling": [0.1, 0.1, 0.1], "floor": [0.1, 0.1, 0.1]}},
         "subject": {"framing": "full"}, "camera": {**base, **camera}}
    )  # fmt: skip


TRUTHS = [
    {"x": 0.6, "y": 1.1, "z": 5.8, "pan": -5.0, "tilt": 2.0, "roll": 1.2},
    {"x": -1.2, "y": 1.9, "z": 7.1, "pan": 9.0, "tilt": -6.0, "roll": -2.0, "focal_mm": 28.0},
    pytest.param(
        {"x": 0.0, "y": 0.5, "z": 5.0, "pan": 0.0, "tilt": 8.0, "roll": 0.0, "focal_mm": 18.0},
        marks=pytest.mark.torture,
    ),
]


@pytest.mark.parametrize("truth", TRUTHS)
def test_distance_height_and_angles_from_found_corners(truth: dict[str, float]) -> None:
    built = plan(**truth)
    lens = {k: v for k, v in truth.items() if k == "focal_mm"}
    signal = standin_signal(standin_capture(AsBuilt(built.model_copy(update={"subject": None})), STORE), 1920, 3)
    reading = read_frame(Frame((65535.0 * signal).astype(np.uint16), 65535.0))
    assert reading.found is not None
    corners = find_corners(reading.found.mask.astype(float))
    assert corners is not None
    pose = pose_of(plan(**lens).model_copy(update={"subject": None}), corners)
    assert pose.z == pytest.approx(truth["z"], rel=0.02)
    assert pose.y == pytest.approx(truth["y"], abs=0.03)
    for name in ("pan", "tilt", "roll"):
        assert getattr(pose, name) == pytest.approx(truth[name], abs=0.8), name


def test_clicks_that_are_a_little_off_stay_within_the_error_bars() -> None:
    truth = TRUTHS[0]
    built = plan(**truth)
    rng = np.random.default_rng(5)
    off: list[Floats] = []
    for _ in range(60):
        noisy = screen_corners(built) + rng.normal(0.0, 1.5, (4, 2)) / (1920.0, 1080.0)
        pose = pose_of(plan(), [tuple(c) for c in noisy])
        off.append(np.array([(getattr(pose, n) - truth[n]) / pose.errors[n] for n in ("x", "y", "z", "pan", "tilt")]))
    spread = np.sqrt((np.array(off) ** 2).mean(axis=0))
    assert np.all(spread < 1.5)
    assert np.all(spread > 0.5)


def test_the_mark_from_two_points_of_known_height() -> None:
    built = plan(**TRUTHS[1])
    view = view_of(built.camera, built.subject)
    frame = view.project(np.array([[0.4, 0.0, 2.1], [0.4, 1.7, 2.1]]))[0]
    pose = pose_of(plan(focal_mm=28.0), [tuple(c) for c in screen_corners(built)])
    x, z = mark_of(built, view_from(built, pose), tuple(frame[0]), tuple(frame[1]), 1.7)
    assert (x, z) == pytest.approx((0.4, 2.1), abs=0.02)


@pytest.mark.parametrize(
    "corners",
    [
        [(0.1, 0.1), (0.2, 0.2), (0.3, 0.3), (0.4, 0.4)],
        [(0.1, 0.1), (0.9, 0.1), (0.9, 0.9)],
        [(0.1, 0.1), (float("nan"), 0.1), (0.9, 0.9), (0.1, 0.9)],
    ],
)
def test_marks_that_no_camera_saw_are_refused(corners: list[tuple[float, float]]) -> None:
    with pytest.raises(PoseError, match="corner"):
        pose_of(plan(), corners)


def test_a_screen_cut_by_the_frame_has_no_corners() -> None:
    mask = np.zeros((90, 160))
    mask[10:80, :120] = 1.0
    assert find_corners(mask) is None
