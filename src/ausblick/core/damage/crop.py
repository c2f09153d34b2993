"""What of the sensor a test key looks at pixel for pixel."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Sensor

WINDOW = (576, 432)
"""Px across and down."""


def crop_size(sensor: Sensor) -> tuple[int, int]:
    """Across and down, px: even, as codecs want it."""
    return min(WINDOW[0], sensor.px_w) // 2 * 2, min(WINDOW[1], sensor.px_h) // 2 * 2


def crop_corner(at: Floats, sensor: Sensor) -> tuple[float, float]:
    """Left and top, px, of a crop round a place (2,) in sensor px, as far as it is inside the frame."""
    size = crop_size(sensor)
    left, top = (round(float(middle) - side / 2.0) for middle, side in zip(at, size, strict=True))
    inside = np.clip((left, top), 0, (sensor.px_w - size[0], sensor.px_h - size[1]))
    return float(inside[0]), float(inside[1])
