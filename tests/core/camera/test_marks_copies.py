from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.copies import copies, figure_scale
from ausblick.core.camera.coverage import coverage_of
from ausblick.core.camera.ground_shade import shade_in_plate
from ausblick.core.camera.tracking_marks import Move, tracking_marks
from ausblick.core.camera.view import camera_axes, view_of
from ausblick.core.plan import Plan
from tests.conftest import MakePlan

WIDE = {"width": 14.0, "height": 3.4}


def in_view(plan: Plan, places: np.ndarray, pan: float) -> int:
    """Count marks in the frame of a panned camera, worked out anew."""
    camera = plan.camera.model_copy(update={"pan": plan.camera.pan + pan})
    view = view_of(camera, None)
    view = view.__class__(view.lens, camera_axes(camera.pan, camera.tilt, camera.roll), *_tangents(plan))
    frame, depth = view.project(np.concatenate([places, np.zeros((len(places), 1))], axis=1))
    return int(((depth > 0) & (frame > 0).all(axis=1) & (frame < 1).all(axis=1)).sum())


def _tangents(plan: Plan) -> tuple[float, float]:
    view = view_of(plan.camera, plan.subject)
    return view.tan_h, view.tan_v


@pytest.mark.parametrize("wanted", [4, 8])
def test_a_pan_of_40_degrees_keeps_the_wanted_number_in_every_frame(make: MakePlan, wanted: int) -> None:
    plan = make(screen=WIDE, room={"x_min": -8, "x_max": 8}, subject={"framing": "waist"})
    marks = tracking_marks(plan, Move(pan=40.0), wanted)
    assert marks.says == ""
    assert marks.least >= wanted
    for pan in np.linspace(-20, 20, 33):
        assert in_view(plan, marks.places, float(pan)) >= wanted - 1
    for pan in np.linspace(-20, 20, 9):
        assert in_view(plan, marks.places, float(pan)) >= wanted


def test_marks_keep_clear_of_the_action_and_share_the_hue(make: MakePlan) -> None:
    plan = make(screen=WIDE, subject={"framing": "waist"})
    marks = tracking_marks(plan, Move(pan=20.0), 5)
    needed = coverage_of(plan, view_of(plan.camera, plan.subject)).needed
    assert needed is not None
    inside = (marks.places[:, 0] > needed[0]) & (marks.places[:, 0] < needed[2])
    inside &= (marks.places[:, 1] > needed[1]) & (marks.places[:, 1] < needed[3])
    assert not inside.any()
    assert marks.shade == pytest.approx(tuple(0.8 * c for c in plan.screen.reflectance))


def test_a_screen_that_ends_before_the_move_says_so(make: MakePlan) -> None:
    marks = tracking_marks(make(), Move(pan=90.0), 6)
    assert marks.least < 6
    assert "screen ends" in marks.says


def test_fewer_marks_where_fewer_are_needed(make: MakePlan) -> None:
    plan = make(screen=WIDE, room={"x_min": -8, "x_max": 8})
    still, moving = (tracking_marks(plan, move, 4) for move in (Move(), Move(pan=40, travel=1.0)))
    assert len(still.places) < len(moving.places)


def test_scale_follows_the_distance() -> None:
    assert figure_scale(4.0, 4.0) == pytest.approx(0.5)
    assert figure_scale(4.0, 0.0) == 1.0


def test_a_row_of_copies_overlaps_when_arms_would_touch(make: MakePlan) -> None:
    plan = make(camera={"focal_mm": 18})
    tight, loose = copies(plan, 1, 3, 1.0, 2.0), copies(plan, 2, 3, 1.5, 2.0)
    assert all(copy.overlaps for copy in tight)
    assert not any(copy.overlaps for copy in loose)
    assert [copy.scale for copy in loose if copy.place == 0] == pytest.approx([1.0, 4.0 / 6.0])
    middle = next(copy for copy in loose if (copy.row, copy.place) == (0, 1))
    assert middle.across == pytest.approx(0.5)
    assert any(copy.outside for copy in copies(make(camera={"focal_mm": 85}), 1, 3, 1.5, 2.0))
    assert copies(make(subject=None), 1, 1, 1, 1) == []


def test_rows_behind_the_mark_are_blurred_as_the_lens_would(make: MakePlan) -> None:
    """c = f^2 / (N (s - f)) * |D - s| / D, by hand: 50 mm, f/2.8, focused at 4 m, a row at 6 m."""
    plan = make(camera={"focal_mm": 50.0, "f_number": 2.8, "tilt": 0.0})
    sensor = plan.camera.sensor
    disc_mm = 50.0**2 / (2.8 * (4000.0 - 50.0)) * 2000.0 / 6000.0
    first, second = copies(plan, 2, 1, 1.5, 2.0)
    assert first.blur_px == pytest.approx(0.0, abs=1e-9)
    assert second.blur_px == pytest.approx(disc_mm * sensor.px_w / sensor.width_mm, rel=1e-6)


def test_shadows_lie_as_the_plate_s_light_throws_them_and_shrink_with_the_rows(make: MakePlan) -> None:
    """Light at 45 degrees from the left: a shadow to the right, as long as the figure is tall."""
    plate = {"key_azimuth": -90.0, "key_elevation": 45.0}
    plan = make(plate=plate, camera={"focal_mm": 24.0, "z": 6.4})
    shade = shade_in_plate(plan)
    assert shade is not None
    assert (shade.azimuth_deg, shade.length_m) == (pytest.approx(90.0), pytest.approx(1.72))
    near, far = copies(plan, 2, 1, 1.0, 4.0)
    assert near.shade_deg == pytest.approx(90.0, abs=1e-6)
    assert near.shade_px is not None
    assert far.shade_px is not None
    assert far.shade_px == pytest.approx(near.shade_px * far.scale, rel=1e-9)
    tall = copies(plan, 1, 1, 1.0, 1.0)[0]
    # A metre is as many px to the side as upright: the shadow is as long as the figure is seen tall.
    view = view_of(plan.camera, plan.subject)
    ends, _ = view.project(np.array([(0.0, 0.0, 2.4), (0.0, 1.72, 2.4)]))
    seen = abs(float(ends[1, 1] - ends[0, 1])) * plan.camera.sensor.px_h
    assert tall.shade_px == pytest.approx(seen, rel=2e-3)


def test_without_a_plate_s_light_the_key_throws_the_shadow(make: MakePlan) -> None:
    key = {"name": "sun lamp", "role": "key", "position": [0.0, 3.0, 4.4], "aim": [0, 1.5, 2.4]}
    shade = shade_in_plate(make(lights=[key]))
    assert shade is not None
    assert (shade.lamp, shade.azimuth_deg) == ("sun lamp", pytest.approx(0.0))
    assert shade_in_plate(make()) is None
    assert all(copy.shade_px is None for copy in copies(make(), 1, 2, 1.5, 1.0))
