"""Two people in one picture: each is judged, the worst is told with whose it is, and both shade each other."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.check_report import FindingReport, check_report
from ausblick.core.advice.findings import find, predicted_quality
from ausblick.core.advice.moves import mark_to
from ausblick.core.advice.search.framing import framing_changes
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Plan, apply_changes, people_of, seen_as
from ausblick.demo.fern_house_2 import two_gardeners
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

GREEN_APRON = {"name": "green apron", "reflectance": [0.06, 0.3, 0.1]}
GREY = {"walls": [0.2, 0.2, 0.2], "ceiling": [0.2, 0.2, 0.2], "floor": [0.1, 0.1, 0.1]}
PAIR = [
    lamp(id=f"s{x}", position=[x, 1.4, 2.4], aim=[-0.2 * x, 1.4, 0], flux_lm=14000.0) for x in (-2.6, 2.6)
]  # fmt: skip
KEY = lamp(id="k", name="key", role="key", position=[0.0, 1.8, 5.8], aim=[0, 1.5, 2.8], flux_lm=8000.0)
HEIGHT = 1.72


def two(make: MakePlan, companion: dict[str, Any], **parts: Any) -> Plan:
    base = {"room": {"reflectance": GREY}, "lights": [*PAIR, KEY], "screen": {"width": 5.0, "height": 3.2}}
    people = {"subject": {"x": 0.0, "z": 2.8, "framing": "waist"}, "companions": [{"name": "gardener", **companion}]}
    return make(**(base | people | parts))


def told(plan: Plan, rule: str) -> FindingReport:
    """What one rule says of it, with its remedies."""
    (found,) = check_report(*find(plan, STORE, only={rule})).findings
    return found


def test_the_needed_screen_reaches_behind_the_companion_too(make: MakePlan) -> None:
    plan = two(make, {"x": 0.6, "z": 2.4, "envelope": {"right": 0.5, "front": 0.2, "back": 0.1}})
    far, near, lens = 1.1, 2.6, plan.camera.z
    needed = evaluate(plan, STORE).coverage.needed
    assert needed is not None
    # Through the corner of the reach that is nearest to the lens, followed to the screen's plane.
    assert needed[2] == pytest.approx(far * lens / (lens - near), abs=0.01)


def test_who_of_two_is_the_subject_changes_no_light_on_the_screen(make: MakePlan) -> None:
    people = [{"x": -0.6, "z": 2.2, "height": 1.6}, {"x": 0.7, "z": 2.2, "height": HEIGHT}]
    low = {"screen": {"width": 5.0, "height": 3.2, "floor_run": 3.0}, "camera": {"focal_mm": 24.0, "tilt": -6.0}}
    maps = [
        evaluate(two(make, one, subject={**other, "feet_seen": True}, **low), STORE).screen_maps
        for one, other in (people, people[::-1])
    ]
    names = [[one.grid.sheet.name for one in each] for each in maps]
    assert "floor run" in names[0]
    assert names[0] == names[1]
    for first, second in zip(*maps, strict=True):
        assert np.allclose(first.lux, second.lux, rtol=1e-9)
    # Each throws the shadow that it throws alone.
    alone = [
        evaluate(two(make, {}, companions=[], subject={**one, "feet_seen": True}, **low), STORE).screen_maps[0].shadow
        for one in people
    ]
    both = maps[0][0].shadow
    assert (both >= np.maximum(*alone) - 1e-9).all()
    assert (both <= alone[0] + alone[1] + 1e-9).all()
    assert min(one.max() for one in alone) > 0.02


def test_a_companion_in_the_key_takes_all_of_it_from_the_face_and_is_named(make: MakePlan) -> None:
    """A small lamp in one line with two heads: the nearer one hides it."""
    point = {"emitter": {"shape": "point"}, "flux_lm": 8000.0}
    eyes = 0.93 * HEIGHT
    small = lamp(id="k", name="key", role="key", position=[0.0, eyes, 5.8], aim=[0, eyes, 2.8], **point)
    between = two(make, {"x": 0.0, "z": 4.0, "height": HEIGHT}, lights=[small])
    shade = evaluate(between, STORE).face_shade
    assert shade is not None
    assert (shade.percent, shade.by, shade.lamp) == (pytest.approx(100.0, abs=0.5), "gardener", "key")
    aside = two(make, {"x": 0.9, "z": 4.0, "height": HEIGHT}, lights=[small])
    clear = evaluate(aside, STORE)
    assert clear.face_shade is not None
    assert clear.face_shade.percent == pytest.approx(0.0, abs=1e-6)
    assert evaluate(between, STORE).face_by_lamp["k"] < 0.2 * clear.face_by_lamp["k"]
    found = told(between, "subject.in-light")
    assert found.says == "gardener takes 100 % of the subject's light, most of key"
    mended = apply_changes(between, found.remedies[0].changes)
    assert told(mended, "subject.in-light").severity == "fine"


def test_a_green_apron_of_the_companion_is_told_as_hers_and_mended_on_her(make: MakePlan) -> None:
    plan = two(make, {"x": 0.9, "z": 2.8, "wardrobe": [GREEN_APRON]})
    found = told(plan, "screen.hue")
    assert (found.who, found.severity) == ("gardener", "stop")
    assert all(change.path.startswith("companions[0].") for change in found.remedies[0].changes)
    mended = apply_changes(plan, found.remedies[0].changes)
    assert told(mended, "screen.hue").severity == "fine"
    assert mended.subject == plan.subject
    # The key is worth what it is for the worse of both.
    alone = two(make, {}, companions=[])
    assert predicted_quality(evaluate(plan, STORE)) < predicted_quality(evaluate(alone, STORE)) - 20.0


def test_a_companion_too_near_the_screen_moves_alone(make: MakePlan) -> None:
    plan = two(make, {"x": 0.9, "z": 1.0})
    found = told(plan, "space.gap")
    assert (found.who, found.value) == ("gardener", 1.0)
    moved = apply_changes(plan, found.remedies[0].changes)
    assert moved.companions[0].z > 1.0
    assert (moved.subject, moved.camera, moved.lights) == (plan.subject, plan.camera, plan.lights)


def test_faces_at_two_distances_from_one_lamp_differ_by_the_inverse_square(make: MakePlan) -> None:
    black = {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}
    point = {"emitter": {"shape": "point"}, "beam": {"kind": "cosine", "n": 0}, "flux_lm": 8000.0}
    eyes = 0.93 * HEIGHT
    small = lamp(id="k", role="key", position=[0.0, eyes, 6.2], aim=[0, eyes, 2.8], **point)
    dark = {"room": {"reflectance": black}, "screen": {"reflectance": [0, 0, 0]}, "lights": [small]}
    plan = two(make, {"x": 0.9, "z": 2.0, "height": HEIGHT}, **dark, camera={"z": 6.2, "y": eyes})
    both = [np.array(one.eyes) - small["position"] for one in people_of(plan)]
    # Both look at the lens, where the lamp stands: nothing but the distance is left.
    expected = 2.0 * np.log2(np.linalg.norm(both[0]) / np.linalg.norm(both[1]))
    found = told(plan, "subject.balance")
    assert found.value == pytest.approx(expected, abs=0.01)
    assert found.severity == "consider"


def test_everybody_must_be_within_the_depth_of_field(make: MakePlan) -> None:
    plan = two(make, {"x": 0.9, "z": 1.4, "envelope": {"back": 0.1}}, camera={"f_number": 2.0})
    alone = two(make, {}, companions=[], camera={"f_number": 2.0})
    assert (told(plan, "camera.depth").value or 0.0) > (told(alone, "camera.depth").value or 0.0) + 0.5


def test_a_companion_keeps_beside_the_mark_wherever_it_is_put(make: MakePlan) -> None:
    """By the table of the room's framings, and by a remedy that moves the mark."""
    plan = two(make, {"x": 0.9, "z": 2.6}, subject={"x": 0.2, "z": 2.8, "framing": "waist"})
    framed = apply_changes(plan, framing_changes(plan, "knees", 35.0, False, 2.0))
    further = apply_changes(plan, mark_to(plan, 3.4))
    for moved in (framed, further):
        assert moved.subject is not None
        other = moved.companions[0]
        assert (other.x - moved.subject.x, other.z - moved.subject.z) == pytest.approx((0.7, -0.2), abs=0.011)


