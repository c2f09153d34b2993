"""Direct light against closed forms.

Configuration factors of a small element and a rectangle: Howell, A Catalog of Radiation Heat Transfer
Configuration Factors, B-3 (parallel) and B-4 (perpendicular).
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ausblick.core.camera.screen_grid import screen_grid
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.direct import direct_lux
from ausblick.core.light.emission import emission_of
from ausblick.core.light.mix import probe_light, scalar_lux
from ausblick.core.light.occlusion import NONE
from ausblick.core.plan import PlanError, plan_from
from tests.conftest import MakePlan, lamp, screen_light

CLEAR = {"transmittance": 0.0}


def lux_at(light: dict[str, Any], x: float, y: float, **parts: Any) -> float:
    """Lux at a point of a tiny screen, so that one cell is that point."""
    screen = {"x_centre": x, "bottom": y - 0.05, "width": 0.1, "height": 0.1, **CLEAR}
    plan = plan_from({"format": "ausblick-plan", "version": 1, "screen": screen, "lights": [light], **parts})
    return float(scalar_lux(screen_light(plan, screen_grid(plan.screen, 1, 1), BasisStore()))[0, 0])


def corner_parallel(a: float, b: float, c: float) -> float:
    """Factor from an element to a parallel rectangle a x b at distance c, above one of its corners."""
    x, y = a / c, b / c
    return (
        x / math.sqrt(1 + x * x) * math.atan(y / math.sqrt(1 + x * x))
        + y / math.sqrt(1 + y * y) * math.atan(x / math.sqrt(1 + y * y))
    ) / (2 * math.pi)


def corner_upright(a: float, b: float, c: float) -> float:
    """Factor from an element to a rectangle at right angles to it: width b, height a, distance c."""
    x, y = a / b, c / b
    return (math.atan(1 / y) - y / math.sqrt(x * x + y * y) * math.atan(1 / math.sqrt(x * x + y * y))) / (2 * math.pi)


def test_point_source_follows_the_distance_law() -> None:
    light = lamp(
        emitter={"shape": "point"}, peak_cd=500, beam={"kind": "cosine", "n": 3}, position=[1, 2, 2], aim=[0, 1, 0]
    )
    r = math.sqrt(1 + 1 + 4)
    on_axis = 500 * (2 / r) / r**2
    assert lux_at(light, 0, 1) == pytest.approx(on_axis, rel=1e-9)
    # Off the axis by a known angle.
    to = np.array([0.5, 1, 0]) - np.array([1, 2, 2])
    cosine = float(to @ np.array([-1, -1, -2]) / np.linalg.norm(to) / r)
    expected = 500 * cosine**3 * (2 / np.linalg.norm(to)) / np.linalg.norm(to) ** 2
    assert lux_at(light, 0.5, 1) == pytest.approx(expected, rel=1e-9)


@pytest.mark.parametrize(
    ("beam", "peak"),
    [
        ({"kind": "cosine", "n": 0}, 1000 / (4 * math.pi)),
        ({"kind": "lambert"}, 1000 / math.pi),
        ({"kind": "cosine", "n": 4}, 1000 * 5 / (2 * math.pi)),
        ({"kind": "beam", "deg": 120}, 1000 * 2 / (2 * math.pi)),
    ],
)
def test_flux_becomes_peak_intensity(beam: dict[str, Any], peak: float) -> None:
    light = lamp(emitter={"shape": "point"}, flux_lm=1000, beam=beam, position=[0, 1, 2], aim=[0, 1, 0])
    assert lux_at(light, 0, 1) == pytest.approx(peak / 4, rel=1e-9)


@pytest.mark.parametrize("size", [(0.6, 0.6), (1.2, 0.04), (0.04, 1.2), (2.0, 1.0)])
@pytest.mark.parametrize("away", [0.15, 0.6, 2.0, 6.0])
def test_rectangle_parallel_to_the_screen(size: tuple[float, float], away: float) -> None:
    w, h = size
    light = lamp(
        emitter={"shape": "rect", "width": w, "height": h}, flux_lm=5000, position=[0, 1.3, away], aim=[0, 1.3, 0]
    )
    luminance = 5000 / (math.pi * w * h)
    assert lux_at(light, 0, 1.3) == pytest.approx(
        math.pi * luminance * 4 * corner_parallel(w / 2, h / 2, away), rel=1e-6
    )
    # At the corner of the face.
    assert lux_at(light, w / 2, 1.3 + h / 2) == pytest.approx(
        math.pi * luminance * corner_parallel(w, h, away), rel=1e-6
    )


def test_upright_tube_beside_the_screen_counts_only_what_is_in_front_of_it() -> None:
    # A face in the plane x = 1 from z = 0 to 0.6, seen from the screen at x = 0: half a face when it
    # straddles the screen's plane.
    whole = lamp(
        emitter={"shape": "rect", "width": 0.6, "height": 1.0},
        flux_lm=3000,
        position=[1, 1.5, 0.3],
        aim=[0, 1.5, 0.3],
    )
    luminance = 3000 / (math.pi * 0.6)
    expected = math.pi * luminance * 2 * corner_upright(0.6, 0.5, 1.0)
    assert lux_at(whole, 0, 1.5) == pytest.approx(expected, rel=1e-6)
    straddling = lamp(
        emitter={"shape": "rect", "width": 1.2, "height": 1.0},
        flux_lm=6000,
        position=[1, 1.5, 0.0],
        aim=[0, 1.5, 0.0],
    )
    assert lux_at(straddling, 0, 1.5) == pytest.approx(expected, rel=1e-6)


@pytest.mark.parametrize("away", [0.2, 1.0, 4.0])
def test_disc_on_its_axis(away: float) -> None:
    light = lamp(emitter={"shape": "disc", "diameter": 0.8}, flux_lm=4000, position=[0, 1, away], aim=[0, 1, 0])
    luminance = 4000 / (math.pi * math.pi * 0.16)
    assert lux_at(light, 0, 1) == pytest.approx(math.pi * luminance * 0.16 / (0.16 + away**2), rel=1e-3)


@pytest.mark.parametrize(
    "shape", [{"shape": "rect", "width": 0.6, "height": 0.9}, {"shape": "disc", "diameter": 0.7}]
)
@pytest.mark.parametrize("away", [0.5, 1.5])
def test_summed_faces_agree_with_the_closed_form(shape: dict[str, Any], away: float) -> None:
    """A cosine lobe of n = 1 is Lambert's: the quadrature has to give what the polygon formula gives."""
    where = {"position": [0.5, 1.4, away], "aim": [0, 1, 0]}
    exact = lux_at(lamp(emitter=shape, flux_lm=4000, beam={"kind": "lambert"}, **where), 0, 1)
    summed = lux_at(lamp(emitter=shape, flux_lm=4000, beam={"kind": "cosine", "n": 1}, **where), 0, 1)
    assert summed == pytest.approx(exact, rel=3e-3)


