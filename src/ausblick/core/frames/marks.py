"""Marks on the screen: small things of another colour, and small patches of its own that stand out sharply.

Marks are told as marks, of the plan or not; they are no shadows, and the screen's evenness is that of what lies
between them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from .contact import LEAST
from .find_screen import FoundScreen
from .spots import broadly, smoothed
from .whole_masks import dilated, filled

FEWEST_PIXELS = 6
NEAR_FIGURE = 0.012
"""What is this near to the figure, in parts of the width, is hair, or what it holds."""
AROUND = 0.03
"""Sigma of a mark's surroundings, as a share of the frame's width."""
STANDS_OUT = 2.0
"""Points of signal, or so many times what is usual, that a patch of the screen's own colour differs by."""
USUAL = 4.5
SHARP = 0.6
"""Of a patch's difference that is there within a few pixels: shadows and folds end softly."""
ENCLOSED = 0.8
"""Of what lies just outside of a patch, this much is screen."""
LONGEST_SIDES = 3.0
"""A patch that is longer, in its widths, is a fold or a tape."""
BOTH_WAYS = 0.2
"""Where so many for each patch stand out the other way, all are folds."""
LEAST_ALIKE, ALIKE = 4, 2.5
"""One patch of the screen's colour may be anything; several that are alike in size and light are marks."""


@dataclass(frozen=True)
class Mark:
    """A box in parts of the frame, upper left corner, y down."""

    x: float
    y: float
    w: float
    h: float


@dataclass(frozen=True)
class _Patch:
    box: tuple[int, int, int, int]
    area: int
    delta: float


@dataclass(frozen=True)
class FoundMarks:
    """`covered` (h, w): the marks with a rim, which is no screen to be judged."""

    marks: tuple[Mark, ...]
    covered: Bools


def find_marks(percent: Floats32, found: FoundScreen, figure: Bools) -> FoundMarks:
    """Of a reduced picture's trace (h, w) in %."""
    height, width = percent.shape
    other, own = _of_other_colour(found), _of_own_colour(percent, found)
    hair = _with_hair(figure, own.stands_out | other.stands_out)
    boxes = sorted(box for box in (*other.boxes, *own.boxes) if not _touches(box, hair))
    covered = np.zeros(percent.shape, np.uint8)
    rim = max(2, round(0.006 * width))
    for x, y, w, h in boxes:
        covered[max(0, y - rim) : y + h + rim, max(0, x - rim) : x + w + rim] = 1
    marks = tuple(Mark(x / width, y / height, w / width, h / height) for x, y, w, h in boxes)
    return FoundMarks(marks, covered.astype(bool))


def _with_hair(figure: Bools, bits: Bools) -> Bools:
    """The figure (h, w) with what is near to it, and near to what is: strands lose themselves bit by bit."""
    reach = 2 * max(2, round(NEAR_FIGURE * figure.shape[1])) + 1
    near = dilated(figure, reach)
    _, labels = cv2.connectedComponents((near | dilated(bits, reach)).astype(np.uint8), connectivity=8)
    return np.asarray(np.isin(labels, np.unique(labels[near]))) & (near | bits) if near.any() else near


def _touches(box: tuple[int, int, int, int], mask: Bools) -> bool:
    x, y, w, h = box
    return bool(mask[y : y + h, x : x + w].any())


@dataclass(frozen=True)
class _Found:
    """Boxes of what may be marks, and all (h, w) that stands out, of which they are a part."""

    boxes: list[tuple[int, int, int, int]]
    stands_out: Bools


def _of_other_colour(found: FoundScreen) -> _Found:
    """What is enclosed by the screen and is smaller than any figure."""
    small = filled(found.mask) & ~found.mask
    patches = _patches(small, np.zeros(small.shape, np.float32))
    return _Found([patch.box for patch in patches if _compact(patch)], small)


def _patches(mask: Bools, values: Floats32) -> list[_Patch]:
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    found = []
    for label in range(1, count):
        x, y, w, h, area = (int(v) for v in stats[label])
        if FEWEST_PIXELS <= area < LEAST * mask.size:
            inside = labels[y : y + h, x : x + w] == label
            found.append(_Patch((x, y, w, h), area, float(values[y : y + h, x : x + w][inside].mean())))
    return found


def _of_own_colour(percent: Floats32, found: FoundScreen) -> _Found:
    """Marks stand out one way, brighter or darker; a cloth's folds do so both ways."""
    width = percent.shape[1]
    fine = smoothed(percent, found.mask, 0.8)
    out = np.where(found.core, fine - broadly(percent, found.core, AROUND * width), np.float32(0.0))
    usual = 1.4826 * float(np.median(np.abs(out[found.core]))) if found.core.any() else 0.0
    least = max(STANDS_OUT, USUAL * usual)
    brighter, darker = (
        [
            patch
            for patch in _patches(sign * out > 0.5 * least, sign * out)
            if patch.delta >= 0.6 * least and _compact(patch) and _is_sharp(patch, sign * fine, found.core)
        ]
        for sign in (np.float32(1.0), np.float32(-1.0))
    )
    more, fewer = sorted((brighter, darker), key=len, reverse=True)
    marks = _alike(more) if len(fewer) < BOTH_WAYS * len(more) else []
    return _Found([patch.box for patch in marks], np.abs(out) > 0.5 * least)


def _compact(patch: _Patch) -> bool:
    _, _, w, h = patch.box
    return max(w, h) <= LONGEST_SIDES * min(w, h)


def _is_sharp(patch: _Patch, fine: Floats32, core: Bools) -> bool:
    """Is the most of its difference there just outside of its border?"""
    (x, y, w, h), reach = patch.box, 3
    x0, y0 = max(0, x - reach), max(0, y - reach)
    window = np.s_[y0 : y + h + reach, x0 : x + w + reach]
    ring = core[window].copy()
    ring[max(0, y - 1) - y0 : y + h + 1 - y0, max(0, x - 1) - x0 : x + w + 1 - x0] = False
    # What the picture's edge or the screen's cuts is a dark corner: it has its difference beyond.
    if ring.sum() < ENCLOSED * ((w + 2 * reach) * (h + 2 * reach) - (w + 2) * (h + 2)):
        return False
    step = float(fine[y : y + h, x : x + w].max()) - float(fine[window][ring].mean())
    return step >= SHARP * patch.delta


def _alike(patches: Sequence[_Patch]) -> list[_Patch]:
    if len(patches) < LEAST_ALIKE:
        return []
    area, delta = (float(np.median([getattr(one, what) for one in patches])) for what in ("area", "delta"))
    same = [
        one
        for one in patches
        if area / ALIKE <= one.area <= area * ALIKE and delta / ALIKE <= one.delta <= delta * ALIKE
    ]
    return same if len(same) >= LEAST_ALIKE else []
