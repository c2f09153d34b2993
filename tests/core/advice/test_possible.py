"""What is offered can be done: the lens opens that far, the camera has room there, nobody stands under the lens."""

from __future__ import annotations

import math

import pytest

from ausblick.core.advice import moves
from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Remedy
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.rule_table import RULES
from ausblick.core.advice.search.proposal import propose
from ausblick.core.advice.steps import opened
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.kit.catalogue import small_kit
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.sentences import say
from tests.conftest import MakePlan, lamp
from tests.demo_findings import DEMO, demo_findings
from tests.stores import STORE

RULES_OF_THE_PICTURE = CRAFT.only({"space.in-picture"})
DIM = lamp(flux_lm=900.0, position=[0.0, 2.0, 1.8], aim=[0, 1.2, 0])


def remedies(plan: Plan) -> list[Remedy]:
    return [remedy for finding in find(plan, BasisStore())[1] for remedy in finding.remedies]


def test_an_aperture_is_opened_as_far_as_the_lens_goes_and_no_further(make: MakePlan) -> None:
    slow = make(camera={"f_number": 5.6, "widest": 2.8}).camera
    assert opened(slow, 4.1) == 4.0
    assert opened(slow, 1.0) == 2.8
    wider_already = make(camera={"f_number": 1.2}).camera
    assert opened(wider_already, 0.7) == 1.2


@pytest.mark.parametrize("widest", [1.4, 4.0])
def test_no_remedy_opens_a_lens_further_than_it_goes(make: MakePlan, widest: float) -> None:
    plan = make(lights=[DIM], camera={"f_number": 5.6, "widest": widest})
    f_numbers = [apply_changes(plan, remedy.changes).camera.f_number for remedy in remedies(plan)]
    assert min(f_numbers) == widest, "it is too dark: as far as it goes is offered"


def test_a_proposal_knows_the_lens_that_it_takes() -> None:
    kit = small_kit()
    for made in propose(DEMO["Seed vault, night round"], kit, "chest", STORE).alternatives:
        (lens,) = (lens for lens in kit.lenses if lens.focal_mm == made.plan.camera.focal_mm)
        assert made.plan.camera.widest == lens.f_number


def test_a_camera_is_not_moved_through_the_wall(make: MakePlan) -> None:
    shallow = make(room={"z_max": 3.4}, camera={"z": 2.7}, subject={"z": 1.7})
    (rule,) = (rule for rule in RULES if rule.id == "space.distortion")
    (back,) = rule.propose(evaluate(shallow, STORE), STORE)
    assert apply_changes(shallow, back.changes).camera.z <= 3.4 - moves.BEHIND_CAMERA + 0.01
    assert moves.same_framing(shallow, 38.0) == pytest.approx(1.7 + 38.0 / 35.0)
    assert moves.same_framing(shallow, 60.0) is None
    cramped = make(room={"z_max": 2.9}, camera={"z": 2.2}, subject={"z": 1.5})
    assert rule.propose(evaluate(cramped, STORE), STORE) == []


@pytest.mark.parametrize(("framing", "offered"), [("chest", False), ("hands", True)])
def test_a_mark_does_not_come_under_the_lens(make: MakePlan, framing: str, offered: bool) -> None:
    near = make(room={"z_max": 4.0}, camera={"z": 3.2}, subject={"z": 2.0, "framing": framing})
    found = moves.mark_to_school(near, 2.5)
    for proposal in found:
        changed = apply_changes(near, proposal.changes)
        assert changed.subject is not None
        assert math.dist((changed.camera.z,), (changed.subject.z,)) >= (0.5 if offered else 1.19)
    assert bool(found) == offered


@pytest.mark.parametrize("title", DEMO)
def test_what_is_found_is_said_in_fourteen_words(title: str) -> None:
    """With its numbers and its causes, a unit being no word."""
    units = {"m", "cm²", "lx", "K", "s", "px", "stops", "points", "%"}
    for finding in demo_findings(title).values():
        told = say(finding.judgement.says)
        assert len([word for word in told.split() if word.strip(",:;") not in units]) <= 14, told


PHONE = {"sensor": {"width_mm": 9.8, "height_mm": 5.5}, "focal_mm": 6.9, "f_number": 1.8, "widest": 1.8}


@pytest.mark.parametrize("shutter", [0.001, 0.02])
def test_a_phone_is_offered_neither_another_lens_nor_another_opening(make: MakePlan, shutter: float) -> None:
    """Too slow for a thrown hand, or far too fast for the school: a filter, the lamps and the ISO are left."""
    plan = make(lights=[DIM], camera={**PHONE, "iso": 64.0, "shutter_s": shutter}, screen={"width": 1.6})
    after = [apply_changes(plan, remedy.changes).camera for remedy in remedies(plan)]
    assert len(after) >= 5
    assert {(camera.focal_mm, camera.f_number) for camera in after} == {(6.9, 1.8)}
    assert any(camera.shutter_s != shutter for camera in after)


def test_a_stand_before_the_screen_is_told_and_the_lamp_is_hung(make: MakePlan) -> None:
    """Its head is over the picture; hung, it needs no stand, where the ceiling is within reach."""
    panel = lamp(position=[0.2, 2.9, 1.2], aim=[0, 1.2, 0], emitter={"shape": "rect", "width": 0.9, "height": 0.2})

    def offered(height: float, kind: str = "interior") -> list[Remedy]:
        plan = make(room={"height": height, "kind": kind}, lights=[panel])
        (finding,) = (f for f in find(plan, STORE, RULES_OF_THE_PICTURE)[1])
        assert say(finding.judgement.says).startswith("Stands before the screen")
        return [r for r in finding.remedies if say(r.text).startswith("Hang")]

    (hung,) = offered(3.6)
    assert [change.value for change in hung.changes] == [[0.2, 3.3, 1.2]]
    assert hung.outcome == "cured"
    assert hung.cost is not None
    assert "rigger" in say(hung.cost)
    assert offered(4.6) == [], "the ceiling is too far"
    assert offered(3.6, "exterior") == [], "there is none"


