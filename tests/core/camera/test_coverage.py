from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ausblick.core.camera.coverage import Coverage, coverage_of
from ausblick.core.camera.view import view_of
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, PlanError, plan_from
from tests.conftest import MakePlan, lamp


def covered(plan: Plan) -> Coverage:
    return coverage_of(plan, view_of(plan.camera, plan.subject))


def test_parallax_spreads_the_envelope_by_the_ratio_of_distances(make: MakePlan) -> None:
    needed = covered(make(subject={"framing": "waist"})).needed
    assert needed is not None
    # Reach 0.6 m, its front 3.6 m from the lens, the screen 6.4 m from it.
    assert needed[2] == pytest.approx(0.6 * 6.4 / 3.6, rel=1e-4)
    assert needed[0] == pytest.approx(-needed[2])
    # Top: 0.42 m above the lens' height, 3.6 m away.
    assert needed[3] == pytest.approx(1.5 + (1.72 + 0.2 - 1.5) * 6.4 / 3.6, rel=1e-4)


def test_the_frame_cuts_what_is_needed(make: MakePlan) -> None:
    wide, tight = covered(make(camera={"focal_mm": 35})), covered(make(camera={"focal_mm": 135}))
    assert wide.needed is not None
    assert tight.needed is not None
    assert tight.needed[2] < wide.needed[2]
    frame_half = 23.5 / 2 / (135 * 4000 / 3865) * 6.4
    assert tight.needed[2] == pytest.approx(frame_half, rel=1e-4)


def test_cover_the_frame_needs_the_whole_frustum(make: MakePlan) -> None:
    plan = make(targets={"coverage_school": "cover-frame"})
    needed = covered(plan).needed
    image = 35.0 * 4000.0 / 3965.0
    assert needed is not None
    assert needed[2] - needed[0] == pytest.approx(23.5 / image * 6.4, rel=1e-4)


def test_margin_is_the_smallest_distance_to_the_edge(make: MakePlan) -> None:
    plan = make(subject={"framing": "waist"}, screen={"width": 2.4})
    coverage = covered(plan)
    assert coverage.margin_m == pytest.approx(1.2 - 0.6 * 6.4 / 3.6, rel=1e-3)
    assert coverage.covered
    narrow = covered(make(subject={"framing": "waist"}, screen={"width": 2.0}))
    assert not narrow.covered
    assert narrow.margin_m == pytest.approx(1.0 - 0.6 * 6.4 / 3.6, rel=1e-3)
    assert narrow.frame_uncovered.any()


def test_feet_need_floor_as_far_as_they_step(make: MakePlan) -> None:
    far = {"z": 9.0, "focal_mm": 24, "y": 1.5}
    feet = {"feet_seen": True, "framing": "full"}
    assert not covered(make(subject=feet, camera=far, screen={"width": 4})).covered
    short = covered(make(subject=feet, camera=far, screen={"width": 4, "floor_run": 2.5}))
    assert short.margin_m == pytest.approx(2.5 - 2.8, abs=1e-3)
    assert covered(make(subject=feet, camera=far, screen={"width": 4, "floor_run": 3.0})).covered
    assert covered(make(subject={"framing": "full"}, camera=far, screen={"width": 4})).covered


def test_a_wing_catches_what_leaves_the_side(make: MakePlan) -> None:
    left = {"framing": "waist", "x": -0.8}
    bare = covered(make(subject=left, screen={"width": 2.6}))
    winged = covered(make(subject=left, screen={"width": 2.6, "wing_left": 2.5}))
    assert not bare.covered
    assert winged.covered


def test_a_camera_that_looks_away_needs_nothing_and_says_so(make: MakePlan) -> None:
    assert covered(make(camera={"pan": 180})).needed is None
    assert not covered(make(camera={"z": -1.0})).covered


@given(st.floats(-15, 15), st.floats(-10, 10), st.floats(1.0, 4.0))
def test_a_mirrored_set_needs_the_mirrored_screen(pan: float, tilt: float, mark: float) -> None:
    def needed(sign: float) -> tuple[float, float, float, float] | None:
        return covered(
            plan_from(
                {
                    "format": "ausblick-plan",
                    "version": 1,
                    "camera": {"pan": sign * pan, "tilt": tilt, "x": sign * 0.3},
                    "subject": {"z": mark, "x": sign * 0.1, "framing": "waist"},
                }
            )
        ).needed

    one, other = needed(1.0), needed(-1.0)
    assert (one is None) == (other is None)
    if one is not None and other is not None:
        assert one == pytest.approx((-other[2], other[1], -other[0], other[3]), abs=1e-4)


SIGN = [[-0.4, 0.9], [0.5, 0.9], [0.5, 1.5], [-0.4, 1.5]]


def test_a_part_of_its_own_is_what_is_needed_and_nothing_else_is_judged(make: MakePlan) -> None:
    """A sign on the screen's plane: needed is the sign, to the millimetre; a hot spot beside it is nobody's."""
    plan = make(targets={"region": SIGN})
    part = covered(plan)
    assert part.needed == pytest.approx((-0.4, 0.9, 0.5, 1.5), abs=1e-3)
    assert part.margin_m == pytest.approx(0.9, abs=1e-3)
    spot = lamp(emitter={"shape": "point"}, peak_cd=4000, beam={"kind": "beam", "deg": 12}, position=[-1.2, 2.3, 1.5],
                aim=[-1.2, 2.3, 0.0])  # fmt: skip
    flood = lamp(id="flood", emitter={"shape": "rect"}, flux_lm=30000, position=[0.0, 1.4, 6.0], aim=[0.0, 1.4, 0.0])
    both = {"lights": [spot, flood], "subject": None}
    whole = evaluate(make(**both, targets={"coverage_school": "cover-frame"}), BasisStore())
    sign = evaluate(make(**both, targets={"region": SIGN}), BasisStore())
    assert whole.screen is not None
    assert sign.screen is not None
    assert whole.screen.spread_stops > sign.screen.spread_stops + 0.5
    assert sign.screen.spread_stops < 0.15


def test_a_part_reaches_no_further_than_the_picture(make: MakePlan) -> None:
    wide = covered(make(targets={"region": [[-9, 0.2], [9, 0.2], [9, 2.0], [-9, 2.0]]}))
    frame = covered(make(targets={"coverage_school": "cover-frame"}))
    assert wide.needed is not None
    assert frame.needed is not None
    assert wide.needed[0] == pytest.approx(frame.needed[0], abs=1e-3)


@pytest.mark.parametrize("corners", [[[0, 0], [1, 0]], [[0, 0], [1, 1], [2, 2]], [[0, 0], [0.001, 0], [0, 0.001]]])
def test_a_part_that_encloses_nothing_is_refused(make: MakePlan, corners: list[list[float]]) -> None:
    with pytest.raises(PlanError, match="three corners"):
        make(targets={"region": corners})
