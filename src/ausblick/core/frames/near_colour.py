"""Parts of a figure whose colour comes so near to the screen's that they were taken for it.

Light and shade leave the ratio of the other channels to the key channel where it is; returned light, another lamp's
colour and a floor run change it, but slowly, or up to the screen's own border. Cloth of another green begins
abruptly, ends within the screen, and touches somebody. Thresholds are ours: tried on seven garments in six set-ups
and on the same set-ups in other clothes.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Percent
from .contact import Contact, spanned
from .find_screen import FoundScreen
from .under_figure import ends_within, planes_of, step_of, under_figure
from .whole_masks import closed, dilated, eroded

SMOOTH = 2.0
"""Standard deviation, px of the reduced frame, over which a ratio is a mean: noise is less, an edge still one."""
ABRUPT, OF_NOISE = 0.010, 6.0
"""A ratio that changes by this from one pixel to the next has an edge there; or by so many times its usual change."""
OTHER = 0.10
"""A part differs in its ratios from the screen round it by this much."""
ALIKE = 0.04
"""Parts nearer than this to a part that is screen are of it: a floor run seen between two legs."""
LEAST, LEAST_ALIKE = 0.004, 0.0005
"""Of the frame: a part that is judged by itself, and one that has the colour of cloth which is found: a forearm."""
ON_BORDER, TOUCHES, WITHIN = 0.25, 0.03, 0.85
"""Of a part's rim: what reaches the screen's border is screen; a garment touches somebody; a gap is all within."""
SIDE = [2, -3]
"""Columns at the frame's sides and, the last, the row at its foot: what goes on beyond both is a floor run."""
CLIPPED, CLIPPING = 0.3, 0.98
TOLD = 0.5
"""Of a part: what holds so much of it is told already."""
SPECKLE, AROUND, REACH, BORDER = 7, 41, 25, 13
"""px: holes that noise makes in cloth half taken for screen; what a part is compared with; what counts as touching;
what counts as the border."""


@dataclass(frozen=True)
class LostPlace:
    """A box in parts of the frame, and how much of the frame it holds that may be lost."""

    x: float
    y: float
    w: float
    h: float
    area_percent: Percent


@dataclass(frozen=True)
class LostParts:
    """`mask` (h, w) of the reduced frame, and where they are."""

    mask: Bools
    places: tuple[LostPlace, ...]


class _Part(NamedTuple):
    mask: Bools
    ratios: Floats
    is_screen: bool
    touches: float
    place: LostPlace

    @property
    def is_large(self) -> bool:
        return self.place.area_percent >= 100.0 * LEAST


def lost_parts(linear: Floats32, found: FoundScreen, contact: Contact) -> LostParts:
    """What of the found screen (h, w, 3 of light) is rather somebody's clothes; empty where nothing is."""
    whole = closed(found.mask, SPECKLE) & ~contact.figure
    ratios = _ratios(linear, whole, found.channel)
    parts = _parts(linear[..., found.channel], ratios, whole, contact)
    lost = _lost(parts)
    mask = np.zeros(found.mask.shape, dtype=bool)
    for one in lost:
        mask |= _grown(one.mask)
    places = [one.place for one in lost if one.is_large]
    for cloth in _hanging(linear[..., found.channel], ratios, whole, contact.figure):
        if float(mask[cloth].mean()) < TOLD:
            places.append(_place(cloth))
        mask |= dilated(cloth, 3)
    return LostParts(mask & found.mask, tuple(places))


def _lost(parts: list[_Part]) -> list[_Part]:
    """Which of the parts are cloth; what is small is told by the colour of what is not."""
    apart = [one for one in parts if not one.is_screen]
    screen = [one for one in parts if one.is_screen]
    cloth = [
        one
        for one in apart
        if one.is_large
        and TOUCHES <= one.touches <= WITHIN
        and not any(_alike(one.ratios, other.ratios) for other in screen if other.is_large)
    ]
    return cloth + [
        one for one in apart if not one.is_large and any(_alike(one.ratios, other.ratios) for other in cloth)
    ]


def _alike(one: Floats, other: Floats) -> bool:
    return float(np.hypot(*(one - other))) < ALIKE


def _hanging(key: Floats32, ratios: Floats32, whole: Bools, figure: Bools) -> list[Bools]:
    """What hangs under parts of the figure, unless it clips."""
    ending = ends_within(figure)
    if not ending:
        return []
    cloths = under_figure(planes_of(_ln(key, whole), ratios, whole), ending)
    return [cloth for cloth in cloths if float((key[cloth] > CLIPPING).mean()) < CLIPPED]


