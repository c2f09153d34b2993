"""A set whose people or camera have moved, in the light of its last picture, until the new light is worked out."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import numpy as np
from scipy.spatial import KDTree

from ..camera.view import View
from ..figure.solid_body import SolidBody, solid_body
from ..geometry.vectors import Floats32
from ..light.basis import BasisStore
from ..light.body_light import BodyLight, places_shown
from ..light.keys import PLAIN_CAMERA, PLAIN_PERSON
from ..matte.capture import Capture
from ..matte.lit_room import LitSide, sides_seen
from ..matte.pixel_window import PixelWindow
from ..plan import Plan, seen_as
from ..remembered.shelf import Shelf

SETS = 4
"""Of so many sets the last picture's light is remembered."""
SIDES = 12
"""Of each so many pieces of the room as they were lit, the last first: a camera that goes back sees them again."""
MOST_NEW = 0.25
"""Share of a body's places in the frame that may have come into it."""
TURNED = 0.3
"""How far, in shares of stature, from a place one counts that is turned the other way, over two."""
STANDING = {name: getattr(PLAIN_PERSON, name) for name in ("x", "z")}
BREATHING = 0.5
"""Px of the picture's edge that focus on somebody who walks may move it, in a picture that is shown for a moment."""
LOOKING = {name: getattr(PLAIN_CAMERA, name) for name in ("x", "y", "z", "pan", "tilt", "roll", "focal_mm")}


@dataclass(frozen=True, eq=False)
class KnownLight:
    """A set's last capture, what was seen of its room in that and before, and what its picture showed behind
    everybody (`background_of`)."""

    capture: Capture
    room: tuple[LitSide, ...]
    behind: tuple[Floats32, Floats32]

    def behind_of(self, plan: Plan, view: View, window: PixelWindow) -> tuple[Floats32, Floats32] | None:
        """What is seen behind everybody, where the camera looks from where it did; None where it doesn't."""
        was, seen = self.capture.plan.camera, self.behind[1].shape
        breath = abs(view.tan_h / self.capture.view.tan_h - 1.0) * window.width / 2.0
        still = was == plan.camera and seen == (window.height, window.width) and breath < BREATHING
        return self.behind if still else None


@dataclass
class LastLight:
    """What was captured last of each set, by all of its plan but where people stand and the camera looks from."""

    _known: Shelf[KnownLight] = field(default_factory=lambda: Shelf(SETS))

    def keep(self, capture: Capture, behind: tuple[Floats32, Floats32]) -> None:
        """The capture of a whole plan and what its picture shows behind everybody, in place of the same set's older
        one."""
        key = _placeless(capture.plan)
        before = self._known.known(key)
        room = (*capture.room, *(before.room if before else ()))[:SIDES]
        self._known.put(key, KnownLight(capture, room, behind))

    def of(self, plan: Plan) -> KnownLight | None:
        """Of this plan, or of one in which people or camera were elsewhere; None where there is none."""
        return self._known.known(_placeless(plan))


def moved_to(known: KnownLight, plan: Plan, view: View, store: BasisStore) -> Capture | None:
    """A set's last capture with people and camera where they are in the plan: the light on each place of a body goes
    with it, shadows stay where they were. None where the camera sees more of the room than it ever did, or much
    more of a body."""
    last, room = known.capture, []
    for side, spans in sides_seen(plan, view, store):
        lit = next((one for one in known.room if one.shows(side, spans)), None)
        if lit is None:
            return None
        room.append(replace(lit, side=side))
    moved = _moved(last, plan, view)
    others = [_moved(one, seen_as(plan, i), view) for i, one in enumerate(last.others)]
    if moved is None or any(one is None for one in others):
        return None
    return replace(moved, room=tuple(room), others=tuple(one for one in others if one is not None))


def _placeless(plan: Plan) -> str:
    people = plan.subject and plan.subject.model_copy(update=STANDING)
    others = tuple(one.model_copy(update=STANDING) for one in plan.companions)
    camera = plan.camera.model_copy(update=LOOKING)
    return plan.model_copy(update={"camera": camera, "subject": people, "companions": others}).model_dump_json()


def _moved(last: Capture, plan: Plan, view: View) -> Capture | None:
    body = last.body
    if body is not None and plan.subject is not None:
        body = _carried(body, solid_body(plan.subject, plan.camera), view)
        if body is None:
            return None
    return replace(last, plan=plan, view=view, body=body)


def _carried(light: BodyLight, to: SolidBody, view: View) -> BodyLight | None:
    """The light that a body's places had, on them where they are now. What comes into the frame takes it of what it
    is nearest to and most turned alike; None where that is much."""
    shown = places_shown(to, view)
    new = shown[~np.isin(shown, light.known)]
    if len(new) > MOST_NEW * len(shown):
        return None
    lux, gloss = light.lux, light.gloss
    if len(new):
        alike = np.concatenate([to.shape.own, TURNED * to.shape.facing], axis=1)
        nearest = light.known[KDTree(alike[light.known]).query(alike[new])[1]]
        lux, gloss = lux.copy(), gloss.copy()
        lux[new], gloss[new] = lux[nearest], gloss[nearest]
    return replace(light, body=to, lux=lux, gloss=gloss)
