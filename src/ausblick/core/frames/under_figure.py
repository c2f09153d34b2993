"""What hangs under a part of the figure that ends within the screen: a head over a shirt of the screen's colour.

     ( )  head, found        A basin is flooded from below it and from the screen beside, as far as the light and the
    /   \\                    colour change most; what the lower basin is of is cloth where its rim is an edge.
   / ~~~ \\  taken for screen

An edge may fade where cloth and screen are equally bright for a stretch; the flood closes it all the same. Thresholds
are ours: tried on 152 made pictures of people in cloth of nearly the screen's colour, and 270 of people, jars and
balls with their shadows.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from .whole_masks import dilated, eroded

LEAST = 0.004
"""Of the frame."""
WIDEST = 0.6
"""Of the frame's width: what is wider is no head and no body."""
BELOW, REACH = 0.12, 2.6
"""How far below a part, in its sizes, something under it surely is, and how far to its sides at the most."""
USUAL = (0.004, 0.0015, 0.0015)
"""Steps from one pixel to the next, of ln light and of two ratios, that are never more than noise."""
EDGE, ROUND, ROUND_SHADOW = 5.0, 0.35, 0.55
"""An edge is a step so many times the usual; cloth has one along this share of its rim, and along more of it where it
may be a shadow."""
BRIGHTER, OTHER = 0.06, 0.012
"""Cloth differs from the screen beside it by this in ln light or in a ratio, in the median."""
TALL, BROADER = 2.5, 0.3
"""Whoever is taller than this, in widths, stands there whole; shoulders are broader than a head by this much of it on
either side, a shadow is not."""


@dataclass(frozen=True)
class Planes:
    """Of the found screen's pixels, `inside` (h, w): ln light of the key channel and the two ratios to it, smoothed
    (3, h, w); `steps` (h, w): the largest change of them from one pixel to the next, in usual ones; `usual` (3,)."""

    inside: Bools
    values: Floats32
    steps: Floats32
    usual: Floats32


def planes_of(light: Floats32, ratios: Floats32, whole: Bools) -> Planes:
    """Of smoothed ln light (h, w) and ratios (h, w, 2) within `whole` (h, w)."""
    inside = eroded(whole)
    values = np.ascontiguousarray(np.stack([light, ratios[..., 0], ratios[..., 1]]), dtype=np.float32)
    steps = [step_of(one) for one in values]
    medians = [float(np.median(step[inside])) if inside.any() else 0.0 for step in steps]
    usual = np.maximum(medians, USUAL).astype(np.float32)
    return Planes(inside, values, np.max([s / u for s, u in zip(steps, usual, strict=True)], axis=0), usual)


def step_of(plane: Floats32) -> Floats32:
    """How much (h, w) a plane changes from one pixel to the next."""
    across, down = (cv2.Sobel(plane, cv2.CV_32F, *way, ksize=3) / 8.0 for way in ((1, 0), (0, 1)))
    return np.asarray(np.hypot(across, down), dtype=np.float32)


@dataclass(frozen=True)
class PartBox:
    """Of a part of the figure, px."""

    x: int
    y: int
    w: int
    h: int

    @property
    def foot(self) -> int:
        return self.y + self.h

    @property
    def middle(self) -> float:
        return self.x + self.w / 2.0


def ends_within(figure: Bools) -> list[PartBox]:
    """The parts of a figure (h, w) that end within the picture: something may hang under them."""
    count, _, stats, _ = cv2.connectedComponentsWithStats(figure.astype(np.uint8), connectivity=8)
    parts = (PartBox(*own) for own in stats[1:count, :4].tolist())
    return [one for one in parts if one.foot < figure.shape[0] - 2 and one.w <= WIDEST * figure.shape[1]]


