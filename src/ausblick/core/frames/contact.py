"""Does the subject touch the frame's edge, or leave the screen?

The subject is what is not screen inside the outline that the screen spans.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools
from .find_screen import FoundScreen, parts_of

LEAST = 0.003
"""Smaller things than this share of the frame are marks, not the subject."""
THING = 0.2
"""What is smaller than this share of the largest part, touches the frame's edge and is away from it is no subject."""
WALL = 0.5
"""Who stands before a screen does not fill so much of the picture's left or right side, away from the rest of him."""
REACH = 0.02
"""Nearer than this, in parts of the width, parts belong together."""
UPRIGHT = 0.93
"""A screen fills this share of its bounding box; one with a floor before it does not."""


@dataclass(frozen=True)
class Contact:
    """Sides of the frame touched, sides where the subject leaves the screen; `figure` (h, w); `things`: sides where
    something small stands that is none of the subject, a stand or a tape."""

    frame_sides: tuple[str, ...]
    screen_sides: tuple[str, ...]
    figure: Bools
    things: tuple[str, ...] = ()

    @property
    def matters(self) -> bool:
        """A figure cut by the lower edge of the picture is how waist shots are; the rest is trouble."""
        return bool(set(self.frame_sides) - {"bottom"} or self.screen_sides)


def contact_of(screen: FoundScreen) -> Contact:
    """Subject and contacts in the reduced frame."""
    mask = screen.mask
    within = spanned(mask)
    between = (within & ~mask).astype(np.uint8)
    inner = cv2.morphologyEx(between, cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, sizes = parts_of(np.asarray(inner))
    areas = {label: int(sizes[label]) for label in range(1, count) if sizes[label] >= LEAST * mask.size}
    parts = {label: np.asarray(labels == label) for label in areas}
    walls = {label for label, part in parts.items() if _is_wall(part)}
    first = max(areas.keys() - walls or areas, key=lambda one: areas[one], default=0)
    figure, things = np.zeros(mask.shape, dtype=bool), set[str]()
    for label, part in parts.items():
        is_thing = areas[label] < THING * areas[first]
        sides = _frame_sides(part) if is_thing or label in walls else ()
        if label == first or not sides or _near(part, parts[first]):
            figure |= part
        elif is_thing:
            things.update(sides)
    return Contact(_frame_sides(figure), _screen_sides(figure, within), figure, tuple(sorted(things)))


def _is_wall(part: Bools) -> bool:
    """Beside a screen whose floor piece is as wide as the picture: along most of its side."""
    return float(max(part[:, 0].mean(), part[:, -1].mean())) > WALL


def _near(part: Bools, figure: Bools) -> bool:
    """A hand that something crosses is still the figure's."""
    reach = 2 * max(2, round(REACH * part.shape[1])) + 1
    return bool((cv2.dilate(part.astype(np.uint8), np.ones((reach, reach), np.uint8)).astype(bool) & figure).any())


def spanned(mask: Bools) -> Bools:
    """What lies between screen pixels of its own row, or of its own column.

    Unlike a convex outline this leaves out the wall beside a screen that stands on a wide floor piece.
    The second time round fills the body behind an arm that crosses the screen's edge.
    """
    wide = _beyond(mask)
    once = _between(wide, 1) | _between(wide, 0)
    return (_between(once, 1) | _between(once, 0))[1:-1, 1:-1]


def _beyond(mask: Bools) -> Bools:
    """The mask with a rim of one pixel: an upright screen that is cut by the frame goes on outside of it.

    So a body that stands on the lower edge and walks off sideways is still seen before the screen.
    """
    wide = np.pad(mask, 1)
    # The ends of every row are all that a hull can touch.
    ys = np.nonzero(mask.any(axis=1))[0]
    first, last = mask[ys].argmax(axis=1), mask.shape[1] - 1 - mask[ys][:, ::-1].argmax(axis=1)
    ends = np.concatenate([np.stack([first, ys], axis=1), np.stack([last, ys], axis=1)])
    hull = cv2.contourArea(cv2.convexHull(ends.astype(np.int32)))
    low, high = (int(first.min()), int(ys[0])), (int(last.max()), int(ys[-1]))
    if hull < UPRIGHT * max(1, (high[0] - low[0]) * (high[1] - low[1])):
        return wide
    down = slice(low[1] + 1, high[1] + 2)
    # Over its upper half no wider than that is: a floor piece is wider than the cloth above it.
    upper = slice(0, len(ys) // 2 + 1)
    wide[0, int(first[upper].min()) + 1 : int(last[upper].max()) + 2] |= mask[0].any()
    wide[-1, low[0] + 1 : high[0] + 2] |= mask[-1].any()
    wide[down, 0] |= mask[:, 0].any()
    wide[down, -1] |= mask[:, -1].any()
    return wide


def _between(mask: Bools, axis: int) -> Bools:
    """From the first to the last place of every row (axis 1) or column (axis 0)."""
    if axis == 0:
        return _between(np.ascontiguousarray(mask.T), 1).T
    length = mask.shape[1]
    first = mask.argmax(axis=1)
    last = length - 1 - mask[:, ::-1].argmax(axis=1)
    some = mask[np.arange(len(mask)), first]
    # Short numbers, as this is asked of every frame of a clip: no place lies before the first of an empty row.
    begin = np.where(some, first, length).astype(np.int16)[:, None]
    end = np.where(some, last, -1).astype(np.int16)[:, None]
    at = np.arange(length, dtype=np.int16)[None, :]
    return np.asarray((at >= begin) & (at <= end))


def _frame_sides(figure: Bools) -> tuple[str, ...]:
    edges = {"left": figure[:, :2], "right": figure[:, -2:], "top": figure[:2], "bottom": figure[-2:]}
    return tuple(name for name, part in edges.items() if part.any())


def _extent(some: Bools) -> tuple[int, int]:
    """The first and the last place (N,) that is set; at least one is."""
    return int(some.argmax()), len(some) - 1 - int(some[::-1].argmax())


def _screen_sides(figure: Bools, spanned: Bools) -> tuple[str, ...]:
    """Where a broad stretch of the figure lies on the outline of the screen, away from the frame's edge."""
    height, width = figure.shape
    inner = (
        cv2.erode(spanned.astype(np.uint8), np.ones((5, 5), np.uint8), borderType=cv2.BORDER_CONSTANT, borderValue=1)
        > 0
    )
    on_rim = figure & spanned & ~inner
    on_rim[:3], on_rim[-3:], on_rim[:, :3], on_rim[:, -3:] = False, False, False, False
    if on_rim.sum() < max(6, 0.012 * max(width, height)):
        return ()
    (left, right), (top, bottom) = _extent(np.asarray(spanned.any(axis=0))), _extent(np.asarray(spanned.any(axis=1)))
    middle_x, middle_y = (left + right) / 2.0, (top + bottom) / 2.0
    half_w, half_h = (right - left + 1) / 2.0, (bottom - top + 1) / 2.0
    rim_y, rim_x = np.nonzero(on_rim)
    across, down = (rim_x - middle_x) / half_w, (rim_y - middle_y) / half_h
    sideways = np.abs(across) >= np.abs(down)
    names = np.where(sideways, np.where(across < 0, "left", "right"), np.where(down < 0, "top", "bottom"))
    return tuple(name for name in ("left", "right", "top", "bottom") if (names == name).sum() >= 6)
