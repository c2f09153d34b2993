"""What has changed from one take to the next, on the same screen."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ausblick.core.colour.curves import rec709
from ausblick.core.colour.white_point import light_rgb
from ausblick.core.frames.drift import ScreenSeen, drift, warmer_mired
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame

INK = np.array([0.09, 0.32, 0.13])


def seen(kelvin: float = 5600.0, light: float = 1.0, noise: float = 0.004) -> ScreenSeen:
    """A screen under a lamp of this colour, photographed at a white balance of 5600 K and measured."""
    signal = rec709(INK * light * light_rgb(kelvin, 0.0, 5600.0, 0.0))
    rng = np.random.default_rng(3)
    pixels = np.clip(signal + rng.normal(0.0, noise, (540, 960, 3)), 0.0, 1.0).astype(np.float32)
    reading = read_frame(Frame(pixels, 1.0))
    assert reading.level_luma is not None
    assert reading.hue_deg is not None
    assert reading.saturation is not None
    return ScreenSeen(reading.level_luma.mean, reading.hue_deg, reading.saturation, reading.even_percent,
                      reading.noise_percent)  # fmt: skip


@pytest.mark.parametrize("kelvin", [4300.0, 5000.0, 6500.0])
def test_a_changed_white_balance_is_told_in_mired(kelvin: float) -> None:
    wanted = 1e6 / kelvin - 1e6 / 5600.0
    assert warmer_mired(seen(), seen(kelvin)) == pytest.approx(wanted, abs=4.0)
    rows = {row.name: row for row in drift(seen(), seen(kelvin))}
    assert ("warmer" if wanted > 0 else "colder") in rows["Colour of the light"].means


def test_half_a_stop_less_light_is_a_level_and_no_colour() -> None:
    rows = {row.name: row for row in drift(seen(), seen(light=2.0**-0.5))}
    assert rows["Level"].means == "darker than before"
    assert rows["Colour of the light"].means == ""
    assert abs(rows["Hue"].difference) < 1.0


def test_the_same_take_twice_has_not_drifted() -> None:
    assert [row.means for row in drift(seen(), seen()) if row.means] == []


def test_noise_is_told_and_a_black_screen_has_no_colour() -> None:
    rows = {row.name: row for row in drift(seen(), seen(noise=0.02))}
    assert "ISO" in rows["Noise"].means
    assert warmer_mired(seen(), replace(seen(), luma=1.0, saturation=0.01)) is None
