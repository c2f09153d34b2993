"""A part of the sensor drawn with a pixel of its own size: 1 for crops, larger for the overview."""

from __future__ import annotations

from dataclasses import dataclass, field

import cv2
import numpy as np

from ..geometry.vectors import Floats32

SEEN = 2
"""Samples along each way of a pixel, for what of a body is seen in it."""


@dataclass(frozen=True)
class PixelWindow:
    """Upper left corner in sensor px, size in drawn px, sensor px per drawn px; `person`: whose hair, hand and edge
    are measured in it, the subject (0) or a companion from 1. The picture in it is the same whoever that is. `seen`:
    samples along each way of a pixel, fewer in a picture that is shown for a moment."""

    x: float
    y: float
    width: int
    height: int
    scale: float
    person: int = field(default=0, compare=False)
    seen: int = SEEN

    @property
    def place(self) -> tuple[float, float, int, int, float]:
        """Where its pixels are, however finely they are looked into."""
        return self.x, self.y, self.width, self.height, self.scale

    def read(self, picture: Floats32, of: PixelWindow) -> Floats32:
        """What another window's picture (H, W, C) shows of this one, (height, width, C), smoothly."""
        step = self.scale / of.scale
        left, top = (
            (mine + 0.5 * self.scale - its) / of.scale - 0.5 for mine, its in ((self.x, of.x), (self.y, of.y))
        )
        way = np.array([[step, 0.0, left], [0.0, step, top]])
        how = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
        found = cv2.warpAffine(picture, way, (self.width, self.height), flags=how, borderMode=cv2.BORDER_REPLICATE)
        return np.asarray(found, dtype=np.float32)