def _place(mask: Bools) -> LostPlace:
    h, w = mask.shape
    x, y, wide, high = cv2.boundingRect(mask.astype(np.uint8))
    return LostPlace(x / w, y / h, wide / w, high / h, 100.0 * float(mask.mean()))


def _ln(key: Floats32, whole: Bools) -> Floats32:
    """Smoothed ln (h, w) of the key channel's light, of the screen's own pixels."""
    return _smoothed(np.log(np.maximum(key, np.float32(1e-4)), dtype=np.float32), whole)


def _ratios(linear: Floats32, whole: Bools, channel: int) -> Floats32:
    """Smoothed ratios (h, w, 2) of the other channels to the key channel, of the screen's own pixels."""
    per_key = np.float32(1.0) / np.maximum(linear[..., channel], np.float32(1e-4))
    others = (np.asarray(linear[..., c] * per_key, dtype=np.float32) for c in range(3) if c != channel)
    return np.stack([_smoothed(one, whole) for one in others], axis=-1)


def _smoothed(values: Floats32, whole: Bools) -> Floats32:
    inside = whole.astype(np.float32)
    weight = np.maximum(cv2.GaussianBlur(inside, (0, 0), SMOOTH), np.float32(1e-3))
    return np.asarray(cv2.GaussianBlur(values * inside, (0, 0), SMOOTH) / weight, dtype=np.float32)


def _parts(key: Floats32, ratios: Floats32, whole: Bools, contact: Contact) -> list[_Part]:
    """The found screen in parts that edges of colour divide, the largest left out: that is the screen. Small ones
    only where they have the colour of a larger one that may be cloth."""
    inner, change = eroded(whole), _change(ratios)
    if not inner.any():
        return []
    flat = inner & (change < max(ABRUPT, OF_NOISE * float(np.median(change[inner]))))
    # A way of a pixel or two, where an arm and its edges are bent together, joins nothing.
    wide = cv2.morphologyEx(flat.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(wide, connectivity=4)
    if count < 3:
        return []
    main = 1 + int(np.argmax(stats[1:, cv2.CC_STAT_AREA]))
    border = dilated(~spanned(whole), BORDER)
    border[:, :4] = border[:, -4:] = border[:4] = True
    near = dilated(contact.figure, REACH)
    largest = np.asarray(labels == main)
    sizes = {i: stats[i, cv2.CC_STAT_AREA] / labels.size for i in range(1, count) if i != main}
    parts = [_part(np.asarray(labels == i), ratios, largest, border, near) for i in sizes if sizes[i] >= LEAST]
    apart = [one for one in parts if not one.is_screen]
    for i in [i for i in sizes if apart and LEAST_ALIKE <= sizes[i] < LEAST]:
        mask = np.asarray(labels == i)
        own = np.median(ratios[mask], axis=0)
        if any(_alike(own, other.ratios) for other in apart):
            parts.append(_part(mask, ratios, largest, border, near))
    return [one for one in parts if float((key[one.mask] > CLIPPING).mean()) < CLIPPED]


def _change(ratios: Floats32) -> Floats32:
    """How much (h, w) the ratios (h, w, 2) differ from one pixel to the next."""
    return np.asarray(np.hypot(*(step_of(np.ascontiguousarray(ratios[..., i])) for i in range(2))), dtype=np.float32)


def _part(mask: Bools, ratios: Floats32, largest: Bools, border: Bools, near: Bools) -> _Part:
    round_it = dilated(mask, AROUND) & largest
    beside = ratios[round_it if round_it.sum() > 50 else largest]
    own = np.median(ratios[mask], axis=0).astype(float)
    off = float(np.hypot(*(own - np.median(beside, axis=0))))
    rim = mask & ~eroded(mask)
    return _Part(
        mask,
        own,
        off < OTHER or _in_a_corner(mask) or float(border[rim].mean()) >= ON_BORDER,
        float(near[rim].mean()),
        _place(mask),
    )


def _in_a_corner(mask: Bools) -> bool:
    return bool(mask[:, SIDE].any() and mask[SIDE[-1]].any())


def _grown(mask: Bools) -> Bools:
    """With the edge that divided it off, and closed."""
    return dilated(closed(mask, 15), 2 * round(2.0 * SMOOTH) + 1)
