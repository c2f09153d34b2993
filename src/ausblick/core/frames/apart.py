"""Places of the screen's own colour that stand apart from it: the screen once more in a mirror, or another cloth.

A body before the screen cuts it into parts as well. Those lie between its edges, or end where it ends.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats
from .contact import spanned
from .find_screen import FoundScreen, with_mask

LEAST = 0.01
"""Of the frame: what is smaller is a glint."""
LEVEL = 0.04
"""Edges no further from each other than this, of the frame's height, are one edge."""
WITHIN = 0.5


def screen_alone(found: FoundScreen) -> tuple[FoundScreen, list[Bools]]:
    """The screen without what stands apart from it, and those parts (h, w)."""
    main, *parts = _parted(found.mask) or [found.mask]
    return (with_mask(found, main), parts) if parts else (found, [])


def _parted(mask: Bools) -> list[Bools]:
    """Of a screen's mask (h, w) the screen and those parts (h, w) that are none of it; empty where all is one."""
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    large = [i for i in range(1, count) if stats[i, cv2.CC_STAT_AREA] >= LEAST * mask.size]
    if len(large) < 2:
        return []
    large.sort(key=lambda i: -int(stats[i, cv2.CC_STAT_AREA]))
    main, *parts = [np.asarray(labels == i) for i in large]
    # A part that is one with another part of the screen is one with all of it.
    while own := [i for i, part in enumerate(parts) if _one_with(main, part)]:
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


def _edge(mask: Bools, upper: bool) -> tuple[Floats, Floats]:
    """Columns (N,) that have some of the mask, and the row where it begins (ends) in each; half of them, those that
    reach furthest, as whoever stands before the screen hides the others."""
    columns = np.flatnonzero(mask.any(axis=0))
    some = mask[:, columns]
    rows = some.argmax(axis=0) if upper else mask.shape[0] - 1 - some[::-1].argmax(axis=0)
    far = rows <= np.median(rows) if upper else rows >= np.median(rows)
    return columns[far].astype(float), rows[far].astype(float)
