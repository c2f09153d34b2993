"""Errors of the matte at edge and hair, fitted to drawn keys of 150 plans made by dice (docs/model.md).

Every term is a cause by its name: noise of d over d of the screen; d of a place in its own light over d of the
screen (screen colour on it where that is positive, a screen too dark beside it where it is negative: half-covered
pixels then look solid); what clips; shadow and folds by what they add to the clip; a recording with less than full
chroma, which is a step, whatever its bit rate, and more in light hair: a bright strand is recorded with the colour of
the screen beside it, at its own brightness; the size of a pixel at the mark.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

MOST_CLIPPED, MOST_LIGHT = 3.0, 4.0
LARGE_CM, STRAND_CM = 0.04, 0.03
"""Size of a pixel at the mark below which light hair costs no more, and by which that falls to a third: a few hairs
side by side."""
CLIPS = 0.05
"""More than this, and a screen of little colour is one that clips, not one that is too dark."""


@dataclass(frozen=True)
class AtTheEdge:
    """`noise`: share of d of the screen; `clipped`: see ScreenSignal; `shadow`, `folds`: what they add to the clip;
    `pixel_cm`: a pixel at the mark; `mirrored`: what held things add.

    Of the subject, d of a place over d of the screen, the highest: `arm`, `cheek`, `hair`; `light_hair`: the hair's
    luma over d of the screen.
    """

    chroma: str
    noise: float
    clipped: float
    shadow: float
    folds: float
    pixel_cm: float
    arm: float
    cheek: float
    hair: float
    light_hair: float
    hair_kind: str
    mirrored: float


def causes_of_edge(at: AtTheEdge) -> dict[str, float]:
    return {
        "every key": 0.002 + 0.059 * at.pixel_cm,
        "recording": 0.036 * subsampled(at.chroma),
        "noise": 0.4 * at.noise,
        "screen colour": 0.217 * _between(at.arm, 1.0) + 0.08 * _between(at.cheek, 1.0),
        "shadow": 0.063 * at.shadow,
        "mirrored": at.mirrored,
        # A half-covered pixel of a thing whose d is n times the screen's, the other way, errs by n / 2(1 + n).
        **_weak_screen(at, 0.02 * _over_one(-at.arm), 0.02),
    }


def causes_of_hair(at: AtTheEdge) -> dict[str, float]:
    """Empty without hair."""
    if at.hair_kind == "none":
        return {}
    fine = at.hair_kind == "fine"
    # In a large picture a pixel is all strand; in a small one it is mixed with screen, and so is its brightness.
    light = min(at.light_hair, MOST_LIGHT) * math.exp(-max(at.pixel_cm, LARGE_CM) / STRAND_CM)
    return {
        "every key": 0.008,
        "hair": 0.016 * fine + 0.027 * (at.hair_kind == "curly"),
        "recording": (0.013 + (0.1 + 0.064 * fine) * light) * subsampled(at.chroma),
        "noise": 0.47 * at.noise,
        "screen colour": 0.087 * _between(at.hair, 0.5),
        "folds": 0.457 * at.folds,
        "shadow": 0.031 * at.shadow,
        **_weak_screen(at, 0.045 * _between(-at.hair, 2.0), 0.057),
    }


def _weak_screen(at: AtTheEdge, beside: float, each: float) -> dict[str, float]:
    """What a screen of little colour costs beside a bright subject: it clips, or it is too dark."""
    clipping = each * min(at.clipped, MOST_CLIPPED)
    if at.clipped > CLIPS:
        return {"dark screen": 0.0, "clipping": clipping + beside}
    return {"dark screen": beside, "clipping": clipping}


def _over_one(value: float) -> float:
    return max(0.0, value) / (1.0 + max(0.0, value))


def _between(value: float, most: float) -> float:
    return min(max(0.0, value), most)


def subsampled(chroma: str) -> bool:
    return chroma in ("4:2:2", "4:2:0")
