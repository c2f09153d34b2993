"""Even the screen, and distances: on six badly lit screens, never worse, in words for the stands."""

from __future__ import annotations

import pytest

from ausblick.core.advice.rules.space_rules import outside
from ausblick.core.advice.search.distances import distances
from ausblick.core.advice.search.even_screen import Freedoms, even_screen
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, Modifier, Plan, apply_changes
from ausblick.core.sentences import say
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar, welcome
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

QUICK = {"Scree, noon"}
SIX = [seed_vault(), scree(), fern_dancer(), potting_shed(), seed_jar(), gardeners()]
ALL = Freedoms(heights=True, positions=True, aims=True)


def spread(plan: Plan, store: BasisStore) -> float:
    screen = evaluate(plan, store).screen
    assert screen is not None
    return screen.spread_stops


@pytest.mark.parametrize(
    "plan",
    [plan if plan.title in QUICK else pytest.param(plan, marks=pytest.mark.torture) for plan in SIX],
    ids=[p.title for p in SIX],
)
def test_a_badly_lit_screen_becomes_even_or_it_is_said_why(plan: Plan) -> None:
    store = STORE
    found = even_screen(plan, store, ALL)
    changed = apply_changes(plan, found.changes)
    assert spread(changed, store) == pytest.approx(found.spread_after)
    assert found.spread_after <= found.spread_before
    assert found.spread_after < 0.3 or found.limits
    assert len(outside(changed)) <= len(outside(plan))
    framed = {f.light for f in evaluate(changed, store).reflections if f.visible}
    assert framed <= {f.light for f in evaluate(plan, store).reflections if f.visible}


def test_dimmers_alone_where_they_can(make: MakePlan) -> None:
    """Two alike lamps far off at unlike dimmers: alike dimmers are even, and nothing else is touched."""
    lights = [
        {"name": n, "position": [x, 1.3, 4.6], "aim": [-0.3 * x, 1.3, 0], "dimmer": d}
        for n, x, d in (("left", -2.6, 0.9), ("right", 2.6, 0.25))
    ]
    black = {"reflectance": {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}}
    camera = {"iso": 800, "f_number": 2.8, "shutter_s": 0.02}
    plan = make(lights=lights, room=black, subject={"framing": "chest"}, camera=camera)
    found = even_screen(plan, BasisStore(), Freedoms(False, False, False))
    assert {c.path for c in found.changes} == {"lights[0].dimmer", "lights[1].dimmer"}
    assert found.changes[0].value == pytest.approx(found.changes[1].value, rel=0.02)
    assert found.spread_after < 0.15
    assert all("%" in say(line) for line in found.words)


@pytest.mark.torture
def test_no_stand_is_put_where_a_companion_acts() -> None:
    """Where a lamp would go without her she is put herself: it goes elsewhere."""
    plan = scree()
    alone = apply_changes(plan, even_screen(plan, STORE, ALL).changes)
    moved = next(
        i for i, (a, b) in enumerate(zip(alone.lights, plan.lights, strict=True)) if a.position != b.position
    )
    x, _, z = alone.lights[moved].position
    other = {"id": "p2", "name": "she", "x": x, "z": z, "height": 1.7}
    two = apply_changes(plan, [Change("companions", [other])])
    lights = apply_changes(two, even_screen(two, STORE, ALL).changes).lights
    reach = two.companions[0].envelope
    for moved_one in (one for one, was in zip(lights, two.lights, strict=True) if one.position != was.position):
        beside = x - reach.left - 0.3 < moved_one.position[0] < x + reach.right + 0.3
        assert not (beside and z - reach.back - 0.3 < moved_one.position[2] < z + reach.front + 0.3), moved_one


def test_what_is_in_the_way_is_named(make: MakePlan) -> None:
    assert [say(s) for s in even_screen(make(lights=[]), BasisStore(), ALL).limits] == ["no screen lamp is on"]
    assert not even_screen(make(lights=[]), BasisStore(), ALL).changes


def test_shadow_and_spill_fall_with_distance() -> None:
    found = distances(gardeners(), STORE)
    assert [p.z for p in found.curve] == sorted(p.z for p in found.curve)
    near, far = found.curve[0], found.curve[-1]
    assert near.shadow_area > 0.0 == far.shadow_area
    assert (far.edge or 0) < (near.edge or 0)
    assert far.needed is not None
    assert near.needed is not None
    assert far.needed[0] > near.needed[0]


def test_schools_of_distance_and_what_the_room_forbids() -> None:
    rows = {row.school: row for row in distances(gardeners(), STORE).schools}
    assert set(rows) == {"1m", "1.2-2m", "2m-plus", "3m", "shadow-gone"}
    assert rows["1m"].found is not None
    assert rows["1m"].found.z == 1.0
    gone = rows["shadow-gone"].found
    assert gone is not None
    assert gone.shadow_area == 0.0
    shallow = apply_changes(gardeners(), [Change("room.z_max", 4.4), Change("camera.z", 3.9)])
    three = {row.school: row for row in distances(shallow, STORE).schools}["3m"]
    assert three.found is None
    assert "deep enough" in three.why_not


def test_going_to_a_distance_takes_the_subjects_lamps_along() -> None:
    plan = gardeners()
    point = next(p for p in distances(plan, STORE).curve if p.z == 2.1)
    moved = apply_changes(plan, point.changes)
    assert moved.subject is not None
    assert moved.subject.z == 2.1
    assert moved.lights[2].position[2] == pytest.approx(plan.lights[2].position[2] + 1.2)
    assert moved.lights[0] == plan.lights[0]


@pytest.mark.parametrize("positions", [False, pytest.param(True, marks=pytest.mark.torture)])
def test_one_lamp_for_both_evens_the_screen_and_keeps_the_face(make: MakePlan, positions: bool) -> None:
    """A key that lights screen and face: lower and aimed past the figure, within what the face may lose."""
    one = lamp(emitter={"shape": "rect", "width": 0.9, "height": 0.6}, flux_lm=9000, role="key",
               position=[-1.6, 2.2, 4.2], aim=[0, 1.5, 2.0])  # fmt: skip
    plan = make(subject={"z": 2.0, "framing": "waist"}, lights=[one])
    found = even_screen(plan, STORE, Freedoms(positions=positions))
    assert found.spread_after < found.spread_before - 0.2
    before, after = evaluate(plan, STORE), evaluate(apply_changes(plan, found.changes), STORE)
    assert before.exposure.stops_over is not None
    assert after.exposure.stops_over == pytest.approx(before.exposure.stops_over, abs=0.35)
    assert after.screen is not None
    assert after.screen.spread_stops == pytest.approx(found.spread_after, abs=1e-6)


@pytest.mark.parametrize("at", [[-2.0, 2.5, 5.0], [-1.2, 2.2, 5.5]])
def test_a_key_that_evens_the_screen_stays_above_the_face_and_is_aimed_at_something(at: list[float]) -> None:
    """It was sunk to the knees, and aimed below the floor."""
    plan = welcome()
    key = next(one for one in plan.lights if one.role == "key").model_copy(
        update={"position": tuple(at), "modifier": Modifier(), "beyond": ()}
    )
    changed = apply_changes(
        alone := plan.model_copy(update={"lights": (key,)}), even_screen(alone, STORE, ALL).changes
    )
    (lit,), room = changed.lights, changed.room
    assert changed.subject is not None
    assert lit.position[1] >= min(at[1], changed.subject.skin_at[1])
    assert 0.0 <= lit.aim[1] <= room.height
    assert room.x_min <= lit.aim[0] <= room.x_max
