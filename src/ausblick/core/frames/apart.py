"""Places of the screen's own colour that stand apart from it: the screen once more in a mirror, or another cloth.

A body before the screen cuts it into parts as well. Those lie between its edges, or end where it ends, or are as
bright beyond an arm as before it.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats, Floats32
from .contact import spanned
from .find_screen import FoundScreen, parts_of, with_mask
from .frame import linear_of

LEAST = 0.01
"""Of the frame: what is smaller is a glint."""
LEVEL = 0.04
"""Edges no further from each other than this, of the frame's height, are one edge."""
WITHIN = 0.5
ARM, ALIKE = 0.08, 0.08
"""An arm is no wider than this, of the frame's width; light that differs by less, ln, is the same light."""


def screen_alone(found: FoundScreen, reduced: Floats32) -> tuple[FoundScreen, list[Bools]]:
    """The screen in a picture (h, w, 3) without what stands apart from it, and those parts (h, w)."""
    main, *parts = _parted(found.mask, found.core, reduced[..., found.channel]) or [found.mask]
    return (with_mask(found, main), parts) if parts else (found, [])


def _parted(mask: Bools, core: Bools, key: Floats32) -> list[Bools]:
    """Of a screen's mask (h, w) the screen and those parts (h, w) that are none of it; empty where all is one.
    `core`: the mask without its rim, `key` (h, w): the key channel's signal."""
    count, labels, areas = parts_of(mask.astype(np.uint8))
    large = [i for i in range(1, count) if areas[i] >= LEAST * mask.size]
    if len(large) < 2:
        return []
    large.sort(key=lambda i: -int(areas[i]))
    main, *parts = [np.asarray(labels == i) for i in large]
    # A part that is one with another part of the screen is one with all of it.
    while own := [
        i for i, part in enumerate(parts) if _one_with(main, part) or _goes_on(main & core, part & core, key)
    ]:
        main = np.logical_or.reduce([main, *(parts[i] for i in own)])
        parts = [part for i, part in enumerate(parts) if i not in own]
    return [main, *parts] if parts else []


def _one_with(main: Bools, part: Bools) -> bool:
    """Does it lie between the edges of the main part, or end where that would end here?"""
    within = float(spanned(main)[part].mean()) > WITHIN
    return within or _ends_alike(main, part) or _ends_alike(main.T, part.T)


def _ends_alike(main: Bools, part: Bools) -> bool:
    """Is the upper or the lower edge of the part on the main one's, drawn on straight to where the part is?"""
    length = main.shape[0]
    for upper in (True, False):
        (x, y), (u, v) = _edge(main, upper), _edge(part, upper)
        slope, start = np.polyfit(x, y, 1) if len(x) > 1 else (0.0, float(np.median(y)))
        # What the picture cuts off has no edge of its own.
        there = np.clip(slope * u + start, 0, length - 1)
        if abs(float(np.median(v - there))) < LEVEL * length:
            return True
    return False


def _goes_on(main: Bools, part: Bools, key: Floats32) -> bool:
    """Is the part beyond no more than an arm, and as bright there as the main part is where it ends?"""
    if not main.any() or not part.any():
        return False
    away, nearest = cv2.distanceTransformWithLabels(
        (~main).astype(np.uint8), cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    gap, before = away[part], nearest[part]
    close = gap <= 1.5 * gap.min()
    if gap.min() > ARM * main.shape[1]:
        return False
    at = np.zeros(int(nearest.max()) + 1, dtype=np.intp)
    at[nearest[main]] = np.flatnonzero(main)
    levels = np.array([np.median(key[part][close]), np.median(key.ravel()[at[before[close]]])], dtype=np.float32)
    there, here = np.maximum(linear_of(levels), 1e-4)
    return bool(abs(np.log(there / here)) < ALIKE)


def _edge(mask: Bools, upper: bool) -> tuple[Floats, Floats]:
    """Columns (N,) that have some of the mask, and the row where it begins (ends) in each; a quarter of them, those
    that reach furthest, as whoever stands before the screen hides the others."""
    columns = np.flatnonzero(mask.any(axis=0))
    some = mask[:, columns]
    rows = some.argmax(axis=0) if upper else mask.shape[0] - 1 - some[::-1].argmax(axis=0)
    far = rows <= np.percentile(rows, 25.0) if upper else rows >= np.percentile(rows, 75.0)
    return columns[far].astype(float), rows[far].astype(float)
