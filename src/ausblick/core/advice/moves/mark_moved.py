"""The mark moved, and with it companions and the lamps that light faces: one left behind by its key is dark."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...plan import Change, Plan, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Proposal
from .more_screen import with_enough_screen
from .places import camera_inside, lamp_to

WITH_THE_MARK = ("key", "fill", "back")
LEAST_REACH, LENS_TO_FACE = 0.5, LIMITS["space.distortion"].at
"""Lens to mark at least, m: of hands, and of a face."""
ROOM_BEHIND_MARK = 1.5
"""From the mark to the back wall at least, m: a camera and somebody at it."""


def mark_to(plan: Plan, z: float, with_camera: bool = True) -> tuple[Change, ...]:
    """The mark at z, companions and the lamps that light faces with it, and the camera where the room allows."""
    assert plan.subject is not None
    step = z - plan.subject.z
    changes = [edit.subject.z(round(z, 2)), *companions_along(plan, 0.0, step), *_lamps_along(plan, 0.0, step)]
    if with_camera:
        camera = plan.camera
        reach = camera_inside(plan, (camera.x, camera.y, camera.z + step))[2]
        changes.append(edit.camera.z(round(max(reach, z + LEAST_REACH), 2)))
    return tuple(changes)


def mark_aside(plan: Plan, x: float) -> tuple[Change, ...]:
    """The mark so far to one side, m, companions and the lamps that light faces with it; the camera stays."""
    assert plan.subject is not None
    return (
        edit.subject.x(round(plan.subject.x + x, 2)),
        *companions_along(plan, x, 0.0),
        *_lamps_along(plan, x, 0.0),
    )


def _lamps_along(plan: Plan, x: float, z: float) -> list[Change]:
    """The lamps that light faces moved as far as the mark is, m."""
    found: list[Change] = []
    for i, lamp in enumerate(plan.lights):
        if lamp.role in WITH_THE_MARK and not lamp.is_daylight:
            (left, y, back), (ax, ay, az) = lamp.position, lamp.aim
            found += lamp_to(plan, i, (left + x, y, back + z), (ax + x, ay, az + z))
    return found


def companions_along(plan: Plan, x: float, z: float) -> list[Change]:
    """Companions moved as far as the mark is, m: who stands beside it still does."""
    found: list[Change] = []
    for i, one in enumerate(plan.companions):
        place = edit.companion(i)
        found += [place.x(round(one.x + x, 2)), place.z(round(one.z + z, 2))]
    return found


def mark_forward(evaluation: Evaluation, step: float = 0.6) -> list[Proposal]:
    plan = evaluation.plan
    if plan.subject is None:
        return []
    z = plan.subject.z + step
    if plan.room.kind == "interior" and z > plan.room.z_max - ROOM_BEHIND_MARK:
        return []
    changes = mark_to(plan, z)
    if not _lens_is_kept_away(plan, changes):
        return []
    return [with_enough_screen(plan, evaluation.coverage, tell("do/mark-with-camera", by=step), changes)]


def _lens_is_kept_away(plan: Plan, changes: tuple[Change, ...]) -> bool:
    """Is the lens as far from the mark as it was, or far enough for a face?"""
    assert plan.subject is not None
    to = {change.path: change.value for change in changes}
    was = plan.camera.z - plan.subject.z
    away = float(to.get("camera.z", plan.camera.z)) - float(to["subject.z"])
    least = LEAST_REACH if plan.subject.framing == "hands" else LENS_TO_FACE
    return away >= min(least, was - 0.01)


def mark_to_school(plan: Plan, wanted: float) -> list[Proposal]:
    """The mark as far from the screen as a school asks, with the camera or toward it."""
    assert plan.subject is not None
    step = wanted - plan.subject.z
    found = [
        Proposal(
            tell("do/mark-school-camera", by=step),
            mark_to(plan, wanted),
            tell("cost/keeps-framing"),
        ),
        Proposal(
            tell("do/mark-school", by=step),
            mark_to(plan, wanted, with_camera=False),
            tell("cost/tighter"),
        ),
    ]
    return [proposal for proposal in found if _lens_is_kept_away(plan, proposal.changes)]
