"""Rooms as people measure them, and kits that are not made for them."""

from __future__ import annotations

import pytest

from ausblick.core.kit import dump_kit, kit_from
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.core.sentences import say
from ausblick.demo.fern_house import HALL

from .test_propose import plan_in, proposed


def test_a_room_measured_in_feet_takes_the_same_lamps_and_the_same_roll() -> None:
    """Its limits are no whole centimetres; places are."""
    foot = 0.3048
    rooms = [(15.0 * foot, 16.0 * foot, 8.0 * foot), (4.56, 4.86, 2.42)]
    kit = kit_from(
        dump_kit(full_kit()) | {"screens": [s for s in dump_kit(full_kit())["screens"] if "green roll" in s["name"]]}
    )
    of_feet, of_metres = (
        proposed(plan_in({"x_min": -w / 2, "x_max": w / 2, "z_min": 0.0, "z_max": d, "height": h}), kit, "hands")
        for w, d, h in rooms
    )
    assert of_feet.alternatives
    for foot_one, metre_one in zip(of_feet.alternatives, of_metres.alternatives, strict=True):
        assert [one.role for one in foot_one.plan.lights] == [one.role for one in metre_one.plan.lights]
        assert [one.role for one in foot_one.plan.lights].count("screen") == 2
        assert foot_one.plan.screen.height == pytest.approx(8.0 * foot - 0.05, abs=0.01)
        assert foot_one.plan.screen.height <= 8.0 * foot - 0.05


def test_a_kit_without_the_wanted_hue_gives_what_it_has_and_says_so() -> None:
    blue = [s for s in dump_kit(full_kit())["screens"] if s["hue"] == "blue"]
    kit = kit_from(dump_kit(full_kit()) | {"screens": blue})
    plan = plan_in(HALL)
    assert plan.screen.hue == "green"
    made = proposed(plan, kit, "waist")
    assert made.alternatives
    for proposal in made.alternatives:
        assert proposal.plan.screen.hue == "blue"
        assert list(proposal.plan.screen.reflectance) == blue[0]["reflectance"]
        assert say(proposal.costs[0]) == "the kit has no green screen: this one is blue"
    of_both = proposed(plan, full_kit(), "waist").alternatives
    assert {one.plan.screen.hue for one in of_both} == {"green"}


def test_a_near_screens_lamps_stand_behind_the_mark_unless_something_stops_them_there() -> None:
    narrow = plan_in({"x_min": -1.5, "x_max": 1.5, "z_min": -0.3, "z_max": 8.6, "height": 3.5, "ambient_lux": 5.0})
    found = [
        *proposed(narrow, small_kit(), "face").alternatives,
        *proposed(plan_in(HALL), small_kit(), "chest").alternatives,
    ]
    how = set()
    for one in found:
        assert one.plan.subject is not None
        if one.plan.subject.z > 1.0:
            continue
        before = any(lamp.role == "screen" and lamp.position[2] > one.plan.subject.z for lamp in one.plan.lights)
        told = [say(cost) for cost in one.costs]
        words = "screen lamps stand before the mark: behind it they would be too near the screen"
        assert (words in told) == before
        assert one.stops == ()
        how.add(before)
    assert how == {True, False}


def test_a_room_measured_from_its_corner_is_used_as_one_measured_from_its_middle() -> None:
    shape = {"z_min": -0.3, "z_max": 7.0, "height": 3.0}
    corner, middle = (
        proposed(plan_in({"x_min": x, "x_max": x + 5.0, **shape}), small_kit(), "chest").alternatives
        for x in (0.0, -2.5)
    )
    assert middle
    for one, other in zip(corner, middle, strict=True):
        assert one.says == other.says
        assert one.plan.screen.x_centre == one.plan.camera.x == 2.5
        assert one.plan.subject is not None
        assert one.plan.subject.x == 2.5
        for lamp, same in zip(one.plan.lights, other.plan.lights, strict=True):
            assert lamp.dimmer == pytest.approx(same.dimmer, abs=0.02)
            assert lamp.position == pytest.approx([same.position[0] + 2.5, *same.position[1:]], abs=0.02)
