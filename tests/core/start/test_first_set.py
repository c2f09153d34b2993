"""What is said of a room and its things becomes a lit set, and nothing that is asked is for nothing."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.kit import Kit
from ausblick.core.kit.added import added
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.core.plan import PlanError, apply_changes, dump_plan
from ausblick.core.sentences import say
from ausblick.core.start.answers_given import SaidError, lamp_from, said_from
from ausblick.core.start.first_set import FirstSet, first_set, possible_with
from ausblick.core.start.kit_of_said import kit_of_said
from ausblick.core.start.one_more_lamp import free_lamps, one_more_lamp
from ausblick.core.start.plan_of_said import plan_of_said
from tests.stores import STORE

GARAGE: dict[str, Any] = {
    "room": {"length": 5.0, "width": 3.2, "height": 2.4, "walls": "white", "ceiling": "white", "floor": "grey"},
    "cloth": {"kind": "cloth", "hue": "green", "width": 3.0, "height": 2.6},
    "lamps": [{"kind": "small-panel", "count": 2}, {"kind": "soft-box"}],
    "camera": {"kind": "phone"},
    "framing": "waist",
    "movement": "talks",
    "behind": "unknown",
}


def made(**said: Any) -> FirstSet:
    return first_set(said_from(GARAGE | said), Kit(), STORE)


def test_a_garage_is_lit_without_a_stop_by_what_is_in_it() -> None:
    found = made()
    assert found.verdict in ("good", "usable")
    plan = found.plan
    assert [lamp.role for lamp in plan.lights] == ["screen", "screen", "key"]
    assert all(lamp.dimmer >= 0.05 for lamp in plan.lights)
    # A phone's only lens, at its only opening.
    assert (plan.camera.focal_mm, plan.camera.f_number, plan.camera.sensor.base_iso) == (6.9, 1.8, 64.0)
    # A cloth higher than the room hangs below the ceiling.
    assert plan.screen.height == pytest.approx(2.35)
    assert plan.room.reflectance.walls == (0.75, 0.75, 0.75)
    assert not any(f.rule.stage == "plate" and f.judgement.severity != "fine" for f in found.findings)


@pytest.mark.parametrize(
    "said",
    [
        {"room": GARAGE["room"] | {"length": 6.0}},
        {"room": GARAGE["room"] | {"width": 4.0}},
        {"room": GARAGE["room"] | {"height": 3.0}},
        {"room": GARAGE["room"] | {"walls": "draped"}},
        {"room": GARAGE["room"] | {"ceiling": "dark"}},
        {"room": GARAGE["room"] | {"floor": "white"}},
        {"room": GARAGE["room"] | {"outdoors": True}},
        {"cloth": GARAGE["cloth"] | {"kind": "vinyl"}},
        {"cloth": GARAGE["cloth"] | {"hue": "blue"}},
        {"cloth": GARAGE["cloth"] | {"width": 2.5}},
        {"cloth": GARAGE["cloth"] | {"height": 2.0}},
        {"lamps": [*GARAGE["lamps"], {"kind": "tube"}]},
        {"lamps": [{"kind": "small-panel", "count": 2, "lumens": 9000.0}]},
        {"lamps": [{"kind": "small-panel", "count": 2, "watts": 100.0}]},
        {"lamps": [*GARAGE["lamps"], {"kind": "window"}]},
        {"camera": {"kind": "small"}},
        {"camera": {"kind": "large", "lenses": [28.0]}},
        {"framing": "face"},
        {"movement": "dances"},
        {"behind": "bright"},
    ],
    ids=str,
)
def test_every_answer_is_used(said: dict[str, Any]) -> None:
    def begun(what: dict[str, Any]) -> Any:
        told = said_from(what)
        kit = kit_of_said(told, Kit())
        return kit, dump_plan(plan_of_said(told, kit))

    assert begun(GARAGE | said) != begun(GARAGE)


def test_power_is_lumens_or_watts_or_what_is_usual() -> None:
    def flux(**power: float) -> float | None:
        said = said_from({"lamps": [{"kind": "large-panel", **power}]})
        return kit_of_said(said, Kit()).lamps[0].fixture.flux_lm

    assert flux() == 16_000.0
    assert flux(lumens=5_000.0) == 5_000.0
    # 200 W give 16,000 lm in this kind of lamp: half the watts, half the light.
    assert flux(watts=100.0) == pytest.approx(8_000.0)


def test_a_roll_longer_than_the_room_is_high_runs_onto_the_floor() -> None:
    roll = {"kind": "paper-roll", "width": 2.7, "height": 6.0}
    large = {"length": 9.0, "width": 6.0, "height": 2.8}
    found = made(cloth=roll, room=large, framing="full", movement="still", camera={"kind": "large"})
    assert found.instead is None
    assert found.plan.screen.height == pytest.approx(2.75)
    # As much of the 3.25 m that are left as the mark and the step before it need.
    subject = found.plan.subject
    assert subject is not None
    assert found.plan.screen.floor_run == pytest.approx(subject.z + subject.envelope.front + 0.3)


def test_what_cannot_be_says_why_and_takes_what_can() -> None:
    found = made(framing="full")
    assert found.instead == "knees"
    told = say(found.says)
    assert "Not full" in told
    assert "but knees" in told
    assert "This room and this kit do" in " ".join(map(say, found.told))


def test_no_lamp_no_set_and_it_says_so() -> None:
    found = made(lamps=[])
    assert (found.verdict, found.plan.lights) == ("no", ())
    assert "no lamp" in say(found.says)


def test_what_nobody_said_is_what_is_owned() -> None:
    told = said_from({"lamps": [{"name": "panel", "count": 2}], "framing": "chest"})
    found = first_set(told, small_kit(), STORE)
    assert found.plan.screen.width == 1.5
    assert {lamp.fixture.flux_lm for lamp in found.plan.lights} == {6000.0}
    with pytest.raises(SaidError, match="framing"):
        said_from({"framing": "toes"})


def test_the_room_answers_before_any_lamp_is_said() -> None:
    _, possible = possible_with(said_from({"room": GARAGE["room"], "camera": {"kind": "phone"}}), Kit())
    state = {one.framing: one.state for one in possible}
    assert state["full"] == "impossible"
    assert state["waist"] != "impossible"


def test_a_generic_kit_is_added_and_replaces_nothing() -> None:
    own = small_kit()
    both = added(own, full_kit())
    assert both.lamps[: len(own.lamps)] == own.lamps
    assert len(both.lamps) == len(own.lamps) + len(full_kit().lamps)
    # A pop-up of the same size in both is one pop-up.
    assert sum(screen.material == "pop-up" for screen in both.screens) == 1
    assert added(both, full_kit()) == both
    assert (both.sandbags, both.clamps) == (12, 30)


def test_one_more_lamp_has_its_own_place_and_name_and_mirrors_its_partner() -> None:
    hall = said_from(GARAGE | {"room": {}, "camera": {"kind": "large", "lenses": [50.0]}})
    plan = plan_of_said(hall, kit_of_said(hall, Kit()))
    for n in range(6):
        lamp = one_more_lamp(plan, lamp_from({"kind": "small-panel"}), Kit())
        plan = plan.model_copy(update={"lights": (*plan.lights, lamp)})
        places = [one.position for one in plan.lights]
        assert len(set(places)) == n + 1
    assert [one.role for one in plan.lights[:5]] == ["screen", "screen", "key", "fill", "back"]
    left, right = plan.lights[:2]
    assert right.position == pytest.approx((-left.position[0], *left.position[1:]))
    assert right.aim == pytest.approx((-left.aim[0], *left.aim[1:]))
    assert len({one.name for one in plan.lights}) == 6
    assert len({one.id for one in plan.lights}) == 6


def test_what_of_the_kit_is_free() -> None:
    kit = small_kit()
    plan = plan_of_said(said_from(GARAGE), kit_of_said(said_from(GARAGE), Kit()))
    lamp = one_more_lamp(plan, lamp_from({"name": "panel"}), kit)
    plan = plan.model_copy(update={"lights": (lamp,)})
    assert [(one.name, one.count, one.free) for one in free_lamps(plan, kit)] == [
        ("panel", 2, 1),
        ("soft light", 1, 1),
    ]
    with pytest.raises(PlanError, match="no lamp of this name"):
        one_more_lamp(plan, lamp_from({"name": "beacon"}), kit)
    full = plan.model_copy(update={"lights": (lamp,) * 32})
    with pytest.raises(PlanError, match="at most 32"):
        one_more_lamp(full, lamp_from({"kind": "tube"}), kit)


def test_a_window_of_the_room_is_daylight_that_no_remedy_dims_or_moves() -> None:
    """It comes into the right wall; what is found of it covers it, and lamps follow its colour and not it theirs."""
    plan = made().plan
    window = one_more_lamp(plan, lamp_from({"kind": "window"}), Kit())
    assert (window.position[0], window.fixture.luminance) == (plan.room.x_max, 3000.0)
    with_it = plan.model_copy(update={"lights": (*plan.lights, window)})
    findings = find(with_it, STORE)[1]
    daylight = next(f for f in findings if f.rule.id == "light.daylight")
    assert daylight.judgement.severity == "consider"
    for remedy in (remedy for f in findings for remedy in f.remedies):
        after = next(one for one in apply_changes(with_it, remedy.changes).lights if one.id == window.id)
        assert (after.dimmer, after.position, after.fixture) == (window.dimmer, window.position, window.fixture)
    cover = next(remedy for remedy in daylight.remedies if remedy.text.id == "do/black-out")
    assert cover.outcome == "does-not-apply"
    outdoors = plan.model_copy(update={"room": plan.room.model_copy(update={"kind": "exterior"})})
    with pytest.raises(PlanError, match="outdoors"):
        one_more_lamp(outdoors, lamp_from({"kind": "window"}), Kit())
