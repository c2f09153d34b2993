from __future__ import annotations

import math
from typing import Any, cast

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rules.space_rules import outside
from ausblick.core.advice.search.framing import FRAMINGS, lens_for, stand_for
from ausblick.core.advice.search.lamp_roles import lamp_roles_of
from ausblick.core.advice.search.proposal import SetupProposal, SetupProposals, propose
from ausblick.core.advice.search.room_table import Cell, room_table
from ausblick.core.advice.steps import ISOS
from ausblick.core.camera.coverage import coverage_of
from ausblick.core.camera.view import view_of
from ausblick.core.kit import Kit, dump_kit, kit_from
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Framing, Plan, apply_changes, plan_from
from ausblick.core.sentences import say
from ausblick.demo.fern_house import HALL
from ausblick.demo.shots import briefs
from tests.stores import STORE

SPARE_ROOM = {"x_min": -1.5, "x_max": 1.5, "z_min": -0.1, "z_max": 4.1, "height": 2.4}


def plan_in(room: dict[str, Any], **parts: Any) -> Plan:
    return plan_from({"format": "ausblick-plan", "version": 1, "room": room, **parts})


def with_lamps(count: int) -> Kit:
    """The full kit with so many of its lamps, largest kinds first."""
    data = dump_kit(full_kit())
    left = count
    for lamp in data["lamps"]:
        lamp["count"] = min(lamp["count"], left)
        left -= lamp["count"]
    return kit_from(data)


@pytest.mark.parametrize(("room", "kit"), [(HALL, full_kit()), (SPARE_ROOM, small_kit())], ids=["hall", "spare room"])
def test_each_cell_that_is_possible_holds_when_it_is_applied(room: dict[str, Any], kit: Kit) -> None:
    plan = plan_in(room)
    cells = room_table(plan, kit)
    assert {cell.framing for cell in cells} == set(FRAMINGS)
    for cell in cells:
        if cell.state == "impossible":
            assert cell.blocks
            assert cell.why
            continue
        applied = apply_changes(plan, cell.changes)
        coverage = coverage_of(applied, view_of(applied.camera, applied.subject))
        assert coverage.covered, cell
        assert coverage.margin_m == pytest.approx(cell.margin_m)
        assert outside(applied) == []


def test_full_length_is_impossible_in_the_spare_room_and_why() -> None:
    cells = [cell for cell in room_table(plan_in(SPARE_ROOM), small_kit()) if cell.framing == "full"]
    assert [cell.state for cell in cells] == ["impossible"] * 3
    assert {cell.blocks for cell in cells} == {"depth"}
    assert "behind the back wall" in say(cells[0].why)
    # With depth enough it is the pop-up that has no floor for the feet.
    deep = [c for c in room_table(plan_in(SPARE_ROOM | {"z_max": 12.0}), small_kit()) if c.framing == "full"]
    assert {cell.blocks for cell in deep} == {"screen"}
    assert "floor piece" in say(deep[0].why)


def test_a_low_ceiling_blocks_a_high_screen() -> None:
    def chest(material: str) -> Cell:
        screen = {"name": "screen", "height": 3.0, "material": material}
        kit = kit_from({"screens": [screen], "lenses": [{"focal_mm": 50}]})
        return next(c for c in room_table(plan_in(HALL | {"height": 2.6}), kit) if c.framing == "chest")

    assert (chest("framed").state, chest("framed").blocks) == ("impossible", "height")
    # A cloth hangs as high as the room lets it, and the rest lies on the floor.
    hung = {change.path: change.value for change in chest("muslin").changes}
    assert hung["screen.height"] == pytest.approx(2.55)


def test_a_framing_fills_the_picture_from_its_distance() -> None:
    plan = plan_in(HALL)
    near, far = stand_for(plan, "full", 35, turned=False), stand_for(plan, "full", 50, turned=False)
    assert far.distance / near.distance == pytest.approx(50 / 35, rel=1e-6)
    assert near.distance == pytest.approx(35 * (1.72 / 0.86) / 13.2 + 0.035)
    assert stand_for(plan, "full", 35, turned=True).distance < 0.6 * near.distance


