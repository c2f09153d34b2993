"""What brings the action inside the screen: how far back a camera goes, and how high where the room is low."""

from __future__ import annotations

import pytest

from ausblick.core.advice import moves
from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.rule_table import RULES
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.lamp_bodies import stands
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.sentences import say
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

WIDE = {"width_mm": 36.0, "height_mm": 20.25}


def cover(plan: Plan) -> Finding:
    (finding,) = find(plan, STORE, CRAFT.only({"screen.covered", "screen.margin"}), only={"screen.covered"})[1]
    return finding


def margin_of(plan: Plan) -> float:
    found = evaluate(plan, STORE).coverage.margin_m
    assert found is not None
    return found


def in_a_yard(make: MakePlan, width: float) -> Plan:
    """Eighty metres deep, before a screen of that width, m, which is too narrow."""
    return make(
        room={"kind": "exterior", "z_max": 80.0},
        screen={"width": width, "height": 3.0},
        subject={"z": 2.4, "framing": "waist", "envelope": {"left": 0.85, "right": 0.85}},
        camera={"z": 5.4, "focal_mm": 24.0, "sensor": WIDE},
    )


def test_a_camera_goes_back_only_as_far_as_there_is_something_to_spare(make: MakePlan) -> None:
    """Outdoors the end of the room is far away, and so would be the lens that frames the same from there."""
    finding = cover(in_a_yard(make, 2.6))
    assert finding.judgement.severity == "stop"
    (back,) = (r for r in finding.remedies if say(r.text).startswith("Camera back"))
    then = apply_changes(in_a_yard(make, 2.6), back.changes)
    assert 0.15 <= margin_of(then) < 0.3
    assert then.camera.z < 12.0
    nearer = then.model_copy(update={"camera": then.camera.model_copy(update={"z": then.camera.z - 1.0})})
    assert margin_of(nearer) < 0.15


def test_no_lens_is_asked_for_that_is_more_than_three_times_as_long(make: MakePlan) -> None:
    plan = in_a_yard(make, 1.8)
    longest = max(apply_changes(plan, remedy.changes).camera.focal_mm for remedy in cover(plan).remedies)
    assert longest == pytest.approx(72.0, abs=0.5), "that, and still some of it is missing"


@pytest.mark.parametrize(("height", "larger"), [(3.2, True), (2.0, False)])
def test_under_a_low_ceiling_the_lens_goes_up(make: MakePlan, height: float, larger: bool) -> None:
    """From lower down a head is seen against what would be above the ceiling: no screen is as high as that."""
    plan = make(
        room={"height": height, "z_max": 7.0},
        screen={"width": 6.0, "height": min(3.0, height), "bottom": 0.0},
        subject={"z": 2.0, "height": 1.55 if height < 2.5 else 1.8, "framing": "waist",
                 "envelope": {"left": 0.3, "right": 0.3, "up": 0.1, "front": 0.4}},
        camera={"y": 0.9, "z": 3.9, "focal_mm": 12.0, "sensor": WIDE},
    )  # fmt: skip
    finding = cover(plan)
    assert finding.judgement.severity == "stop"
    (up,) = (r for r in finding.remedies if say(r.text).startswith("Lens at"))
    assert ("Screen 6.00" in say(up.text)) == larger
    then = apply_changes(plan, up.changes)
    assert margin_of(then) >= 0.05
    assert then.screen.bottom + then.screen.height <= height
    assert 0.9 < then.camera.y <= height - 0.3
    before, after = (evaluate(each, STORE).view.project([[0.0, 1.2, 2.0]])[0][0, 1] for each in (plan, then))
    assert after == pytest.approx(before, abs=0.01), "the same place over the mark in the same row"


def test_what_is_missing_is_never_nothing(make: MakePlan) -> None:
    whole = {"coverage_school": "cover-frame"}
    plan = make(room={"height": 9.0}, screen={"width": 4.0, "height": 8.0}, targets=whole)
    narrow = plan.screen.width - 2.0 * margin_of(plan) - 0.006
    short = plan.model_copy(update={"screen": plan.screen.model_copy(update={"width": narrow})})
    assert margin_of(short) == pytest.approx(-0.003, abs=1e-3)
    assert say(cover(short).judgement.says).startswith("0.01 m of screen")


@pytest.mark.parametrize(("high", "kind", "on_a_stand"), [(4.0, "interior", True), (6.8, "interior", False),
                                                           (6.8, "exterior", True)])  # fmt: skip
