"""Outfits before the day: how solid each piece keys before green, before blue and before a shot's own screen."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ..camera.level_schools import key_channel
from ..plan import Plan, Subject, edit
from ..rig.screen_colour import REFERENCE, matte_of
from .production_document import Outfit, Production, plans_of

KEYS, DOUBTFUL = 0.98, 0.9
"""Of solid: the rule screen.hue's limit, and the matte below which a clip no longer closes the hole."""
HUES: tuple[edit.Hue, ...] = ("green", "blue")


@dataclass(frozen=True)
class PieceVerdict:
    """One garment before one screen: how solid its matte is, 0..1."""

    garment: str
    solid: float


@dataclass(frozen=True)
class OutfitVerdict:
    """`screen`: its hue; `solid` of the worst piece; `verdict`: keys, doubtful, or keyed away."""

    screen: str
    solid: float
    verdict: str
    pieces: tuple[PieceVerdict, ...]


@dataclass(frozen=True)
class OutfitChecked:
    """`planned`: hues of the screens that its shots are planned before."""

    outfit: str
    verdicts: tuple[OutfitVerdict, ...]
    planned: tuple[str, ...]


def check_outfits(production: Production) -> tuple[OutfitChecked, ...]:
    """Each outfit on its own, before the screens of its shots, else before usual cloth of both colours."""
    plans = plans_of(production)
    own = {plan.screen.hue: np.array(plan.screen.reflectance) for plan in plans}
    screens = {hue: own.get(hue, np.array(REFERENCE[hue])) for hue in HUES}
    worn = [(shot.outfit, plan.screen.hue) for shot, plan in zip(production.shots, plans, strict=True)]
    return tuple(
        OutfitChecked(
            outfit.id,
            tuple(before_screen(outfit, hue, screen) for hue, screen in screens.items()),
            tuple(sorted({hue for who, hue in worn if who == outfit.id})),
        )
        for outfit in production.outfits
    )


def before_screen(outfit: Outfit, hue: edit.Hue, screen: Iterable[float]) -> OutfitVerdict:
    reflectance = np.array(tuple(screen))
    channel = key_channel(hue, reflectance)
    pieces = tuple(
        PieceVerdict(one.name, matte_of(np.array(one.reflectance), reflectance, channel)) for one in outfit.garments
    )
    least = min((piece.solid for piece in pieces), default=1.0)
    verdict = "keys" if least >= KEYS else "doubtful" if least >= DOUBTFUL else "keyed away"
    return OutfitVerdict(hue, least, verdict, tuple(sorted(pieces, key=lambda piece: piece.solid)))


def in_the_picture(outfit: Outfit, subject: Subject) -> Outfit:
    """What is seen of it on a plan's subject."""
    seen = subject.model_copy(update={"wardrobe": outfit.garments}).seen_wardrobe
    return outfit.model_copy(update={"garments": seen})


def worst_before(outfit: Outfit, plan: Plan) -> OutfitVerdict:
    """Before the screen of a plan."""
    return before_screen(outfit, plan.screen.hue, plan.screen.reflectance)
