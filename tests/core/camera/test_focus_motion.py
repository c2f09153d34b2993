from __future__ import annotations

import pytest

from ausblick.core.camera.focus import SHARP_PX, defocus_px, depth_of_field, f_number_for
from ausblick.core.camera.motion import flicker_error, motion_blur_px, safe_shutters, shutter_angle
from tests.conftest import MakePlan


def test_blur_is_speed_times_time_times_magnification(make: MakePlan) -> None:
    camera = make(camera={"shutter_s": 0.02, "focal_mm": 50}).camera
    assert motion_blur_px(1.5, 4.0, camera) == pytest.approx(1.5 * 0.02 * (50 * 4000 / 3950) / 4.0 / (23.5 / 3840))
    assert shutter_angle(0.02, 25) == pytest.approx(180)


def test_the_limits_of_the_depth_of_field_blur_by_just_the_circle(make: MakePlan) -> None:
    camera = make(camera={"focal_mm": 85, "f_number": 2.8}).camera
    near, far = depth_of_field(camera, 4.0)
    assert near < 4.0 < far
    assert defocus_px(camera, 4.0, near) == pytest.approx(SHARP_PX, rel=1e-6)
    assert defocus_px(camera, 4.0, far) == pytest.approx(SHARP_PX, rel=1e-6)
    assert depth_of_field(make(camera={"focal_mm": 12, "f_number": 16}).camera, 4.0)[1] == float("inf")


def test_the_f_number_that_makes_a_range_sharp(make: MakePlan) -> None:
    camera = make(camera={"focal_mm": 85, "f_number": 2.0}).camera
    wanted = f_number_for(camera, 4.0, 3.6, 4.3)
    near, far = depth_of_field(make(camera={"focal_mm": 85, "f_number": wanted}).camera, 4.0)
    assert near <= 3.6 + 1e-9
    assert far >= 4.3 - 1e-9
    assert min(3.6 - near, far - 4.3) == pytest.approx(0.0, abs=1e-6)


def test_two_recorded_pixels_still_look_sharp() -> None:
    assert SHARP_PX == 2.0


@pytest.mark.parametrize(
    ("shutter", "off"), [(1 / 1000, 0.5), (1 / 150, 1 / 3), (1 / 80, 0.25), (3 / 200, 0.5), (1 / 50, 0.0)]
)
def test_how_far_a_shutter_is_from_whole_flashes(shutter: float, off: float) -> None:
    """A shutter far shorter than a flash catches any part of it: half a flash is the worst that can be said."""
    assert flicker_error(shutter, 50.0) == pytest.approx(off)


@pytest.mark.parametrize(("shutter", "safe"), [(1 / 50, True), (1 / 100, True), (1 / 60, False), (1 / 200, False)])
def test_whole_flashes_at_50_hz(shutter: float, safe: bool) -> None:
    assert (flicker_error(shutter, 50.0) < 0.01) is safe


def test_safe_shutters_fit_into_a_frame() -> None:
    assert safe_shutters(50.0, 25.0) == pytest.approx([0.01, 0.02, 0.03, 0.04])
    assert safe_shutters(60.0, 100.0) == pytest.approx([1 / 120])
    assert safe_shutters(50.0, 120.0) == []


def test_close_work_smears_by_the_image_distance(make: MakePlan) -> None:
    """At 100 mm and 0.6 m the picture is formed at 120 mm: a fifth more than the focal length says."""
    camera = make(camera={"focal_mm": 100, "shutter_s": 0.01}).camera
    far = motion_blur_px(1.0, 1000.0, camera) * 1000.0 / 0.6
    assert motion_blur_px(1.0, 0.6, camera) == pytest.approx(1.2 * far, rel=1e-3)