def test_no_stand_is_as_high_as_a_stage(make: MakePlan, high: float, kind: str, on_a_stand: bool) -> None:
    plan = make(room={"height": 8.0, "kind": kind}, lights=[lamp(position=[0, high, 2.0], aim=[0, 0, 2.1])])
    assert stands(plan, plan.lights[0]) == on_a_stand


def test_folds_that_melt_already_ask_for_no_smaller_opening(make: MakePlan) -> None:
    """What is offered with more light is a wider opening."""
    rule = next(rule for rule in RULES if rule.id == "camera.melt")
    for f_number in (2.0, 5.6, 16.0):
        plan = make(camera={"f_number": f_number}, screen={"wrinkle_slope": 0.08}, subject={"z": 2.4})
        for proposal in rule.propose(evaluate(plan, STORE), STORE):
            assert apply_changes(plan, proposal.changes).camera.f_number <= f_number


def test_what_lets_the_day_begin_is_worth_a_little_of_the_key(make: MakePlan) -> None:
    """A floor run as long as the action sends colour up: the key is worse than that of a shot nobody could take."""
    tubes = [lamp(role="screen", flux_lm=7000, position=[x, 2.8, 2.0], aim=[0.4 * x, 1.3, 0.0],
                  emitter={"shape": "rect", "width": 1.2, "height": 0.12}) for x in (-2.6, 2.6)]  # fmt: skip
    key = lamp(role="key", flux_lm=5000, position=[-1.6, 2.4, 4.2], aim=[0, 1.3, 2], emitter={"shape": "rect"})
    plan = make(
        room={"x_min": -3.5, "x_max": 3.5, "z_max": 7.0, "height": 3.2},
        screen={"width": 6.0, "height": 3.0, "bottom": 0.0, "floor_run": 1.5},
        subject={"z": 2.0, "height": 1.8, "framing": "full", "feet_seen": True, "envelope": {"front": 0.4}},
        camera={
            "y": 1.1,
            "z": 3.9,
            "focal_mm": 16.0,
            "f_number": 5.6,
            "iso": 1600,
            "shutter_s": 0.02,
            "sensor": WIDE,
        },
        lights=[*tubes, key],
    )
    (covered,) = (f for f in find(plan, STORE, only={"screen.covered"})[1])
    first = covered.remedies[0]
    assert say(first.text).startswith("Lens at")
    assert first.outcome == "cured"
    assert first.quality_after < first.quality_before - 1.0
    assert first.gives


def test_lamps_that_hang_are_not_brought_down_to_stands(make: MakePlan) -> None:
    lamps = [lamp(role="screen", position=[x, 6.8, 1.6], aim=[x, 0, 1.6], flux_lm=20000) for x in (-2.0, 2.0)]
    hung = make(room={"height": 8.0}, screen={"width": 5.0, "height": 4.0}, lights=lamps)
    low = [{**one, "position": [one["position"][0], 4.0, 1.6]} for one in lamps]
    standing = make(room={"height": 8.0}, screen={"width": 5.0, "height": 4.0}, lights=low)
    for plan, offered in ((hung, 0), (standing, 1)):
        evaluation, screen = evaluate(plan, STORE), moves.screen_lamps(plan)
        assert len(moves.all_alike(evaluation, screen)) == len(moves.half_height(evaluation, screen)) == offered


def test_a_mark_that_moves_away_takes_the_screen_it_needs_along(make: MakePlan) -> None:
    """Further from the screen the same action is seen against more of it; where there is enough nothing is added."""
    room = {"x_min": -4.0, "x_max": 4.0, "z_max": 10.0, "height": 4.5}
    for width, more in ((1.7, True), (6.0, False)):
        plan = make(
            room=room,
            screen={"width": width, "height": 4.0},
            subject={"z": 1.6, "framing": "waist", "envelope": {"left": 0.5, "right": 0.5}},
            camera={"z": 5.6},
        )
        assert margin_of(plan) > 0.0
        (moved,) = moves.mark_forward(evaluate(plan, STORE), 1.2)
        then = apply_changes(plan, moved.changes)
        assert then.subject is not None
        assert then.subject.z == pytest.approx(2.8)
        assert margin_of(then) >= 0.15
        assert (then.screen.width > width) == ("Screen" in say(moved.text)) == more
