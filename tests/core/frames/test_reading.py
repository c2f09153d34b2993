from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.diagnosis.comparison import compare, verdict
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import FrameReading, frame_scopes, read_frame
from ausblick.core.frames.scopes import WAVE_BINS, WAVE_TOP
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, apply_changes
from ausblick.core.standin.as_built import AsBuilt
from ausblick.demo.fern_house import seed_vault
from ausblick.demo.fill import record
from tests.conftest import BLUE, GREEN, frame
from tests.stores import STORE


def luma(rgb: tuple[float, float, float]) -> float:
    return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]


def read(deep: bool = False, **faults: Any) -> FrameReading:
    top, kind = (65535, np.uint16) if deep else (255, np.uint8)
    pixels = np.clip(np.round(frame(**faults) / 100 * top), 0, top).astype(kind)
    return read_frame(Frame(pixels, float(top)))


@pytest.mark.parametrize("deep", [False, True], ids=["8 bit", "16 bit"])
@pytest.mark.parametrize(("colour", "hue", "channel"), [(GREEN, "green", 1), (BLUE, "blue", 2)])
@pytest.mark.parametrize("around", [{}, {"wall": True, "figure": True}], ids=["full frame", "wall and figure"])
def test_levels_of_a_clean_screen(deep: bool, colour: Any, hue: str, channel: int, around: dict[str, Any]) -> None:
    reading = read(deep, colour=colour, noise=0.8, **around)
    assert reading.hue == hue
    assert reading.level_luma is not None
    assert reading.level_key_channel is not None
    assert reading.level_luma.mean == pytest.approx(luma(colour), abs=0.3)
    assert reading.level_key_channel.mean == pytest.approx(colour[channel], abs=0.3)
    assert reading.hot_spots == reading.shadows == ()
    assert reading.even_percent == pytest.approx(0.0, abs=0.4)
    assert reading.clipped_percent == 0.0


def test_area_zones_and_nulls() -> None:
    reading = read(wall=True)
    assert reading.screen_area_percent == pytest.approx(100 * 0.65 * 0.9, abs=0.6)
    assert reading.grid is not None
    assert all(
        value == pytest.approx(luma(GREEN), abs=0.2) for row in reading.grid for value in row if value is not None
    )
    far = np.full((720, 1280, 3), 40.0)
    far[:, :500] = GREEN
    reading = read_frame(Frame((far * 2.55).astype(np.uint8), 255.0))
    assert reading.grid is not None
    assert [row[2] for row in reading.grid] == [None, None, None]


def test_slope_is_read_as_slope_and_not_as_spots() -> None:
    reading = read(slope=12.0, noise=0.5)
    assert reading.slope_percent == pytest.approx((12.0, 0.0), abs=0.4)
    assert reading.even_percent == pytest.approx(12 * 0.98, abs=0.5)
    assert reading.hot_spots == reading.shadows == ()


@pytest.mark.parametrize("colour", [GREEN, BLUE])
def test_spot_and_shadow_are_found_where_they_are(colour: Any) -> None:
    reading = read(deep=True, colour=colour, spot=7.0, shadow=6.0, slope=4.0, noise=0.7)
    (hot,), (dark,) = reading.hot_spots, reading.shadows
    assert (hot.x + hot.w / 2, hot.y + hot.h / 2) == pytest.approx((0.70, 0.30), abs=0.02)
    assert (dark.x + dark.w / 2, dark.y + dark.h / 2) == pytest.approx((0.25, 0.60), abs=0.02)
    assert hot.delta_percent == pytest.approx(7.0, abs=1.0)
    assert dark.delta_percent == pytest.approx(-6.0, abs=1.0)


@pytest.mark.parametrize("sigma", [0.5, 1.5, 3.0])
def test_noise_is_measured_and_does_not_pass_for_spots(sigma: float) -> None:
    reading = read(deep=True, noise=sigma, slope=5.0)
    weights = np.array([0.2126, 0.7152, 0.0722])
    assert reading.noise_percent == pytest.approx(sigma * float(np.sqrt(weights @ weights)), rel=0.1)
    assert reading.hot_spots == reading.shadows == ()


def test_key_channel_trace_on_request() -> None:
    pixels = np.round(frame(slope=8.0) * 2.55).astype(np.uint8)
    by_key = read_frame(Frame(pixels, 255.0), "key-channel")
    assert by_key.grid is not None
    assert by_key.grid[1][1] == pytest.approx(GREEN[1], abs=0.3)
    assert by_key.band_percent == pytest.approx(8 * 0.98, abs=0.4)


def test_no_screen_no_readings() -> None:
    grey = read_frame(Frame(np.full((400, 600, 3), 120, np.uint8), 255.0))
    assert (grey.hue, grey.screen_area_percent, grey.level_luma, grey.grid) == (None, 0.0, None, None)
    skin = np.broadcast_to(np.array([180, 140, 120], np.uint8), (400, 600, 3))
    assert read_frame(Frame(skin.copy(), 255.0)).hue is None


def test_a_plant_of_another_green_is_not_the_screen() -> None:
    image = frame(noise=0.5)
    image[400:600, 900:1200] = (38.0, 45.0, 20.0)
    reading = read_frame(Frame(np.round(image * 2.55).astype(np.uint8), 255.0))
    assert reading.screen_area_percent == pytest.approx(100 * (1 - 200 * 300 / (720 * 1280)), abs=0.6)


