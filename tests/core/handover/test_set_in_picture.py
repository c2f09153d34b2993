"""The planned set laid over a picture of it: marks in metres, lamps inside of the outline."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.turned import side_turns, upright_places
from ausblick.core.camera.view import view_of
from ausblick.core.handover.set_in_picture import place_on_screen, standing_inside
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.demo.fern_house import scree, seed_vault

SHAPE = (270, 480)


def seen_at(plan: Plan, place: tuple[float, float, float]) -> tuple[float, float]:
    frame, _ = view_of(plan.camera, plan.subject).project(np.array([place]))
    u, v = upright_places(frame, side_turns(plan.camera))[0]
    return float(u), float(v)


@pytest.mark.parametrize("roll", [0.0, 90.0, -90.0])
def test_a_mark_in_the_picture_is_a_place_on_the_screen(roll: float) -> None:
    plan = apply_changes(seed_vault(), [Change("camera.roll", roll)])
    place = (0.35, 1.4, 0.0)
    assert place_on_screen(plan, *seen_at(plan, place)) == pytest.approx(place, abs=1e-6)


def test_a_mark_on_the_floor_run_is_found_there_and_none_beside_the_screen() -> None:
    plan = scree()
    place = (0.3, 0.0, 1.1)
    assert place_on_screen(plan, *seen_at(plan, place)) == pytest.approx(place, abs=1e-6)
    away = (plan.screen.x_centre + plan.screen.width / 2.0 + 0.4, 2.0, 0.0)
    assert place_on_screen(plan, *seen_at(plan, away)) is None


def with_lamp_at(plan: Plan, place: tuple[float, float, float]) -> Plan:
    return apply_changes(plan, [Change("lights[0].position", place)])


def test_a_lamp_is_inside_where_its_head_or_its_stand_is_seen() -> None:
    plan = seed_vault()
    assert plan.subject is not None
    beside = plan.subject.x + 0.5
    whole, nobody = np.ones(SHAPE, bool), np.zeros(SHAPE, bool)
    right = np.zeros(SHAPE, bool)
    right[:, SHAPE[1] // 2 :] = True
    inside = with_lamp_at(plan, (beside, 1.3, plan.subject.z + 0.2))
    name = inside.lights[0].name
    assert name in standing_inside(inside, right, nobody)
    assert name not in standing_inside(inside, ~right, nobody)
    # Behind the figure it is hidden, before it is not.
    behind = with_lamp_at(plan, (beside, 1.3, plan.subject.z - 0.5))
    assert name in standing_inside(behind, whole, nobody)
    assert name not in standing_inside(behind, whole, whole)
    assert name in standing_inside(inside, whole, whole)
    # The head is above the picture, the pole is in it.
    assert name in standing_inside(with_lamp_at(plan, (beside, 3.1, plan.subject.z + 0.2)), whole, nobody)
    assert name not in standing_inside(with_lamp_at(plan, (beside, 1.3, plan.camera.z + 0.5)), whole, nobody)


def test_a_ring_that_the_camera_looks_through_is_not_inside() -> None:
    """Its head is larger than the picture; half a metre on it is a lamp in the way."""
    plan, lens = seed_vault(), seed_vault().camera
    disc = Change("lights[0].fixture.emitter", {"shape": "disc", "diameter": 0.45})
    whole, nobody = np.ones(SHAPE, bool), np.zeros(SHAPE, bool)
    told = []
    for ahead in (0.1, 0.5):
        place = (lens.x, lens.y, lens.z - ahead)
        aim = Change("lights[0].aim", (lens.x, lens.y, 0.0))
        ring = apply_changes(plan, [Change("lights[0].position", place), aim, disc])
        told.append(ring.lights[0].name in standing_inside(ring, whole, nobody))
    assert told == [False, True]
