"""Curves and exposure against published values."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ausblick.core.camera.exposure import grey_lux, light_for_channel, light_for_luma, luma, signal
from ausblick.core.camera.level_schools import edge_levels, key_channel, level_target, screen_levels
from ausblick.core.colour.curves import Curve, decode, encode
from tests.conftest import MakePlan

CURVES: list[Curve] = ["rec709", "hlg", "acescct", "linear"]


@pytest.mark.parametrize(
    ("curve", "x", "percent"),
    [
        ("rec709", 0.18, 40.9),  # BT.709-6
        ("rec709", 0.01, 4.5),
        ("rec709", 1.0, 100.0),
        ("hlg", 0.18, 37.8),  # BT.2408-7, table 1: grey card 38 %
        ("hlg", 1.0, 75.0),  # BT.2408-7: diffuse white
        ("acescct", 0.18, 41.36),  # S-2016-001: 0.4135884
        ("acescct", 0.0, 7.29),
        ("linear", 0.18, 18.0),
    ],
)
def test_published_values(curve: Curve, x: float, percent: float) -> None:
    assert 100 * float(encode(np.array(x), curve)) == pytest.approx(percent, abs=0.06)


@given(st.floats(0.0, 0.98), st.sampled_from(CURVES))
def test_curves_undo_themselves_and_rise(x: float, curve: Curve) -> None:
    assert float(decode(encode(np.array(x), curve), curve)) == pytest.approx(x, rel=1e-5, abs=1e-6)
    assert float(encode(np.array(x + 0.01), curve)) > float(encode(np.array(x), curve))


def test_grey_lux_by_iso_2720(make: MakePlan) -> None:
    assert grey_lux(make().camera) == pytest.approx(250 * 16 / (0.01 * 400))
    assert grey_lux(make(camera={"nd_stops": 3}).camera) == pytest.approx(8000)


def test_grey_card_at_grey_lux_reads_40_9(make: MakePlan) -> None:
    camera = make().camera
    reads = signal(np.full(3, 0.18), np.full(3, grey_lux(camera)), camera)
    assert reads == pytest.approx([40.9] * 3, abs=0.1)


def test_green_screen_at_grey_exposure(make: MakePlan) -> None:
    plan = make()
    level, key = screen_levels(plan, np.full(3, 1000.0))
    assert float(key) == pytest.approx(57.7, abs=0.3)
    assert float(level) == pytest.approx(47.9, abs=0.3)


def test_light_for_a_level_gives_that_level(make: MakePlan) -> None:
    plan = make()
    green = np.array(plan.screen.reflectance)
    lux = light_for_luma(green, 42.0, plan.camera)
    assert float(luma(signal(green, np.full(3, lux), plan.camera))) == pytest.approx(42.0, abs=1e-6)
    lux = light_for_channel(0.34, 55.0, plan.camera)
    assert signal(green, np.full(3, lux), plan.camera)[1] == pytest.approx(55.0, abs=1e-6)


@pytest.mark.parametrize(("iso", "stop"), [(800, 1), (200, -1)])
def test_a_stop_is_a_stop_everywhere(make: MakePlan, iso: float, stop: int) -> None:
    base, changed = grey_lux(make().camera), grey_lux(make(camera={"iso": iso}).camera)
    assert base / changed == pytest.approx(2.0**stop)
    assert base / grey_lux(make(camera={"shutter_s": 0.01 * 2.0**stop}).camera) == pytest.approx(2.0**stop)
    assert base / grey_lux(make(camera={"f_number": 4 / 2 ** (stop / 2)}).camera) == pytest.approx(2.0**stop)


def test_key_channel_by_hue() -> None:
    assert [key_channel(h, np.array([0.3, 0.1, 0.2])) for h in ("green", "blue", "other")] == [1, 2, 0]


def test_schools_ask_for_their_levels(make: MakePlan) -> None:
    light = np.full(3, 1000.0)
    assert level_target(make(), light).level == pytest.approx(42.0)
    assert level_target(make(targets={"level_school": "mid-grey"}), light).level == pytest.approx(55.0)
    follows = [
        level_target(make(targets={"level_school": "follow-plate"}, plate={"mean_level": m}), light).level
        for m in (4, 15, 40, 75, 95)
    ]
    assert follows == pytest.approx([30.0, 33.25, 42.0, 54.25, 60.0])
    own = level_target(make(targets={"level_school": "custom", "screen_level": 47}), light)
    assert (own.low, own.level, own.high) == pytest.approx((44.0, 47.0, 50.0))


@pytest.mark.parametrize("curve", CURVES)
def test_a_school_asks_for_the_same_light_whatever_the_curve(make: MakePlan, curve: Curve) -> None:
    """Its level is what that curve makes of the light; 42 % of Rec.709 stands beside it."""
    light, camera = np.full(3, 1000.0), {"curve": curve, "iso": 400}
    target, plain = level_target(make(camera=camera), light), level_target(make(camera={"iso": 400}), light)
    assert (target.lux_low, target.lux_high) == pytest.approx((plain.lux_low, plain.lux_high))
    assert target.rec709.level == 42.0
    ink = np.array(make().screen.reflectance)
    middle = light_for_luma(ink, target.level, make(camera=camera).camera)
    assert middle == pytest.approx(light_for_luma(ink, 42.0, make(camera={"iso": 400}).camera), rel=1e-6)
    if curve != "rec709":
        assert abs(target.level - 42.0) > 1.0


def test_a_blue_screen_is_told_in_the_blue_channel_and_never_near_white(make: MakePlan) -> None:
    blue = {"hue": "blue", "reflectance": [0.05, 0.10, 0.40]}
    for school in ("below-face", "mid-grey", "follow-plate", "away-from-edge"):
        plan = make(screen=blue, targets={"level_school": school}, plate={"mean_level": 95})
        target = level_target(plan, np.full(3, 1000.0))
        assert target.trace == "key-channel"
        lit = signal(np.array(blue["reflectance"]), np.full(3, target.lux_high), plan.camera)
        assert float(lit[2]) < 85.0


def test_away_from_the_edge_keeps_clear_of_fair_hair_and_dark_cloth(make: MakePlan) -> None:
    light = np.full(3, 1000.0)
    fair = make(targets={"level_school": "away-from-edge"}, subject={"hair": [0.45, 0.36, 0.2]})
    cloth = make(
        targets={"level_school": "away-from-edge"},
        subject={"wardrobe": [{"name": "cape", "reflectance": [0.03, 0.09, 0.04]}]},
    )
    assert level_target(fair, light).level < 42.0
    assert level_target(cloth, light).level > 43.0
    target = level_target(fair, light)
    assert min(abs(level - target.level) for level in edge_levels(fair, light).values()) > 8.0
    assert "hair" in target.why or "skin" in target.why
