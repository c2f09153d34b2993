"""Returned light against published-style figures: a lit screen in the dark, and closed grey rooms."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.light.basis import BasisStore
from ausblick.core.light.radiosity import scene_of
from ausblick.core.light.returned import ProbeLight, probe_all, scene_light
from ausblick.core.light.spill import spill_of
from ausblick.core.plan import Change, Plan, apply_changes
from tests.conftest import MakePlan, lamp

GREEN = 1


def grey(share: float) -> dict[str, Any]:
    return {"reflectance": {part: [share] * 3 for part in ("walls", "ceiling", "floor")}}


def sun(at: list[float], aim: list[float]) -> dict[str, Any]:
    return lamp(emitter={"shape": "sun"}, normal_lux=1000, position=at, aim=aim)


STRAIGHT_ON = sun([0, 1, 5], [0, 1, 0])


def probe(plan: Plan, at: tuple[float, ...], facing: tuple[float, ...]) -> ProbeLight:
    store = BasisStore()
    return probe_all(plan, np.array(at), np.array(facing), scene_light(plan, store), store)


@pytest.mark.parametrize(
    ("width", "height", "away", "facing_it", "sideways"),
    [(3.0, 2.6, 0.5, 307, 107), (3.0, 2.6, 1, 239, 61), (3.0, 2.6, 2, 128, 21), (3.0, 2.6, 3, 73, 8.5),
     (1.5, 2.0, 0.5, 254, 66), (1.5, 2.0, 1, 152, 25), (1.5, 2.0, 2, 62, 5.5), (1.5, 2.0, 3, 31, 1.9)],
)  # fmt: skip
def test_a_lit_screen_in_the_dark(
    make: MakePlan, width: float, height: float, away: float, facing_it: float, sideways: float
) -> None:
    plan = make(
        room=grey(0), screen={"width": width, "height": height, "bottom": 0.1, "gloss": 0}, lights=[STRAIGHT_ON]
    )
    for facing, lux in (((0, 0, -1), facing_it), ((1, 0, 0), sideways)):
        light = probe(plan, (0, 1.5, away), facing)
        assert light.from_screen[GREEN] == pytest.approx(lux, rel=0.03)
        assert light.total - light.direct == pytest.approx(light.from_screen, rel=1e-6)
        assert light.from_screen[0] / light.from_screen[GREEN] == pytest.approx(0.06 / 0.34, rel=1e-6)


def test_light_from_behind_shines_through_the_cloth(make: MakePlan) -> None:
    """A cloth that fills half the space in view sends back what it lets through, scattered evenly: E = t * E_behind
    times the share of the view, which the lit screen in the dark knows."""
    thin = make(room=grey(0), screen={"bottom": 0.1, "gloss": 0, "transmittance": 0.2, "behind_lux": 500}, lights=[])
    lit = make(room=grey(0), screen={"bottom": 0.1, "gloss": 0}, lights=[sun([0, 1, 5], [0, 1, 0])])
    through, back = (probe(plan, (0, 1.5, 1), (0, 0, -1)).from_screen[GREEN] for plan in (thin, lit))
    assert through == pytest.approx(back * 0.2 * 500 / 1000, rel=1e-6)
    assert through > 0


def test_a_floor_run_lights_from_below(make: MakePlan) -> None:
    down = sun([0, 5, 1.5], [0, 0, 1.5])
    for run, below, to_camera in ((0.0, 0.0, 0.0), (3.0, 241.0, 44.0)):
        plan = make(room=grey(0), screen={"bottom": 0.1, "floor_run": run}, lights=[down])
        assert probe(plan, (0, 1, 2), (0, -1, 0)).from_screen[GREEN] == pytest.approx(below, rel=0.03, abs=0.1)
        assert probe(plan, (0, 1, 2), (0, 0, 1)).from_screen[GREEN] == pytest.approx(to_camera, rel=0.05, abs=0.1)


@pytest.mark.parametrize(("share", "indirect"), [(0.05, 1.2), (0.3, 11.8), (0.7, 86.9)])
def test_a_closed_grey_room(make: MakePlan, share: float, indirect: float) -> None:
    lights = [
        lamp(emitter={"shape": "rect", "width": 0.6, "height": 0.6}, flux_lm=6000,
             position=[x, 2.2, 2], aim=[-0.15 * x, 1.3, 0])
        for x in (-2.0, 2.0)
    ]  # fmt: skip
    room = {"x_min": -3, "x_max": 3, "z_min": 0, "z_max": 8, "height": 3, **grey(share)}
    plan = make(room=room, screen={"bottom": 0.1}, lights=lights)
    light = probe(plan, (0, 1.5, 2.5), (0, 0, 1))
    assert light.total[GREEN] - light.direct[GREEN] == pytest.approx(indirect, rel=0.05)


def test_a_closed_room_surrounds_every_place(make: MakePlan) -> None:
    """Shares of everything that can be seen add up to one."""
    plan = make(room={"z_min": 0.0}, screen={"floor_run": 1.0, "wing_left": 0.5})
    scene = scene_of(plan, BasisStore())
    at = np.array([[0.4, 1.1, 2.0], [-2.0, 0.5, 5.0]])
    seen = scene.factors(at, np.array([[0.0, 0.0, 1.0], [0.6, 0.0, 0.8]])).sum(axis=1)
    assert seen == pytest.approx([1.0, 1.0], abs=0.01)


def test_energy_is_kept(make: MakePlan) -> None:
    """In a closed grey room light x area x (1 - reflectance), summed, is what the lamp sends out."""
    room = {"x_min": -3, "x_max": 3, "z_min": 0, "z_max": 6, "height": 3, **grey(0.6)}
    light = lamp(emitter={"shape": "point"}, flux_lm=5000, beam={"kind": "cosine", "n": 0}, position=[0, 1.5, 3])
    plan, store = make(room=room, screen={"reflectance": [0.6, 0.6, 0.6]}, lights=[light]), BasisStore()
    found = scene_light(plan, store)
    absorbed = (found.incident[:, 1] * found.scene.patches.areas * 0.4).sum()
    assert absorbed == pytest.approx(5000, rel=0.03)


def share(plan: Plan, kind: str) -> float:
    store = BasisStore()
    value = getattr(spill_of(plan, GREEN, scene_light(plan, store), store), kind)
    assert value is not None
    return float(value)


BRICK = {"reflectance": {"walls": [0.7, 0.4, 0.3], "ceiling": [0.8, 0.8, 0.8], "floor": [0.3, 0.2, 0.1]}}
GREY_CLOTH = {"reflectance": [0.3, 0.3, 0.3]}


@pytest.mark.parametrize(
    ("room", "screen"), [(grey(0.85), {}), (BRICK, {}), (grey(0.85), GREY_CLOTH), (BRICK, GREY_CLOTH)]
)
def test_all_light_is_the_direct_light_and_what_every_patch_sends_of_it(
    make: MakePlan, room: dict[str, Any], screen: dict[str, Any]
) -> None:
    """E = D + F rho E holds on every patch, in each channel, whatever is coloured and whatever light there is."""
    scene = scene_of(make(room=room, screen=screen, lights=[]), BasisStore())
    centres, outward = scene.patches.corners.mean(axis=1), scene.patches.outward
    direct = np.random.default_rng(3).uniform(0.0, 500.0, (len(centres), 3))
    arriving = scene.incident(direct)
    factors = scene.factors(centres, outward, rays=1)
    assert arriving == pytest.approx(direct + factors @ (scene.patches.reflectance * arriving), rel=1e-4)


def test_white_light_in_a_grey_world_spills_nothing(make: MakePlan) -> None:
    plan = make(
        screen={"reflectance": [0.3, 0.3, 0.3]}, room=grey(0.5), lights=[STRAIGHT_ON, sun([2, 3, 9], [0, 1, 2])]
    )
    assert share(plan, "front") == pytest.approx(0, abs=1e-6)


@pytest.mark.parametrize(
    ("change", "kind", "less"),
    [
        (Change("subject.z", 3.4), "side", True),
        (Change("screen.width", 2.0), "side", True),
        (Change("room.reflectance.walls", [0.03, 0.03, 0.03]), "side", True),
        (Change("screen.floor_run", 2.0), "under", False),
        (Change("flags", [{"corners": [[-1, 0, 0.3], [-1, 2.6, 0.3], [-1, 2.6, 2.2], [-1, 0, 2.2]]},
                          {"corners": [[1, 0, 0.3], [1, 2.6, 0.3], [1, 2.6, 2.2], [1, 0, 2.2]]}]), "side", True),
    ],
)  # fmt: skip
def test_each_cure_moves_spill_its_way(make: MakePlan, change: Change, kind: str, less: bool) -> None:
    key = lamp(emitter={"shape": "point"}, peak_cd=2000, role="key", position=[0, 1.7, 6.5], aim=[0, 1.5, 2.4])
    pair = [{"position": [x, 1.4, 2.0], "aim": [x, 1.4, 0.0]} for x in (-1.5, 1.5)]
    plan = make(
        room=grey(0.5), lights=[*pair, key, {**key, "position": [-3, 1.6, 2.4]}, {**key, "position": [3, 1.6, 2.4]}]
    )
    before, after = share(plan, kind), share(apply_changes(plan, [change]), kind)
    assert (after < before) is less
    assert abs(after - before) > 0.3


def test_outdoors_the_ground_has_no_end(make: MakePlan) -> None:
    """Under a high sun an unbounded floor of 0.5 sends half its light up: exactly E x 0.5 on a downward face."""
    plan = make(
        room={"kind": "exterior", **grey(0.5)},
        screen={"width": 0.1, "height": 0.1, "reflectance": [0, 0, 0]},
        lights=[sun([0, 9, 3], [0, 0, 3])],
    )
    light = probe(plan, (0, 1, 3), (0, -1, 0))
    assert light.total[GREEN] == pytest.approx(500, rel=0.02)


def test_ambient_indoors_is_what_the_meter_reads(make: MakePlan) -> None:
    plan = make(room={"ambient_lux": 80, **grey(0.7)}, screen={"reflectance": [0, 0, 0]})
    assert probe(plan, (0, 1, 4), (0, 0, 1)).total == pytest.approx([80, 80, 80])
    green = make(room={"ambient_lux": 80, **grey(0.0)})
    assert probe(green, (0, 1.3, 1), (0, 0, -1)).from_screen[GREEN] > 10
