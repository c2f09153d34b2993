"""What the key would take from the figure and must not, and small things on the screen that have to go."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..frames.contact import LEAST
from ..frames.find_screen import FoundScreen
from ..geometry.vectors import Bools, Floats32
from ..matte.keyer import raw_matte

SOLID = 0.9
"""A matte below it inside of the figure is a hole."""
SMALLEST = 2e-4
"""Of the frame: smaller holes are grain."""
CLOSE = 0.0015
"""How far a polygon may leave its border, in parts of the frame's width."""


@dataclass(frozen=True)
class HoldOut:
    """A closed polygon in parts of the frame, y down; the matte's mean there, 0..1; the point in it that is furthest
    from its border, to be tracked."""

    polygon: tuple[tuple[float, float], ...]
    matte: float
    track: tuple[float, float]


@dataclass(frozen=True)
class MarkBox:
    """A mark or another small thing before the screen: box in parts of the frame."""

    x: float
    y: float
    w: float
    h: float


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
    contours, _ = cv2.findContours(place.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    corners = cv2.approxPolyDP(contours[0], CLOSE * width, True)[:, 0, :]
    if len(corners) < 3:
        return None
    depth = cv2.distanceTransform(np.pad(place.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    row, column = np.unravel_index(int(np.argmax(depth)), depth.shape)
    polygon = tuple((float((x + 0.5) / width), float((y + 0.5) / height)) for x, y in corners)
    track = (float((column + 0.5) / width), float((row + 0.5) / height))
    return HoldOut(polygon, float(matte[place].mean()), track)


def marks_of(found: FoundScreen, figure: Bools) -> tuple[MarkBox, ...]:
    """What is enclosed by the screen, is not the figure, and is smaller than any figure."""
    height, width = found.mask.shape
    contours, _ = cv2.findContours(found.mask.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    filled = np.zeros(found.mask.shape, np.uint8)
    cv2.drawContours(filled, contours, -1, 1, cv2.FILLED)
    near = cv2.dilate(figure.astype(np.uint8), np.ones((5, 5), np.uint8)).astype(bool)
    small = (filled.astype(bool) & ~found.mask & ~near).astype(np.uint8)
    count, _, stats, _ = cv2.connectedComponentsWithStats(small, connectivity=8)
    boxes = [stats[label] for label in range(1, count) if 6 <= stats[label, cv2.CC_STAT_AREA] < LEAST * small.size]
    return tuple(MarkBox(b[0] / width, b[1] / height, b[2] / width, b[3] / height) for b in boxes)