def test_each_person_s_numbers_are_those_of_a_plan_that_looks_at_him(make: MakePlan) -> None:
    plan = two(make, {"x": 0.9, "z": 2.2, "wardrobe": [GREEN_APRON]})
    report = check_report(*find(plan, STORE, with_remedies=False))
    first, other = report.people
    assert (first.name, other.name) == ("the subject", "gardener")
    assert (first.subject_lux, first.spill_side) == (report.exposure.subject_lux, report.spill.side)
    seen = check_report(*find(seen_as(plan, 0), STORE, with_remedies=False))
    assert other.subject_lux == pytest.approx(seen.exposure.subject_lux, rel=1e-9)
    assert other.spill_side == pytest.approx(seen.spill.side, rel=1e-9)
    # What is told of the key is that of the worse one.
    assert report.predicted is not None
    assert report.predicted.quality == min(one.quality or 0.0 for one in report.people)
    assert (first.quality or 0.0) > (other.quality or 0.0) + 20.0


def test_of_the_two_gardeners_what_is_wrong_with_her_is_told_and_mended_on_her() -> None:
    """The demo's two: she stands in the shadow that he has of the key, and wears moss."""
    plan = two_gardeners()
    whole = find(plan, STORE)
    findings = {one.id: one for one in check_report(*whole).findings}
    assert {one.id for one in findings.values() if one.severity == "stop"} <= {"screen.hue"}
    assert findings["screen.hue"].who == "apprentice"
    shaded = findings["subject.in-light"]
    assert shaded.severity == "consider"
    moved = apply_changes(plan, shaded.remedies[0].changes)
    assert found_again(moved, "subject.in-light") < 0.5 * (shaded.value or 0.0)
    assert (moved.subject, moved.lights) == (plan.subject, plan.lights)
    # Light and places do little for an edge that is green by its own ink: they were all that was offered.
    for rule in ("key.edge", "key.motion", "screen.hue"):
        first = findings[rule].remedies[0]
        assert first.text == "Wear moss jacket in a dark grey"
        assert first.gives
        assert first.changes[0].path == "companions[0].wardrobe"
    mended = find(apply_changes(plan, findings["key.edge"].remedies[0].changes), STORE, with_remedies=False)[1]
    assert {f.judgement.severity for f in mended} <= {"fine", "consider"}


