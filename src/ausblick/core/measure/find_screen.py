"""Find the screen in a frame: the largest run of one saturated green or blue.

Colour is compared as the ratio of the other two channels to the key channel in *linear* light. A
shadow or a gradient scales all three alike and leaves the ratio where it was, so that the dark
corner of a screen is still the screen, and a plant of another green is not.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np

from ..arrays import Bools, Floats32
from .frame import linear_of

LONGEST = 640
NEAR, LOOSE = 0.16, 0.30
LEAST_AREA = 0.01
BINS = 40


@dataclass(frozen=True)
class FoundScreen:
    """`mask` (h, w) of the reduced frame, `core` the same without its rim, `channel` 1 or 2."""

    hue: Literal["green", "blue"]
    channel: int
    mask: Bools
    core: Bools

    @property
    def area_percent(self) -> float:
        return 100.0 * float(self.mask.mean())


def find_screen(reduced: Floats32, region: Bools | None = None, linear: Floats32 | None = None) -> FoundScreen | None:
    """The screen in a reduced frame (h, w, 3) of signal 0..1, or None where there is none.

    `region` (h, w): where it is looked for; outside nothing is screen. `linear`: its light, where that is known.
    """
    linear = linear_of(reduced) if linear is None else linear
    if region is not None:
        linear = np.where(region[..., None], linear, np.float32(0.0))
    masks = {channel: _by_channel(linear, channel) for channel in (1, 2)}
    channel = max(masks, key=lambda c: int(masks[c].sum()))
    mask = masks[channel]
    if mask.mean() < LEAST_AREA:
        return None
    rim = max(1, round(0.006 * max(mask.shape)))
    core = _eroded(mask, rim)
    hue: Literal["green", "blue"] = "green" if channel == 1 else "blue"
    return FoundScreen(hue, channel, mask, core if core.any() else mask)


def _by_channel(linear: Floats32, channel: int) -> Bools:
    """The screen as seen by one key channel (h, w); empty where that channel does not lead."""
    key = linear[..., channel]
    others = linear[..., [c for c in range(3) if c != channel]]
    ratio = others / np.maximum(key, np.float32(1e-4))[..., None]
    candidate = (key > 0.006) & (ratio[..., 0] < 0.8) & (ratio[..., 1] < 0.8)
    if candidate.mean() < LEAST_AREA:
        return np.zeros(key.shape, dtype=bool)
    peak = _densest(np.asarray(ratio[candidate], dtype=np.float32))
    if peak.max() > 0.66:
        return np.zeros(key.shape, dtype=bool)
    away = np.hypot(ratio[..., 0] - peak[0], ratio[..., 1] - peak[1])
    strict = candidate & (away < NEAR)
    return _grown(strict, candidate & (away < LOOSE))


def _densest(ratios: Floats32) -> Floats32:
    """The most crowded place (2,) in the plane of ratios."""
    ratios = ratios[:: max(1, len(ratios) // 30_000)]
    crowd, _, _ = np.histogram2d(ratios[:, 0], ratios[:, 1], bins=BINS, range=((0, 1), (0, 1)))
    smooth = cv2.GaussianBlur(crowd, (0, 0), 1.2)
    row, column = np.unravel_index(int(np.argmax(smooth)), smooth.shape)
    near = np.hypot(ratios[:, 0] - (row + 0.5) / BINS, ratios[:, 1] - (column + 0.5) / BINS) < 0.08
    return np.asarray(np.median(ratios[near], axis=0), dtype=np.float32)


def _grown(strict: Bools, loose: Bools) -> Bools:
    """Sizeable connected parts of `loose` that hold enough of `strict`, without speckle."""
    opened = cv2.morphologyEx(loose.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(opened, connectivity=8)
    sure = np.bincount(labels[strict], minlength=count)
    areas = stats[:, cv2.CC_STAT_AREA]
    keep = (sure > 0.25 * areas) & (areas > 0.002 * strict.size)
    keep[0] = False
    return np.asarray(keep[labels])


def _eroded(mask: Bools, by: int) -> Bools:
    shape = np.ones((2 * by + 1, 2 * by + 1), np.uint8)
    return np.asarray(cv2.erode(mask.astype(np.uint8), shape, borderType=cv2.BORDER_CONSTANT, borderValue=1) > 0)
