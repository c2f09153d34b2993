"""All that is predicted of a plan's key, in a few milliseconds and without a picture."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..camera.view import View
from ..figure.loose_strands import light_on_strands
from ..geometry.vectors import Floats
from ..plan import Plan
from .edges import AtTheEdge, causes_of_edge, causes_of_hair, subsampled
from .formula import Formula, colour_difference
from .keyed_screen import KeyedScreen
from .matte_loss import Lit, black_clip, figure_loss, losses_of
from .moving_hand import MovingHand, causes_of_motion
from .needed_clip import ScreenClip
from .recorded_edge import KeyedBefore, recorded_errors
from .round_form import outer_sides
from .scale import QualityPart, composite_error, parts_of, quality_of
from .screen_signal import ScreenSignal
from .shown_figure import ShownFigure, shown_figure
from .smeared_hand import SmearedHand


@dataclass(frozen=True)
class KeyDamage:
    """What the key by one formula will lose. `needed_clip`, `edge_error`, `hair_error`: of the matte, 0 to 1;
    `unclipped_clip`: the clip that would be needed if nothing clipped; `motion_error` cm2; `matte_loss` of the solid
    figure in %; `lost`: the same of each thing worn, held or shown; `clipped`: how much more the screen's colour
    difference would be if nothing clipped, as a share. `*_causes`: what adds how much to it. None or empty where
    it is not in the picture."""

    formula: Formula
    needed_clip: float
    unclipped_clip: float
    clip_causes: Mapping[str, float]
    matte_loss: float | None
    lost: Mapping[str, float]
    edge_causes: Mapping[str, float]
    hair_causes: Mapping[str, float]
    motion_causes: Mapping[str, float]
    clipped: float
    noise: float

    @property
    def edge_error(self) -> float | None:
        return _sum(self.edge_causes)

    @property
    def hair_error(self) -> float | None:
        return _sum(self.hair_causes)

    @property
    def motion_error(self) -> float | None:
        return _sum(self.motion_causes)

    @cached_property
    def parts(self) -> tuple[QualityPart, ...]:
        """On the fixed scale; screen that is left in the edge is not told without a picture."""
        measures = {
            "needed_clip": self.needed_clip,
            "matte_loss": self.matte_loss,
            "edge_error": self.edge_error,
            "hair_error": self.hair_error,
            "motion_error": self.motion_error,
        }
        composite = None if self.edge_error is None else composite_error(measures, self.clipped)
        return parts_of({**measures, "composite_error": composite})

    @cached_property
    def quality(self) -> float:
        return quality_of(self.parts)


def _sum(causes: Mapping[str, float]) -> float | None:
    return sum(causes.values()) if causes else None


@dataclass(frozen=True)
class Damage:
    """By the colour difference against the mean of the other channels, and against the larger of them."""

    mean: KeyDamage
    larger: KeyDamage

    @property
    def shown(self) -> bool:
        """Is anybody in the picture, of whom it is?"""
        return self.mean.matte_loss is not None

    @cached_property
    def kinder(self) -> KeyDamage:
        """The one that keeps more; the mean where it hardly matters, as the other leaves more screen in edges."""
        return self.larger if self.larger.quality > self.mean.quality + KINDER else self.mean


@dataclass(frozen=True)
class WorstDamage(Damage):
    """One key cuts everybody out: by each formula what it costs the person whom it costs most; `people`: whose the
    mean's and whose the larger's is, the subject (0) or a companion from 1."""

    people: tuple[int, int]

    @property
    def kinder_of(self) -> int:
        return self.people[self.kinder is self.larger]


def worst_of(people: Sequence[Damage | None]) -> WorstDamage | None:
    """Of those who are in the picture, if anybody is; None where nothing is known of anybody's key."""
    known = [(i, one) for i, one in enumerate(people) if one is not None]
    shown = [(i, one) for i, one in known if one.shown] or known
    if not shown:
        return None
    i, by_mean = min(shown, key=lambda found: found[1].mean.quality)
    j, by_larger = min(shown, key=lambda found: found[1].larger.quality)
    return WorstDamage(by_mean.mean, by_larger.larger, (i, j))


KINDER = 1.0
"""Points of quality by which the key against the larger channel must be better to be taken."""


def damage_of(
    plan: Plan,
    view: View,
    screen: KeyedScreen | None,
    places: Mapping[str, Floats],
    around: Mapping[str, Floats],
    smear_px: float | None,
) -> Damage | None:
    """`screen`: None where it is not lit, and nothing is known then; `places`, `around`: light in lux on the figure
    (see `shown_figure`)."""
    if screen is None:
        return None
    figure = shown_figure(plan, view, screen.key, places, around, smear_px)
    found = zip(screen.signals, screen.clips, strict=True)
    return Damage(*(_by_formula(figure, signal, clip, screen.key) for signal, clip in found))


def _by_formula(figure: ShownFigure | None, screen: ScreenSignal, clip: ScreenClip, key: int) -> KeyDamage:
    losses: dict[str, float] = {}
    loss, at, moving = None, None, None
    if figure is not None:
        black = black_clip(screen.noise_share, clip.causes["folds"])
        losses = losses_of(figure.things, screen, key, black)
        loss = figure_loss(losses, figure.areas)
        at = _at_the_edge(figure, screen, clip, key)
        moving = None if figure.hand is None else _moving(figure, figure.hand, screen, clip, key)
    return KeyDamage(
        formula=screen.formula,
        needed_clip=clip.needed,
        unclipped_clip=clip.unclipped,
        clip_causes=clip.causes,
        matte_loss=loss,
        lost={name: each for name, each in losses.items() if not name.startswith("drawn ")},
        edge_causes={} if at is None else causes_of_edge(at),
        hair_causes={} if at is None else causes_of_hair(at),
        motion_causes=causes_of_motion(moving),
        clipped=screen.clipped,
        noise=screen.noise_share,
    )


def _at_the_edge(figure: ShownFigure, screen: ScreenSignal, clip: ScreenClip, key: int) -> AtTheEdge:
    """What the subject's edge and hair look like before the screen."""
    before = KeyedBefore(
        screen.light, screen.median, screen.formula, key, figure.curve, figure.table, subsampled(figure.chroma)
    )
    sides = figure.worn * outer_sides(figure.seen["sleeve"])
    strand = np.array(figure.subject.hair) * light_on_strands(figure.places)

    edge, in_hair = recorded_errors(sides, strand, before)

    def share(light: Floats) -> float:
        return float(colour_difference(np.minimum(light, 1.0), key, screen.formula).max()) / screen.median

    return AtTheEdge(
        noise=screen.noise_share,
        clipped=screen.clipped,
        shadow=clip.causes["shadow"],
        folds=clip.causes["folds"],
        pixel_cm=figure.edge.pixel_cm,
        arm=share(sides),
        hair=share(strand),
        hair_kind=figure.subject.hair_kind if figure.edge.hair else "none",
        mirrored=figure.edge.mirrored,
        edge=edge,
        strand=in_hair,
    )


def _moving(figure: ShownFigure, hand: SmearedHand, screen: ScreenSignal, clip: ScreenClip, key: int) -> MovingHand:
    return MovingHand(
        hand=Lit(np.array(figure.subject.skin), figure.seen["hand"]),
        sleeve=Lit(figure.worn, figure.seen["sleeve"]),
        screen=screen.light,
        d=screen.median,
        formula=screen.formula,
        key=key,
        noise=screen.noise_share,
        folds=clip.causes["folds"],
        clipped=screen.clipped,
        chroma=figure.chroma,
        pixel_cm=figure.edge.pixel_cm,
        seen=hand,
    )
