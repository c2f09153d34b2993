"""Quality on a fixed scale, for keys that were drawn and for those that are predicted.

    quality = 100 * 2 ** -sqrt(sum(w_i * x_i^2) / sum(w_i)),  x_i = (m_i - ideal_i) / (border_i - ideal_i), 0 to 8

100: nothing a key could be kept from; 50: everything as in a border capture (1/50 s, ISO 1600, 4:2:0, a fifth
uneven). The root of the mean square lets one fatal part count: a garment that is keyed away is not averaged out by a
good edge. Ideal and border are the same for every plan, so that outfits, set-ups and days compare. They were set by
133 drawn keys (docs/model.md).
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

MOST = 8.0
"""Borders beyond which a part is lost and costs no more."""


@dataclass(frozen=True)
class ScaledPart:
    """A measure of the key, its best and its border value, and its weight."""

    name: str
    ideal: float
    border: float
    weight: float


PARTS = (
    ScaledPart("matte_loss", 0.5, 6.0, 0.20),
    ScaledPart("edge_error", 0.015, 0.09, 0.18),
    ScaledPart("needed_clip", 0.08, 0.30, 0.16),
    ScaledPart("hair_error", 0.04, 0.13, 0.14),
    ScaledPart("motion_error", 0.5, 5.0, 0.12),
    ScaledPart("composite_error", 0.015, 0.07, 0.08),
    ScaledPart("screen_left", 0.008, 0.02, 0.05),
)


@dataclass(frozen=True)
class QualityPart:
    """One part of the quality: its measure (None where it is not in the picture), the scale's ends, its weight and
    how many halvings of the quality it costs."""

    name: str
    value: float | None
    ideal: float | None
    border: float | None
    weight: float
    halvings: float


def parts_of(measures: Mapping[str, float | None]) -> tuple[QualityPart, ...]:
    """Every part of the scale with what was measured or predicted; `measures` by the parts' names."""
    known = {part.name: value for part in PARTS if (value := measures.get(part.name)) is not None}
    weights = sum(part.weight for part in PARTS if part.name in known)
    squares = {p.name: p.weight * _beyond(p, known[p.name]) ** 2 / weights for p in PARTS if p.name in known}
    whole = math.sqrt(sum(squares.values()))
    return tuple(
        QualityPart(p.name, known.get(p.name), p.ideal, p.border, p.weight,
                    squares.get(p.name, 0.0) / whole if whole > 0.0 else 0.0)
        for p in PARTS
    )  # fmt: skip


def _beyond(part: ScaledPart, value: float) -> float:
    return min(MOST, max(0.0, (value - part.ideal) / (part.border - part.ideal)))


def halvings_alone(name: str, value: float) -> float:
    """How often the quality is halved where the part `name` has `value` and all others are ideal.

    Raises StopIteration for a name that is no part's.
    """
    part = next(part for part in PARTS if part.name == name)
    return math.sqrt(part.weight / sum(other.weight for other in PARTS)) * _beyond(part, value)


OF_EDGE, OF_HAIR, OF_CLIPPED, MOST_CLIPPED, LEAST = 0.117, 0.194, 0.015, 3.0, 0.018
"""Of the composite's error, in signal: what errors of edge and hair and a screen that clips add; fitted to 369 drawn
keys."""


def composite_error(measures: Mapping[str, float | None], clipped: float) -> float:
    """What the composite loses at its edge, in signal, told by what its matte does; `clipped`: see ScreenSignal."""
    edge, hair = (measures.get(name) or 0.0 for name in ("edge_error", "hair_error"))
    return LEAST + OF_EDGE * edge + OF_HAIR * hair + OF_CLIPPED * min(clipped, MOST_CLIPPED)


def quality_of(parts: tuple[QualityPart, ...]) -> float:
    """0 to 100; 0 where nothing was measured. Weights of what is not in the picture go to the others."""
    if all(part.value is None for part in parts):
        return 0.0
    return float(100.0 * 2.0 ** -sum(part.halvings for part in parts))
