"""Clothes of the screen's own hue, lighter or darker, are somebody's; what throws a shadow has lost nothing."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ausblick.core.colour.curves import rec709
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.geometry.vectors import Floats

WIDE, HIGH = 960, 540
GREEN = np.array([0.045, 0.25, 0.08])
SKIN, DARK = (0.42, 0.28, 0.20), (0.05, 0.05, 0.06)
ACROSS = np.arange(WIDE)[None, :, None] / WIDE - 0.5


def screen() -> Floats:
    return np.asarray(GREEN * (1.0 - 0.3 * ACROSS - 0.5 * ACROSS**2) * np.ones((HIGH, 1, 1)))


def head(light: Floats, x: int = 480, y: int = 130) -> None:
    cv2.ellipse(light, (x, y), (40, 56), 0, 0, 360, SKIN, -1)
    light[y + 40 : y + 70, x - 18 : x + 18] = SKIN


BODY = [(460, 195), (500, 195), (560, 225), (590, 540), (370, 540), (400, 225)]


def painted(light: Floats, outline: list[tuple[int, int]], paint: Floats) -> None:
    inside = np.zeros(light.shape[:2], np.uint8)
    cv2.fillPoly(inside, [np.array(outline, np.int32)], 1)
    light[inside > 0] = np.broadcast_to(paint, light.shape)[inside > 0]


def read(light: Floats) -> FrameReading:
    blurred = cv2.GaussianBlur(light, (0, 0), 0.9)
    grain = np.random.default_rng(3).normal(0.0, 0.007, light.shape)
    return read_frame(Frame(np.round(255.0 * np.clip(rec709(blurred) + grain, 0, 1)).astype(np.uint8), 255.0))


def covers(reading: FrameReading, outline: list[tuple[int, int]]) -> float:
    assert reading.contact is not None
    figure = reading.contact.figure
    inside = np.zeros((HIGH, WIDE), np.uint8)
    cv2.fillPoly(inside, [np.array(outline, np.int32)], 1)
    small = cv2.resize(inside, figure.shape[::-1], interpolation=cv2.INTER_NEAREST) > 0
    return float(figure[small].mean())


@pytest.mark.parametrize("factor", [0.62, 0.8, 1.3])
def test_a_shirt_of_the_screens_own_hue_is_the_figures(factor: float) -> None:
    light = screen()
    painted(light, BODY, factor * GREEN * (1.0 + 0.4 * ACROSS))
    head(light)
    reading = read(light)
    (place,) = reading.may_be_lost
    assert (place.x, place.x + place.w) == pytest.approx((370 / 960, 590 / 960), abs=0.02)
    assert (place.y, place.y + place.h) == pytest.approx((200 / 540, 1.0), abs=0.04)
    assert covers(reading, BODY) > 0.9
    # As even as the screen is, by hand: it is not the shirt's light against the screen's.
    luma = 100.0 * rec709(screen()) @ [0.2126, 0.7152, 0.0722]
    assert reading.even_percent == pytest.approx(float(np.ptp(np.percentile(luma, [1, 99]))), abs=0.8)


def test_an_edge_that_fades_on_one_side_is_closed() -> None:
    """Lit from the right: at the left arm cloth and screen are of one light."""
    light = screen()
    lit = GREEN * (1.0 - 0.3 * ACROSS) * (1.0 + 0.8 * np.clip((ACROSS + 0.1) / 0.2, 0.0, 1.0))
    painted(light, BODY, lit)
    head(light)
    reading = read(light)
    assert len(reading.may_be_lost) == 1
    assert covers(reading, BODY) > 0.8


def test_a_shirt_between_head_and_trousers_and_trousers_under_a_coat() -> None:
    shirt = [(440, 180), (520, 180), (555, 205), (550, 360), (410, 360), (405, 205)]
    legs = [(425, 350), (535, 350), (525, 505), (435, 505)]
    for upper, lower in ((0.7 * GREEN, np.array(DARK)), (np.array(DARK), 1.35 * GREEN)):
        light = screen()
        painted(light, legs, lower)
        painted(light, shirt, upper)
        head(light, y=115)
        reading = read(light)
        assert len(reading.may_be_lost) == 1
        assert covers(reading, shirt) > 0.9
        assert covers(reading, legs) > 0.85


@pytest.mark.parametrize("soft", [1.5, 12.0])
def test_what_stands_on_the_run_has_a_shadow_and_has_lost_nothing(soft: float) -> None:
    shadow = np.zeros((HIGH, WIDE), np.float32)
    cv2.fillPoly(shadow, [np.array([(440, 400), (520, 400), (430, 520), (330, 520)], np.int32)], 1.0)
    light = screen() * (1.0 - 0.5 * cv2.GaussianBlur(shadow, (0, 0), soft))[..., None]
    light[300:400, 440:520] = (0.25, 0.14, 0.06)
    assert read(light).may_be_lost == ()


def test_somebody_whole_with_a_hard_shadow_beside_has_lost_nothing() -> None:
    light = screen()
    outline = [*BODY, (448, 175)]
    painted(light, [(x + 90, y + 15) for x, y in outline], 0.55 * GREEN * (1.0 - 0.3 * ACROSS))
    painted(light, BODY, np.array(DARK))
    head(light)
    assert read(light).may_be_lost == ()
