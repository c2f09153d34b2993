"""Bands of flickering light under a shutter that reads row by row, through a real encoder; and what is none."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import pytest
from click.testing import CliRunner

from ausblick.cli.commands import app
from ausblick.core.frames.bands import Bands, bands_of, block_means
from ausblick.core.frames.bands_in_words import bands_cure, bands_not_told, bands_told
from ausblick.core.frames.clip_timing import noise_between, timing_of
from ausblick.core.geometry.vectors import Floats, Floats32
from ausblick.core.plan import Recording
from ausblick.core.sentences import say
from ausblick.formats.clips import RANGE_TAG, read_clip
from ausblick.formats.recording import _fill, _planes, pixel_format

OWN = Recording(codec="x", chroma="4:2:0", bits=8, mbit_s=20.0)
GREEN = np.array([0.05, 0.30, 0.08])
LUMA = np.array([0.2126, 0.7152, 0.0722])


def signal_of(light: Floats) -> Floats:
    return np.asarray(1.099 * light**0.45 - 0.099)


def filmed(
    path: Path, fps: int, hz: float, depth: float, readout: float = 0.02, frames: int = 40, noise: float = 0.004
) -> Path:
    """Light of `hz` with a contrast of `depth` after the shutter; a figure that walks stands before the screen."""
    dice = np.random.default_rng(2)
    rows, width = 270, 480
    slope = 1.0 + 0.15 * (np.linspace(0, 1, width)[None, :] - 0.5)
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("libx264", rate=fps, options={"qp": "14", "preset": "superfast"})
        stream.width, stream.height, stream.pix_fmt = width, rows, pixel_format(OWN)
        stream.codec_context.colorspace = 1
        setattr(stream.codec_context, RANGE_TAG, 1)
        for n in range(frames):
            moment = n / fps + readout * np.arange(rows) / rows
            light = (1.0 + depth * np.cos(2.0 * np.pi * hz * moment))[:, None] * slope
            signal = signal_of(light[..., None] * GREEN)
            x = 180 + n
            signal[80:, x : x + 66] = (0.45, 0.36, 0.31)
            signal = np.clip(signal + dice.normal(0.0, noise, signal.shape), 0.0, 1.0).astype(np.float32)
            frame = av.VideoFrame(width, rows, pixel_format(OWN))
            for plane, values in zip(frame.planes, _planes(signal, OWN), strict=True):
                _fill(plane, values)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return path


def truth(depth: float) -> tuple[float, float]:
    """Of the luma: from dark to bright in points, and the amplitude about the level in %."""
    high, low = (float(signal_of((1.0 + sign * depth) * GREEN) @ LUMA) for sign in (1.0, -1.0))
    return 100.0 * (high - low), 50.0 * float(np.log(high / low))


@pytest.mark.parametrize(
    ("fps", "hz", "travel"),
    [
        (24, 100.0, 4.0),
        (25, 120.0, -5.0),
        *(pytest.param(*one, marks=pytest.mark.torture) for one in ((30, 100.0, 10.0), (50, 120.0, 20.0))),
    ],
)
def test_bands_that_travel_are_told_with_the_lamp_and_the_readout(
    tmp_path: Path, fps: int, hz: float, travel: float
) -> None:
    _, clip = read_clip(filmed(tmp_path / "a.mp4", fps, hz, 0.2))
    bands = clip.bands
    assert bands is not None
    swing, amplitude = truth(0.2)
    assert bands.swing_percent == pytest.approx(swing, rel=0.04)
    assert bands.amplitude_percent == pytest.approx(amplitude, rel=0.04)
    assert bands.hz == pytest.approx(hz, abs=0.1)
    assert bands.travel_hz == pytest.approx(travel, abs=0.1)
    assert bands.spacing_percent == pytest.approx(100.0 / (hz * 0.02), rel=0.02)
    assert bands.readout_ms == pytest.approx(20.0, rel=0.02)
    assert not bands.standing
    # Bands are no noise.
    assert clip.temporal_noise_percent == pytest.approx(40.0 * float(np.sqrt((LUMA**2).sum())) / 100.0, rel=0.35)


@pytest.mark.parametrize(
    ("fps", "hz"), [(25, 100.0), *(pytest.param(fps, 120.0, marks=pytest.mark.torture) for fps in (24, 30))]
)
def test_bands_that_stand_are_told_where_the_frame_rate_divides_it(tmp_path: Path, fps: int, hz: float) -> None:
    _, clip = read_clip(filmed(tmp_path / "a.mp4", fps, hz, 0.12, frames=24))
    assert clip.bands is not None
    assert clip.bands.standing
    assert clip.bands.hz == hz
    assert clip.bands.swing_percent == pytest.approx(truth(0.12)[0], rel=0.08)
    assert clip.timing.flicker_percent < 0.2


def test_a_steady_lamp_has_no_bands_and_says_nothing(tmp_path: Path) -> None:
    for fps in (24, 25):
        _, clip = read_clip(filmed(tmp_path / f"{fps}.mp4", fps, 100.0, 0.0, frames=30))
        assert clip.bands is None


def test_what_a_frame_rate_hides_is_said() -> None:
    """One broad band that stands is like the light's slope; where both mains' bands travel nothing is hidden."""
    said = bands_not_told(25.0)
    assert said is not None
    assert say(said) == "Not judged at 25 fps: a broad band of 100 Hz light; none at 1/50, 1/100"
    thirty = bands_not_told(29.97)
    assert thirty is not None
    assert "120 Hz" in say(thirty)
    assert bands_not_told(23.0) is None


def blocks(seed: int, folds: float, wobble: float, frames: int = 24) -> Floats32:
    """Means of a wrinkled screen whose exposure wobbles."""
    dice = np.random.default_rng(seed)
    creases = cv2.GaussianBlur(dice.normal(size=(135, 240)), (0, 0), 5) * 9.0
    light = 0.3 * (1.0 + folds * creases) * (1.0 + 0.3 * np.linspace(-0.5, 0.5, 135)[:, None] ** 2)
    means = []
    for n in range(frames):
        seen = signal_of(light * (1.0 + wobble * np.sin(0.9 * n))) + dice.normal(0.0, 0.004, light.shape)
        means.append(block_means(seen.astype(np.float32), np.ones(light.shape, bool)))
    return np.array(means)


def test_creases_slopes_and_a_wobbling_exposure_are_no_bands() -> None:
    seen = [blocks(seed, 0.03, 0.01 * (seed % 2)) for seed in range(16)]
    assert [bands_of(means, fps) for means in seen for fps in (24.0, 25.0)] == [None] * 32


def test_the_cure_is_a_shutter_that_holds_whole_flashes() -> None:
    travelling = Bands(7.0, 8.4, 100.0, 4.0, 50.0, 20.0, False)
    assert say(bands_told(travelling)) == "Bands of 8.4 points pass 4.0 times a second: light of 100 Hz, fast shutter"
    assert say(bands_cure(travelling, 24.0)) == "Shutter 1/25, 1/33, 1/50, 1/100, or lamps that do not flicker"
    assert say(bands_cure(travelling, 120.0)) == "Lamps that do not flicker, or a slower frame rate and shutter"
    standing = Bands(7.0, 9.7, 120.0, 0.0, 50.0, 16.7, True)
    assert "or stripes in the cloth" in say(bands_told(standing))
    assert say(bands_cure(standing, 60.0)).startswith("Film it again with shutter 1/60, 1/120")


def levels(fps: float, hz: float, swing: float, frames: int, drift: float = 0.0, phase: float = 0.0) -> Floats:
    n = np.arange(frames)
    noise = np.random.default_rng(frames).normal(0.0, 0.05, frames)
    return np.asarray(50.0 + 0.5 * swing * np.cos(2 * np.pi * hz * n / fps + phase) + drift * n / frames + noise)


@pytest.mark.parametrize(
    ("fps", "hz", "swing", "frames", "drift"),
    [
        (200.0, 100.0, 8.8, 100, 0.0),
        (29.97, 0.12, 4.0, 300, 0.0),
        (25.0, 2.0, 2.0, 20, 0.0),
        (25.0, 3.4, 2.0, 75, 5.0),
        (50.0, 24.9, 2.0, 100, 0.0),
    ],
    ids=["half the frame rate", "a slow beat", "a short clip", "beside a drift", "near half the frame rate"],
)
def test_flicker_and_drift_are_told_apart(fps: float, hz: float, swing: float, frames: int, drift: float) -> None:
    timing = timing_of(levels(fps, hz, swing, frames, drift), fps)
    assert timing.flicker_percent == pytest.approx(swing, rel=0.06)
    assert timing.flicker_hz == pytest.approx(hz, rel=0.02)
    assert timing.drift_percent == pytest.approx(0.9 * drift, abs=0.15)


def test_a_lamp_that_warms_up_is_drift_and_no_flicker() -> None:
    n = np.arange(200)
    warm = 50.0 + 5.0 * (n / 200.0) ** 2 + np.random.default_rng(1).normal(0.0, 0.05, 200)
    timing = timing_of(warm, 25.0)
    assert (timing.flicker_hz, timing.flicker_percent) == (None, 0.0)
    assert timing.drift_percent == pytest.approx(4.5, abs=0.2)


def walk(seed: int, frames: int, step: float = 0.03) -> Floats:
    """Clouds before the window: the level goes its own way."""
    dice = np.random.default_rng(seed)
    return np.asarray(50.0 + np.cumsum(dice.normal(0.0, step, frames)) + dice.normal(0.0, 0.03, frames))


@pytest.mark.parametrize("frames", [50, 100, 250, 1500])
def test_a_level_that_wanders_does_not_flicker(frames: int) -> None:
    told = [timing_of(walk(seed, frames), 25.0).flicker_hz for seed in range(40)]
    assert sum(hz is not None for hz in told) <= 2


@pytest.mark.parametrize("hz", [2.3, 5.0, 12.0])
def test_flicker_beside_a_level_that_wanders_is_still_told(hz: float) -> None:
    for seed in range(10):
        n = np.arange(250)
        timing = timing_of(walk(seed, 250) + 0.5 * np.cos(2.0 * np.pi * hz * n / 25.0), 25.0)
        assert timing.flicker_hz == pytest.approx(hz, abs=0.05)
        assert timing.flicker_percent == pytest.approx(1.0, rel=0.1)


@pytest.mark.parametrize(("frames", "turns"), [(50, 3.3), (50, 18.7), (100, 6.2), (250, 3.3), (250, 10.4)])
def test_flicker_that_is_no_pure_wave_is_told_as_flicker(frames: int, turns: float) -> None:
    """Lamps that are dimmed by pulses: overtones nearly as strong as the wave, some above half the frame rate."""
    at = 2.0 * np.pi * turns * np.arange(frames) / frames
    for seed in range(6):
        dice = np.random.default_rng(seed)
        level = np.cos(at + 1.0) + 0.7 * np.cos(2.0 * at + seed) + 0.3 * np.cos(3.0 * at)
        timing = timing_of(50.0 + level + dice.normal(0.0, 0.05, frames), 25.0)
        assert timing.flicker_hz is not None
        assert timing.flicker_percent == pytest.approx(2.0, rel=0.25)


def test_what_rows_have_in_common_is_no_noise() -> None:
    dice = np.random.default_rng(3)
    before, now = (0.5 + dice.normal(0.0, 0.01, (90, 160)).astype(np.float32) for _ in range(2))
    banded = now + 0.04 * np.sin(np.arange(90, dtype=np.float32))[:, None]
    inside = np.ones((90, 160), bool)
    assert noise_between(before, now, inside) == pytest.approx(1.0, rel=0.03)
    assert noise_between(before, banded, inside) == pytest.approx(1.0, rel=0.03)


def test_the_command_line_answers_with_the_bands(tmp_path: Path) -> None:
    path = str(filmed(tmp_path / "a.mp4", 24, 100.0, 0.2, frames=24))
    report = json.loads(CliRunner().invoke(app, ["measure", path, "--json"]).output)
    assert report["bands"]["standing"] is False
    assert report["bands"]["hz"] == pytest.approx(100.0, abs=0.2)
    assert report["bands"]["amplitude_percent"] > 5.0
    printed = CliRunner().invoke(app, ["measure", path]).output
    assert "light of 100 Hz" in printed
    assert "Shutter 1/25" in printed