def found_again(plan: Plan, rule: str) -> float:
    """The value of one rule's finding."""
    return find(plan, STORE, with_remedies=False, only=(rule,))[1][0].judgement.value or 0.0


def test_what_holds_of_everybody_is_told_of_whom_it_is_nearest_to_its_limit(make: MakePlan) -> None:
    """A remedy's number is of the one who gave the alarm, after it too: a smear is as long as the shutter."""
    slow: dict[str, Any] = {"subject": {"x": 0.0, "z": 2.8, "speed": 0.1}}
    calm = told(two(make, {"x": 0.6, "z": 2.8, "speed": 0.4}, **slow), "camera.smear")
    assert calm.severity == "fine"
    assert calm.who == "gardener"
    quick = told(two(make, {"x": 0.6, "z": 2.8, "speed": 1.2}, **slow), "camera.smear")
    assert quick.who == "gardener"
    shorter = quick.remedies[0]
    seconds = next(change.value for change in shorter.changes if change.path == "camera.shutter_s")
    assert shorter.before is not None
    assert shorter.after == pytest.approx(shorter.before * seconds / 0.01, rel=0.02)


def test_no_remedy_takes_somebody_off_the_screen(make: MakePlan, monkeypatch: pytest.MonkeyPatch) -> None:
    """Further from the screen the companion's garment is cleaner, and needs more screen than there is."""
    satin = {"name": "white satin", "reflectance": [0.85, 0.84, 0.82], "gloss": 0.3}
    whole: dict[str, Any] = {"framing": "full", "feet_seen": True, "z": 2.2}
    reach = {"left": 0.4, "right": 0.6, "front": 0.4, "back": 0.6}
    plan = two(
        make,
        {**whole, "x": 0.35, "wardrobe": [satin], "envelope": reach},
        subject={**whole, "x": -0.35},
        screen={"width": 4.5, "height": 3.2, "floor_run": 2.7},
        camera={"y": 1.3, "z": 7.6, "focal_mm": 24.0, "f_number": 4.0, "iso": 400},
    )
    monkeypatch.setattr("ausblick.core.advice.findings.MOST_REMEDIES", 99)
    assert evaluate(plan, STORE).coverage.covered
    _, findings = find(plan, STORE, only={"key.edge"})
    moved = [r for f in findings for r in f.remedies if "screen.covered" in r.worsens]
    assert moved
    assert not any(remedy.gives for remedy in moved)
    assert any(remedy.open_after < remedy.open_before for remedy in moved), "for all else they would be worth it"
