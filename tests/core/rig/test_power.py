"""Circuits and heat by hand."""

from __future__ import annotations

import math

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rules.kit_rules import stands_needed
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import apply_changes
from ausblick.core.rig.circuits import hot_near_cloth, is_hot, loads, overhead
from tests.conftest import MakePlan

HOT = {"emitter": {"shape": "point"}, "flux_lm": 20000, "beam": {"kind": "beam", "deg": 60}, "watts": 1000}
COOL = {"emitter": {"shape": "rect"}, "flux_lm": 20000, "watts": 200}


def test_watts_over_volts_circuit_by_circuit(make: MakePlan) -> None:
    mains = {"volts": 230, "hz": 50, "circuits": [{"name": "A", "amps": 16}, {"name": "B", "amps": 10}]}
    lights = [
        {"fixture": HOT, "circuit": "A", "dimmer": 0.1},
        {"fixture": HOT, "circuit": "A"},
        {"fixture": COOL, "circuit": "B"},
        {"fixture": HOT, "circuit": "B", "on": False},
    ]
    a, b = loads(make(lights=lights, room={"mains": mains}))
    assert (a.watts, a.amps, a.percent) == pytest.approx((2000, 2000 / 230, 100 * 2000 / 230 / 16))
    assert (b.watts, b.rated_amps) == (200, 10)


def test_hot_lamps_are_known_by_their_light_per_watt(make: MakePlan) -> None:
    plan = make(lights=[{"fixture": HOT}, {"fixture": COOL}, {"fixture": HOT, "modifier": {"kind": "softbox"}}])
    assert [is_hot(lamp, plan) for lamp in plan.lights] == [True, False, True]


def test_hot_lamps_keep_a_distance_by_their_power(make: MakePlan) -> None:
    near, far = {"fixture": HOT, "position": [0, 1, 1.2]}, {"fixture": HOT, "position": [0, 1, 1.6]}
    found = hot_near_cloth(make(lights=[near, far]))
    assert [(h.away, h.clear) for h in found] == [pytest.approx((1.2, 1.5))]


def test_lamps_over_the_action(make: MakePlan) -> None:
    above, aside, low = [0.1, 3.0, 2.4], [2.5, 3.0, 2.4], [0.1, 1.9, 2.4]
    plan = make(lights=[{"position": p, "aim": [0, 1, 0], "fixture": COOL} for p in (above, aside, low)])
    assert overhead(plan) == [plan.lights[0]]
    assert overhead(make(lights=[{"position": above, "aim": [0, 1, 0]}], subject=None)) == []


BULB = {"flux_lm": 13_000, "watts": 650.0, "emitter": {"shape": "point"}}
BOARD = [[0.5, 0.5, 3.0], [0.5, 1.5, 3.0], [0.5, 1.5, 4.0], [0.5, 0.5, 4.0]]


def test_a_board_beside_a_hot_lamp_scorches_too(make: MakePlan) -> None:
    """0.65 kW want 0.975 m; the board's plane is 0.5 m aside, its edge 0.5 m further on."""
    bulb = {"name": "bulb", "position": [0.0, 1.0, 4.0], "aim": [0.0, 1.0, 0.0], "fixture": BULB}
    (hot,) = hot_near_cloth(make(lights=[bulb], flags=[{"corners": BOARD}]))
    assert (hot.what, hot.away, hot.clear) == ("flag", pytest.approx(0.5, abs=0.01), pytest.approx(0.975))
    aside = {**bulb, "position": [0.0, 1.0, 4.6]}
    (hot,) = hot_near_cloth(make(lights=[aside], flags=[{"corners": BOARD}]))
    assert hot.away == pytest.approx(math.hypot(0.5, 0.6), abs=0.01)


def test_a_sheet_before_a_hot_lamp_is_hung_further_out(make: MakePlan) -> None:
    sheet = {"kind": "diffusion", "distance": 0.4, "width": 1.0, "height": 1.0}
    bulb = {"name": "bulb", "position": [0.0, 1.6, 5.0], "aim": [0.0, 1.2, 0.0], "fixture": BULB, "modifier": sheet}
    plan = make(lights=[bulb])
    (finding,) = find(plan, BasisStore(), only={"light.heat"})[1]
    assert finding.judgement.says.id == "light.heat/sheet"
    cure = finding.remedies[0]
    after = apply_changes(plan, cure.changes)
    assert after.lights[0].modifier.distance == pytest.approx(0.975 + 0.05, abs=0.01)
    assert hot_near_cloth(after) == []


def test_daylight_draws_nothing_and_stands_on_nothing(make: MakePlan) -> None:
    window = {"fixture": {"emitter": {"shape": "window"}}, "position": [3.7, 1.6, 3.0], "aim": [0.0, 1.3, 3.0]}
    plan = make(lights=[window])
    assert [load.watts for load in loads(plan)] == [0.0]
    assert stands_needed(plan)[0] == 0
