"""What stands in a room takes its share each time light crosses it; and the gap behind a screen sends light back."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.light.basis import BasisStore
from ausblick.core.light.past_cards import left_by_cards, returned_past_cards
from ausblick.core.light.past_what_stands import past_what_stands
from ausblick.core.light.returned import SceneLight, scene_light
from ausblick.core.plan import Plan
from tests.conftest import MakePlan, lamp

INK = 0.7
ROOM = {
    "x_min": -3.0, "x_max": 3.0, "z_min": 0.0, "z_max": 6.0, "height": 4.0,
    "reflectance": {"walls": [INK] * 3, "ceiling": [INK] * 3, "floor": [INK] * 3},
}  # fmt: skip
SURFACE = 2.0 * (6.0 * 6.0 + 6.0 * 4.0 + 6.0 * 4.0)


def grey_room(make: MakePlan, size: float) -> Plan:
    """A room of one ink, its screen on the wall, with a panel in the midst of it."""
    panel = lamp(position=[0.0, 2.0, 3.0], aim=[0.0, 1.9, 0.0], flux_lm=9000.0,
                 emitter={"shape": "rect", "width": size, "height": size})  # fmt: skip
    return make(
        room=ROOM, screen={"reflectance": [INK] * 3, "width": 3.0, "height": 3.0}, subject=None, lights=[panel]
    )


def returned(light: SceneLight) -> float:
    """Of all that arrives in a room, what has been sent back at least once, in lumens."""
    return float((light.scene.patches.areas @ (light.incident - light.direct)).mean())


@pytest.mark.parametrize("size", [0.6, 1.5])
def test_a_black_panel_takes_its_share_of_the_room_at_every_crossing(make: MakePlan, size: float) -> None:
    """Of what is sent about evenly a share s, both faces over all surface, is lost each time: what returns falls from
    r / (1 - r) times what is direct to r (1 - s) / (1 - r (1 - s)). A source on one side is not quite even."""
    store, plan = BasisStore(), grey_room(make, size)
    before = scene_light(plan, store)
    after = past_what_stands(plan, before, store)
    share = 2.0 * size * size / SURFACE
    kept = INK * (1.0 - share)
    expected = (kept / (1.0 - kept)) / (INK / (1.0 - INK))
    assert 1.0 - expected > 0.01
    assert 1.0 - returned(after) / returned(before) == pytest.approx(1.0 - expected, rel=0.2)
    assert np.array_equal(after.direct, before.direct)


def test_who_stands_there_takes_the_more_the_darker_the_coat(make: MakePlan) -> None:
    store, plan = BasisStore(), grey_room(make, 0.6)
    found = []
    for ink in (0.8, 0.05):
        subject = {"x": 0.0, "z": 1.6, "wardrobe": [{"name": "coat", "reflectance": [ink] * 3}]}
        dressed = make(room=ROOM, screen=plan.screen.model_dump(), lights=[one.model_dump() for one in plan.lights],
                       subject=subject)  # fmt: skip
        before = scene_light(dressed, store)
        after = past_what_stands(dressed, before, store)
        found.append(1.0 - returned(after) / returned(before))
    assert 0.01 < found[0] < 0.5 * found[1]


def test_behind_a_card_it_is_what_lies_there_that_fails(make: MakePlan) -> None:
    """Before a lit wall in a dark room a card takes more than its share of an even sky; before a dark one nothing."""
    dark = {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}
    lamps = [lamp(position=[2.8, 2.0, 2.0], aim=[0.0, 1.5, 0.0], flux_lm=9000.0, emitter={"shape": "point"}),
             lamp(position=[0.0, 1.5, 2.0], aim=[0.0, 1.5, 6.0], flux_lm=1.0,
                  emitter={"shape": "rect", "width": 0.8, "height": 0.8})]  # fmt: skip
    plan = make(room={**ROOM, "reflectance": dark}, screen={"reflectance": [0.8] * 3, "width": 3.0, "height": 3.0},
                subject=None, lights=lamps)  # fmt: skip
    store = BasisStore()
    light = scene_light(plan, store)
    for facing, takes in (([0.0, 0.0, -1.0], True), ([0.0, 0.0, 1.0], False)):
        place, way = np.array([[0.0, 1.5, 3.5]]), np.array([facing])
        factors = light.scene.factors(place, way)
        open_ = (factors @ light.leaving)[0, 1]
        past = returned_past_cards(plan, light, factors, place, way, store)[0, 1]
        even = float(left_by_cards(plan, place, way, store)[0])
        assert past < even * open_ - 1e-3 if takes else past == pytest.approx(open_, abs=1e-9), (facing, even)


def test_the_gap_behind_a_screen_is_no_hole(make: MakePlan) -> None:
    """Every place of a closed room sees something everywhere: the wall behind a screen sees the screen's back, and
    what lies beside the screen gets light out of the gap."""
    gap = {**ROOM, "z_min": -0.4}
    plan = make(room=gap, screen={"reflectance": [INK] * 3, "width": 3.0, "height": 3.0}, subject=None,
                lights=[lamp(position=[0.0, 2.0, 4.0], aim=[0.0, 1.5, 0.0], flux_lm=9000.0)])  # fmt: skip
    scene = scene_light(plan, BasisStore()).scene
    patches = scene.patches
    seen = scene.factors(patches.corners.mean(axis=1), patches.outward).sum(axis=1)
    assert np.quantile(seen, 0.02) > 0.9
    assert patches.areas[patches.of("back of the screen")].sum() == pytest.approx(9.0)
    assert np.all(patches.outward[patches.of("back of the screen")] == [0.0, 0.0, -1.0])
    on_wall = make(room=ROOM, screen={"reflectance": [INK] * 3, "width": 3.0, "height": 3.0}, subject=None)
    assert "back of the screen" not in scene_light(on_wall, BasisStore()).scene.patches.names
