"""A set whose people or camera have moved, in the light of its last picture, until the new light is worked out."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from ..camera.view import View
from ..figure.solid_body import solid_body
from ..light.basis import BasisStore
from ..light.keys import PLAIN_CAMERA, PLAIN_PERSON
from ..matte.capture import Capture
from ..matte.lit_room import sides_seen
from ..plan import Plan, seen_as

SETS = 4
"""Of so many sets the last picture's light is remembered."""
STANDING = {name: getattr(PLAIN_PERSON, name) for name in ("x", "z")}
LOOKING = {name: getattr(PLAIN_CAMERA, name) for name in ("x", "y", "z", "pan", "tilt", "roll", "focal_mm")}


@dataclass
class LastLight:
    """What was captured last of each set, by all of its plan but where people stand and the camera looks from."""

    _captured: dict[str, Capture] = field(default_factory=dict)

    def keep(self, capture: Capture) -> None:
        """The capture of a whole plan, in place of the same set's older one."""
        key = _placeless(capture.plan)
        others = [(other, one) for other, one in list(self._captured.items()) if other != key]
        # Bound anew in one step: requests share it.
        self._captured = dict([*others, (key, capture)][-SETS:])

    def of(self, plan: Plan) -> Capture | None:
        """Of this plan, or of one in which people or camera were elsewhere; None where there is none."""
        return self._captured.get(_placeless(plan))


def moved_to(last: Capture, plan: Plan, view: View, store: BasisStore) -> Capture | None:
    """A set's last capture with people and camera where they are in the plan: the light on each place of a body goes
    with it, shadows stay where they were. None where the camera sees a side of the room that it did not see."""
    known = {(lit.side.axis, lit.side.at) for lit in last.room}
    if any((side.axis, side.at) not in known for side, _ in sides_seen(plan, view, store)):
        return None
    others = tuple(_moved(one, seen_as(plan, i), view) for i, one in enumerate(last.others))
    return replace(_moved(last, plan, view), others=others)


def _placeless(plan: Plan) -> str:
    people = plan.subject and plan.subject.model_copy(update=STANDING)
    others = tuple(one.model_copy(update=STANDING) for one in plan.companions)
    camera = plan.camera.model_copy(update=LOOKING)
    return plan.model_copy(update={"camera": camera, "subject": people, "companions": others}).model_dump_json()


def _moved(last: Capture, plan: Plan, view: View) -> Capture:
    body = last.body
    if body is not None and plan.subject is not None:
        body = replace(body, body=solid_body(plan.subject, plan.camera))
    return replace(last, plan=plan, view=view, body=body)