@pytest.mark.parametrize(("count", "roles"), [(0, ""), (1, "k"), (2, "sk"), (3, "ssk"), (4, "sskf"), (6, "sskfb")])
def test_who_does_what_with_so_many_lamps(count: int, roles: str) -> None:
    team = lamp_roles_of(with_lamps(count))
    given = "s" * len(team.screen) + "k" * bool(team.key) + "f" * bool(team.fill) + "b" * bool(team.back)
    assert given == roles


def proposed(plan: Plan, kit: Kit, framing: Framing) -> SetupProposals:
    made = propose(plan, kit, framing, STORE)
    for proposal in made.alternatives:
        assert outside(proposal.plan) == []
        assert proposal.says
        assert proposal.evaluation.coverage.covered
        leads_and_burns(proposal)
    return made


def leads_and_burns(proposal: SetupProposal) -> None:
    """With three lamps the key gives most of the face, none is as good as off, no ISO while one has light left."""
    lamps, evaluation, camera = proposal.plan.lights, proposal.evaluation, proposal.plan.camera
    if len(lamps) < 3:
        return
    assert min(lamp.dimmer for lamp in lamps) >= 0.05
    lux = evaluation.exposure.subject_lux or 0.0
    key = sum(evaluation.face_by_lamp[lamp.id] for lamp in lamps if lamp.role == "key")
    assert key >= 0.6 * lux
    busiest = max(lamp.dimmer for lamp in lamps if lamp.role in ("key", "screen"))
    assert camera.iso <= 1.01 * camera.sensor.base_iso or busiest >= 0.9


@pytest.mark.parametrize(
    ("framing", "plan"),
    [one if i == 0 else pytest.param(*one, marks=pytest.mark.torture) for i, one in enumerate(briefs())],
    ids=[plan.title for _, plan in briefs()],
)
def test_each_shot_of_the_fern_house_has_a_proposal_that_nothing_stops(framing: Framing, plan: Plan) -> None:
    made = proposed(plan, full_kit(), framing)
    assert len(made.alternatives) >= 2
    for proposal in made.alternatives:
        assert proposal.stops == ()
        assert proposal.plan.plate == plan.plate
        assert proposal.plan.targets == plan.targets
    best = made.alternatives[0].evaluation
    assert best.screen is not None
    assert 0.8 * best.target.lux_low <= best.screen.lux_mean <= 1.2 * best.target.lux_high
    wall = best.screen.surfaces[0]
    assert (wall.name, wall.spread_stops < 1.1) == ("wall", True)
    # A floor run that is seen is lit by lamps made for a wall, and by the key.
    assert best.screen.spread_stops < (1.5 if plan.subject and plan.subject.feet_seen else 0.6)


@pytest.mark.parametrize(
    ("count", "shot"),
    [(1, 0), *(pytest.param(*one, marks=pytest.mark.torture) for one in ((3, 0), (1, 1), (2, 0), (2, 1), (6, 1)))],
)
def test_kits_of_few_lamps(count: int, shot: int) -> None:
    framing, plan = briefs()[shot]
    made = proposed(plan, with_lamps(count), framing)
    assert made.alternatives
    for proposal in made.alternatives:
        assert len(proposal.plan.lights) <= count
        camera = proposal.plan.camera
        assert camera.iso <= 8 * camera.sensor.base_iso
        assert proposal.stops == () or any(
            "stops of light are missing" in say(cost) or "so few lamps" in say(cost) for cost in proposal.costs
        )


def test_the_spare_room_with_two_panels_and_a_soft_light() -> None:
    made = proposed(plan_in(SPARE_ROOM), small_kit(), "chest")
    assert made.alternatives[0].stops == ()
    assert sum(lamp.role == "screen" for lamp in made.alternatives[0].plan.lights) == 2


GARAGE = {
    "x_min": -1.6, "x_max": 1.6, "z_min": 0.0, "z_max": 5.0, "height": 2.4,
    "reflectance": {"walls": [0.75] * 3, "ceiling": [0.75] * 3, "floor": [0.3] * 3},
}  # fmt: skip


@pytest.mark.parametrize(
    "framing", ["waist", *(pytest.param(one, marks=pytest.mark.torture) for one in ("chest", "face"))]
)
def test_in_a_white_garage_the_key_leads_all_the_same(framing: Framing) -> None:
    """The screen's lamps alone lit the face, with the key at nothing."""
    made = proposed(plan_in(GARAGE), small_kit(), framing)
    assert made.alternatives
    assert any(lamp.role == "key" for lamp in made.alternatives[0].plan.lights)