def test_sun_is_parallel_and_does_not_fall_off() -> None:
    light = lamp(emitter={"shape": "sun"}, normal_lux=80_000, position=[1, 1, 1], aim=[0, 0, 0])
    assert lux_at(light, 0, 1) == pytest.approx(80_000 / math.sqrt(3))
    assert lux_at(light, 3, 2) == pytest.approx(80_000 / math.sqrt(3))
    assert lux_at(lamp(emitter={"shape": "sun"}, normal_lux=80_000, position=[0, 1, -1], aim=[0, 1, 1]), 0, 1) == 0.0


@pytest.mark.parametrize("shape", [{"shape": "point"}, {"shape": "rect"}, {"shape": "disc"}])
@pytest.mark.parametrize(
    "where",
    [
        {"position": [0, 1, -2], "aim": [0, 1, 0]},
        {"position": [0, 1, 2], "aim": [0, 1, 5]},
    ],
)
def test_nothing_from_behind_and_nothing_from_a_lamp_that_faces_away(
    shape: dict[str, Any], where: dict[str, Any]
) -> None:
    assert lux_at(lamp(emitter=shape, flux_lm=5000, **where), 0.3, 1.2) == 0.0


def test_cloth_lets_its_transmittance_through(make: MakePlan) -> None:
    behind = lamp(emitter={"shape": "point"}, peak_cd=400, beam={"kind": "cosine", "n": 0}, position=[0, 1.3, -2])
    plan = make(lights=[behind], screen={"transmittance": 0.05, "behind_lux": 60})
    lux = scalar_lux(screen_light(plan, screen_grid(plan.screen, 1, 1), BasisStore()))
    assert lux[0, 0] == pytest.approx(0.05 * (400 / 4 + 60))


def test_a_flag_takes_away_what_it_covers(make: MakePlan) -> None:
    light = lamp(
        emitter={"shape": "rect", "width": 0.4, "height": 0.4}, flux_lm=4000, position=[0, 1.3, 2], aim=[0, 1.3, 0]
    )
    whole = {"corners": [[-1, 0.3, 1], [1, 0.3, 1], [1, 2.3, 1], [-1, 2.3, 1]]}
    upper = {"corners": [[-1, 1.3, 1], [1, 1.3, 1], [1, 2.3, 1], [-1, 2.3, 1]]}
    open_lux = lux_at(light, 0, 1.3)
    assert lux_at(light, 0, 1.3, flags=[whole]) == 0.0
    assert lux_at(light, 0, 1.3, flags=[upper]) == pytest.approx(open_lux / 2, rel=0.02)


