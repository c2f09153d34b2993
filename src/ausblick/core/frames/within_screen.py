"""What has changed since a frame was looked at lies well within the screen: then nobody touches what he did not.

Looking for screen and figure anew costs several times what asking so does, and most frames of a clip allow it.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from .contact import spanned
from .find_screen import FoundScreen

CHANGED = 0.03
"""Of the signal, in any channel: above the noise of a small picture, below what anybody changes who moves."""
RIM, ROUND = 4, 2
"""Places in from the screen's outline and the frame's edges that must not change, and round what has changed."""
MOST = 0.5
"""Of the screen's places: where more has changed it is looked for anew."""


@dataclass(frozen=True)
class LookedAt:
    """A frame's signal (h, w, 3), the screen that was found in it, and where (h, w) a change touches nothing."""

    signal: Floats32
    found: FoundScreen
    inner: Bools


def looked_at(signal: Floats32, found: FoundScreen) -> LookedAt:
    return LookedAt(signal, found, _inner(found.mask))


def still_clear(now: Floats32, before: LookedAt) -> FoundScreen | None:
    """The screen of a frame (h, w, 3), less where anything has changed; None where it must be looked at itself."""
    if now.shape != before.signal.shape:
        return None
    red, green, blue = cv2.split(cv2.absdiff(now, before.signal))
    off = np.asarray(cv2.max(cv2.max(red, green), blue)) > CHANGED
    seen = cv2.morphologyEx(off.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    size = 2 * ROUND + 1
    around = cv2.dilate(seen, np.ones((size, size), np.uint8)) > 0
    if (around & ~before.inner).any():
        return None
    core = before.found.core & ~around
    if np.count_nonzero(core) < MOST * np.count_nonzero(before.found.core):
        return None
    return replace(before.found, core=core)


def _inner(mask: Bools) -> Bools:
    """Away from the outline that a screen spans; a body that the frame's lower edge cuts goes on beyond it."""
    within = np.pad(spanned(mask), ((1, 0), (1, 1)))
    within = np.concatenate([within, np.repeat(within[-1:], RIM, axis=0)])
    size = 2 * RIM + 1
    inner = cv2.erode(
        within.astype(np.uint8), np.ones((size, size), np.uint8), borderType=cv2.BORDER_CONSTANT, borderValue=1
    )
    return np.asarray(inner[1:-RIM, 1:-1] > 0)
