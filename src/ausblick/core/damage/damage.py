"""All that is predicted of a plan's key, in a few milliseconds and without a picture."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.view import View
from ..colour.rec709 import LUMA
from ..figure.held_props import HAND_AT, HANDS_ALONE_AT, hand_at, shown_props
from ..geometry.vectors import Floats
from ..plan import Plan, Subject
from ..plan.people import Garment
from .edges import AtTheEdge, causes_of_edge, causes_of_hair
from .formula import Formula, colour_difference
from .held_things import mirrored_at_edge
from .keyed_screen import KeyedScreen
from .matte_loss import Lit, figure_loss, losses_of
from .moving_hand import MovingHand, causes_of_motion
from .needed_clip import ScreenClip
from .scale import QualityPart, composite_error, parts_of, quality_of
from .screen_signal import ScreenSignal
from .smeared_hand import SmearedHand, smeared_hand

FULL_COVER = {"torso": 0.6, "legs": 0.2, "skin": 0.2}
COVER = {
    "full": FULL_COVER, "knees": FULL_COVER, "waist": {"torso": 0.8, "skin": 0.2},
    "chest": {"torso": 0.7, "skin": 0.3}, "face": {"torso": 0.4, "skin": 0.6}, "hands": {"torso": 0.6, "skin": 0.4},
}  # fmt: skip
"""Share of the figure in the picture that cloth above, cloth below and skin take."""
PLAIN_CLOTH = (0.16, 0.16, 0.18)
"""What a figure wears of whom nothing is said."""


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
        composite = None if self.edge_error is None else composite_error(measures)
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
    plan: Plan, view: View, screen: KeyedScreen | None, places: Mapping[str, Floats], smear_px: float | None
) -> Damage | None:
    """`screen`: None where it is not lit, and nothing is known then; `places`: light (3,) in lux by place of the
    figure."""
    if screen is None:
        return None
    light = {name: lux / grey_lux(plan.camera) for name, lux in places.items()}
    shown = plan.subject is not None and _is_shown(plan.subject, view)
    edge = _edge_in_picture(plan, plan.subject, view) if plan.subject is not None and shown else None
    things = _things(plan.subject, light) if plan.subject is not None and shown and light else {}
    hand = None
    if plan.subject is not None and edge is not None and edge.hand and smear_px is not None and edge.pixel_cm > 0.0:
        hand = smeared_hand(plan, plan.subject, view, smear_px)
    found = zip(screen.signals, screen.clips, strict=True)
    return Damage(*(_by_formula(plan, edge, signal, clip, light, things, screen.key, hand) for signal, clip in found))


FORM = ((0.0, 0.95), (0.0, 0.75), (0.0, 0.5), (0.0, 0.25), (-0.13, 0.8), (0.13, 0.8), HAND_AT)
HANDS = (HANDS_ALONE_AT, (-HANDS_ALONE_AT[0], HANDS_ALONE_AT[1]), (0.0, HANDS_ALONE_AT[1]))
"""Places of a body, and of hands alone, in shares of stature, by which it is told whether any of it is in the
picture."""


HAIR = ((0.0, 0.955), (-0.06, 0.95), (0.06, 0.95))
"""Of the hair, by which it is told whether any is before the screen."""


def _is_shown(subject: Subject, view: View) -> bool:
    """Of who stands beside the picture a key takes nothing."""
    return any(view.frames(_at(subject, x, y)) for x, y in (HANDS if subject.framing == "hands" else FORM))


@dataclass(frozen=True)
class EdgeInPicture:
    """What of the figure's edge is seen before the screen, how much of the mark's plane a pixel shows, cm, and what
    things that are held add to the error of the edge, on the mean of all that is looked at."""

    hair: bool
    hand: bool
    pixel_cm: float
    mirrored: float


def _edge_in_picture(plan: Plan, subject: Subject, view: View) -> EdgeInPicture:
    hair = subject.framing != "hands" and any(_before_screen(plan, view, _at(subject, x, y)) for x, y in HAIR)
    hand = _before_screen(plan, view, _at(subject, *hand_at(subject)))
    pixel = _pixel_cm(subject, view, plan)
    held = next((thing for thing in shown_props(subject) if not thing.worn), None)
    mirrored = 0.0
    if held is not None and _before_screen(plan, view, _at(subject, *held.shape.middle)):
        # It is measured round the hair, beside the hand, of which hands alone show little, and round the thing.
        mirrored = mirrored_at_edge(subject, pixel) / (1 + hair + (hand and subject.framing != "hands"))
    return EdgeInPicture(hair, hand, pixel, mirrored)


def _before_screen(plan: Plan, view: View, place: tuple[float, float, float]) -> bool:
    """Is a place in the picture, and not before the wall round a window?"""
    pane = plan.window
    if not view.frames(place):
        return False
    if pane is None or not pane.in_wall or place[2] <= pane.z:
        return True
    way = np.array(place) - view.lens
    x, y, _ = view.lens + way * (pane.z - view.lens[2]) / way[2]
    return bool(abs(x - pane.x) < 0.5 * pane.width and abs(y - pane.y) < 0.5 * pane.height)


def _by_formula(
    plan: Plan,
    edge: EdgeInPicture | None,
    screen: ScreenSignal,
    clip: ScreenClip,
    light: Mapping[str, Floats],
    things: Mapping[str, Lit],
    key: int,
    hand: SmearedHand | None,
) -> KeyDamage:
    losses: dict[str, float] = {}
    loss, at, moving = None, None, None
    if plan.subject is not None and edge is not None and things:
        losses = losses_of(things, screen, key)
        loss = figure_loss(losses, _drawn(plan.subject))
        at = _at_the_edge(plan, edge, screen, light, key)
        at = replace(at, shadow=clip.causes["shadow"], folds=clip.causes["folds"])
        if hand is not None:
            moving = _moving(plan, plan.subject, edge, screen, clip, light, key, hand)
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


def _things(subject: Subject, light: Mapping[str, Floats]) -> dict[str, Lit]:
    """Everything that the key must keep, by name, in its own light; first what the figure is drawn with."""
    arms, cheeks = (light["right arm"], light["left arm"]), (light["right cheek"], light["left cheek"])
    above, below = subject.worn_above, subject.worn_below
    found = {
        "drawn torso": Lit(_cloth(above), light["chest"], arms),
        "drawn legs": Lit(_cloth(below), light["legs"], arms),
        "skin": Lit(np.array(subject.skin), light["face"], cheeks),
    }
    if below is not None and below is above and below.keying == "kept" and subject.legs_seen:
        found[f"{below.name} near the floor"] = Lit(_cloth(below), light["legs"], arms)
    for garment in (one for one in subject.seen_wardrobe if one.keying == "kept"):
        at = "legs" if garment.covers == "legs" else "chest"
        found[garment.name] = Lit(_cloth(garment), light[at], arms)
    for prop in subject.props:
        if prop.kind == "matt" and prop.keying == "kept":
            found[prop.name] = Lit(np.array(prop.reflectance), light["chest"], arms)
    return found


def _drawn(subject: Subject) -> dict[str, float]:
    cover = COVER[subject.framing]
    worn = {"torso": subject.worn_above, "legs": subject.worn_below, "skin": None}
    # What is keyed away on purpose or held out is no loss: the rest of the figure is looked at.
    kept = {name: share for name, share in cover.items() if _is_kept(worn[name])}
    return {"skin" if name == "skin" else f"drawn {name}": share for name, share in kept.items()}


def _is_kept(garment: Garment | None) -> bool:
    return garment is None or garment.keying == "kept"


def _cloth(garment: Garment | None) -> Floats:
    return np.array(PLAIN_CLOTH if garment is None else garment.reflectance)


def _at_the_edge(
    plan: Plan, edge: EdgeInPicture, screen: ScreenSignal, light: Mapping[str, Floats], key: int
) -> AtTheEdge:
    """What the subject's places look like before the screen."""
    subject = plan.subject
    assert subject is not None
    skin, worn = np.array(subject.skin), _worn(subject)
    hair, on_hair = np.array(subject.hair), 0.6 * light["shoulders"] + 0.5 * light["face"]

    def share(ink: Floats, lit: Floats) -> float:
        return float(colour_difference(np.minimum(ink * lit, 1.0), key, screen.formula)) / screen.median

    return AtTheEdge(
        chroma=plan.camera.recording.chroma,
        noise=screen.noise_share,
        clipped=screen.clipped,
        shadow=0.0,
        folds=0.0,
        pixel_cm=edge.pixel_cm,
        arm=max(share(worn, light[name]) for name in ("right arm", "left arm")),
        cheek=max(share(skin, light[name]) for name in ("right cheek", "left cheek")),
        hair=share(hair, on_hair),
        light_hair=float(LUMA @ np.minimum(hair * on_hair, 1.0)) / screen.median,
        hair_kind=subject.hair_kind if edge.hair else "none",
        mirrored=edge.mirrored,
    )


