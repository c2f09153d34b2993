"""What a recording makes of an edge, and of a strand of hair, before the screen: worked out on a line of pixels.

    coverage   an edge  1 1 1 a 0 0 0     a strand  0 0 b c 0 0

Light mixes by coverage, the curve encodes and clips it, chroma that is recorded for two pixels is their mean and
comes back drawn out between them; the key takes what was recorded. The error is that of its matte over the pixels
round the edge, in the mean of where in a pixel an edge falls and of which two pixels share their chroma.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..colour.curves import Curve, decode, encode, held
from ..colour.rec709 import LUMA
from ..geometry.vectors import Floats
from .formula import Formula, colour_difference

PIXELS, MIDDLE, ROUND = 16, 7, slice(4, 12)
PHASES = (0.25, 0.75)
STRAND = 0.3
"""Of a pixel, what a strand covers of it at the most."""
LEAST = -0.5
"""A raw matte counts no lower, and no higher than 1: there the figure is only further from the screen's colour."""


def _cover(shape: Literal["edge", "strand"]) -> Floats:
    """(phases, PIXELS), 0..1."""
    at, begins = np.arange(PIXELS), MIDDLE + np.array(PHASES)[:, None]
    if shape == "edge":
        return np.asarray(np.clip(begins - at, 0.0, 1.0))
    return np.asarray(STRAND * np.clip(np.minimum(at + 1, begins + 1.0) - np.maximum(at, begins), 0.0, 1.0))


def _shared(first: int) -> Floats:
    """(PIXELS, PIXELS): what comes back of a line whose pixels share their chroma two by two from `first` on."""
    middles = first + 0.5 + 2.0 * np.arange((PIXELS - first) // 2)
    pairs = np.zeros((len(middles), PIXELS))
    for i in range(len(middles)):
        pairs[i, first + 2 * i : first + 2 * i + 2] = 0.5
    drawn_out = np.stack([np.interp(np.arange(PIXELS), middles, one) for one in np.eye(len(middles))], axis=1)
    return np.asarray(drawn_out @ pairs)


COVER = np.stack([_cover("edge"), _cover("edge"), _cover("strand")])
"""Of the figure's two sides and of its strands, (3, phases, PIXELS): all are recorded at once."""
SHARED = np.stack([_shared(0), _shared(1)])[:, None, None]


@dataclass(frozen=True, eq=False)
class KeyedBefore:
    """`screen` (3,): its linear light; `d`: its colour difference by `formula` in the `key` channel, as it is picked;
    `subsampled`: is chroma recorded for two pixels at a time? `table`: see `encode`."""

    screen: Floats
    d: float
    formula: Formula
    key: int
    curve: Curve
    table: str
    subsampled: bool


@dataclass(frozen=True)
class RecordedError:
    """Mean error of the matte with all its chroma, and what recording less of it adds."""

    light: float
    recording: float


def recorded_errors(sides: Floats, strand: Floats, before: KeyedBefore) -> tuple[RecordedError, RecordedError]:
    """Of the edge, the mean of two `sides` in linear light (2, 3), and of strands, (3,)."""
    light = np.concatenate([sides, strand[None]])[:, None, None]
    mixed = COVER[..., None] * light + (1.0 - COVER[..., None]) * before.screen
    clean = _errors(held(mixed[..., ROUND, :], before.curve, before.table), before)
    if not before.subsampled:
        return _mean_of(clean, clean)
    signal = encode(mixed, before.curve, before.table)
    luma = signal @ LUMA
    red, blue = np.moveaxis(SHARED @ (signal[..., ::2] - luma[..., None]), -1, 0)
    green = -(LUMA[0] * red + LUMA[2] * blue) / LUMA[1]
    back = np.clip(np.stack([red, green, blue], axis=-1) + luma[..., None], 0.0, 1.0)
    recorded = _errors(decode(back[..., ROUND, :], before.curve, before.table), before)
    return _mean_of(clean, recorded.mean(axis=0))


def _errors(seen: Floats, before: KeyedBefore) -> Floats:
    """Of the matte of linear light (..., 3, phases, round, 3): (..., 3)."""
    raw = 1.0 - colour_difference(seen, before.key, before.formula) / before.d
    return np.asarray(np.abs(np.clip(raw, LEAST, 1.0) - COVER[..., ROUND]).mean(axis=(-2, -1)))


def _mean_of(clean: Floats, recorded: Floats) -> tuple[RecordedError, RecordedError]:
    edge, strand = (
        RecordedError(float(clean[of].mean()), max(0.0, float((recorded - clean)[of].mean())))
        for of in (slice(0, 2), slice(2, 3))
    )
    return edge, strand
