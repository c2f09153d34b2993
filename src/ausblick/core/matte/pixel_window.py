"""A part of the sensor drawn with a pixel of its own size: 1 for crops, larger for the overview."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class PixelWindow:
    """Upper left corner in sensor px, size in drawn px, sensor px per drawn px."""

    x: float
    y: float
    width: int
    height: int
    scale: float
