"""Frames and clips made by code with known truth, through every class of recording: what is read is what was made."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import pytest

from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.plan import Recording
from ausblick.formats.clips import read_clip
from ausblick.formats.images import read_image
from ausblick.formats.recording import write_clip

GREEN, BLUE = (0.21, 0.58, 0.29), (0.16, 0.29, 0.61)
LUMA = np.array([0.2126, 0.7152, 0.0722])
HOT, DARK = (0.22, 0.30), (0.78, 0.42)
NOISE = 0.012
CLASSES = ["png8", "png16", "long 4:2:0 8", "intra 4:2:2 10", "lossless 4:4:4 10", "full range 4:2:0 8"]
OFTEN = {"png16", "long 4:2:0 8", "full range 4:2:0 8"}
"""These at every run, the others with `make torture`."""


def picture(colour: tuple[float, float, float], seed: int) -> np.ndarray[Any, Any]:
    """An even screen with a hot spot, a shadow, a figure and noise: signal (540, 960, 3)."""
    y, x = np.mgrid[0:540, 0:960]
    gain = np.ones((540, 960))
    for (cx, cy), delta in ((HOT, 0.10), (DARK, -0.10)):
        gain += delta * np.exp(-(((x - cx * 960) / 40) ** 2) - ((y - cy * 540) / 40) ** 2)
    signal = np.array(colour) * gain[..., None]
    signal[200:, 420:560] = (0.45, 0.36, 0.31)
    noise = np.random.default_rng(seed).normal(0.0, NOISE, signal.shape)
    return np.clip(signal + noise, 0.0, 1.0).astype(np.float32)


def full_range(path: Path, frames: list[np.ndarray[Any, Any]]) -> None:
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("libx264", rate=25, options={"qp": "10"})
        stream.width, stream.height, stream.pix_fmt = 960, 540, "yuvj420p"
        stream.codec_context.colorspace = 1
        for signal in frames:
            luma = signal @ LUMA
            cb, cr = (signal[..., 2] - luma) / 1.8556, (signal[..., 0] - luma) / 1.5748
            small = [cv2.resize(c, (480, 270), interpolation=cv2.INTER_AREA) for c in (cb, cr)]
            planes = [255.0 * luma, *(128.0 + 255.0 * c for c in small)]
            stacked = np.concatenate([np.clip(np.round(p), 0, 255).astype(np.uint8).ravel() for p in planes])
            frame = av.VideoFrame.from_ndarray(stacked.reshape(810, 960), format="yuvj420p")
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


def read(kind: str, colour: tuple[float, float, float], folder: Path) -> FrameReading:
    frames = [picture(colour, seed) for seed in range(9)]
    if kind.startswith("png"):
        top, deep = (255, np.uint8) if kind == "png8" else (65535, np.uint16)
        path = folder / "still.png"
        cv2.imwrite(str(path), np.round(frames[0] * top).astype(deep)[..., ::-1])
        return read_frame(read_image(path))
    path = folder / ("clip.mkv" if "lossless" in kind else "clip.mov")
    if kind.startswith("full"):
        full_range(path, frames)
    else:
        codec, chroma, bits = {
            "long 4:2:0 8": ("long-gop", "4:2:0", 8),
            "intra 4:2:2 10": ("intra", "4:2:2", 10),
            "lossless 4:4:4 10": ("uncompressed", "4:4:4", 10),
        }[kind]
        recording = Recording.model_validate({"codec": codec, "chroma": chroma, "bits": bits, "mbit_s": 90})
        write_clip(path, frames, recording, 25.0)
    _, clip = read_clip(path)
    return clip.frame


@pytest.mark.parametrize(
    "kind", [one if one in OFTEN else pytest.param(one, marks=pytest.mark.torture) for one in CLASSES]
)
@pytest.mark.parametrize(
    ("colour", "hue"),
    [(GREEN, "green"), pytest.param(BLUE, "blue", marks=pytest.mark.torture)],
    ids=["green", "blue"],
)
def test_what_is_read_is_what_was_made(
    kind: str, colour: tuple[float, float, float], hue: str, tmp_path: Path
) -> None:
    reading = read(kind, colour, tmp_path)
    assert reading.hue == hue
    luma = float(np.array(colour) @ LUMA)
    assert reading.level_luma is not None
    assert reading.level_key_channel is not None
    assert reading.level_luma.mean == pytest.approx(100.0 * luma, abs=0.8)
    assert reading.level_key_channel.mean == pytest.approx(100.0 * max(colour), abs=0.8)
    wanted = np.degrees(np.arctan2((colour[0] - luma) / 1.5748, (colour[2] - luma) / 1.8556)) % 360.0
    assert reading.hue_deg == pytest.approx(wanted, abs=2.0)
    for spots, (cx, cy) in ((reading.hot_spots, HOT), (reading.shadows, DARK)):
        assert spots, kind
        box = max(spots, key=lambda s: abs(s.delta_percent))
        assert (box.x + box.w / 2, box.y + box.h / 2) == pytest.approx((cx, cy), abs=0.05)
    if "long" not in kind:
        sigma = 100.0 * NOISE * float(np.sqrt((LUMA**2).sum()))
        assert reading.noise_percent == pytest.approx(sigma, rel=0.3)
