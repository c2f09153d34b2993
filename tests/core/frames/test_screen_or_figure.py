"""What is the screen and what the figure: hot spots, what is overlit before them, walls beside a floor piece."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ausblick.core.colour.curves import rec709
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.geometry.vectors import Bools, Floats

H, W = 270, 480
BODY = (slice(110, None), slice(200, 280))
Light = tuple[float, float, float]
HUES = {"green": (0.12, 0.5, 0.26), "blue": (0.12, 0.24, 0.6)}


def lit(hue: str, over: float, at: tuple[int, int], wide: float = 60.0, lamp: Light = (1.0, 1.0, 1.0)) -> Floats:
    """Light (H, W, 3) of a screen that a lamp of some colour `over`-lights at a place (across, down)."""
    across, down = np.meshgrid(np.arange(W), np.arange(H))
    away = ((across - at[0]) ** 2 + (down - at[1]) ** 2) / (2.0 * wide**2)
    return (1.0 + over * np.exp(-away)[..., None] * np.array(lamp)) * np.array(HUES[hue])


def with_body(light: Floats, cloth: tuple[float, float, float]) -> Floats:
    light[BODY] = cloth
    cv2.ellipse(light, (240, 78), (26, 34), 0, 0, 360, (0.45, 0.30, 0.22), -1)
    return light


def read(light: Floats) -> FrameReading:
    """What a camera clips at 100 %, with noise, in 8 bit."""
    soft = cv2.GaussianBlur(light, (0, 0), 0.7)
    signal = rec709(np.clip(soft, 0.0, 1.0)) + np.random.default_rng(4).normal(0.0, 0.004, light.shape)
    return read_frame(Frame((255.0 * np.clip(signal, 0.0, 1.0)).round().astype(np.uint8), 255.0))


def body() -> Bools:
    mask = np.zeros((H, W), np.uint8)
    mask[BODY] = 1
    cv2.ellipse(mask, (240, 78), (26, 34), 0, 0, 360, 1, -1)
    return mask > 0


@pytest.mark.parametrize("hue", ["green", "blue"])
@pytest.mark.parametrize("over", [1.5, 3.0, 9.0], ids=["one channel", "two channels", "white in its middle"])
@pytest.mark.parametrize("at", [(70, 130), (20, 200)], ids=["within", "at the picture's edge"])
def test_a_hot_spot_is_screen(hue: str, over: float, at: tuple[int, int]) -> None:
    reading = read(with_body(lit(hue, over, at), (0.05, 0.05, 0.06)))
    assert reading.hue == hue
    assert reading.screen_area_percent == pytest.approx(100.0 * float((~body()).mean()), abs=1.5)
    assert reading.contact is not None
    assert reading.contact.screen_sides == ()
    assert float(reading.contact.figure.mean()) == pytest.approx(float(body().mean()), abs=0.012)
    # What clips is told, and no longer left out as somebody's.
    clips = np.clip(rec709(lit(hue, over, at)[..., 1 if hue == "green" else 2]), 0.0, 1.0) >= 0.998
    assert reading.clipped_percent == pytest.approx(100.0 * float(clips[~body()].mean()), abs=3.0)


@pytest.mark.parametrize("over", [3.0, 9.0])
def test_a_warm_lamps_hot_spot_is_screen(over: float) -> None:
    """Tungsten before a camera at daylight: yellow where green and red clip."""
    reading = read(with_body(lit("green", over, (70, 130), lamp=(1.9, 1.0, 0.35)), (0.05, 0.05, 0.06)))
    assert reading.screen_area_percent == pytest.approx(100.0 * float((~body()).mean()), abs=1.5)
    assert reading.contact is not None
    assert float(reading.contact.figure.mean()) == pytest.approx(float(body().mean()), abs=0.012)


@pytest.mark.parametrize(
    "cloth", [(1.4, 1.4, 1.3), (1.3, 1.1, 0.7), (0.9, 1.2, 1.3)], ids=["white", "skin", "pale blue"]
)
@pytest.mark.parametrize("over", [0.0, 2.0])
def test_what_is_overlit_before_it_is_the_figures(cloth: tuple[float, float, float], over: float) -> None:
    reading = read(with_body(lit("green", over, (70, 130)), cloth))
    assert reading.contact is not None
    figure = reading.contact.figure
    assert float(figure[body()].mean()) > 0.95
    assert float(figure[~body()].mean()) < 0.01


def test_evenness_of_a_screen_with_a_hot_spot_counts_it() -> None:
    even, spot = (read(with_body(lit("green", over, (70, 130)), (0.05, 0.05, 0.06))) for over in (0.0, 2.0))
    assert even.band_percent is not None
    assert spot.band_percent is not None
    assert even.band_percent < 4.0
    # Luma of its middle, less that of what no lamp over-lights, as an instrument shows them.
    light = rec709(np.clip(lit("green", 2.0, (70, 130)), 0.0, 1.0)) @ np.array([0.2126, 0.7152, 0.0722])
    assert spot.band_percent == pytest.approx(100.0 * float(light.max() - light.min()), abs=3.0)


@pytest.mark.parametrize("aside", [14, 60])
@pytest.mark.parametrize("floor", [0, 8], ids=["as wide as the picture", "not quite"])
def test_walls_above_a_wide_floor_piece_are_no_part_of_the_figure(aside: int, floor: int) -> None:
    light = lit("green", 0.0, (70, 130))
    light[:235, :aside] = light[:235, W - aside :] = light[:, :floor] = light[:, W - floor :] = (0.6, 0.58, 0.55)
    contact = read(with_body(light, (0.05, 0.05, 0.06))).contact
    assert contact is not None
    assert (contact.frame_sides, contact.screen_sides, contact.things) == (("bottom",), (), ())
    assert float(contact.figure.mean()) == pytest.approx(float(body().mean()), abs=0.012)
