"""Screens that no colour is sure of: a question with places to point at, and read where somebody points."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
import pytest
from click.testing import CliRunner

from ausblick.cli.commands import app
from ausblick.core.colour.curves import rec709
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Floats
from ausblick.core.matte.key_report import key_report
from ausblick.core.matte.keyer import plain_key

Light = tuple[float, float, float]
GREEN, BLUE, WALL = (0.03, 0.25, 0.06), (0.04, 0.07, 0.30), (0.45, 0.43, 0.40)
MUSLIN = (0.06, 0.34, 0.10)


def shot(screen: Light, second: Light | None = None, wall: Light = WALL) -> Floats:
    """Signal (270, 480, 3) of a screen before a wall, somebody in a dark coat before it."""
    light = np.empty((270, 480, 3))
    light[:] = wall
    light[20:250, 80:400] = screen
    if second is not None:
        light[30:240, 10:75] = second
    light[125:, 190:290] = (0.11, 0.12, 0.12)
    cv2.ellipse(light, (240, 85), (28, 38), 0, 0, 360, (0.45, 0.30, 0.22), -1)
    light *= (1.0 - 0.2 * np.linspace(-1.0, 1.0, 480) ** 2)[None, :, None]
    noise = np.random.default_rng(2).normal(0.0, 0.005, light.shape)
    return np.asarray(np.clip(rec709(light) + noise, 0.0, 1.0))


def dressed(cloth: Light, fold: bool = False) -> Frame:
    """Somebody in a garment of that colour; with a fold, before a floor run of another light that begins abruptly."""
    light = np.empty((270, 480, 3))
    light[:] = MUSLIN
    if fold:
        light[200:] = np.array(MUSLIN) * (1.9, 1.2, 1.5)
    light[110:, 190:290] = cloth
    cv2.ellipse(light, (240, 75), (28, 38), 0, 0, 360, (0.45, 0.30, 0.22), -1)
    light[235:, 200:280] = (0.03, 0.03, 0.04)
    light = cv2.GaussianBlur(light, (0, 0), 0.8) * np.linspace(0.8, 1.1, 480)[None, :, None]
    signal = np.clip(rec709(light) + np.random.default_rng(2).normal(0.0, 0.008, light.shape), 0.0, 1.0)
    return Frame((65535.0 * signal).astype(np.uint16), 65535.0)


def frame(*args: Light, **named: Light) -> Frame:
    return Frame((65535.0 * shot(*args, **named)).astype(np.uint16), 65535.0)


@pytest.mark.parametrize(
    ("screen", "hue"),
    [
        ((0.03, 0.25, 0.21), "green"),
        ((0.04, 0.17, 0.22), "blue"),
        ((0.22, 0.30, 0.04), "green"),
        ((0.30, 0.44, 0.32), "green"),
    ],
    ids=["teal", "cyan", "lime", "pale"],
)
def test_an_odd_screen_is_a_question_and_read_where_somebody_points(screen: Light, hue: str) -> None:
    odd = frame(screen)
    reading = read_frame(odd)
    assert reading.hue is None
    first = reading.candidates[0]
    assert (first.hue, first.area_percent) == (hue, pytest.approx(46.0, abs=2.0))
    assert np.min(first.corners, axis=0) == pytest.approx((1 / 6, 20 / 270), abs=0.01)
    pointed = read_frame(odd, region=first.corners)
    assert (pointed.hue, pointed.candidates) == (hue, ())
    assert pointed.screen_area_percent == pytest.approx(first.area_percent, abs=1.0)
    # The middle's own level, by hand, darker by up to a fifth of the light toward the sides.
    assert pointed.level_luma is not None
    weights = np.array([0.2126, 0.7152, 0.0722])
    brightest = 100.0 * float(rec709(np.array(screen)) @ weights)
    assert 0.88 * brightest < pointed.level_luma.mean < brightest


def test_two_screens_are_told_and_either_can_be_read() -> None:
    both = frame(GREEN, second=BLUE)
    reading = read_frame(both)
    assert reading.hue == "green"
    (other,) = reading.candidates
    assert (other.hue, other.area_percent) == ("blue", pytest.approx(10.5, abs=1.0))
    assert read_frame(both, region=other.corners).hue == "blue"


def parted(*holes: tuple[int, int, int, int], mirror: tuple[int, int, int, int] | None = None) -> Frame:
    """A screen from edge to edge of (80, 20) to (400, 250), cut by dark bodies (x, y, x, y); seen in a mirror too."""
    light = np.empty((270, 480, 3))
    light[:] = WALL
    light[20:250, 80:400] = GREEN
    for left, top, right, bottom in holes:
        light[top:bottom, left:right] = (0.11, 0.12, 0.12)
    if mirror is not None:
        left, top, right, bottom = mirror
        light[top:bottom, left:right] = 0.6 * np.array(GREEN)
    noise = np.random.default_rng(4).normal(0.0, 0.005, light.shape)
    return Frame((65535.0 * np.clip(rec709(light) + noise, 0.0, 1.0)).astype(np.uint16), 65535.0)


def test_a_screen_in_a_mirror_is_a_question() -> None:
    """Read is the screen alone: what is darker in the mirror makes it no less even, and nobody leaves it there."""
    shown = parted((190, 100, 290, 270), mirror=(415, 90, 470, 180))
    reading = read_frame(shown)
    assert reading.hue == "green"
    assert reading.screen_area_percent == pytest.approx(100.0 * (320 * 230 - 100 * 150) / (270 * 480), abs=1.5)
    assert reading.even_percent is not None
    assert reading.even_percent < 2.0
    assert reading.contact is not None
    assert reading.contact.screen_sides == ("bottom",)
    (mirrored,) = reading.candidates
    assert (mirrored.hue, mirrored.area_percent) == ("green", pytest.approx(100.0 * 55 * 90 / (270 * 480), abs=0.5))
    pointed = read_frame(shown, region=mirrored.corners)
    assert pointed.candidates == ()
    assert pointed.screen_area_percent == pytest.approx(mirrored.area_percent, rel=0.1)
    both = read_frame(shown, region=((0, 0), (1, 0), (1, 1), (0, 1)))
    assert both.candidates == ()
    assert both.screen_area_percent == pytest.approx(reading.screen_area_percent + mirrored.area_percent, abs=1.0)


@pytest.mark.parametrize(
    "bodies",
    [[(200, 0, 280, 270)], [(200, 0, 280, 270), (60, 120, 420, 150)], [(180, 60, 300, 270), (170, 120, 180, 200)],
     [(80, 0, 160, 270), (240, 0, 300, 270)], [(80, 60, 160, 270), (320, 60, 400, 270), (160, 100, 320, 120)]],
    ids=["one from top to bottom", "arms over both edges", "a hand on the hip", "two people", "two hand in hand"],
)  # fmt: skip
def test_a_screen_that_bodies_cut_into_parts_is_one(bodies: list[tuple[int, int, int, int]]) -> None:
    assert read_frame(parted(*bodies)).candidates == ()


def test_a_screen_in_many_small_pieces_is_read_all_the_same() -> None:
    """Seen through a grid of dark bars, no piece of it is a hundredth of the picture."""
    bars = [(x, 0, x + 20, 270) for x in range(90, 400, 40)] + [(0, y, 480, y + 22) for y in range(30, 250, 44)]
    reading = read_frame(parted(*bars))
    assert (reading.hue, reading.candidates) == ("green", ())


def test_a_screen_that_is_sure_asks_nothing() -> None:
    assert read_frame(frame(GREEN)).candidates == ()
    assert read_frame(frame(WALL)).hue is None
    assert read_frame(frame(WALL)).candidates == ()


def test_on_the_command_line_the_place_is_named_and_can_be_given(tmp_path: Path) -> None:
    path = tmp_path / "teal.png"
    cv2.imwrite(str(path), (255.0 * shot((0.03, 0.25, 0.21))[..., ::-1]).astype(np.uint8))
    told = CliRunner().invoke(app, ["measure", str(path)])
    assert "no green or blue screen found" in told.output
    (line,) = [line for line in told.output.splitlines() if "may be a screen" in line]
    inside = line.rsplit("--inside ", 1)[1]
    assert "green screen on 4" in CliRunner().invoke(app, ["measure", str(path), "--inside", inside]).output
    wrong = CliRunner().invoke(app, ["measure", str(path), "--inside", "0,0,2,1"], standalone_mode=False)
    assert "two opposite corners" in str(wrong.exception)


@pytest.mark.parametrize("cloth", [(0.10, 0.30, 0.15), (0.06, 0.22, 0.12), (0.10, 0.25, 0.06)])
def test_a_garment_near_the_screens_hue_is_the_figures_and_its_holes_are_told(cloth: Light) -> None:
    shirt = dressed(cloth)
    reading = read_frame(shirt)
    (place,) = reading.may_be_lost
    assert (place.x, place.x + place.w) == pytest.approx((190 / 480, 290 / 480), abs=0.02)
    assert place.y == pytest.approx(110 / 270, abs=0.03)
    assert reading.contact is not None
    whole = (100 * 160 + np.pi * 28 * 38 * 0.9) / (270 * 480)
    assert float(reading.contact.figure.mean()) == pytest.approx(whole, rel=0.1)
    holes = key_report(plain_key(shirt, reading)).holes_percent
    assert holes is not None
    assert holes > 50.0


def test_a_raised_forearm_in_such_cloth_is_the_figures_too() -> None:
    """It touches the shirt with its edge alone, and is small."""
    light = np.empty((270, 480, 3))
    light[:] = MUSLIN
    cloth = (0.06, 0.22, 0.12)
    light[110:, 190:290] = cloth
    cv2.line(light, (330, 130), (305, 190), cloth, 13)
    cv2.ellipse(light, (240, 75), (28, 38), 0, 0, 360, (0.45, 0.30, 0.22), -1)
    cv2.ellipse(light, (335, 112), (9, 16), 0, 0, 360, (0.45, 0.30, 0.22), -1)
    signal = rec709(cv2.GaussianBlur(light, (0, 0), 0.8)) + np.random.default_rng(2).normal(0.0, 0.004, light.shape)
    reading = read_frame(Frame((65535.0 * np.clip(signal, 0.0, 1.0)).astype(np.uint16), 65535.0))
    assert reading.found is not None
    assert not reading.found.mask[150:175, 316].any()
    assert reading.shadows == ()


def test_a_floor_run_in_other_light_and_a_plain_coat_are_nothing_lost() -> None:
    for one in (dressed((0.11, 0.12, 0.13)), dressed((0.11, 0.12, 0.13), fold=True)):
        reading = read_frame(one)
        assert reading.may_be_lost == ()
        holes = key_report(plain_key(one, reading)).holes_percent
        assert holes is not None
        assert holes < 3.0
