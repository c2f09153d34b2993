"""Clips as cameras leave them: proxies beside them, other containers, cut short, pixels not square."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest
from click.testing import CliRunner

from ausblick.cli.commands import BadInput, app
from ausblick.formats.clips import LOOKED_AT, is_clip, open_clip

GREEN = (54, 148, 74)


def picture(width: int, height: int, colour: tuple[int, int, int] = GREEN) -> av.VideoFrame:
    pixels = np.empty((height, width, 3), np.uint8)
    pixels[:] = colour
    pixels[height // 3 :, width * 2 // 5 : width * 3 // 5] = (115, 92, 79)
    return av.VideoFrame.from_ndarray(pixels, "rgb24")


def track(container: Any, width: int, height: int, codec: str = "libx264", pix_fmt: str = "yuv420p") -> Any:
    stream = container.add_stream(codec, rate=25)
    stream.width, stream.height, stream.pix_fmt = width, height, pix_fmt
    return stream


def fill(container: Any, stream: Any, frames: int, colour: tuple[int, int, int] = GREEN) -> None:
    for _ in range(frames):
        container.mux(stream.encode(picture(stream.width, stream.height, colour).reformat(format=stream.pix_fmt)))
    container.mux(stream.encode(None))


def test_a_proxy_beside_the_picture_is_not_measured(tmp_path: Path) -> None:
    path = tmp_path / "a.mov"
    with av.open(str(path), "w") as container:
        small, large = track(container, 160, 90), track(container, 640, 360)
        fill(container, small, 6, (40, 60, 160))
        fill(container, large, 6)
    clip = open_clip(path)
    assert (clip.facts.width, clip.facts.height, clip.middle.width) == (640, 360, 640)
    assert clip.reading.frame.hue == "green"


@pytest.mark.parametrize(
    ("name", "codec", "told"), [("a.avi", "mjpeg", "Motion JPEG"), ("a.ts", "mpeg2video", "MPEG-2")]
)
def test_other_containers_are_known_by_their_first_bytes(tmp_path: Path, name: str, codec: str, told: str) -> None:
    path = tmp_path / name
    with av.open(str(path), "w") as container:
        fill(container, track(container, 640, 360, codec, "yuvj420p" if codec == "mjpeg" else "yuv420p"), 8)
    assert is_clip(path.read_bytes()[:LOOKED_AT])
    clip = open_clip(path)
    assert clip.facts.codec_name == told
    assert clip.reading.frames == 8
    assert clip.reading.frame.hue == "green"


def test_pixels_that_are_not_square_are_shown_square(tmp_path: Path) -> None:
    path = tmp_path / "a.mp4"
    with av.open(str(path), "w") as container:
        stream = track(container, 720, 576)
        stream.codec_context.sample_aspect_ratio = Fraction(64, 45)
        fill(container, stream, 4)
    clip = open_clip(path)
    assert clip.facts.pixel_shape == pytest.approx(64 / 45, abs=0.01)
    assert (clip.middle.width, clip.middle.height) == (1024, 576)


def test_chroma_of_a_quarter_across_is_told(tmp_path: Path) -> None:
    path = tmp_path / "a.mkv"
    with av.open(str(path), "w") as container:
        fill(container, track(container, 640, 360, "ffv1", "yuv411p"), 3)
    clip = open_clip(path)
    assert clip.facts.chroma == "4:1:1"
    assert clip.reading.frame.hue == "green"


def test_a_clip_that_is_cut_short_says_how_much_of_it_there_was(tmp_path: Path) -> None:
    whole, cut = tmp_path / "a.mp4", tmp_path / "cut.mp4"
    with av.open(str(whole), "w", options={"movflags": "faststart"}) as container:
        stream = track(container, 640, 360)
        stream.options = {"qp": "10", "g": "1"}
        dice = np.random.default_rng(1)
        for _ in range(30):
            noisy = picture(640, 360).to_ndarray(format="rgb24").astype(int) + dice.integers(-6, 7, (360, 640, 3))
            frame = av.VideoFrame.from_ndarray(np.clip(noisy, 0, 255).astype(np.uint8), "rgb24")
            container.mux(stream.encode(frame.reformat(format="yuv420p")))
        container.mux(stream.encode(None))
    data = whole.read_bytes()
    cut.write_bytes(data[: round(0.6 * len(data))])
    clip = open_clip(cut)
    assert clip.facts.frames_said == 30
    assert 14 <= clip.reading.frames <= 20
    printed = CliRunner().invoke(app, ["measure", str(cut)])
    assert printed.exit_code == 0
    assert f"{clip.reading.frames} of 30 frames, cut short," in printed.output


def test_what_is_no_picture_names_what_is_read(tmp_path: Path) -> None:
    path = tmp_path / "notes.mov"
    path.write_bytes(b"no picture at all, and longer than its first bytes")
    answer = CliRunner().invoke(app, ["measure", str(path)])
    assert isinstance(answer.exception, BadInput)
    said = str(answer.exception)
    assert "HEIC" in said
    assert "MTS" in said
    assert "\n" not in said