def _worn(subject: Subject) -> Floats:
    """The cloth at the figure's edge: one that is keyed away has none, and that of a hold-out is drawn by hand."""
    above = subject.worn_above
    return _cloth(above) if _is_kept(above) else np.array(subject.skin)


def _moving(
    plan: Plan,
    subject: Subject,
    edge: EdgeInPicture,
    screen: ScreenSignal,
    clip: ScreenClip,
    light: Mapping[str, Floats],
    key: int,
    seen: SmearedHand,
) -> MovingHand:
    arms = (light["right arm"], light["left arm"])
    return MovingHand(
        hand=Lit(np.array(subject.skin), light["chest"], arms),
        sleeve=Lit(_worn(subject), light["chest"], arms),
        screen=screen.light,
        d=screen.median,
        formula=screen.formula,
        key=key,
        noise=screen.noise_share,
        folds=clip.causes["folds"],
        clipped=screen.clipped,
        chroma=plan.camera.recording.chroma,
        pixel_cm=edge.pixel_cm,
        seen=seen,
    )


def _at(subject: Subject, x: float, y: float) -> tuple[float, float, float]:
    """A place of the figure given in shares of its height, m."""
    return subject.x + x * subject.height, subject.up(y), subject.z


def _pixel_cm(subject: Subject, view: View, plan: Plan) -> float:
    """How much of the mark's plane a pixel of the sensor shows, cm; 0 behind the lens."""
    x, y, z = subject.eyes
    ends, depth = view.project(np.array([(x, y, z), (x + 0.1, y, z)]))
    if np.any(depth <= 0.05):
        return 0.0
    px = float(np.hypot(*((ends[1] - ends[0]) * (plan.camera.sensor.px_w, plan.camera.sensor.px_h))))
    return 10.0 / max(px, 1e-6)
