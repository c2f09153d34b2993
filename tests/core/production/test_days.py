"""The days of a production: breaks, what stands against them, outfits, and what brings a late day back."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.camera.view import view_of
from ausblick.core.kit import kit_from
from ausblick.core.plan import Change, apply_changes, dump_plan
from ausblick.core.production.day_plan import plan_day, plan_one
from ausblick.core.production.day_rules import DayFinding
from ausblick.core.production.edit_hours import edit_hours
from ausblick.core.production.outfit_check import check_outfits
from ausblick.core.production.packing import packing_list
from ausblick.core.production.production_document import (
    Production,
    ProductionError,
    dump_production,
    minutes_of,
    plans_of,
    production_from,
)
from ausblick.core.production.running_late import project
from ausblick.core.production.sound import CLEAR, boom_height
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer
from ausblick.demo.visitor_film import visitor_film

GREEN, GREY = [0.08, 0.3, 0.1], [0.4, 0.4, 0.4]


def made(**fields: Any) -> Production:
    return production_from({"format": "ausblick-production", "version": 1, **fields})


def shot(name: str, plan: Any, **fields: Any) -> dict[str, Any]:
    return {"id": name, "title": name, "plan": dump_plan(plan), **fields}


def told(production: Production, rule: str) -> list[DayFinding]:
    return [found for found in plan_day(production).findings if found.id == rule]


def test_two_days_are_ordered_each_by_itself() -> None:
    film = visitor_film()
    day = plan_day(film)
    assert len(day.ends) == 2
    own = {one.id: one.day for one in film.shots}
    assert [own[one] for one in day.order] == sorted(own.values())
    assert {entry.day for entry in day.entries} == {0, 1}
    assert production_from(dump_production(film)) == film


def test_a_break_stands_where_the_gap_is_nearest_to_its_time() -> None:
    shots = [shot(name, seed_vault(), minutes=60) for name in ("a", "b", "c")]
    plain = plan_day(made(shots=shots))
    second = next(entry.at for entry in plain.entries if entry.shot == plain.order[1])
    rested = plan_day(made(shots=shots, breaks=[{"at": second, "minutes": 45, "name": "Lunch"}]))
    (lunch,) = [entry for entry in rested.entries if entry.kind == "break"]
    assert (lunch.at, lunch.minutes, lunch.why) == (second, 45, "Lunch")
    assert minutes_of(rested.end) == minutes_of(plain.end) + 45


def test_an_outfit_in_the_screens_colour_is_told_with_both_ways_out() -> None:
    outfits = [
        {"id": "moss", "person": "p", "name": "Moss", "garments": [{"name": "jacket", "reflectance": GREEN}]},
        {"id": "grey", "person": "p", "name": "Grey", "garments": [{"name": "coat", "reflectance": GREY}]},
    ]
    production = made(
        people=[{"id": "p"}], outfits=outfits, shots=[shot("a", seed_vault(), person="p", outfit="moss")]
    )
    (found,) = told(production, "day.outfit")
    assert found.severity == "fix"
    assert found.value < 60.0 < found.limit == 98.0
    screen, other = found.remedies
    assert "blue" in screen.text
    assert (other.changes[0].path, other.changes[0].value) == ("shots[0].outfit", "grey")
    worn = production.model_copy(update={"shots": (production.shots[0].model_copy(update={"outfit": "grey"}),)})
    assert told(worn, "day.outfit") == []
    checked = {one.outfit: {v.screen: v.verdict for v in one.verdicts} for one in check_outfits(production)}
    assert checked == {
        "moss": {"green": "keyed away", "blue": "keys"},
        "grey": {"green": "keys", "blue": "keys"},
    }


def test_trousers_out_of_the_picture_are_no_fault_of_an_outfit() -> None:
    moss = {"name": "moss trousers", "reflectance": [0.09, 0.3, 0.08], "covers": "legs"}
    outfits = [{"id": "o", "garments": [{"name": "grey shirt", "reflectance": [0.3, 0.3, 0.3]}, moss]}]
    shots = {
        framing: shot("a", apply_changes(seed_vault(), [Change("subject.framing", framing)]), outfit="o")
        for framing in ("full", "waist")
    }
    found = {name: told(made(outfits=outfits, shots=[one]), "day.outfit") for name, one in shots.items()}
    assert len(found["full"]) == 1
    assert found["waist"] == []


def test_a_minor_needs_times_and_somebody_who_comes_along() -> None:
    def of(**person: Any) -> list[str]:
        people = [{"id": "k", "name": "The child", "minor": True, **person}]
        return [
            one.says for one in told(made(people=people, shots=[shot("a", seed_vault(), person="k")]), "day.minor")
        ]

    assert "working times and who comes along are missing; local law decides" in of()[0]
    assert "who comes along is missing" in of(**{"from": "10:00", "to": "14:00"})[0]
    assert of(**{"from": "10:00", "to": "14:00"}, guardian="her aunt") == []


def test_many_shots_are_told_with_their_hours_at_the_edit() -> None:
    film = made(shots=[shot("a", fern_dancer(), needs=["moving-camera"]), shot("b", seed_vault())])
    plans = plans_of(film)
    dancer, vault = (edit_hours(one, plan, film.edit_hours) for one, plan in zip(film.shots, plans, strict=True))
    assert dancer >= 8.0
    few = film.model_copy(update={"most_screen_shots": 1})
    (found,) = told(few, "day.many")
    assert found.says == f"2 screen shots in a day: about {dancer + vault:.0f} h at the edit"
    assert told(film, "day.many") == []


def test_cautions_carry_the_number_that_calls_for_them() -> None:
    film = made(shots=[shot("a", scree(), needs=["smoke", "wind"])])
    run = scree().screen.floor_run
    assert told(film, "day.floor-cloth")[0].value == run
    highest = max(lamp.position[1] for lamp in scree().lights)
    assert told(film, "day.ladder")[0].value == pytest.approx(highest)
    assert told(film, "day.fog")
    assert told(film, "day.wind")
    assert not told(made(shots=[shot("a", seed_vault())]), "day.fog")


def test_a_day_that_goes_on_past_midnight_is_late_and_breaks_somebodys_time() -> None:
    people = [{"id": "p", "from": "09:00", "to": "23:00"}]
    shots = [shot(name, seed_vault(), minutes=400, person="p") for name in ("a", "b", "c")]
    day = plan_day(made(people=people, shots=shots))
    assert day.overs[0] == sum(entry.minutes for entry in day.entries) - 600.0 > 360.0
    (found,) = [one for one in day.findings if one.id == "day.people"]
    assert found.value == 1


def test_what_is_named_must_be_there() -> None:
    for wrong in (
        {"shots": [{"id": "a", "day": 1}]},
        {"shots": [{"id": "a", "person": "nobody"}]},
        {"shots": [{"id": "a", "pinned": 1}]},
        {"shots": [{"id": "a", "plate": "none"}]},
        {"sound": [{"id": "a"}, {"id": "a"}]},
        {"date": "2027-13-01"},
        {"days": [{"call": "8:00"}]},
    ):
        with pytest.raises(ProductionError):
            made(**wrong)


def late(now: str, done: dict[str, float] | None = None, last: str | None = None) -> Any:
    shots = [
        shot("vault", seed_vault(), minutes=60, variants=["open", "shut"]),
        shot("noon", scree(), minutes=60),
        shot("again", seed_vault(), minutes=30, priority="if-time"),
    ]
    film = made(shots=shots, end="12:00")
    plans = plans_of(film)
    one = plan_one(film, plans, 0)
    return film, project(one.production, plans, one.order, done or {}, last, float(minutes_of(now)))


def test_a_late_day_is_told_what_brings_it_back_and_each_option_saves_its_minutes() -> None:
    film, found = late("10:30")
    assert found.over == found.end - minutes_of("12:00") > 10.0
    drop = next(one for one in found.options if one.shots == ("again",))
    without = production_from(
        {**dump_production(film), "shots": [one for one in dump_production(film)["shots"] if one["id"] != "again"]}
    )
    plans = plans_of(without)
    one = plan_one(without, plans, 0)
    shorter = project(one.production, plans, one.order, {}, None, float(minutes_of("10:30")))
    assert drop.minutes == pytest.approx(found.end - shorter.end)
    fewer = next(one for one in found.options if "1 of 2 variants" in one.text)
    assert fewer.minutes == 30.0
    assert any("floor piece" in one.text for one in found.options)
    assert not any("test" in one.text.lower() for one in found.options)
    assert len(found.keeps) == 2
    assert [one.minutes for one in found.options] == sorted((one.minutes for one in found.options), reverse=True)


def test_takes_that_are_in_bring_the_end_nearer() -> None:
    _, nothing = late("09:00")
    _, half = late("09:00", {"vault": 0.5})
    _, some = late("09:00", {"vault": 1.0}, "vault")
    _, over = late("10:45", {"vault": 0.5}, "vault")
    # One of two is in the can: that one only is then enough, and what is missing of the shot is saved.
    assert [one.minutes for one in over.options if "1 of 2 variants" in one.text] == [30.0]
    assert nothing.end - half.end == pytest.approx(30.0)
    assert some.end < half.end
    assert "vault" not in some.left
    assert late("07:00", {"vault": 1.0, "noon": 1.0, "again": 1.0}, "again")[1].options == ()


def test_what_is_left_waits_for_people_and_keeps_the_breaks_still_to_come() -> None:
    fields = {
        "shots": [shot("vault", seed_vault(), minutes=60, person="p")],
        "people": [{"id": "p", "from": "11:00"}],
    }

    def end(now: str, **more: Any) -> float:
        film = made(**fields | more)
        plans = plans_of(film)
        one = plan_one(film, plans, 0)
        return project(one.production, plans, one.order, {}, None, float(minutes_of(now))).end

    assert end("10:00") == minutes_of("12:00")
    assert end("11:20") == minutes_of("12:20")
    lunch = [{"at": "11:15", "minutes": 30, "name": "Lunch"}]
    assert end("11:00", breaks=lunch) == minutes_of("12:30")
    # It was taken, or will not be: nobody knows, and it is not counted again.
    assert end("11:20", breaks=lunch) == minutes_of("12:20")
    # Whoever rests while they wait has waited.
    assert end("10:00", breaks=[{"at": "10:30", "minutes": 30}]) == minutes_of("12:00")


def test_a_shot_is_judged_with_its_person_its_plate_and_the_schools_of_the_production() -> None:
    production = made(
        people=[{"id": "p", "height": 1.4, "hair_kind": "curly", "skin": [0.2, 0.1, 0.08]}],
        plates=[{"id": "b", "plate": {"mean_level": 55.0, "cct": 3000.0}}],
        schools={"level_school": "mid-grey"},
        shots=[shot("a", seed_vault(), person="p", plate="b"), shot("b", seed_vault())],
    )
    first, second = plans_of(production)
    assert first.subject is not None
    assert (first.subject.height, first.subject.hair_kind, first.subject.skin) == (1.4, "curly", (0.2, 0.1, 0.08))
    assert first.subject.hair == seed_vault().subject.hair  # type: ignore[union-attr]
    assert (first.plate.mean_level, first.plate.cct) == (55.0, 3000.0)
    assert first.targets.level_school == second.targets.level_school == "mid-grey"
    assert (second.subject, second.plate) == (seed_vault().subject, seed_vault().plate)
    assert told(production, "day.plate") == []
    unknown = made(plates=[{"id": "b", "plate": {"known": False}}], shots=[shot("a", seed_vault(), plate="b")])
    assert [one.shot for one in told(unknown, "day.plate")] == ["a"]


def test_one_way_of_recording_sound_is_not_two() -> None:
    shots = [shot("a", seed_vault(), needs=["sound"])]
    worn = {"id": "w", "way": "worn", "track": 1}

    def says(*devices: dict[str, Any]) -> list[str]:
        return [one.says for one in told(made(shots=shots, sound=list(devices)), "day.sound")]

    assert says() == ["Sound in 1 of the shots with 0 of two devices: worn, and on a boom"]
    assert says(worn, {**worn, "id": "v"}) == ["Sound in 1 of the shots with 1 of two devices: worn, and on a boom"]
    assert says(worn, {"id": "b", "way": "boom", "track": 2}) == []
    assert told(made(shots=[shot("a", seed_vault())]), "day.sound") == []


def test_a_boom_comes_down_to_the_pictures_upper_edge_at_the_mark() -> None:
    plan = seed_vault()
    assert plan.subject is not None
    camera = plan.camera.model_copy(update={"tilt": 0.0, "pan": 0.0, "roll": 0.0})
    level = plan.model_copy(update={"camera": camera})
    view = view_of(camera, level.subject)
    away = camera.z - plan.subject.z
    # As high as half of the picture over the lens, and a hand's width of air.
    assert boom_height(level, view) == pytest.approx(camera.y + away * view.tan_v + CLEAR)
    assert boom_height(level.model_copy(update={"subject": None}), view) is None


def test_the_packing_list_says_what_the_kit_lacks() -> None:
    plan = seed_vault()
    need = {(one.kind, one.what): one for one in packing_list([plan])}
    assert {one.missing for one in need.values()} == {None}
    lamp = plan.lights[0].fixture
    kit = kit_from(
        {
            "format": "ausblick-kit",
            "version": 1,
            "lenses": [{"name": "own", "focal_mm": plan.camera.focal_mm}],
            "lamps": [{"name": "panel", "count": 1, "fixture": lamp.model_dump(mode="json")}],
            "stands": [{"name": "stand", "count": 50}],
            "screens": [{"name": "small", "hue": plan.screen.hue, "width": 1.0}],
        }
    )
    told = {(one.kind, one.what): one.missing for one in packing_list([plan], kit)}
    alike = sum(other.fixture == lamp for other in plan.lights)
    assert [lacks for (kind, _), lacks in told.items() if kind == "lens"] == [0]
    assert [lacks for (kind, _), lacks in told.items() if kind == "screen"] == [1]
    assert alike - 1 in [lacks for (kind, _), lacks in told.items() if kind == "lamp"]
    assert told["stand", "for lamps"] == 0
    assert told.get(("rigging", "clamps")) is None
