"""What of the figure is in the picture and before the screen, and in what light: all that a key is predicted from
beside the screen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.view import View
from ..colour.curves import Curve
from ..figure.held_props import HAND_AT, HANDS_ALONE_AT, hand_at, shown_props
from ..geometry.vectors import Floats
from ..plan import Camera, Plan, Subject
from ..plan.people import Garment
from .before_screen import has_screen_behind
from .held_things import mirrored_at_edge
from .matte_loss import Lit
from .round_form import seen_lights
from .seen_area import seen_areas
from .smeared_hand import SmearedHand, smeared_hand

PLAIN_CLOTH = (0.16, 0.16, 0.18)
"""What a figure wears of whom nothing is said."""


@dataclass(frozen=True)
class EdgeInPicture:
    """What of the figure's edge is seen before the screen, how much of the mark's plane a pixel shows, cm, and what
    things that are held add to the error of the edge, on the mean of all that is looked at."""

    hair: bool
    hand: bool
    pixel_cm: float
    mirrored: float


@dataclass(frozen=True, eq=False)
class ShownFigure:
    """`chroma`, `curve`, `table`: how it is recorded. `places`: linear light (3,) by place of the figure; `seen`
    (T, 3): on all that is seen of its parts; `things`: what the key must keep, by name; `areas`: how much of the
    figure each of them takes; `hand`: as it moves, None where none is before the screen; `worn`: reflectance (3,) of
    the cloth at its edge."""

    subject: Subject
    chroma: str
    curve: Curve
    table: str
    edge: EdgeInPicture
    places: Mapping[str, Floats]
    seen: Mapping[str, Floats]
    things: Mapping[str, Lit]
    areas: Mapping[str, float]
    hand: SmearedHand | None
    worn: Floats


def shown_figure(
    plan: Plan,
    view: View,
    key: int,
    places: Mapping[str, Floats],
    around: Mapping[str, Floats],
    smear_px: float | None,
) -> ShownFigure | None:
    """Of the plan's subject; None where nothing of it is in the picture. `places`: light (3,) in lux by place of the
    figure; `around` (5, 3): the same round its parts (light/round_figure.py); `key`: the key channel's index."""
    subject = plan.subject
    if subject is None or not _is_shown(subject, view):
        return None
    grey = grey_lux(plan.camera)
    edge = _edge_in_picture(plan, subject, view)
    seen = seen_lights({part: lux / grey for part, lux in around.items()}, key)
    hand = None
    if smear_px is not None and edge.hand and edge.pixel_cm > 0.0:
        hand = smeared_hand(plan, subject, view, smear_px)
    return ShownFigure(
        subject=subject,
        chroma=plan.camera.recording.chroma,
        curve=plan.camera.curve,
        table=plan.camera.curve_table,
        edge=edge,
        places={name: lux / grey for name, lux in places.items()},
        seen=seen,
        things=_things(subject, seen),
        areas=_areas(subject, view, plan.camera),
        hand=hand,
        worn=_worn(subject),
    )


FORM = ((0.0, 0.95), (0.0, 0.75), (0.0, 0.5), (0.0, 0.25), (-0.13, 0.8), (0.13, 0.8), HAND_AT)
HANDS = (HANDS_ALONE_AT, (-HANDS_ALONE_AT[0], HANDS_ALONE_AT[1]), (0.0, HANDS_ALONE_AT[1]))
"""Places of a body, and of hands alone, in shares of stature, by which it is told whether any of it is in the
picture."""


HAIR = ((0.0, 0.955), (-0.06, 0.95), (0.06, 0.95))
"""Of the hair, by which it is told whether any is before the screen."""


def _is_shown(subject: Subject, view: View) -> bool:
    """Of who stands beside the picture a key takes nothing."""
    return any(view.frames(_at(subject, x, y)) for x, y in (HANDS if subject.framing == "hands" else FORM))


def _edge_in_picture(plan: Plan, subject: Subject, view: View) -> EdgeInPicture:
    hair = subject.framing != "hands" and any(has_screen_behind(plan, view, _at(subject, x, y)) for x, y in HAIR)
    hand = has_screen_behind(plan, view, _at(subject, *hand_at(subject)))
    pixel = _pixel_cm(subject, view, plan)
    held = next((thing for thing in shown_props(subject) if not thing.worn), None)
    mirrored = 0.0
    if held is not None and has_screen_behind(plan, view, _at(subject, *held.shape.middle)):
        # It is measured round the hair, beside the hand, of which hands alone show little, and round the thing.
        mirrored = mirrored_at_edge(subject, pixel) / (1 + hair + (hand and subject.framing != "hands"))
    return EdgeInPicture(hair, hand, pixel, mirrored)


def _things(subject: Subject, seen: Mapping[str, Floats]) -> dict[str, Lit]:
    """Everything that the key must keep, by name, in its own light; first what the figure is drawn with."""
    above, below = subject.worn_above, subject.worn_below
    found = {
        "drawn torso": Lit(_cloth(above), seen["chest"]),
        "drawn legs": Lit(_cloth(below), seen["legs"]),
        "skin": Lit(np.array(subject.skin), seen["head"]),
        "drawn hair": Lit(np.array(subject.hair), seen["head"]),
    }
    if below is not None and below is above and below.keying == "kept" and subject.legs_seen:
        found[f"{below.name} near the floor"] = Lit(_cloth(below), seen["legs"])
    for garment in (one for one in subject.seen_wardrobe if one.keying == "kept"):
        found[garment.name] = Lit(_cloth(garment), seen["legs" if garment.covers == "legs" else "chest"])
    for prop in subject.props:
        if prop.kind == "matt" and prop.keying == "kept":
            found[prop.name] = Lit(np.array(prop.reflectance), seen["chest"])
    return found


def _areas(subject: Subject, view: View, camera: Camera) -> dict[str, float]:
    worn = {"drawn torso": subject.worn_above, "drawn legs": subject.worn_below}
    # What is keyed away on purpose or held out is no loss: the rest of the figure is looked at.
    return {name: share for name, share in seen_areas(subject, view, camera).items() if _is_kept(worn.get(name))}


def _is_kept(garment: Garment | None) -> bool:
    return garment is None or garment.keying == "kept"


def _cloth(garment: Garment | None) -> Floats:
    return np.array(PLAIN_CLOTH if garment is None else garment.reflectance)


def _worn(subject: Subject) -> Floats:
    """The cloth at the figure's edge: one that is keyed away has none, and that of a hold-out is drawn by hand."""
    above = subject.worn_above
    return _cloth(above) if _is_kept(above) else np.array(subject.skin)


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
