"""Who or what moved is drawn at once where it is now, in the light of the last picture; then in its own."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Bytes
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.last_light import LastLight
from ausblick.core.standin.planned_picture import PlannedPicture, picture_at_once, planned_picture
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

WIDE = 240
SECOND = {"id": "p2", "x": 1.0, "z": 2.6}


@pytest.fixture
def lit(make: MakePlan) -> Plan:
    lamps = [
        lamp(id=name, position=[x, 2.2, 4.4], aim=[0.0, 1.4, 1.0], flux_lm=6000)
        for name, x in (("a", -2.0), ("b", 2.0))
    ]
    return make(lights=lamps, subject={"z": 2.4}, companions=[SECOND], camera={"z": 6.4, "focal_mm": 35.0})


def whole(plan: Plan, last: LastLight) -> PlannedPicture:
    return planned_picture(plan, lambda one: evaluate(one, STORE), WIDE, STORE, last)


def apart(one: Bytes, other: Bytes) -> float:
    """Share of pixels that differ by more than a fifteenth of white."""
    return float(np.mean(np.abs(one.astype(int) - other).max(axis=2) > 17))


@pytest.mark.parametrize(
    "move",
    [("subject.x", -0.4), ("companions[0].x", 0.6), ("camera.x", 0.3), ("camera.pan", 1.0)],
    ids=lambda m: m[0],
)
def test_who_moved_is_where_they_are_now_before_the_new_light_is_worked_out(
    lit: Plan, move: tuple[str, float]
) -> None:
    last = LastLight()
    before = whole(lit, last)
    moved = apply_changes(lit, [Change(*move)])
    early = picture_at_once(moved, WIDE, STORE, last)
    assert early is not None
    assert not early.settled
    after = whole(moved, last)
    assert after.settled
    assert apart(before.frame, after.frame) > 0.03
    assert apart(early.frame, after.frame) < 0.006
    again = picture_at_once(moved, WIDE, STORE, last)
    assert again is not None
    assert again.settled
    # What pixels make of the light is kept when they are drawn again: the same but for rounding.
    assert np.abs(again.frame.astype(int) - after.frame).max() <= 1


def test_what_comes_into_the_frame_is_not_black(lit: Plan) -> None:
    """Of the coat a hand's breadth more is seen; what has never been seen of a body is waited for."""
    near = apply_changes(lit, [Change("companions", []), Change("camera.z", 4.6), Change("camera.focal_mm", 85.0)])
    last = LastLight()
    whole(near, last)
    back = apply_changes(near, [Change("camera.z", 5.2)])
    early = picture_at_once(back, WIDE, STORE, last)
    assert early is not None
    after = whole(back, LastLight())
    assert apart(early.frame, after.frame) < 0.003
    down = apply_changes(near, [Change("camera.tilt", -12.0)])
    assert picture_at_once(down, WIDE, STORE, last) is None


@pytest.mark.parametrize(
    "change",
    [
        ("lights[0].position", [-1.0, 2.2, 4.4]),
        ("lights[0].dimmer", 0.5),
        ("camera.iso", 800.0),
        ("camera.pan", 100.0),
    ],
    ids=lambda change: change[0],
)
def test_nothing_is_drawn_in_light_that_is_no_longer_there(lit: Plan, change: tuple[str, object]) -> None:
    """Nor where the camera sees walls of which no light is known."""
    last = LastLight()
    assert picture_at_once(lit, WIDE, STORE, last) is None
    whole(lit, last)
    assert picture_at_once(apply_changes(lit, [Change(*change)]), WIDE, STORE, last) is None
