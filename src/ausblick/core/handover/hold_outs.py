"""What the key would take from the figure and must not, and small things on the screen that have to go."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from ..matte.keyer import raw_matte
from .outlines_of_masks import FramePolygon, polygons_of

SOLID = 0.9
"""A matte below it inside of the figure is a hole."""
SMALLEST = 2e-4
"""Of the frame: smaller holes are grain."""


@dataclass(frozen=True)
class HoldOut:
    """A closed polygon in parts of the frame, y down; the matte's mean there, 0..1; the point in it that is furthest
    from its border, to be tracked."""

    polygon: FramePolygon
    matte: float
    track: tuple[float, float]


@dataclass(frozen=True)
class MarkBox:
    """A mark or another small thing before the screen: box in parts of the frame; `place` of its middle on the
    planned set in m, None where the plan has no screen there."""

    x: float
    y: float
    w: float
    h: float
    place: tuple[float, float, float] | None = None


def hold_outs_of(signal: Floats32, figure: Bools, channel: int, screen_difference: float) -> tuple[HoldOut, ...]:
    """Of a reduced picture (h, w, 3): places inside of the figure (h, w), its soft edge left out, that the colour
    difference takes for screen. `screen_difference`: that of the sample beside the face, in linear light."""
    rim = np.ones((5, 5), np.uint8)
    inside = cv2.erode(figure.astype(np.uint8), rim).astype(bool)
    matte = np.clip(raw_matte(signal, channel, max(screen_difference, 1e-6)), 0.0, 1.0)
    lost = cv2.morphologyEx((inside & (matte < SOLID)).astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(lost, connectivity=8)
    found = [
        _hold_out(labels == label, matte)
        for label in range(1, count)
        if stats[label, cv2.CC_STAT_AREA] >= SMALLEST * lost.size
    ]
    return tuple(one for one in found if one is not None)


def _hold_out(place: Bools, matte: Floats32) -> HoldOut | None:
    height, width = place.shape
    polygons = polygons_of(place)
    if not polygons:
        return None
    depth = cv2.distanceTransform(np.pad(place.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    row, column = np.unravel_index(int(np.argmax(depth)), depth.shape)
    track = (float((column + 0.5) / width), float((row + 0.5) / height))
    return HoldOut(polygons[0], float(matte[place].mean()), track)
