"""Where stands and cameras go that are brought back inside the walls."""

from __future__ import annotations

import pytest

from ausblick.core.advice import moves
from ausblick.core.advice.findings import find
from ausblick.core.advice.moves.places import all_inside, camera_inside, stand_inside
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import apply_changes
from ausblick.core.sentences import say
from ausblick.demo import fern_house_2
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

ROOM = {"x_min": -3.0, "x_max": 3.0, "z_min": -0.6, "z_max": 6.0, "height": 3.0}


def test_what_stands_in_a_wall_comes_inside_with_room_for_its_legs(make: MakePlan) -> None:
    plan = make(room=ROOM)
    assert stand_inside(plan, (3.4, 3.2, 6.5)) == (2.75, 2.8, 5.75)
    assert stand_inside(plan, (-3.0, 0.0, -1.0)) == (-2.75, 0.2, -0.4)
    assert stand_inside(plan, (1.0, 2.0, 3.0)) == (1.0, 2.0, 3.0)
    assert camera_inside(plan, (-4.0, 0.0, 6.0)) == (-2.7, 0.1, 5.5)


def test_outdoors_nothing_is_brought_anywhere(make: MakePlan) -> None:
    plan = make(room={**ROOM, "kind": "exterior"})
    assert stand_inside(plan, (8.0, 5.0, 9.0)) == (8.0, 5.0, 9.0)


WALL = {"x": 0.0, "y": 1.5, "z": 1.5, "width": 1.2, "height": 1.2, "in_wall": True}


def test_a_wall_with_a_window_is_not_walked_through(make: MakePlan) -> None:
    plan = make(room=ROOM, window=WALL)
    assert stand_inside(plan, (1.0, 2.0, 2.5), (1.0, 2.0, 0.8)) == (1.0, 2.0, 1.25)
    assert stand_inside(plan, (1.0, 2.0, 0.5), (1.0, 2.0, 2.5)) == (1.0, 2.0, 1.75)
    assert stand_inside(plan, (1.0, 2.0, -1.0), (1.0, 2.0, 0.8)) == (1.0, 2.0, -0.4)
    beyond = make(room=ROOM, window={**WALL, "z": 8.0})
    assert stand_inside(beyond, (1.0, 2.0, 7.0), (1.0, 2.0, 0.8)) == (1.0, 2.0, 5.75)
    pane_alone = make(room=ROOM, window={**WALL, "in_wall": False})
    assert stand_inside(pane_alone, (1.0, 2.0, 2.5), (1.0, 2.0, 0.8)) == (1.0, 2.0, 2.5)


def test_the_camera_stays_on_its_side_of_that_wall(make: MakePlan) -> None:
    before = make(room=ROOM, window=WALL, camera={"z": 5.0})
    assert camera_inside(before, (0.0, 1.5, 1.2)) == (0.0, 1.5, 1.8)
    assert camera_inside(before, (0.0, 1.5, 9.0)) == (0.0, 1.5, 5.5)
    behind = make(room=ROOM, window=WALL, camera={"z": 0.6})
    assert camera_inside(behind, (0.0, 1.5, 3.0)) == (0.0, 1.5, 1.0)
    # Somebody behind the pane: a lens of 15 mm would have to stand in the wall.
    shop = make(room=ROOM, window=WALL, subject={"z": 0.6}, camera={"z": 5.0, "focal_mm": 50.0})
    assert moves.same_framing(shop, 24.0) == pytest.approx(0.6 + 4.4 * 24.0 / 50.0)
    assert moves.same_framing(shop, 12.0) is None


def test_no_remedy_carries_a_lamp_through_it() -> None:
    plan = fern_house_2.potting_shed()
    assert plan.window is not None
    wall, tried = plan.window.z, 0
    for finding in find(plan, STORE)[1]:
        for remedy in finding.remedies:
            moved = apply_changes(plan, remedy.changes)
            for was, now in zip(plan.lights, moved.lights, strict=False):
                tried += was.position != now.position
                assert (was.position[2] < wall) == (now.position[2] < wall), remedy.text
            if finding.rule.id == "light.heat":
                # 0.25 m are left for a stand before the wall, and the lamp stays nearer to the cloth than it should.
                assert say(remedy.text) == "loft lamp as far from cloths and boards as there is room"
                assert remedy.after == pytest.approx(wall - 0.25)
                assert remedy.outcome == "better"
    assert tried > 3


def test_a_lamp_that_stands_in_it_is_told(make: MakePlan) -> None:
    """Half of a panel of 0.6 m on one side, half on the other."""
    panel = lamp(emitter={"shape": "rect", "width": 0.6, "height": 0.6}, flux_lm=9000, position=[2.0, 2.0, 1.55],
                 aim=[0.0, 2.0, 1.55])  # fmt: skip
    plan = make(room=ROOM, window=WALL, subject={"z": 3.0}, camera={"z": 5.0}, lights=[panel])
    [finding] = [one for one in find(plan, STORE)[1] if one.rule.id == "space.through-wall"]
    assert finding.judgement.value == pytest.approx(0.25)
    moved = apply_changes(plan, finding.remedies[0].changes).lights[0]
    assert moved.position[2] == pytest.approx(1.82)
    assert finding.remedies[0].outcome == "cured"
    whole = make(room=ROOM, window={**WALL, "in_wall": False}, subject={"z": 3.0}, camera={"z": 5.0}, lights=[panel])
    assert CRAFT.judge(evaluate(whole, STORE))["space.through-wall"].severity == "fine"


def test_lamps_that_are_to_be_alike_stay_behind_the_mark(make: MakePlan) -> None:
    """From before it the screen's lamps would light the face, however wide the screen is."""

    def away(mark: float) -> float:
        sides = [{"id": f"l{i}", "role": "screen", "position": [x, 2.2, 1.0], "aim": [0, 1.4, 0]}
                 for i, x in enumerate((-2.4, 2.2))]  # fmt: skip
        plan = make(room={**ROOM, "z_max": 9.0}, screen={"width": 4.0}, subject={"z": mark}, lights=sides)
        lamps = [(i, one) for i, one in enumerate(plan.lights)]
        [proposal] = moves.all_alike(evaluate(plan, STORE), lamps)
        [where] = {change.value[2] for change in proposal.changes if change.path.endswith("position")}
        return float(where)

    assert [away(mark) for mark in (1.0, 2.0, 3.0, 5.0)] == pytest.approx([1.2, 1.6, 2.6, 3.0])


def test_only_what_is_named_is_moved(make: MakePlan) -> None:
    lights = [{"id": "a", "position": [3.5, 2.0, 1.0]}, {"id": "b", "position": [-3.5, 2.0, 1.0]}]
    plan = make(room=ROOM, lights=lights, camera={"x": 0.0, "y": 1.5, "z": 7.0})
    moved = apply_changes(plan, list(all_inside(plan, ["b", "camera"])))
    assert [lamp.position for lamp in moved.lights] == [(3.5, 2.0, 1.0), (-2.75, 2.0, 1.0)]
    assert (moved.camera.x, moved.camera.y, moved.camera.z) == (0.0, 1.5, 5.5)
