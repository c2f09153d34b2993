"""The matte's error round a hand that moves, worked out where hand and sleeve melt into the screen.

    pixel  = min(cover * thing + (1 - cover) * screen, 1)                     linear light, channel by channel
    matte  = clip((1 - d(pixel) / d(screen) - black) / (white - black))       as it is pulled
    error  = sum over covers of cm2 that are covered so far * |matte - cover|
             + length of the outline * width of an unmoved edge * mean of |matte - cover|

How much of the picture is covered how far is drawn (`smeared_hand.py`). Fitted to drawn keys of 200 plans made by
dice, and of 16 proposals: what chroma that is recorded in part adds, and where the black clip lies; to 200 others and
43 set-ups built by hand: how wide an unmoved edge melts (docs/model.md).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Bools, Floats
from .edges import CLIPS, subsampled
from .formula import Formula, colour_difference
from .matte_loss import Lit, black_clip
from .smeared_hand import COVERS, SmearedHand

EDGE = 0.8
"""How wide an unmoved edge melts, pixels."""
OF_CHROMA = 0.063
"""Error over it that less than full chroma adds."""


@dataclass(frozen=True, eq=False)
class MovingHand:
    """Hand and sleeve in their own light before a screen of unclipped linear light (3,) and a median d.

    `noise`: share of d of the screen; `folds`: what they add to the clip; `clipped`: see ScreenSignal; `pixel_cm`: a
    pixel at the mark; `seen`: how far they cover what is behind them.
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
    seen: SmearedHand


@dataclass(frozen=True, eq=False)
class _Melting:
    """Error of the matte (..., 2, K) of hand and sleeve by cover: what anything of no screen colour has, what comes
    on top by screen colour on it and by too little of it beside it."""

    own: Floats
    screen_colour: Floats
    weak_screen: Floats


def causes_of_motion(at: MovingHand | None) -> dict[str, float]:
    """In cm2, by name; empty where no hand is in the picture."""
    if at is None:
        return {}
    quiet, whole = _without_and_with_noise(at)
    # The noise moves both clips: what the same hand would not lose without it.
    noise = max(0.0, sum(whole.values()) - sum(quiet.values()))
    share = 1.0 if noise > 0.0 else sum(whole.values()) / max(sum(quiet.values()), 1e-9)
    return {**{name: share * value for name, value in quiet.items()}, "noise": noise}


def _without_and_with_noise(at: MovingHand) -> tuple[dict[str, float], dict[str, float]]:
    noise = np.array([0.0, at.noise])
    black = np.array([black_clip(float(each), at.folds) for each in noise])
    white = 1.0 - np.clip(3.0 * noise, 0.04, 0.3)
    both = _melting(at, black, white)
    quiet, whole = (_Melting(both.own[i], both.screen_colour[i], both.weak_screen[i]) for i in (0, 1))
    return _causes(at, quiet), _causes(at, whole)


def _causes(at: MovingHand, melting: _Melting) -> dict[str, float]:
    seen = at.seen
    area = np.stack([seen.hand, seen.sleeve])
    moved = area * MELTS
    edge = EDGE * at.pixel_cm * np.array([seen.hand_edge, seen.sleeve_edge])
    found = dict.fromkeys(("every key", "smear", "recording", "screen colour", "dark screen", "clipping"), 0.0)
    found["every key"] = float(edge @ melting.own[:, MELTS].mean(axis=1))
    found["recording"] = float(edge.sum()) * OF_CHROMA * subsampled(at.chroma)
    found["smear"] = float((melting.own * area).sum())
    weak = "clipping" if at.clipped > CLIPS else "dark screen"
    for name, more in (("screen colour", melting.screen_colour), (weak, melting.weak_screen)):
        # What a smear and another fault do together is half of each.
        together = 0.5 * float((more * moved).sum())
        found["smear"] += together
        found[name] = together + float(edge @ more[:, MELTS].mean(axis=1) + more[:, -1] @ area[:, -1])
    return found


MELTS: Bools = COVERS < 1.0


def _melting(at: MovingHand, black: Floats, white: Floats) -> _Melting:
    """By black and white clips (C,) of the matte: (C, 2, K)."""
    covers = COVERS[:, None]
    things = np.stack([at.hand.light, at.sleeve.light])[:, None]
    pixel = covers[..., None] * things + (1.0 - covers[..., None]) * at.screen
    share = colour_difference(np.minimum(pixel, 1.0), at.key, at.formula) / at.d
    clips = black[:, None, None, None], white[:, None, None, None]
    error = np.abs(_clipped(1.0 - share, *clips) - covers)
    own = np.minimum(error, np.abs(_clipped(covers, *clips) - covers))
    more, coloured = error - own, share[:, -1:] > 0.0
    return _Melting(own.mean(axis=-1), (more * coloured).mean(axis=-1), (more * ~coloured).mean(axis=-1))


def _clipped(raw: Floats, black: Floats, white: Floats) -> Floats:
    return np.asarray(np.clip((raw - black) / np.maximum(0.05, white - black), 0.0, 1.0))
