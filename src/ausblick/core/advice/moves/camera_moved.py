"""The camera: its aperture by stops, and where another lens frames the same."""

from __future__ import annotations

import math

from ...camera.built_in_lens import lens_is_built_in
from ...plan import Change, Plan, edit
from ...sentences import Sentence, tell
from ..rule import Proposal
from ..steps import MOST_ND, SMALLEST, opened, third_stop
from .places import camera_inside

TO_A_CENTIMETRE = 0.011


def aperture_by(plan: Plan, missing: float, cost: Sentence) -> list[Proposal]:
    """The aperture that gives so many stops more, as far as the lens opens; less light where they are negative."""
    camera = plan.camera
    wanted = camera.f_number * 2.0 ** (-missing / 2.0)
    f_number = third_stop(wanted) if missing < 0.0 else opened(camera, wanted)
    if f_number > SMALLEST or abs(f_number - camera.f_number) < 0.05:
        return []
    text = tell("do/aperture", to=f_number, was=camera.f_number)
    return [Proposal(text, (edit.camera.f_number(f_number),), cost)]


def filtered_by(plan: Plan, missing: float, cost: Sentence) -> list[Proposal]:
    """Neutral filters taken out for so many stops more, in whole stops; put in for less, where lamps can't be dimmed
    for it: by daylight, and before a lens that closes no further."""
    had, stops = plan.camera.nd_stops, round(-missing)
    if stops > 0 and not (
        has_daylight(plan) or not aperture_by(plan, missing, cost) or lens_is_built_in(plan.camera)
    ):
        return []
    to = max(0.0, had + stops)
    if to == had or to > MOST_ND:
        return []
    return [Proposal(filter_told(had, to), (edit.camera.nd_stops(to),), cost)]


def filter_told(had: float, to: float) -> Sentence:
    if had == 0.0:
        return tell("do/nd-in", to=to)
    return tell("do/nd", to=to, was=had) if to > 0.0 else tell("do/nd-out", was=had)


def has_daylight(plan: Plan) -> bool:
    """Light that nobody dims."""
    return plan.room.kind == "exterior" or any(lamp.on and lamp.is_daylight for lamp in plan.lights)


def raised_camera(plan: Plan, y: float) -> tuple[Change, ...]:
    """The lens at another height, m, looking at the same place over the mark. Raises ValueError without a subject."""
    if plan.subject is None:
        raise ValueError("without a subject nothing is framed")
    camera, away = plan.camera, plan.camera.z - plan.subject.z
    looked_at = camera.y + away * math.tan(math.radians(camera.tilt))
    tilt = math.degrees(math.atan2(looked_at - y, away))
    return edit.camera.y(round(y, 2)), edit.camera.tilt(round(tilt, 1))


def same_framing(plan: Plan, focal_mm: float) -> float | None:
    """From where (z, m) another lens frames the subject as large; None where the room has no place for it there.

    Raises ValueError without a subject.
    """
    if plan.subject is None:
        raise ValueError("without a subject nothing is framed")
    camera = plan.camera
    z = plan.subject.z + (camera.z - plan.subject.z) * focal_mm / camera.focal_mm
    inside = camera_inside(plan, (camera.x, camera.y, z))[2]
    return z if min(abs(inside - z), abs(camera.z - z)) < TO_A_CENTIMETRE else None
