"""Marks are told as marks and do not make a screen uneven; a stand at the edge is no subject."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest
from click.testing import CliRunner

from ausblick.cli.commands import app
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.geometry.vectors import Floats
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_picture
from ausblick.demo.fern_house import scree
from ausblick.demo.fern_house_2 import gardeners, seed_jar
from tests.stores import STORE

GREEN = np.array([0.21, 0.58, 0.29])
WIDE, HIGH = 1600, 900
PLACES = [(round(WIDE * x), round(HIGH * y)) for y in (0.16, 0.5, 0.84) for x in (0.1, 0.3, 0.7, 0.9)]


def screen() -> Floats:
    across = np.linspace(-1.0, 1.0, WIDE)[None, :, None]
    down = np.linspace(-1.0, 1.0, HIGH)[:, None, None]
    return np.asarray(GREEN * (1.0 - 0.08 * across**2 - 0.04 * down))


def crosses(picture: Floats, colour: Any, half: int = 8) -> Floats:
    """Twelve; `colour` a share of the screen's own light, or a colour."""
    marked = picture.copy()
    for x, y in PLACES:
        paint = picture[y, x] * colour if np.ndim(colour) == 0 else np.array(colour)
        marked[y - 3 * half : y + 3 * half, x - half : x + half] = paint
        marked[y - half : y + half, x - 3 * half : x + 3 * half] = paint
    return marked


def read(picture: Floats, noise: float = 0.006) -> FrameReading:
    with_figure = picture.copy()
    with_figure[360:, 720:880] = (0.45, 0.36, 0.31)
    grain = np.random.default_rng(4).normal(0.0, noise, picture.shape)
    return read_frame(Frame(np.round(255.0 * np.clip(with_figure + grain, 0, 1)).astype(np.uint8), 255.0))


@pytest.mark.parametrize(
    "colour",
    [
        pytest.param(0.85, id="darker", marks=pytest.mark.torture),
        pytest.param(0.95, id="a little darker"),
        pytest.param(1.12, id="brighter", marks=pytest.mark.torture),
        pytest.param((0.8, 0.1, 0.1), id="red"),
        pytest.param((0.9, 0.9, 0.9), id="white", marks=pytest.mark.torture),
        pytest.param((0.05, 0.05, 0.05), id="black", marks=pytest.mark.torture),
    ],
)
def test_twelve_marks_are_twelve_marks_and_no_shadow(colour: Any) -> None:
    plain, marked = read(screen()), read(crosses(screen(), colour))
    assert plain.marks == ()
    assert len(marked.marks) == 12
    for x, y in PLACES:
        u, v = x / WIDE, y / HIGH
        (mark,) = [one for one in marked.marks if one.x < u < one.x + one.w and one.y < v < one.y + one.h]
        assert mark.x + mark.w / 2 == pytest.approx(x / WIDE, abs=0.004)
        assert mark.y + mark.h / 2 == pytest.approx(y / HIGH, abs=0.006)
        assert mark.w == pytest.approx(48 / WIDE, abs=0.008)
    assert marked.shadows == ()
    assert marked.hot_spots == ()
    assert marked.even_percent == pytest.approx(plain.even_percent, abs=0.5)
    assert marked.level_luma is not None
    assert plain.level_luma is not None
    assert marked.level_luma.mean == pytest.approx(plain.level_luma.mean, abs=0.2)
    assert marked.level_luma.p1 == pytest.approx(plain.level_luma.p1, abs=0.5)


def test_a_shadow_and_a_pushed_lamp_are_no_marks() -> None:
    y, x = np.mgrid[:HIGH, :WIDE]
    soft = 1.0 - 0.2 * np.exp(-(((x - 300) / 60.0) ** 2 + ((y - 300) / 60.0) ** 2))
    shaded = read(screen() * soft[..., None])
    assert shaded.marks == ()
    assert len(shaded.shadows) == 1
    one_patch = crosses(screen(), 1.0)
    one_patch[200:230, 300:330] *= 0.85
    assert read(one_patch).marks == ()


@pytest.mark.parametrize(
    "plan", [seed_jar, *(pytest.param(one, marks=pytest.mark.torture) for one in (scree, gardeners))]
)
def test_hair_hands_and_folds_are_no_marks(plan: Any) -> None:
    picture = standin_picture(standin_capture(AsBuilt(plan()), STORE), 960, 1)
    assert read_frame(Frame(picture, 255.0)).marks == ()


def test_folds_all_over_a_cloth_are_no_marks_and_count_as_unevenness() -> None:
    rough = np.random.default_rng(11).normal(0.0, 1.0, (HIGH, WIDE))
    folds = cv2.GaussianBlur(rough, (0, 0), 9.0) - cv2.GaussianBlur(rough, (0, 0), 25.0)
    # Deep in one half, as under light from a side, hardly there in the other.
    depth = 0.02 + 0.10 * (np.arange(WIDE) < 700)
    folded, plain = (
        read(screen() * share[..., None]) for share in (1.0 + depth * folds / folds.std(), np.ones((HIGH, 1)))
    )
    assert folded.marks == ()
    assert folded.band_percent is not None
    assert plain.band_percent is not None
    assert folded.band_percent > plain.band_percent + 8.0


def test_loose_hair_is_no_mark_however_far_it_flies() -> None:
    hair, rng = screen(), np.random.default_rng(5)
    for angle in rng.uniform(0.0, 2.0 * np.pi, 260):
        along = np.linspace(60.0, rng.uniform(80.0, 190.0), 14)[:, None] * (np.cos(angle), 0.9 * np.sin(angle))
        strand = (along + rng.normal(0.0, 5.0, along.shape).cumsum(axis=0) * 0.4 + (800, 330)).astype(np.int32)
        cv2.polylines(hair, [strand], False, (0.2, 0.14, 0.1), 1, cv2.LINE_AA)
    cv2.ellipse(hair, (800, 330), (80, 110), 0, 0, 360, (0.2, 0.14, 0.1), -1)
    assert read(hair).marks == ()
    assert len(read(crosses(hair, (0.8, 0.1, 0.1))).marks) == 12


def test_a_stand_at_the_edge_is_a_thing_and_no_contact_of_the_subject(tmp_path: Path) -> None:
    picture = screen()
    picture[300:, 1480:1500] = (0.06, 0.06, 0.06)
    found = read(picture).contact
    assert found is not None
    assert found.things == ("bottom",)
    assert not found.matters
    assert not found.figure[:, 560:].any()
    # An arm that leaves the picture is the subject's, and matters.
    arm = screen()
    arm[420:470, 0:760] = (0.45, 0.36, 0.31)
    touching = read(arm).contact
    assert touching is not None
    assert (touching.things, set(touching.frame_sides)) == ((), {"bottom", "left"})
    assert touching.matters
    # A hand that a tape cuts off from its arm stays the subject's.
    cut = screen()
    cut[420:470, 0:300] = cut[420:470, 306:760] = (0.45, 0.36, 0.31)
    assert set((read(cut).contact or found).frame_sides) == {"bottom", "left"}
    file = tmp_path / "frame.png"
    cv2.imwrite(str(file), np.round(255.0 * crosses(screen(), (0.8, 0.1, 0.1)))[..., ::-1].astype(np.uint8))
    report = json.loads(CliRunner().invoke(app, ["measure", str(file), "--json"]).output)
    assert len(report["marks"]) == 12
    assert set(report["marks"][0]) == {"x", "y", "w", "h"}
    printed = CliRunner().invoke(app, ["measure", str(file)]).output
    assert "12 marks on the screen" in printed
