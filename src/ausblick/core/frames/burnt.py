"""Where a screen is lit so much that its key channel clips: a hot spot, and no part of the figure.

A clipped channel says "at least this much". The light of a lamp scales all three alike, so that the other two tell by
their ratio to each other that it is still the screen, and by how much it is over: k times the clip.

    k = 1 at the clip    seen (r/g, b/g) = k x the screen's own, up to where a second channel clips, too; then the
                         third alone tells; where all clip there is white, which is screen where it begins slowly

What begins abruptly is somebody's clothes: k is as much on either side of a hot spot's border. Thresholds are ours:
tried on 147 made pictures, 30 of them with screens that clip in part.
"""

from __future__ import annotations

from collections.abc import Iterator

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from .whole_masks import closed, dilated

Box = tuple[slice, slice]

CLIP = 0.94
"""Of linear light: a signal of 97 %."""
SMOOTH = 3
OFF = 0.12
"""How far a place's ratios, less its k, are from the screen's."""
LEAST_RATIO = 0.03
MOST = 6.0
"""k that is still told from the third channel."""
LEAST = 0.0004
"""Of the frame."""
RIM = 5
"""px on either side of a border."""
STEP = 1.2
"""k within a border is no more than so many times that without."""
OF_RIM = 0.2
"""Of what lies round a hot spot, this much is screen: the figure hides the rest."""
DEEPER = 4
"""So often the screen beside a hot spot of another colour tells the next of it."""
SLOWLY = 0.8
"""The least channel round a place where all clip, in its lowest quarter."""


def with_burnt(screen: Bools, linear: Floats32, channel: int, peak: tuple[float, float]) -> Bools:
    """A screen (h, w) of light (h, w, 3) and ratios `peak`, and what of it clips."""
    if np.count_nonzero((linear[..., channel] >= CLIP) & ~screen) < LEAST * screen.size or not screen.any():
        return screen
    # Noise at the clip is cut on one side: a mean of few pixels is a little lower.
    smooth = np.asarray(cv2.blur(linear, (SMOOTH, SMOOTH)), dtype=np.float32)
    key = smooth[..., channel]
    clips = key >= CLIP
    others = [smooth[..., c] for c in range(3) if c != channel]
    over = _over(clips, others, peak)
    found = _with_joined(screen, np.isfinite(over) & clips & ~screen, over)
    found = _in_its_own_light(found, clips, others)
    least = np.minimum(np.minimum(others[0], others[1]), key)
    found |= _white(least, found)
    # Speckle between what was told by three, two and one of the channels.
    return found | (closed(found, RIM) & clips)


def _in_its_own_light(screen: Bools, clips: Bools, others: list[Floats32]) -> Bools:
    """The screen with hot spots that a lamp of another colour makes: there the screen beside tells its ratios, and
    once more further in."""
    found = screen.copy()
    for _ in range(DEEPER):
        before = np.count_nonzero(found)
        for box, part, around in _parts(clips & ~found):
            beside = around & found[box]
            if beside.any():
                here = [one[box] for one in others]
                first, second = (float(np.median(one[beside])) for one in here)
                over = _over(clips[box], here, (first, second))
                found[box] = _with_joined(found[box], part & np.isfinite(over), over, found.size)
        if np.count_nonzero(found) == before:
            break
    return found


def _parts(mask: Bools, whole: int = 0) -> Iterator[tuple[Box, Bools, Bools]]:
    """The sizeable parts of a mask (h, w) without speckle: a box with a rim, the part in it and what lies round it.
    `whole`: places of the frame, where the mask is but a piece of one."""
    opened = cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(opened, connectivity=8)
    for label in range(1, count):
        x, y, w, h, area = (int(one) for one in stats[label])
        if area >= LEAST * (whole or mask.size):
            box = np.s_[max(0, y - RIM) : y + h + RIM, max(0, x - RIM) : x + w + RIM]
            part = np.asarray(labels[box] == label)
            yield box, part, dilated(part, 2 * RIM + 1) & ~part


def _over(clips: Bools, others: list[Floats32], peak: tuple[float, float]) -> Floats32:
    """k (h, w); 1 where the key channel does not clip, NaN where it clips and the rest is not the screen's."""
    first, second = others
    own = [max(one, LEAST_RATIO) for one in peak]
    scale = (first * own[0] + second * own[1]) / np.maximum(first**2 + second**2, np.float32(1e-6))
    off = np.hypot(scale * first - own[0], scale * second - own[1])
    by_both = np.where(off < OFF, 1.0 / np.maximum(scale, np.float32(1e-3)), np.nan)
    over = np.maximum(by_both, 1.0)
    for unclipped, ratio, clipped, its in ((first, own[0], second, own[1]), (second, own[1], first, own[0])):
        alone = (clipped >= CLIP) & (unclipped < CLIP)
        by_one = unclipped / np.float32(ratio)
        over = np.where(alone, np.where((by_one * its > SLOWLY) & (by_one < MOST), by_one, np.nan), over)
    over = np.where((first >= CLIP) & (second >= CLIP), np.nan, over)
    return np.asarray(np.where(clips, over, 1.0), dtype=np.float32)


def _with_joined(screen: Bools, candidate: Bools, over: Floats32, whole: int = 0) -> Bools:
    """The screen and the parts of what may be a hot spot that it goes over into slowly."""
    found = screen.copy()
    for box, part, around in _parts(candidate, whole):
        without = around & screen[box]
        within = part & dilated(without, 2 * RIM + 1)
        if np.count_nonzero(without) < OF_RIM * np.count_nonzero(around) or not within.any():
            continue
        outside = over[box][without & np.isfinite(over[box])]
        if len(outside) and float(np.median(over[box][within])) < STEP * float(np.median(outside)):
            found[box] |= part
    return found


def _white(least: Floats32, screen: Bools) -> Bools:
    """Where all three clip, as far as it begins slowly."""
    found = np.zeros_like(screen)
    for box, part, around in _parts((least >= CLIP) & ~screen):
        rim = around & screen[box]
        slowly = rim.any() and float(np.quantile(least[box][rim], 0.25)) > SLOWLY
        if slowly and np.count_nonzero(rim) > 0.5 * np.count_nonzero(around):
            found[box] |= part
    return found
