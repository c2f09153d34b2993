"""A part of the sensor drawn with a pixel of its own size: 1 for crops, larger for the overview."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(frozen=True)
class PixelWindow:
    """Upper left corner in sensor px, size in drawn px, sensor px per drawn px; `person`: whose hair, hand and edge
    are measured in it, the subject (0) or a companion from 1. The picture in it is the same whoever that is."""

    x: float
    y: float
    width: int
    height: int
    scale: float
    person: int = field(default=0, compare=False)
