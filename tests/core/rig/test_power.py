"""Circuits and heat by hand."""

from __future__ import annotations

import pytest

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
