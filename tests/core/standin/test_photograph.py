"""Photographic material: a photograph of a person that a library ships, over generated screens, through codecs."""

from __future__ import annotations

from functools import cache

import cv2
import numpy as np
import pytest
from skimage import data

from ausblick.core.colour.curves import rec709, rec709_linear
from ausblick.core.diagnosis.trial_key import trial_key
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Bools, Floats32
from ausblick.core.plan import Recording
from ausblick.formats.recording import through

WIDTH, HEIGHT = 1280, 720
CODECS = [
    {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 25},
    pytest.param({"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": 120}, marks=pytest.mark.torture),
    {"codec": "uncompressed", "chroma": "4:4:4", "bits": 10, "mbit_s": 800},
]


@cache
def person() -> tuple[Floats32, Floats32]:
    """The photograph in linear light and how much of each pixel the person covers, both 620 px high."""
    photo = data.astronaut()
    mask = np.full(photo.shape[:2], cv2.GC_PR_BGD, np.uint8)
    mask[20:, 110:400], mask[60:180, 190:270] = cv2.GC_PR_FGD, cv2.GC_FGD
    mask[330:, 60:460], mask[:, 470:], mask[:300, :90] = cv2.GC_FGD, cv2.GC_BGD, cv2.GC_BGD
    cv2.grabCut(photo[..., ::-1].copy(), mask, None, np.zeros((1, 65)), np.zeros((1, 65)), 4, cv2.GC_INIT_WITH_MASK)
    solid = ((mask == cv2.GC_FGD) | (mask == cv2.GC_PR_FGD)).astype(np.uint8)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(solid)
    largest = labels == 1 + int(np.argmax(stats[1:, cv2.CC_STAT_AREA])) if count > 1 else solid > 0
    size = (620, 620)
    cover = cv2.GaussianBlur(cv2.resize(largest.astype(np.float32), size), (0, 0), 1.2)
    linear = rec709_linear(cv2.resize(photo, size).astype(np.float64) / 255.0)
    return np.asarray(linear, dtype=np.float32), np.asarray(cover, dtype=np.float32)


def composite(colour: tuple[float, float, float], uneven: float, noise: float) -> tuple[Floats32, Bools, Floats32]:
    """Signal (H, W, 3) of the person before a screen, the screen's mask, and the true matte."""
    linear, cover = person()
    x = np.linspace(-0.5, 0.5, WIDTH, dtype=np.float32)
    screen = np.array(colour, dtype=np.float32) * (1.0 + uneven * x)[None, :, None]
    frame = np.broadcast_to(screen, (HEIGHT, WIDTH, 3)).copy()
    matte = np.zeros((HEIGHT, WIDTH), np.float32)
    top, left = HEIGHT - 620, 330
    matte[top:, left : left + 620] = cover
    a = matte[..., None]
    figure = np.zeros_like(frame)
    figure[top:, left : left + 620] = linear
    frame = a * figure + (1.0 - a) * frame
    signal = rec709(frame.astype(np.float64)).astype(np.float32)
    grain = np.random.default_rng(2).normal(0.0, noise, signal.shape).astype(np.float32)
    return np.clip(signal + grain, 0.0, 1.0), matte < 0.02, matte


@pytest.mark.parametrize("recording", CODECS, ids=lambda r: str(r["chroma"]))
@pytest.mark.parametrize(
    ("colour", "hue"),
    [((0.045, 0.25, 0.075), "green"), pytest.param((0.05, 0.09, 0.34), "blue", marks=pytest.mark.torture)],
    ids=["green", "blue"],
)
def test_screen_and_key_of_a_photographed_person(
    recording: dict[str, object], colour: tuple[float, float, float], hue: str
) -> None:
    signal, is_screen, matte = composite(colour, 0.12, 0.006)
    decoded = through(
        [signal] * 2, Recording.model_validate(recording), 1e6 * float(str(recording["mbit_s"])) / 25.0
    )[0]
    frame = Frame(np.round(65535.0 * decoded).astype(np.uint16), 65535.0)
    reading = read_frame(frame)
    assert reading.hue == hue
    assert reading.found is not None
    truth = (
        cv2.resize(is_screen.astype(np.float32), reading.found.mask.shape[::-1], interpolation=cv2.INTER_AREA) > 0.5
    )
    assert float((reading.found.mask != truth).mean()) < 0.02
    trial = trial_key(frame, reading)
    assert trial is not None
    assert trial.residue_percent < 1.0
    assert trial.holes_percent is not None
    assert trial.holes_percent < 6.0
    assert float(np.abs(trial.pulled.matte - matte).mean()) < 0.02


def test_a_clean_plate_keys_an_uneven_screen_without_residue() -> None:
    signal, _, _ = composite((0.045, 0.25, 0.075), 0.9, 0.004)
    x = np.linspace(-0.5, 0.5, WIDTH)
    empty = np.broadcast_to(np.array([0.045, 0.25, 0.075]) * (1.0 + 0.9 * x)[None, :, None], (HEIGHT, WIDTH, 3))
    plate = Frame(np.asarray(rec709(empty), dtype=np.float32), 1.0)
    frame = Frame(signal, 1.0)
    reading = read_frame(frame)
    trial = trial_key(frame, reading, plate)
    assert trial is not None
    assert trial.residue_percent < 1.0
    assert trial.pulled.black_clip < 0.12
    with pytest.raises(ValueError, match="clean plate is"):
        trial_key(frame, reading, Frame(plate.pixels[:100], 1.0))


def test_residue_and_holes_are_located() -> None:
    signal, _, _ = composite((0.045, 0.25, 0.075), 0.0, 0.003)
    signal[80:140, 90:190] *= 0.72
    linear, cover = person()
    assert linear.shape[:2] == cover.shape
    # A green badge on the chest.
    signal[600:660, 620:690] = rec709(np.array([0.045, 0.2, 0.075]))
    frame = Frame(signal, 1.0)
    trial = trial_key(frame, read_frame(frame))
    assert trial is not None
    dark = trial.residue[0]
    assert (dark.x, dark.y) == pytest.approx((90 / WIDTH, 80 / HEIGHT), abs=0.05)
    over = trial.over(np.zeros(3, dtype=np.float32))
    assert float(over[30, 30].max()) < 0.02
