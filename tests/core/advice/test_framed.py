"""What the picture shows of somebody beside what the plan says that it shows."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.camera.view import view_of
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.sentences import say
from tests.conftest import MakePlan
from tests.demo_findings import found
from tests.stores import STORE

AWAY = 4.0
STATURE = 1.72


def framed(make: MakePlan, framing: str, **camera: float) -> Plan:
    return make(
        subject={"framing": framing, "z": 2.4, "height": STATURE},
        camera={"y": 1.4, "z": 2.4 + AWAY, "focal_mm": 50.0, **camera},
    )


def test_what_is_out_of_the_picture_is_told_by_its_share(make: MakePlan) -> None:
    plan = framed(make, "full")
    below = (1.4 - AWAY * view_of(plan.camera, plan.subject).tan_v) / STATURE
    told = found(plan, "space.framed").judgement
    assert told.value == pytest.approx(100.0 * below, abs=2.0)
    assert say(told.says).startswith("Below, ")


def test_a_camera_that_looks_past_somebody_comes_before_them(make: MakePlan) -> None:
    plan = framed(make, "waist", x=-2.6)
    finding = found(plan, "space.framed")
    assert (finding.judgement.severity, finding.judgement.value) == ("fix", 100.0)
    assert say(finding.judgement.says) == "Nothing of what is framed is in the picture"
    before = next(one for one in finding.remedies if "straight before the mark" in say(one.text))
    then = apply_changes(plan, before.changes)
    assert (then.camera.x, then.camera.pan) == (0.0, 0.0)
    assert found(then, "space.framed").judgement.severity == "fine"


def test_beside_a_wall_no_camera_comes_straight_before_the_mark(make: MakePlan) -> None:
    plan = make(
        room={"x_min": -3.7, "x_max": 3.7},
        subject={"framing": "waist", "x": 3.55, "z": 2.4, "height": STATURE},
        camera={"x": -2.6, "y": 1.4, "z": 2.4 + AWAY, "focal_mm": 50.0},
    )
    offered = [say(one.text) for one in found(plan, "space.framed").remedies]
    assert any("Pan the camera" in one for one in offered), offered
    assert not any("straight before" in one for one in offered), offered


def test_a_face_cut_off_is_tilted_into_the_picture(make: MakePlan) -> None:
    plan = framed(make, "full", tilt=-14.0)
    finding = found(plan, "space.framed")
    assert finding.judgement.severity == "fix"
    assert "The face is out of the picture" in say(finding.judgement.says)
    (tilted,) = finding.remedies
    # Of what is taller than the picture the upper part: the head a twentieth of the picture below its edge.
    then = apply_changes(plan, tilted.changes)
    head, _ = view_of(then.camera, then.subject).project(np.array([0.0, STATURE, 2.4]))
    assert head[1] == pytest.approx(0.05, abs=0.01)


def test_feet_that_are_to_be_seen_are_missed(make: MakePlan) -> None:
    # The ankles are cut off, which nobody minds unless feet are part of the shot.
    plan = framed(make, "full", y=1.1, focal_mm=28.0)
    assert found(plan, "space.framed").judgement.severity == "fine"
    seen = apply_changes(plan, [Change("subject.feet_seen", True)])
    assert "feet" in say(found(seen, "space.framed").judgement.says)


def test_another_framing_is_called_what_it_is(make: MakePlan) -> None:
    plan = framed(make, "full", focal_mm=70.0)
    finding = found(plan, "space.framed")
    word = next(one for one in finding.remedies if "as the picture shows" in say(one.text))
    assert say(word.text) == "Call it to the waist, as the picture shows"
    assert found(apply_changes(plan, word.changes), "space.framed").judgement.severity == "fine"


def test_of_a_display_that_is_replaced_the_display_is_the_picture(make: MakePlan) -> None:
    plan = make(
        subject={"framing": "waist"},
        camera={"x": -2.6},
        targets={"region": [[-0.2, 1.2], [0.2, 1.2], [0.2, 1.5], [-0.2, 1.5]]},
    )
    assert find(plan, STORE, only=("space.framed",))[1] == []


def test_hands_below_the_picture_are_no_mere_habit_of_framing(make: MakePlan) -> None:
    """A lens that looks over them sees a hand's breadth of empty screen where fingertips might be."""
    plan = make(subject={"framing": "hands", "z": 1.1, "height": 1.75}, camera={"y": 1.2, "z": 2.9, "focal_mm": 85.0})
    finding = found(plan, "space.framed")
    assert finding.judgement.severity == "fix"
    assert say(finding.judgement.says) == "The hands are out of the picture: turn the camera to them"
    tilt = next(one for one in finding.remedies if "Tilt the camera" in say(one.text))
    assert found(apply_changes(plan, tilt.changes), "space.framed").judgement.severity == "fine"
