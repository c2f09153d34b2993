"""Where stands and cameras go that are brought back inside the walls."""

from __future__ import annotations

from ausblick.core.advice.moves.places import all_inside, camera_inside, stand_inside
from ausblick.core.plan import apply_changes
from tests.conftest import MakePlan

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


def test_only_what_is_named_is_moved(make: MakePlan) -> None:
    lights = [{"id": "a", "position": [3.5, 2.0, 1.0]}, {"id": "b", "position": [-3.5, 2.0, 1.0]}]
    plan = make(room=ROOM, lights=lights, camera={"x": 0.0, "y": 1.5, "z": 7.0})
    moved = apply_changes(plan, list(all_inside(plan, ["b", "camera"])))
    assert [lamp.position for lamp in moved.lights] == [(3.5, 2.0, 1.0), (-2.75, 2.0, 1.0)]
    assert (moved.camera.x, moved.camera.y, moved.camera.z) == (0.0, 1.5, 5.5)
