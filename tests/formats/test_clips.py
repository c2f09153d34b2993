"""Clips made by code with known truth, through real codecs and containers."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest
from click.testing import CliRunner

from ausblick.cli.commands import app
from ausblick.core.frames.clip_timing import timing_of
from ausblick.core.plan import Recording
from ausblick.formats.clips import RANGE_TAG, is_clip, read_clip
from ausblick.formats.images import ImageError
from ausblick.formats.recording import _fill, _planes, pixel_format

GREEN, BLUE = (0.21, 0.58, 0.29), (0.16, 0.29, 0.61)


def write(
    path: Path, colour: tuple[float, float, float] = GREEN, codec: str = "libx264", frames: int = 50,
    recording: dict[str, Any] | None = None, flicker: float = 0.0, hertz: float = 3.0, drift: float = 0.0,
    noise: float = 0.0, options: dict[str, str] | None = None, walk: float = 0.0, slope: float = 0.0,
) -> Path:  # fmt: skip
    """A clip of a screen with a figure on it; flicker, drift and slope in parts of the signal; `walk`: pixels that
    the figure goes to either side, once in two seconds."""
    own = Recording.model_validate({"codec": "x", "chroma": "4:2:0", "bits": 8, "mbit_s": 20, **(recording or {})})
    rng = np.random.default_rng(3)
    screen = np.ones((360, 1, 1), np.float32) * np.linspace(1.0 - slope, 1.0 + slope, 640, dtype=np.float32)[:, None]
    screen = screen * np.array(colour, dtype=np.float32)
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream(codec, rate=25, options=options or {"qp": "16", "preset": "superfast"})
        stream.width, stream.height, stream.pix_fmt = 640, 360, pixel_format(own)
        stream.codec_context.colorspace = 1
        setattr(stream.codec_context, RANGE_TAG, 1)
        for i in range(frames):
            level = 1.0 + flicker * np.sin(2.0 * np.pi * hertz * i / 25.0) + drift * i / frames
            signal = np.float32(level) * screen
            at = round(walk * np.sin(np.pi * i / 25.0))
            signal[120:, 270 + at : 370 + at] = (0.45, 0.36, 0.31)
            signal += rng.normal(0.0, noise, signal.shape).astype(np.float32) if noise else 0.0
            frame = av.VideoFrame(640, 360, pixel_format(own))
            for plane, values in zip(frame.planes, _planes(np.clip(signal, 0, 1), own), strict=True):
                _fill(plane, values)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return path


LUMA = np.array([0.2126, 0.7152, 0.0722])


@pytest.mark.parametrize(
    ("name", "codec", "recording", "options"),
    [
        ("a.mp4", "libx264", {}, {"qp": "16"}),
        ("b.mov", "libx264", {"chroma": "4:2:2", "bits": 10}, {"qp": "12"}),
        ("c.mkv", "ffv1", {"chroma": "4:4:4", "bits": 10}, {}),
        ("d.mp4", "libx265", {"bits": 10}, {"x265-params": "qp=14:log-level=none"}),
    ],
)
@pytest.mark.parametrize("colour", [GREEN, BLUE], ids=["green", "blue"])
def test_levels_and_facts_of_every_codec(
    tmp_path: Path, name: str, codec: str, recording: dict[str, Any], options: dict[str, str],
    colour: tuple[float, float, float],
) -> None:  # fmt: skip
    path = write(tmp_path / name, colour, codec, frames=12, recording=recording, options=options)
    facts, clip = read_clip(path)
    assert (facts.chroma, facts.bits) == (recording.get("chroma", "4:2:0"), recording.get("bits", 8))
    assert (facts.matrix, facts.full_range) == ("709", False)
    assert facts.fps == 25
    assert facts.mbit_s > 0
    assert clip.frame.hue == ("green" if colour == GREEN else "blue")
    assert clip.frame.level_luma is not None
    assert clip.frame.level_key_channel is not None
    assert clip.frame.level_luma.mean == pytest.approx(100 * float(np.array(colour) @ LUMA), abs=0.8)
    assert clip.frame.level_key_channel.mean == pytest.approx(100 * max(colour), abs=0.8)
    assert clip.timing.flicker_percent < 0.1
    assert abs(clip.timing.drift_percent) < 0.1
    assert clip.breaches == ()


def test_flicker_its_frequency_and_drift(tmp_path: Path) -> None:
    level = 100 * float(np.array(GREEN) @ LUMA)
    _, clip = read_clip(write(tmp_path / "f.mp4", flicker=0.02, hertz=3.4, frames=75))
    assert clip.timing.flicker_percent == pytest.approx(2 * 0.02 * level, rel=0.12)
    assert clip.timing.flicker_hz == pytest.approx(3.4, rel=0.05)
    _, clip = read_clip(write(tmp_path / "g.mp4", drift=0.1, frames=50))
    assert clip.timing.drift_percent == pytest.approx(0.1 * level * 0.9, rel=0.1)
    assert clip.timing.flicker_percent < 0.3


@pytest.mark.parametrize("flicker", [pytest.param(0.0, marks=pytest.mark.torture), 0.01])
def test_who_walks_before_a_screen_is_no_flicker(tmp_path: Path, flicker: float) -> None:
    """A body of another brightness, before a screen that is brighter on one side; a lamp is told beside it."""
    path = write(tmp_path / "walk.mp4", frames=150, flicker=flicker, hertz=3.0, walk=150.0, slope=0.1)
    timing = read_clip(path)[1].timing
    level = 100.0 * float(LUMA @ GREEN)
    assert timing.flicker_percent == pytest.approx(2.0 * flicker * level, abs=0.1)
    assert abs(timing.drift_percent) < 0.15


def test_temporal_noise(tmp_path: Path) -> None:
    path = write(
        tmp_path / "n.mkv",
        codec="ffv1",
        recording={"chroma": "4:4:4", "bits": 10},
        noise=0.012,
        options={},
        frames=12,
    )
    _, clip = read_clip(path)
    # Luma of three independent channels.
    assert clip.temporal_noise_percent == pytest.approx(1.2 * float(np.sqrt((LUMA**2).sum())), rel=0.3)


def test_no_flicker_is_invented_in_plain_noise() -> None:
    rng = np.random.default_rng(5)
    for _ in range(20):
        assert timing_of(50.0 + rng.normal(0, 0.05, 120), 25.0).flicker_hz is None


def run(*args: str) -> Any:
    return CliRunner().invoke(app, list(args))


def test_measure_takes_clips_and_refuses_broken_ones(tmp_path: Path) -> None:
    path = write(tmp_path / "a.mp4", frames=12)
    done = run("measure", str(path), "--json")
    report = json.loads(done.output)
    assert done.exit_code == 0
    assert (report["container"], report["codec"], report["pix_fmt"], report["hue"]) == (
        "mov",
        "h264",
        "yuv420p",
        "green",
    )
    assert set(report) >= {
        "chroma",
        "bits",
        "mbit_s",
        "fps",
        "flicker_percent",
        "drift_percent",
        "level_luma",
        "grid",
    }
    assert "frames at 25.00" in run("measure", str(path)).output
    data = path.read_bytes()
    for name, content in (
        ("cut.mp4", data[:300]),
        ("junk.mkv", b"\x1a\x45\xdf\xa3" + bytes(400)),
        ("x.mp4", data[:12] + b"no" * 99),
    ):
        (tmp_path / name).write_bytes(content)
        assert is_clip(content[:16])
        with pytest.raises(ImageError):
            read_clip(tmp_path / name)
