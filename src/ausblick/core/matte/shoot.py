"""From drawn light to decoded frames: exposure's noise, the curve, sharpening, and the real codec.

The codec is handed in (`Codec`): the core computes, the format's reader and writer encode.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

import cv2
import numpy as np

from ..camera.sensor_noise import noise_linear
from ..colour.curves import decode, encode
from ..geometry.vectors import Floats32
from ..plan import Recording
from .capture import Capture
from .render import Drawn

Codec = Callable[[Iterable[Floats32], Recording, float], list[Floats32]]
"""Frames (H, W, 3) as signal 0..1, what they are recorded as, and bits for each frame of this size."""

FRAMES = 3
SHARPEN = (0.9, 1.0)


def shoot(capture: Capture, drawn: Drawn, area_share: float, codec: Codec) -> tuple[Floats32, Floats32]:
    """The middle one of three recorded frames and the last one, decoded to linear light (H, W, 3).

    `area_share`: part of the whole recorded frame that this window is, for its part of the bit rate.
    """
    camera = capture.plan.camera
    if capture.recording is None:
        only = _lifted(next(_exposed(capture, drawn, 1)), capture)
        return only, only
    bits = 1e6 * capture.recording.mbit_s * area_share / camera.fps
    decoded = codec(_exposed(capture, drawn, FRAMES), capture.recording, bits)
    return _lifted(decoded[len(decoded) // 2], capture), _lifted(decoded[-1], capture)


def _exposed(capture: Capture, drawn: Drawn, count: int) -> Iterator[Floats32]:
    """Frames (H, W, 3) of signal, each with noise of its own, made as they are asked for."""
    camera, clean = capture.plan.camera, drawn.frame
    sigma = np.float32(capture.noise) * noise_linear(clean, camera)
    rng = np.random.default_rng(capture.seed + 2)
    for _ in range(count):
        noisy = clean + sigma * rng.standard_normal(clean.shape, dtype=np.float32) if capture.noise > 0.0 else clean
        signal = np.asarray(encode(np.maximum(noisy, 0.0), camera.curve, camera.curve_table), dtype=np.float32)
        yield _sharpened(signal) if capture.sharpening else signal


def _lifted(signal: Floats32, capture: Capture) -> Floats32:
    """Back to linear light, and the grade's lift where there is one."""
    camera = capture.plan.camera
    linear = decode(signal, camera.curve, camera.curve_table)
    return np.asarray(capture.lift * linear, dtype=np.float32)


def _sharpened(signal: Floats32) -> Floats32:
    """What a camera's detail setting does: an unsharp mask, which draws lines round every edge."""
    amount, radius = SHARPEN
    return np.asarray(np.clip(signal + amount * (signal - cv2.GaussianBlur(signal, (0, 0), radius)), 0.0, 1.0))
