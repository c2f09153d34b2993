"""What a plate's picture tells by itself: levels, contrast, colour of its light, sharpness."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np

from ..colour.white_point import XYZ_TO_709
from ..frames.frame import Frame, linear_of, luma_of
from ..geometry.vectors import Floats, Floats32

Brightness = Literal["night", "dusk", "indoors", "day", "noon"]
CLASSES: tuple[tuple[float, Brightness], ...] = ((18.0, "night"), (32.0, "dusk"), (48.0, "indoors"), (62.0, "day"))


@dataclass(frozen=True)
class PlateReading:
    """Levels in % of luma; `cct` the likely colour temperature of its light in K; sharpness in words."""

    width: int
    height: int
    mean_level: float
    black_level: float
    white_level: float
    contrast_stops: float
    cct: float
    brightness: Brightness
    sharpness: Literal["sharp", "soft", "blurred"]


def read_plate(frame: Frame) -> PlateReading:
    """Read a plate's picture (at least 16 x 16 px)."""
    signal = frame.reduced(1000)
    luma = np.asarray(100.0 * luma_of(signal), dtype=np.float32)
    black, white = (float(v) for v in np.percentile(luma, [1.0, 99.0]))
    linear = linear_of(signal)
    bright = luma_of(linear)
    low, high = (max(float(v), 1e-4) for v in np.percentile(bright, [5.0, 95.0]))
    mean = float(luma.mean())
    return PlateReading(
        width=frame.width,
        height=frame.height,
        mean_level=mean,
        black_level=black,
        white_level=white,
        contrast_stops=float(np.log2(high / low)),
        cct=_light_temperature(linear.astype(np.float64), luma),
        brightness=next((word for limit, word in CLASSES if mean < limit), "noon"),
        sharpness=_sharpness(luma),
    )


def _light_temperature(linear: Floats, luma: Floats32) -> float:
    """Correlated colour temperature of the mid-tones' mean, as if the scene averaged grey.

    McCamy, Color Research & Application 17 (1992). Kept to 2000..12000 K, where it means anything.
    """
    middle = (luma > 15.0) & (luma < 85.0)
    rgb = linear[middle if middle.sum() > 100 else np.ones(luma.shape, dtype=bool)].mean(axis=0)
    x, y, z = np.linalg.inv(XYZ_TO_709) @ np.maximum(rgb, 1e-6)
    total = x + y + z
    n = (x / total - 0.3320) / (0.1858 - y / total)
    return float(np.clip(449.0 * n**3 + 3525.0 * n**2 + 6823.3 * n + 5520.33, 2000.0, 12000.0))


def _sharpness(luma: Floats32) -> Literal["sharp", "soft", "blurred"]:
    """Share of fine detail in all detail: a blur of one pixel takes most of it away from a sharp picture."""
    fine = float(np.std(luma - cv2.GaussianBlur(luma, (0, 0), 1.0)))
    broad = float(np.std(luma - cv2.GaussianBlur(luma, (0, 0), 8.0))) + 1e-6
    share = fine / broad
    return "sharp" if share > 0.22 else "soft" if share > 0.08 else "blurred"
