"""Errors of the matte at edge and hair, by their causes.

What the light of both sides and the recording make of an edge or a strand is worked out (recorded_edge.py). How much
of the outline's error that is, and what noise, shadow, folds and the size of a pixel at the mark add, was fitted to
369 drawn keys (docs/model.md). Screen colour on what stands there errs over half of the pixels round an edge; what
else is due to the light is a screen that clips, or one that is too dark beside it: half-covered pixels look solid.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from .recorded_edge import RecordedError

CLIPS = 0.05
"""More than this, and a screen of little colour is one that clips, not one that is too dark."""
OF_EDGE = 0.776
"""Of what is worked out for the sleeves' outer sides: most of an outline is lit like those, or more evenly."""
STRAND_LIGHT, STRAND_RECORDED, FINE = 1.07, 0.32, 0.44
"""The same of strands a third of a pixel wide; fine hair has more of them."""
SOLID, OF_STRAND = 0.5, 0.0375
"""Of the pixels round an edge and round a strand, what is solid or covered: all that screen colour on it can cost."""
DENSE, LARGE_CM, STRAND_CM = 3.2, 0.04, 0.03
"""In a large picture strands lie beside each other over many pixels, and share their chroma: so much more of it, down
to that size of a pixel at the mark, less by e for each `STRAND_CM`."""


@dataclass(frozen=True)
class AtTheEdge:
    """`noise`: share of d of the screen; `clipped`: see ScreenSignal; `shadow`, `folds`: what they add to the clip;
    `pixel_cm`: a pixel at the mark; `mirrored`: what held things add; `edge`, `strand`: what is recorded of them.

    Of the subject, d of a place over d of the screen, the highest: `arm`, `hair`.
    """

    noise: float
    clipped: float
    shadow: float
    folds: float
    pixel_cm: float
    arm: float
    hair: float
    hair_kind: str
    mirrored: float
    edge: RecordedError
    strand: RecordedError


def causes_of_edge(at: AtTheEdge) -> dict[str, float]:
    colour = min(at.edge.light, SOLID * min(max(0.0, at.arm), 1.0))
    return {
        "every key": 0.032 * at.pixel_cm,
        "recording": OF_EDGE * at.edge.recording,
        "noise": 0.232 * at.noise,
        "screen colour": OF_EDGE * colour,
        "shadow": 0.049 * at.shadow,
        "mirrored": at.mirrored,
        **_weak_screen(at, OF_EDGE * (at.edge.light - colour)),
    }


def causes_of_hair(at: AtTheEdge) -> dict[str, float]:
    """Empty without hair."""
    if at.hair_kind == "none":
        return {}
    fine = FINE * (at.hair_kind == "fine")
    dense = DENSE * math.exp(-max(at.pixel_cm, LARGE_CM) / STRAND_CM)
    lit = STRAND_LIGHT + fine
    colour = min(at.strand.light, OF_STRAND * min(max(0.0, at.hair), 1.0))
    return {
        "every key": 0.024,
        "hair": 0.021 * (at.hair_kind == "curly"),
        "recording": (STRAND_RECORDED + dense + fine) * at.strand.recording,
        "noise": 0.21 * at.noise,
        "folds": 0.22 * at.folds,
        "screen colour": lit * colour,
        **_weak_screen(at, min(1.0, lit * (at.strand.light - colour))),
    }


def _weak_screen(at: AtTheEdge, costs: float) -> dict[str, float]:
    """What a screen of little colour costs beside a bright subject: it clips, or it is too dark."""
    clips = at.clipped > CLIPS
    return {"dark screen": 0.0 if clips else costs, "clipping": costs if clips else 0.0}


def subsampled(chroma: str) -> bool:
    return chroma in ("4:2:2", "4:2:0")