def under_figure(planes: Planes, parts: list[PartBox]) -> Iterator[Bools]:
    """Masks (h, w) of what of the screen is rather somebody's clothes, under each of those parts."""
    if not planes.inside.any():
        return
    for box in parts:
        mask, beside = _flooded(planes, box)
        if mask.sum() >= LEAST * mask.size and _is_cloth(planes, mask, beside, box):
            yield mask


def _flooded(planes: Planes, box: PartBox) -> tuple[Bools, Bools]:
    """What belongs to the place under a part of the figure, and what to the screen beside it; both (h, w)."""
    below, beside = _below(planes, box), _beside(planes.inside, box)
    marked = np.where(planes.inside, 0, 3).astype(np.int32)
    marked[beside & ~below] = 1
    marked[below] = 2
    if not (marked == 1).any() or not below.any():
        return np.zeros_like(below), beside
    middle = np.array([np.median(plane[planes.inside]) for plane in planes.values])
    # Four grey levels a usual step: what is an edge is far from all of them.
    levels = (planes.values - middle[:, None, None]) / planes.usual[:, None, None] * 4.0 + 128.0
    cv2.watershed(np.ascontiguousarray(np.clip(levels, 0, 255).astype(np.uint8).transpose(1, 2, 0)), marked)
    return np.asarray((marked == 2) & planes.inside), np.asarray((marked == 1) & planes.inside)


def _below(planes: Planes, box: PartBox) -> Bools:
    """A column half as wide, down to the next part of the figure, to an edge right across, or to the foot of the
    picture."""
    inside, found = planes.inside, np.zeros_like(planes.inside)
    size = min(box.w, box.h)
    top = box.foot + max(3, round(BELOW * size))
    columns = slice(max(0, int(box.middle - 0.25 * box.w)), int(box.middle + 0.25 * box.w) + 1)
    across = np.median(planes.steps[top:, columns], axis=1) > EDGE
    # A collar or a fold is no end.
    across[: size // 2] = False
    ends = np.flatnonzero(across | (inside[top:, columns].mean(axis=1) < 0.5))
    end = top + int(ends[0]) if len(ends) else len(inside)
    found[top:end, columns] = inside[top:end, columns]
    return found


def _beside(inside: Bools, box: PartBox) -> Bools:
    """What is further from it than a body is wide, or over its middle, and the picture's sides."""
    height, width = inside.shape
    reach = REACH * max(box.w, 0.7 * min(box.h, 1.6 * box.w))
    across, down = np.arange(width)[None, :], np.arange(height)[:, None]
    sides = (across < 3) | (across >= width - 3) | (down < 3)
    return np.asarray(inside & ((np.abs(across - box.middle) > reach) | (down < box.y + 0.5 * box.h) | sides))


def _is_cloth(planes: Planes, mask: Bools, beside: Bools, box: PartBox) -> bool:
    rim = dilated(mask, 3) & ~mask & planes.inside & dilated(beside, 5)
    around = dilated(mask, 41) & ~dilated(mask, 7) & beside
    if not rim.any() or not around.any():
        return False
    edges = cv2.dilate(planes.steps, np.ones((3, 3), np.uint8)) > EDGE
    light, *ratios = (float(np.median(plane[mask]) - np.median(plane[around])) for plane in planes.values)
    differs = abs(light) > BRIGHTER or max(map(abs, ratios)) > OTHER
    # Darker and no less of a colour: as a shadow is, by what is left of the light.
    shadow = light < 0.0 and max(ratios) < OTHER
    round_it = float(edges[rim].mean())
    sure = round_it > ROUND_SHADOW and _is_broader(mask, box) if shadow else round_it > ROUND
    return differs and sure and box.h < TALL * box.w


def _is_broader(mask: Bools, box: PartBox) -> bool:
    rows = mask[mask.any(axis=1)]
    first, last = rows.argmax(axis=1), mask.shape[1] - 1 - rows[:, ::-1].argmax(axis=1)
    return bool(((first < box.x - BROADER * box.w) & (last >= box.x + (1.0 + BROADER) * box.w)).any())
