"""The matte's error round a hand that moves, worked out where hand and sleeve melt into the screen.

    pixel  = min(cover * thing + (1 - cover) * screen, 1)                     linear light, channel by channel
    matte  = clip((1 - d(pixel) / d(screen) - black) / (white - black))       as it is pulled
    error  = edge * (blur + smear) * mean of |matte - cover| over covers 0 to 1,  and what a sleeve loses inside

How long an edge a picture of the hand shows, how wide it blurs, and where the clips lie was fitted to drawn keys of
200 plans made by dice (docs/model.md).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from .edges import CLIPS, subsampled
from .formula import Formula, colour_difference
from .matte_loss import Lit

COVERS = np.linspace(0.0, 1.0, 33)[:, None]
MOST_SMEAR = 9.0
EDGE, GROWS, HANDS_ALONE = 100.0, 0.087, 1.103
"""Of the edge: cm of it in a picture of large pixels, the pixel in cm at which two thirds of that are in it, and how
many times as long it is for hands alone."""
BLUR, SMEARS = 1.541, 0.611
"""How wide it melts: in pixels, and as a share of the smear (a hand's outline runs every way)."""
OF_SKIN = 0.713
"""Share of the edge that is skin; the rest is sleeve."""
OF_NOISE, OF_CHROMA, INSIDE = 0.214, 0.09, 0.572
"""Error over the melting edge by noise of d over d of the screen; width in pixels that less than full chroma gets
wrong; width in cm of the sleeve in which what is keyed away counts."""
BLACK, BLACK_BY_NOISE, BLACK_BY_FOLDS = 0.036, 0.917, 1.328
"""The black clip near the hand: its least, by the noise, by what folds add to the clip that the screen needs."""


@dataclass(frozen=True)
class MovingHand:
    """Hand and sleeve in their own light before a screen of unclipped linear light (3,) and a median d.

    `noise`: share of d of the screen; `folds`: what they add to the clip; `clipped`: see ScreenSignal; `pixel_cm`: a
    pixel at the mark.
    """

    hand: Lit
    sleeve: Lit
    screen: Floats
    d: float
    formula: Formula
    key: int
    noise: float
    folds: float
    clipped: float
    chroma: str
    pixel_cm: float
    smear_cm: float
    only_hands: bool


@dataclass(frozen=True)
class _Melting:
    """Error of the matte where a thing melts into the screen, 0 to 1: what anything of no screen colour has, what
    comes on top by screen colour on it and by too little of it beside it; and what is lost inside."""

    own: float
    screen_colour: float
    weak_screen: float
    lost: float


def causes_of_motion(at: MovingHand | None) -> dict[str, float]:
    """In cm2, by name; empty where no hand is in the picture."""
    if at is None:
        return {}
    edge = EDGE * (1.0 - float(np.exp(-at.pixel_cm / GROWS))) * (HANDS_ALONE if at.only_hands else 1.0)
    blur, smear = BLUR * at.pixel_cm, SMEARS * min(at.smear_cm, MOST_SMEAR)
    black = BLACK + BLACK_BY_NOISE * at.noise + BLACK_BY_FOLDS * at.folds
    white = 1.0 - float(np.clip(3.0 * at.noise, 0.04, 0.3))
    skin, sleeve = (_melting(thing, at, min(black, 0.6), white) for thing in (at.hand, at.sleeve))

    def both(of_skin: float, of_sleeve: float) -> float:
        return edge * (OF_SKIN * of_skin + (1.0 - OF_SKIN) * of_sleeve)

    own, weak = both(skin.own, sleeve.own), both(skin.weak_screen, sleeve.weak_screen)
    coloured = both(skin.screen_colour, sleeve.screen_colour)
    # What a smear and another fault do together is half of each.
    alone, clips = blur + 0.5 * smear, at.clipped > CLIPS
    return {
        "every key": own * blur,
        "smear": (own + 0.5 * (weak + coloured)) * smear,
        "recording": OF_CHROMA * edge * at.pixel_cm * subsampled(at.chroma),
        "noise": OF_NOISE * at.noise * edge * (blur + smear),
        "screen colour": coloured * alone + INSIDE * edge * sleeve.lost,
        "dark screen": 0.0 if clips else weak * alone,
        "clipping": weak * alone if clips else 0.0,
    }


def _melting(thing: Lit, at: MovingHand, black: float, white: float) -> _Melting:
    pixel = COVERS[..., None] * thing.light + (1.0 - COVERS[..., None]) * at.screen
    share = colour_difference(np.minimum(pixel, 1.0), at.key, at.formula) / at.d
    matte = _clipped(1.0 - share, black, white)
    error = np.abs(matte - COVERS).mean(axis=0)
    own = np.minimum(error, np.abs(_clipped(COVERS, black, white) - COVERS).mean())
    more, coloured = error - own, share[-1] > 0.0
    return _Melting(
        own=float(own.mean()),
        screen_colour=float((more * coloured).mean()),
        weak_screen=float((more * ~coloured).mean()),
        lost=float(1.0 - matte[-1].mean()),
    )


def _clipped(raw: Floats, black: float, white: float) -> Floats:
    return np.asarray(np.clip((raw - black) / max(0.05, white - black), 0.0, 1.0))