def test_what_this_room_does_instead_is_named() -> None:
    phone = kit_from({"lenses": [{"name": "phone lens", "focal_mm": 35}], "screens": [{"width": 2.0, "height": 1.6}],
                      "lamps": [{"count": 3}]})  # fmt: skip
    made = propose(plan_in(GARAGE), phone, "full", STORE)
    assert made.alternatives == ()
    told = [say(why) for why in made.impossible if "This room and this kit do" in say(why)]
    assert len(told) == 1
    assert "phone lens" in told[0]
    named = told[0].split(": ")[1].split(" with ")[0]
    assert propose(plan_in(GARAGE), phone, cast(Framing, named), STORE).alternatives, "it does what it says"


def test_outdoors_under_cloud_no_lamp_is_needed() -> None:
    room = {"kind": "exterior", "ambient_lux": 9000, "ambient_cct": 6500}
    made = proposed(plan_in(room, camera={"white_balance_k": 6500}), full_kit(), "waist")
    best = made.alternatives[0]
    assert best.plan.lights == ()
    assert best.stops == ()
    assert best.evaluation.exposure.stops_over == pytest.approx(0.0, abs=0.5)


def test_what_is_impossible_says_why() -> None:
    assert "behind the back wall" in say(proposed(plan_in(SPARE_ROOM), small_kit(), "full").impossible[0])
    assert say(proposed(plan_in(HALL), kit_from({}), "full").impossible[0]) == "There is no lens in the kit."
    assert proposed(plan_in(HALL, subject=None), full_kit(), "full").impossible
    assert "no lamp" in say(proposed(plan_in(HALL), with_lamps(0), "full").impossible[0])


def unlike(*lamps: tuple[str, float, float, float]) -> Kit:
    """The full kit with these lamps, one of each: name, lumens, width, height."""
    data = dump_kit(full_kit())
    data["lamps"] = [
        {"name": name, "fixture": {"emitter": {"shape": "rect", "width": w, "height": h}, "flux_lm": lumen}}
        for name, lumen, w, h in lamps
    ]
    return kit_from(data)


@pytest.mark.torture
def test_of_lamps_that_are_not_alike_the_weakest_is_no_key() -> None:
    """Two strong ones, all but off, lit the screen, and the ISO was five times the base for a weak key."""
    lamps = unlike(("soft box", 12_000, 0.9, 0.9), ("big panel", 24_000, 1.2, 1.2), ("tube", 3_000, 0.05, 1.2))
    slow = {"lenses": [{"focal_mm": mm, "f_number": 4.0} for mm in (35, 85)]}
    best = proposed(plan_in(HALL, camera={"fps": 50}), kit_from(dump_kit(lamps) | slow), "waist").alternatives[0]
    (key,) = (lamp for lamp in best.plan.lights if lamp.role == "key")
    assert "big panel" in key.name
    assert best.plan.camera.iso == best.plan.camera.sensor.base_iso
    assert min(lamp.dimmer for lamp in best.plan.lights) > 0.1


@pytest.mark.torture
def test_in_a_low_room_a_steep_key_stands_lower_rather_than_not_at_all() -> None:
    plan = plan_in(HALL | {"height": 2.4}, plate={"key_azimuth": 30.0, "key_elevation": 60.0})
    for proposal in proposed(plan, full_kit(), "waist").alternatives:
        (key,) = (lamp for lamp in proposal.plan.lights if lamp.role == "key")
        assert 1.6 < key.position[1] < 2.3


def test_a_weak_key_comes_as_near_as_it_can_before_the_iso_is_raised() -> None:
    kit = unlike(*(("weak panel", 500, 0.2, 0.15),) * 3)
    best = proposed(plan_in(HALL), kit, "waist").alternatives[0]
    assert best.plan.subject is not None
    (key,) = (lamp for lamp in best.plan.lights if lamp.role == "key")
    assert best.plan.camera.iso > best.plan.camera.sensor.base_iso, "it cannot do without"
    assert best.plan.camera.iso in ISOS
    assert math.dist(key.position, best.plan.subject.eyes) < 1.4


@pytest.mark.torture
def test_the_same_input_gives_the_same_proposal() -> None:
    framing, plan = briefs()[4]
    one, two = (propose(plan, full_kit(), framing, BasisStore()) for _ in range(2))
    assert [p.plan for p in one.alternatives] == [p.plan for p in two.alternatives]