def test_the_screen_stands_between_a_probe_and_a_lamp_behind_it(make: MakePlan) -> None:
    behind = lamp(emitter={"shape": "point"}, peak_cd=400, beam={"kind": "cosine", "n": 0}, position=[0, 1.3, -1])
    facing_screen = np.array([0.0, 0.0, -1.0])
    place = np.array([0.0, 1.3, 1.0])
    assert scalar_lux(probe_light(make(lights=[behind]), place, facing_screen, BasisStore())) == 0.0
    beside = make(lights=[behind], screen={"x_centre": 5.0})
    assert scalar_lux(probe_light(beside, place, facing_screen, BasisStore())) == pytest.approx(100.0)


def test_ambient_light_indoors_and_under_the_sky(make: MakePlan) -> None:
    indoors = make(room={"ambient_lux": 40})
    outdoors = make(room={"kind": "exterior", "ambient_lux": 40})
    up, side, place = np.array([0.0, 1, 0]), np.array([1.0, 0, 0]), np.array([0.0, 1, 2])
    for facing, expected in ((up, 40.0), (side, 20.0), (-up, 0.0)):
        assert scalar_lux(probe_light(outdoors, place, facing, BasisStore())) == pytest.approx(expected)
        assert scalar_lux(probe_light(indoors, place, facing, BasisStore())) == pytest.approx(40.0)


PLACE = st.tuples(st.floats(-3, 3), st.floats(0.2, 3.4), st.floats(0.6, 6))


@given(PLACE, st.floats(1.05, 3.0))
def test_moving_a_bare_lamp_straight_away_never_brightens(place: tuple[float, float, float], factor: float) -> None:
    def lit(k: float) -> float:
        at = [k * c for c in np.array(place) - np.array([0, 1.3, 0])] + np.array([0, 1.3, 0])
        return lux_at(lamp(emitter={"shape": "point"}, flux_lm=3000, position=at.tolist(), aim=[0, 1.3, 0]), 0, 1.3)

    assert lit(factor) <= lit(1.0) * (1 + 1e-9)


@given(PLACE, PLACE)
def test_a_mirrored_lamp_gives_the_mirrored_map(
    place: tuple[float, float, float], aim: tuple[float, float, float]
) -> None:
    if math.dist(place, aim) < 0.01:
        return
    maps = []
    for sign in (1.0, -1.0):
        light = lamp(position=[sign * place[0], *place[1:]], aim=[sign * aim[0], *aim[1:]])
        plan = plan_from({"format": "ausblick-plan", "version": 1, "lights": [light]})
        maps.append(scalar_lux(screen_light(plan, screen_grid(plan.screen, 9, 5), BasisStore())))
    assert maps[1] == pytest.approx(maps[0][:, ::-1], rel=1e-6, abs=1e-9)


def test_light_is_linear_in_dimmers_and_switches(make: MakePlan) -> None:
    def lux(dimmers: tuple[float, float], on: bool = True) -> np.ndarray[Any, Any]:
        lights = [
            {"position": [-2, 2, 2], "dimmer": dimmers[0]},
            {"position": [2, 1, 1.5], "dimmer": dimmers[1], "on": on},
        ]
        plan = make(lights=lights)
        return scalar_lux(screen_light(plan, screen_grid(plan.screen, 7, 5), BasisStore()))

    assert lux((0.3, 0.8)) == pytest.approx(0.3 * lux((1, 0)) + 0.8 * lux((0, 1)))
    assert lux((1, 1), on=False) == pytest.approx(lux((1, 0)))


@pytest.mark.parametrize(("width", "height", "away"), [(1.2, 1.4, 2.5), (2.4, 1.0, 0.6), (0.8, 2.0, 5.0)])
def test_a_window_is_a_lambert_rectangle_of_the_skys_luminance(
    make: MakePlan, width: float, height: float, away: float
) -> None:
    """Opposite its middle: E = L times four times the corner's closed form (Lambert)."""
    emitter = {"shape": "window", "width": width, "height": height}
    window = {
        "fixture": {"emitter": emitter, "luminance": 2500.0}, "position": [3.7, 1.5, 3.0], "aim": [0.0, 1.5, 3.0],
    }  # fmt: skip
    plan = make(lights=[window])
    a, b = width / 2 / away, height / 2 / away
    corner = a / math.hypot(1, a) * math.atan(b / math.hypot(1, a)) + b / math.hypot(1, b) * math.atan(
        a / math.hypot(1, b)
    )
    lux = direct_lux(emission_of(plan.lights[0]), np.array([[3.7 - away, 1.5, 3.0]]), np.array([1.0, 0.0, 0.0]), NONE)
    assert lux[0] == pytest.approx(2500.0 * 2.0 * corner, rel=1e-6)


