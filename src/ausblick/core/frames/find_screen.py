"""Find the screen in a frame: the largest run of one saturated green or blue.

Colour is compared as the ratio of the other two channels to the key channel in *linear* light. A
shadow or a gradient scales all three alike and leaves the ratio where it was, so that the dark
corner of a screen is still the screen, and a plant of another green is not.

A pale or odd screen (teal, lime) is no fact but a question, with the places that may be it; where a
person has drawn round one, it is taken for what they say.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32
from .burnt import with_burnt
from .frame import linear_of

LONGEST = 640
NEAR, LOOSE = 0.16, 0.30
LEAST_AREA = 0.01
BINS, PICKS, CROWD = 40, 12_000, 0.08
CHANNELS = {"green": 1, "blue": 2}
BALANCES = (1.5, 2.1, 0.67, 0.48)
"""Red up and blue down by these: a camera left at another white balance, some 60 to 120 mired off."""
LARGER, LEAST_OF_OTHER = 1.5, 0.15
"""A hue that is wanted is taken where it shows this much of what the other does."""


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


@dataclass(frozen=True)
class Limits:
    """How much of the key channel the other two have at most in a place of the screen, and in its middle."""

    ratio: float
    peak: float


SURE, MAYBE = Limits(0.8, 0.66), Limits(0.97, 0.93)
TO_GREY = 0.6
"""What may be a screen differs from its middle by no more than this share of the way to grey."""


@dataclass(frozen=True)
class Sought:
    """What was found, and `maybe`: masks (h, w) by channel of what may be a screen as well, or at all."""

    found: FoundScreen | None
    maybe: tuple[tuple[int, Bools], ...]


def find_screen(
    reduced: Floats32, region: Bools | None = None, linear: Floats32 | None = None, wanted: str = "other"
) -> FoundScreen | None:
    """The screen in a reduced frame (h, w, 3) of signal 0..1, or None where there is none.

    `region` (h, w): where it is looked for; outside nothing is screen. `linear`: its light, where that is known.
    `wanted`: "green" or "blue" where that is known: white walls under a wrong white balance are no blue screen.
    """
    return seek_screen(reduced, region, linear, wanted).found


def screen_of(reduced: Floats32, channel: int) -> FoundScreen | None:
    """The screen of a key channel that is known, 1 green or 2 blue; None where it leads nowhere."""
    mask = _by_channel(linear_of(reduced), channel)
    return _found(channel, mask) if mask.mean() >= LEAST_AREA else None


def seek_screen(
    reduced: Floats32, region: Bools | None = None, linear: Floats32 | None = None, wanted: str = "other"
) -> Sought:
    """The same, and what else may be a screen."""
    linear = linear_of(reduced) if linear is None else linear
    if region is not None:
        linear = np.where(region[..., None], linear, np.float32(0.0))
    masks = {channel: _by_channel(linear, channel) for channel in (1, 2)}
    channel = max(masks, key=lambda c: int(masks[c].sum()))
    if wanted in CHANNELS and channel != CHANNELS[wanted]:
        other = _of_hue(linear, CHANNELS[wanted], masks[CHANNELS[wanted]])
        if other.mean() > max(LEAST_AREA, LEAST_OF_OTHER * masks[channel].mean()):
            channel = CHANNELS[wanted]
            masks[channel] = other
    elif wanted in CHANNELS:
        masks[channel] = _of_hue(linear, channel, masks[channel])
    if masks[channel].mean() >= LEAST_AREA:
        rival = masks[3 - channel] & ~masks[channel]
        return Sought(_found(channel, masks[channel]), ((3 - channel, rival),))
    odd = {c: _by_channel(linear, c, MAYBE) for c in (1, 2)}
    channel = max(odd, key=lambda c: int(odd[c].sum()))
    if region is not None and odd[channel].mean() >= LEAST_AREA:
        return Sought(_found(channel, odd[channel]), ())
    return Sought(None, tuple(odd.items()))


def with_mask(found: FoundScreen, mask: Bools) -> FoundScreen:
    """A part (h, w) of a screen as a screen."""
    return _found(found.channel, mask)


def _found(channel: int, mask: Bools) -> FoundScreen:
    rim = max(1, round(0.006 * max(mask.shape)))
    core = _eroded(mask, rim)
    return FoundScreen("green" if channel == 1 else "blue", channel, mask, core if core.any() else mask)


def _of_hue(linear: Floats32, channel: int, mask: Bools) -> Bools:
    """The mask (h, w) of one key channel, or a clearly larger one that it has under another white balance."""
    found = mask
    for gain in BALANCES:
        other = _by_channel(linear, channel, gains=(gain, 1.0, 1.0 / gain))
        if other.mean() > LARGER * found.mean() + LEAST_AREA:
            found = other
    return found


def _by_channel(
    linear: Floats32, channel: int, limits: Limits = SURE, gains: tuple[float, float, float] = (1.0, 1.0, 1.0)
) -> Bools:
    """The screen as seen by one key channel (h, w); empty where that channel does not lead. `gains`: of red, green,
    blue, for another white balance."""
    planes = [p if gain == 1.0 else p * np.float32(gain) for p, gain in zip(cv2.split(linear), gains, strict=True)]
    key = np.asarray(planes[channel])
    per_key = np.float32(1.0) / np.maximum(key, np.float32(1e-4))
    first, second = (np.asarray(planes[c] * per_key, dtype=np.float32) for c in _others(channel))
    candidate = (key > 0.006) & (first < limits.ratio) & (second < limits.ratio)
    if np.count_nonzero(candidate) < LEAST_AREA * key.size:
        return np.zeros(key.shape, dtype=bool)
    places = np.flatnonzero(candidate)
    some = places[:: max(1, len(places) // PICKS)]
    peak = _densest(*(ratio.ravel().take(some, mode="clip") for ratio in (first, second)))
    if max(peak) > limits.peak:
        return np.zeros(key.shape, dtype=bool)
    away = np.square(first - peak[0]) + np.square(second - peak[1])
    reach = 1.0 if limits is SURE else min(1.0, TO_GREY * float(np.hypot(1.0 - peak[0], 1.0 - peak[1])) / LOOSE)
    seen = _grown(candidate & (away < (reach * NEAR) ** 2), candidate & (away < (reach * LOOSE) ** 2))
    own = [float(ratio) * gains[channel] / gains[c] for ratio, c in zip(peak, _others(channel), strict=True)]
    return with_burnt(seen, linear, channel, (own[0], own[1]))


def _others(channel: int) -> tuple[int, int]:
    return (0, 2) if channel == 1 else (0, 1)


def _densest(first: Floats32, second: Floats32) -> tuple[np.float32, np.float32]:
    """The most crowded place in the plane of two ratios (N,), each 0..1."""
    cells = (first * BINS).astype(np.int32) * BINS + (second * BINS).astype(np.int32)
    crowd = np.bincount(cells, minlength=BINS * BINS).reshape(BINS, BINS).astype(np.float32)
    row, column = divmod(int(np.argmax(cv2.GaussianBlur(crowd, (0, 0), 1.2))), BINS)
    away = np.square(first - np.float32((row + 0.5) / BINS)) + np.square(second - np.float32((column + 0.5) / BINS))
    near = np.flatnonzero(away < CROWD**2)
    return _middle(first.take(near)), _middle(second.take(near))


def _middle(values: Floats32) -> np.float32:
    """The median (of an even count the upper one) of some values (N,), of which none is NaN: NumPy's looks for those,
    and takes ten times as long."""
    half = len(values) // 2
    return np.float32(np.partition(values, half)[half])


def _grown(strict: Bools, loose: Bools) -> Bools:
    """Sizeable connected parts of `loose` that hold enough of `strict`, without speckle."""
    opened = cv2.morphologyEx(loose.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, areas = parts_of(opened.astype(np.uint8, copy=False))
    keep = np.zeros(count, dtype=bool)
    for label in np.flatnonzero(areas > 0.002 * strict.size):
        keep[label] = label > 0 and np.count_nonzero(strict & (labels == label)) > 0.25 * areas[label]
    return np.asarray(keep.take(labels, mode="clip"))


def parts_of(mask: np.ndarray[Any, np.dtype[np.uint8]]) -> tuple[int, np.ndarray[Any, Any], np.ndarray[Any, Any]]:
    """How many connected parts a mask (h, w) of uint8 has, with what is none of it; the part of every place (h, w),
    0 where none; and their areas. Short numbers where they suffice: this is asked of every frame of a clip."""
    kind = cv2.CV_16U if mask.size < 2 * np.iinfo(np.uint16).max else cv2.CV_32S
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask, connectivity=8, ltype=kind)
    return count, labels, stats[:, cv2.CC_STAT_AREA]


def _eroded(mask: Bools, by: int) -> Bools:
    shape = np.ones((2 * by + 1, 2 * by + 1), np.uint8)
    return np.asarray(cv2.erode(mask.astype(np.uint8), shape, borderType=cv2.BORDER_CONSTANT, borderValue=1) > 0)
