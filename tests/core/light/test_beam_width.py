from __future__ import annotations

import math
from typing import Any

import pytest

from ausblick.core.light.beam_width import beam_width
from ausblick.core.light.emission import emission_of
from ausblick.core.plan import plan_from
from tests.core.light.test_emission import COSINE, V, ies


def width(**lamp: Any) -> tuple[float, float] | None:
    document = {
        "format": "ausblick-plan",
        "version": 1,
        "lights": [{"position": [0, 2, 2], "aim": [1, 1, 0], **lamp}],
    }
    if lamp.get("fixture", {}).get("beam", {}).get("kind") == "ies":
        document["photometry"] = {"lamp": ies(V, [0.0], [COSINE])}
    plan = plan_from(document)
    return beam_width(emission_of(plan.lights[0], plan))


def level(**lamp: Any) -> tuple[float, float] | None:
    return width(aim=[0.0, 2.0, 0.0], **lamp)


def test_a_panel_falls_to_half_at_sixty_degrees() -> None:
    assert level(fixture={"flux_lm": 1000.0}) == pytest.approx((60.0, 60.0), abs=0.05)


@pytest.mark.parametrize("deg", [20.0, 60.0, 120.0])
def test_a_beam_angle_is_the_full_angle_of_half_the_peak(deg: float) -> None:
    fixture = {"emitter": {"shape": "point"}, "flux_lm": 1000.0, "beam": {"kind": "beam", "deg": deg}}
    assert level(fixture=fixture) == pytest.approx((deg / 2, deg / 2), abs=0.1)


def test_a_bare_bulb_has_no_side() -> None:
    fixture = {"emitter": {"shape": "point"}, "flux_lm": 1000.0, "beam": {"kind": "cosine", "n": 0.0}}
    assert level(fixture=fixture) == (180.0, 180.0)


def test_a_photometry_file_and_a_modifier_count() -> None:
    """Drawn from the fixture alone a file's beam was a guess, and a grid changed nothing."""
    assert level(fixture={"flux_lm": 1000.0, "beam": {"kind": "ies", "ref": "lamp"}}) == pytest.approx(
        (60, 60), abs=0.6
    )
    narrow = {"emitter": {"shape": "point"}, "flux_lm": 1000.0, "beam": {"kind": "beam", "deg": 20.0}}
    assert level(fixture=narrow, modifier={"kind": "softbox"}) == pytest.approx((60.0, 60.0), abs=0.05)
    # A 40 degree grid: cos a times (1 - tan a / tan 20) is a half of its peak at 9.9 degrees.
    half = next(a / 100 for a in range(4000) if math.cos(math.radians(a / 100)) * (
        1 - math.tan(math.radians(a / 100)) / math.tan(math.radians(20))) <= 0.5)  # fmt: skip
    assert level(modifier={"kind": "grid", "deg": 40.0}) == pytest.approx((half, half), abs=0.1)


def test_one_door_closed_is_one_side_narrow() -> None:
    open_wide = {"kind": "doors", "deg": 80.0}
    left, right = level(modifier=open_wide) or (0, 0)
    assert left == pytest.approx(right, abs=0.2)
    shut_left, same_right = level(modifier={**open_wide, "left": 5.0}) or (0, 0)
    assert shut_left < 0.5 * left
    assert same_right == pytest.approx(right, abs=0.2)


def test_a_sun_has_no_beam() -> None:
    assert width(fixture={"emitter": {"shape": "sun"}}) is None