def test_a_window_takes_a_luminance_and_no_lumens(make: MakePlan) -> None:
    window = {"shape": "window"}
    assert make(lights=[{"fixture": {"emitter": window}}]).lights[0].fixture.luminance == 3000.0
    for wrong in ({"flux_lm": 100.0}, {"normal_lux": 5.0}, {"luminance": 100.0, "beam": {"kind": "cosine"}}):
        with pytest.raises(PlanError, match="window"):
            make(lights=[{"fixture": {"emitter": window, **wrong}}])
    with pytest.raises(PlanError, match="exactly one"):
        make(lights=[{"fixture": {"luminance": 100.0}}])


def flag(*corners: list[float]) -> list[dict[str, Any]]:
    return [{"corners": [list(corner) for corner in corners]}]


PANEL = {"emitter": {"shape": "rect", "width": 1.0, "height": 0.6}, "position": [0, 1, 2], "aim": [0, 1, 0]}


@pytest.mark.parametrize("x", [-0.9, 0.0, 0.7])
def test_a_panel_behind_the_edge_of_a_long_cloth_is_what_is_left_of_it(x: float) -> None:
    """In closed form: a cloth just before the face that covers its right half leaves a panel half as wide."""
    cloth = flag([0, 0, 1.9999], [3, 0, 1.9999], [3, 3, 1.9999], [0, 3, 1.9999])
    left = {**PANEL["emitter"], "width": 0.5}
    half = lamp(emitter=left, flux_lm=2000, position=[-0.25, 1, 2], aim=[-0.25, 1, 0])
    shaded = lux_at(lamp(**PANEL, flux_lm=4000), x, 1.3, flags=cloth)
    assert shaded == pytest.approx(lux_at(half, x, 1.3), rel=2e-4)


def test_a_cloth_midway_hides_what_lies_beyond_its_edge() -> None:
    """An upright edge midway at x = 0.1 lies across the face, seen from the middle, at x = 0.2."""
    cloth = flag([0.1, 0, 1], [3, 0, 1], [3, 3, 1], [0.1, 3, 1])
    part = lamp(emitter={**PANEL["emitter"], "width": 0.7}, flux_lm=2800, position=[-0.15, 1, 2], aim=[-0.15, 1, 0])
    assert lux_at(lamp(**PANEL, flux_lm=4000), 0, 1, flags=cloth) == pytest.approx(lux_at(part, 0, 1), rel=1e-6)


def test_two_cloths_and_corners_take_what_single_places_of_the_face_say() -> None:
    """Two cloths that hide some of the same, and one that ends within the face both ways."""
    cloths = [
        *flag([-0.3, 0, 1], [0.0, 0, 1], [0.0, 1.05, 1], [-0.3, 1.05, 1]),
        *flag([-0.1, 0, 1.5], [3, 0, 1.5], [3, 0.9, 1.5], [-0.1, 0.9, 1.5]),
    ]
    light = lamp(**PANEL, flux_lm=4000)
    across, up = np.meshgrid(-0.5 + (np.arange(200) + 0.5) / 200, 0.7 + 0.6 * (np.arange(120) + 0.5) / 120)
    for x, y in ((0.1, 1.0), (-0.4, 1.2), (0.3, 0.8)):
        r2 = (across - x) ** 2 + (up - y) ** 2 + 4.0
        sent = 4.0 / r2**2
        hidden = np.zeros(across.shape, dtype=bool)
        for (x0, _, z), (x1, _, _), (_, y1, _), _ in (one["corners"] for one in cloths):
            met_x, met_y = x + (across - x) * z / 2.0, y + (up - y) * z / 2.0
            hidden |= (met_x > x0) & (met_x < x1) & (met_y < y1)
        share = float((sent * ~hidden).sum() / sent.sum())
        assert 0.05 < share < 0.95
        whole, shaded = lux_at(light, x, y), lux_at(light, x, y, flags=cloths)
        assert shaded / whole == pytest.approx(share, abs=0.005)
