"""Where to sample the screen: a box beside the face, and more of them to see whether one key does for all of it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..frames.frame import linear_of, luma_of
from ..geometry.vectors import Bools, Floats, Floats32

FROM_HAIR = 0.07
"""Of the figure's height, at least so far from its head."""
HEAD = 0.15
"""Of the figure's height, from its top, that holds the face."""
SIDE = 0.045
"""Of the frame's height: the box."""
GRID = 3
ONE_KEY = 0.2
"""Difference of the screen, as a share of the sample's, that one clip still takes: the limit of the rule key.clip."""


@dataclass(frozen=True)
class SampleBox:
    """In parts of the frame (upper left corner, y down); mean of R, G, B as recorded in % and linear 0..1, and the
    spread of its luma in %."""

    x: float
    y: float
    w: float
    h: float
    recorded: tuple[float, float, float]
    linear: tuple[float, float, float]
    spread_percent: float


@dataclass(frozen=True)
class Samples:
    """`beside_face` None where no figure stands or no screen is beside it; `regions`: the screen by ninths of the
    frame; `keys`: how many keys these need, each for what lies within ONE_KEY of its sample."""

    beside_face: SampleBox | None
    regions: tuple[SampleBox, ...]
    keys: int


def samples_of(signal: Floats32, figure: Bools, core: Bools, channel: int) -> Samples:
    """Of a reduced picture (h, w, 3): `figure` (h, w) before the screen, `core` (h, w) screen without its rim."""
    regions = tuple(_regions(signal, core))
    return Samples(_beside_face(signal, figure, core), regions, _keys(regions, channel))


def _beside_face(signal: Floats32, figure: Bools, core: Bools) -> SampleBox | None:
    rows = np.flatnonzero(figure.any(axis=1))
    if len(rows) == 0:
        return None
    top, tall = int(rows[0]), int(rows[-1] - rows[0] + 1)
    head = figure[top : top + max(1, round(HEAD * tall))]
    columns = np.flatnonzero(head.any(axis=0))
    gap, side = max(1, round(FROM_HAIR * tall)), max(4, round(SIDE * figure.shape[0]))
    y = max(0, top + round(0.5 * HEAD * tall) - side // 2)
    places = [(int(columns[-1]) + gap + step, y) for step in range(0, 4 * side, 2)]
    places += [(int(columns[0]) - gap - side - step, y) for step in range(0, 4 * side, 2)]
    free = [place for place in places if _all_screen(core, place, side)]
    if not free:
        return None
    nearest = min(abs(x + side / 2 - (columns[0] + columns[-1]) / 2) for x, _ in free)
    near = [place for place in free if abs(place[0] + side / 2 - (columns[0] + columns[-1]) / 2) < nearest + side]
    return min((_box(signal, place, side, side) for place in near), key=lambda box: box.spread_percent)


def _all_screen(core: Bools, place: tuple[int, int], side: int) -> bool:
    x, y = place
    inside = x >= 0 and y >= 0 and x + side <= core.shape[1] and y + side <= core.shape[0]
    return inside and bool(core[y : y + side, x : x + side].all())


def _box(signal: Floats32, place: tuple[int, int], w: int, h: int, mask: Bools | None = None) -> SampleBox:
    x, y = place
    patch = signal[y : y + h, x : x + w].reshape(-1, 3)
    if mask is not None:
        patch = patch[mask[y : y + h, x : x + w].ravel()]
    recorded, linear = patch.mean(axis=0), linear_of(patch).mean(axis=0)
    luma = luma_of(patch)
    height, width = signal.shape[:2]
    spread = 100.0 * float(luma.std())
    return SampleBox(x / width, y / height, w / width, h / height, _three(100.0 * recorded), _three(linear), spread)


def _three(values: Floats32) -> tuple[float, float, float]:
    r, g, b = (float(value) for value in values)
    return r, g, b


def _regions(signal: Floats32, core: Bools) -> list[SampleBox]:
    height, width = core.shape
    h, w = height // GRID, width // GRID
    cells = [(i * w, j * h) for j in range(GRID) for i in range(GRID)]
    return [_box(signal, (x, y), w, h, core) for x, y in cells if core[y : y + h, x : x + w].mean() > 0.05]


def _keys(regions: tuple[SampleBox, ...], channel: int) -> int:
    """The fewest groups of regions whose colour difference stays within ONE_KEY of one sample."""
    rgb: Floats = np.array([box.linear for box in regions]).reshape(-1, 3)
    differences = sorted(rgb[:, channel] - (rgb.sum(axis=1) - rgb[:, channel]) / 2.0)
    count, reach = 0, -np.inf
    for value in differences:
        if value > reach:
            # The sample is taken where this, the darkest of the group, is just within.
            count, reach = count + 1, value / (1.0 - ONE_KEY) * (1.0 + ONE_KEY)
    return max(1, count)