def test_a_soft_box_is_not_put_on_a_lamp_as_large(make: MakePlan) -> None:
    sizes = {0.6: 1, 1.2: 0, 2.4: 0}
    for size, count in sizes.items():
        emitter = {"shape": "rect", "width": size, "height": size}
        plan = make(lights=[lamp(position=[1.5, 2, 4], aim=[0, 1, 0], emitter=emitter)])
        assert len(moves.softened(plan, 0, plan.lights[0])) == count


def test_more_screen_and_less_action_cover_it_in_a_low_room(make: MakePlan) -> None:
    """An upright phone: the frame cuts the action before its reach ends, and the ceiling gives little to spare."""
    upright = {**PHONE, "z": 2.2, "y": 1.45, "roll": 90.0}
    low = {"x_min": -1.6, "x_max": 1.4, "z_max": 3.6, "height": 2.4}
    plan = make(
        room=low,
        camera=upright,
        screen={"width": 1.5, "height": 2.0},
        subject={"z": 0.8, "height": 1.64, "framing": "chest"},
    )
    (finding,) = (f for f in find(plan, STORE, CRAFT.only({"screen.covered"}))[1])
    assert finding.judgement.severity == "stop"
    by_words = {say(remedy.text)[:5]: remedy for remedy in finding.remedies}
    assert by_words["Reach"].outcome == by_words["Scree"].outcome == "cured"
    larger = apply_changes(plan, by_words["Scree"].changes).screen
    assert larger.bottom + larger.height <= 2.4
    assert by_words["Scree"].after is not None
    assert by_words["Scree"].after < 0.2, "as much to spare as the room gives"
    lower = make(room={**low, "height": 2.2}, camera=upright, screen={"width": 1.5, "height": 2.0},
                 subject={"z": 0.8, "height": 1.64, "framing": "chest"})  # fmt: skip
    assert all(say(r.text)[:5] != "Scree" for f in find(lower, STORE, CRAFT.only({"screen.covered"}))[1]
               for r in f.remedies), "no screen is higher than its room"  # fmt: skip


def test_a_thing_of_the_screens_colour_is_held_out_or_another(make: MakePlan) -> None:
    book = {"name": "book", "kind": "matt", "reflectance": [0.08, 0.36, 0.12], "shape": "pane"}
    lights = [lamp(position=[x, 1.9, 3.6], aim=[0, 1.3, 0.8], flux_lm=9000) for x in (-1.8, 1.8)]
    plan = make(lights=lights, subject={"props": [book]})
    (finding,) = (f for f in find(plan, STORE, CRAFT.only({"screen.hue"}))[1])
    assert finding.judgement.severity == "stop"
    for begins in ("book must stay", "Another book"):
        (remedy,) = (r for r in finding.remedies if say(r.text).startswith(begins))
        assert remedy.after is not None
        assert remedy.after > 98.0


def test_a_display_that_is_replaced_is_asked_for_neither_distance_nor_a_margin(make: MakePlan) -> None:
    face = [[-0.1, 1.2], [0.1, 1.2], [0.1, 1.35], [-0.1, 1.35]]
    near = {"subject": {"z": 0.4}, "screen": {"width": 0.22, "height": 0.17, "bottom": 1.19}, "lights": [DIM]}
    whole, part = make(**near), make(**near, targets={"region": face})
    rules = {"space.gap", "screen.margin", "screen.covered"}
    told = [
        {f.rule.id for f in find(plan, STORE, CRAFT.only(rules), with_remedies=False)[1]} for plan in (whole, part)
    ]
    assert told == [{"space.gap", "screen.covered"}, {"screen.covered"}]


def test_a_display_behind_somebody_is_told_and_the_mark_moves_aside(make: MakePlan) -> None:
    """A laptop on a desk, looked at over a shoulder: the back of whoever sits before it hides all of it."""
    face = [[-0.15, 0.87], [0.15, 0.87], [0.15, 1.03], [-0.15, 1.03]]
    plan = make(
        subject={"z": 0.5, "height": 1.75, "posture": "seated", "framing": "chest"},
        screen={"width": 0.34, "height": 0.2, "bottom": 0.85},
        camera={"y": 1.3, "z": 1.6, "tilt": -12.0, "focal_mm": 35.0},
        targets={"region": face},
        lights=[{**DIM, "role": "key"}],
    )
    (finding,) = find(plan, STORE, CRAFT.only({"screen.covered"}))[1]
    assert finding.judgement.severity == "stop"
    assert "none of it shows" in say(finding.judgement.says)
    assert {say(remedy.text)[-5:] for remedy in finding.remedies} == {" left", "right"}
    for remedy in finding.remedies:
        then = apply_changes(plan, remedy.changes)
        assert moves.hidden_share(then) <= 0.2 < 0.9 < moves.hidden_share(plan)
        assert then.subject is not None
        assert then.lights[0].position[0] == pytest.approx(then.subject.x), "the key goes along"
        (cured,) = find(then, STORE, CRAFT.only({"screen.covered"}), with_remedies=False)[1]
        assert cured.judgement.severity == "fine"