def test_where_the_subject_touches() -> None:
    clear = read(figure=True, wall=True)
    assert clear.contact is not None
    assert not clear.contact.matters
    assert clear.contact.frame_sides == ("bottom",)
    image = frame(figure=True)
    image[300:360, :700] = (62.0, 50.0, 44.0)
    thrown = read_frame(Frame(np.round(image * 2.55).astype(np.uint8), 255.0)).contact
    assert thrown is not None
    assert "left" in thrown.frame_sides
    walled = frame(figure=True, wall=True)
    walled[300:360, 100:700] = (62.0, 50.0, 44.0)
    leaving = read_frame(Frame(np.round(walled * 2.55).astype(np.uint8), 255.0)).contact
    assert leaving is not None
    assert leaving.matters
    assert leaving.screen_sides == ("left",)


def test_scopes_show_the_level_at_its_height() -> None:
    pixels = np.round(frame() * 2.55).astype(np.uint8)
    picture = Frame(pixels, 255.0)
    scopes = frame_scopes(picture, read_frame(picture))
    row = int(np.argmax(scopes.waveform.sum(axis=1)))
    assert WAVE_TOP * (1 - (row + 0.5) / WAVE_BINS) == pytest.approx(luma(GREEN), abs=1.0)
    assert int(np.argmax(scopes.histogram)) == pytest.approx(luma(GREEN), abs=1.0)
    above, left = np.argwhere(scopes.vectorscope > 200)[0]
    assert above > 64 > left


@pytest.mark.torture
def test_a_frame_of_the_plan_agrees_with_the_plan() -> None:
    """Render, encode, decode, measure: what comes back is what `check` said."""
    plan = apply_changes(seed_vault(), [Change("camera.iso", 400.0)])
    evaluation = evaluate(plan, BasisStore())
    expected = expected_reading(evaluation, BasisStore())
    reading = read_frame(Frame(record(AsBuilt(plan), 1), 255.0))
    rows = {row.name: row for row in compare(evaluation, expected, reading)}
    assert [row.name for row in rows.values() if row.means] == []
    assert all(row.planned is not None and row.difference is not None for row in rows.values())
    for name, within in (("Screen, luma", 0.5), ("Screen, key channel", 0.5), ("Unevenness", 0.5), ("Hue", 1.0),
                         ("Left to right", 0.5), ("Saturation", 0.5), ("Screen in the frame", 1.0)):  # fmt: skip
        assert rows[name].difference == pytest.approx(0.0, abs=within), name
    # The plan's own band on the screen that it judges is another number, of another part of the screen.
    assert evaluation.screen is not None
    assert rows["Screen, luma"].planned == pytest.approx(evaluation.screen.level_luma, abs=3.0)
    assert expected.grid is not None
    assert reading.grid is not None
    assert reading.grid[1][0] == pytest.approx(expected.grid[1][0], abs=0.7)
    assert verdict(evaluation, expected, reading, list(rows.values())).state == "holds"
    dim = apply_changes(plan, [Change("lights[1].dimmer", 0.2)])
    darker = read_frame(Frame(record(AsBuilt(dim), 1), 255.0))
    said = verdict(evaluation, expected, darker, compare(evaluation, expected, darker))
    assert said.state == "fails"
    assert "planned" in said.says


def test_the_verdict_names_a_wrong_screen_first() -> None:
    evaluation = evaluate(seed_vault(), BasisStore())
    expected = expected_reading(evaluation, BasisStore())

    def says(reading: FrameReading) -> str:
        return verdict(evaluation, expected, reading, compare(evaluation, expected, reading)).says

    assert says(read(colour=BLUE)).startswith("Is this the screen? A blue one was found, and the plan says green")
    assert "clips" in says(read(colour=(60.0, 100.0, 60.0)))


def test_a_screen_more_even_than_planned_is_told_last_and_fails_nothing() -> None:
    evaluation = evaluate(seed_vault(), STORE)
    expected = replace(expected_reading(evaluation, STORE), even_percent=30.0, clipped_percent=0.0)
    even = replace(expected, even_percent=1.0, hot_spots=(), shadows=())
    said = verdict(evaluation, expected, even, compare(evaluation, expected, even))
    assert (said.state, said.says) == ("tight", "Unevenness: more even than planned.")
    assert even.level_luma is not None
    dark = replace(even, level_luma=replace(even.level_luma, mean=even.level_luma.mean - 20.0))
    said = verdict(evaluation, expected, dark, compare(evaluation, expected, dark))
    assert said.state == "fails"
    assert said.says.startswith("Screen, luma: darker than planned")


@pytest.mark.parametrize("wave", [0.02, *(pytest.param(wide, marks=pytest.mark.torture) for wide in (0.04, 0.08))])
@pytest.mark.parametrize("noise", [0.0, 1.0])
def test_folds_count_in_how_uneven_a_screen_is(wave: float, noise: float) -> None:
    """Folds of a fiftieth of the width and wider, over a slope, through grain: within 0.6 points of the truth."""
    y, x = np.mgrid[0:1080, 0:1920] / 1920.0
    luma = 45.0 + 12.0 * (x - 0.5) + 4.0 * np.sin(2 * np.pi * (x + 0.3 * y) / wave) * np.sin(np.pi * y / 0.4) ** 2
    cloth = np.array([0.25, 0.58, 0.29])
    picture = cloth * (luma / (100.0 * cloth @ [0.2126, 0.7152, 0.0722]))[..., None]
    picture += np.random.default_rng(1).normal(0.0, noise / 100.0, picture.shape)
    reading = read_frame(Frame((65535.0 * np.clip(picture, 0, 1)).astype(np.uint16), 65535.0))
    assert reading.even_percent == pytest.approx(float(np.ptp(np.percentile(luma, [1, 99]))), abs=0.6)