@pytest.mark.parametrize("turned", [False, True])
def test_lens_for_a_distance_undoes_distance_for_a_lens(turned: bool) -> None:
    plan = plan_in(HALL)
    for framing in FRAMINGS:
        distance = stand_for(plan, framing, 50.0, turned).distance
        assert lens_for(plan, framing, distance, turned) == pytest.approx(50.0)


@pytest.mark.parametrize(
    ("shines", "words"),
    [(600.0, "a second cloth"), pytest.param(60_000.0, "a blackout sheet", marks=pytest.mark.torture)],
)
def test_a_window_behind_the_cloth_never_shines_through_a_proposal(shines: float, words: str) -> None:
    cloth = {"screens": [{"width": 2.7, "height": 2.3, "transmittance": 0.12}]}
    kit = kit_from({**dump_kit(small_kit()), **cloth})
    made = proposed(plan_in(SPARE_ROOM, screen={"behind_lux": shines}), kit, "chest")
    assert made.alternatives
    for proposal in made.alternatives:
        screen, reading = proposal.plan.screen, proposal.evaluation.screen
        assert reading is not None
        assert screen.behind_lux == shines
        assert screen.transmittance * shines < 0.02 * reading.lux_mean
        assert any(words in say(cost) for cost in proposal.costs)


BLACK_STAGE = {
    "x_min": -5, "x_max": 5, "z_min": -1, "z_max": 12, "height": 5.5,
    "reflectance": {"walls": [0.05] * 3, "ceiling": [0.05] * 3, "floor": [0.1] * 3},
}  # fmt: skip
PHONE_KIT = kit_from(
    {
        "lenses": [{"name": "phone lens", "focal_mm": 26}],
        "screens": [{"width": 3.0, "height": 2.6}],
        "lamps": [{"count": 3}],
    }
)
ROOMS = {"hall": HALL, "garage": GARAGE, "spare room": SPARE_ROOM, "black stage": BLACK_STAGE}
KITS = {"two panels and a soft light": small_kit(), "one lamp": with_lamps(1), "a phone": PHONE_KIT}


SOME = {("hall", "one lamp"), ("garage", "two panels and a soft light"), ("spare room", "a phone")}


@pytest.mark.parametrize(
    ("room", "kit"),
    [(room, kit) if (room, kit) in SOME else pytest.param(room, kit, marks=pytest.mark.torture)
     for room in ROOMS for kit in KITS],
)  # fmt: skip
def test_twelve_rooms_and_kits(room: str, kit: str) -> None:
    """Waist-up in each: the best one has nothing that stops it, and what a room forces is told."""
    made = proposed(plan_in(ROOMS[room]), KITS[kit], "waist")
    assert made.alternatives
    assert made.alternatives[0].stops == ()
    for proposal in made.alternatives:
        plan = proposal.plan
        assert plan.subject is not None
        assert plan.lights
        before = [lamp for lamp in plan.lights if lamp.role == "screen" and lamp.position[2] > plan.subject.z]
        assert not before or any("stand before the mark" in say(cost) for cost in proposal.costs)
        assert plan.camera.iso <= 8 * plan.camera.sensor.base_iso
        least = min(lamp.dimmer for lamp in plan.lights if lamp.role in ("key", "screen"))
        assert plan.camera.iso <= 1.01 * plan.camera.sensor.base_iso or least >= 0.9


@pytest.mark.parametrize("framing", ["waist", pytest.param("chest", marks=pytest.mark.torture)])
def test_no_lamp_and_no_stand_of_a_proposal_is_before_the_action(framing: Framing) -> None:
    """A long lens sees little of what is near it: a panel beside the axis, or its pole, may hide all of that."""
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "subject": {"framing": framing},
        "room": {"x_min": -1.7, "x_max": 1.7, "z_min": 0.0, "z_max": 4.2, "height": 2.6},
        "plate": {"key_azimuth": -10.0, "key_elevation": 12.0},
    })  # fmt: skip
    found = propose(plan, full_kit(), framing, STORE).alternatives
    assert found
    for each in found:
        told = next(f for f in find(each.plan, STORE, with_remedies=False, only=("space.in-picture",))[1])
        assert told.judgement.severity == "fine", say(told.judgement.says)
