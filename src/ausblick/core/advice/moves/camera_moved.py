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
A_TURN = 0.5
"""Degrees that change a picture."""
FILLED = 0.9
"""Of the picture's height, by what is framed: as much as leaves a little above and below."""


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


def turned_to(plan: Plan, low: float, high: float) -> list[Proposal]:
    """Panned, tilted, or both, until what is between `low` and `high`, m over the mark, is in the middle, or of what
    is too tall the upper part; or before it, looking straight ahead. Raises ValueError without a subject."""
    if plan.subject is None:
        raise ValueError("without a subject nothing is framed")
    camera, cost = plan.camera, tell("cost/framing-moves")
    shown = FILLED * _upright_mm(plan) / camera.focal_mm * abs(camera.z - plan.subject.z)
    pan, tilt = _toward_mark(plan, camera.z, max((low + high) / 2.0, high - shown / 2.0))
    panned, tilted = edit.camera.pan(pan), edit.camera.tilt(tilt)
    found = []
    if abs(tilt - camera.tilt) > A_TURN:
        found.append(Proposal(tell("do/tilt", to=tilt), (tilted,), cost))
    if abs(pan - camera.pan) > A_TURN:
        found += [
            Proposal(tell("do/pan", to=pan), (panned,), cost),
            Proposal(tell("do/pan-tilt", pan=pan, tilt=tilt), (panned, tilted), cost),
        ]
        x = camera_inside(plan, (plan.subject.x, camera.y, camera.z))[0]
        if abs(x - plan.subject.x) < TO_A_CENTIMETRE:
            before = (edit.camera.x(x), edit.camera.pan(0.0), tilted)
            found.append(Proposal(tell("do/camera-before", across=x), before, cost))
    return found


def back_for(plan: Plan, low: float, high: float) -> list[Proposal]:
    """The camera so far back that its lens shows all from `low` to `high`, m over the mark, and turned to it; nothing
    where it stands that far or the room ends before. Raises ValueError without a subject."""
    if plan.subject is None:
        raise ValueError("without a subject nothing is framed")
    camera = plan.camera
    away = (high - low) / FILLED * camera.focal_mm / _upright_mm(plan)
    z = round(plan.subject.z + away, 2)
    if z <= camera.z or camera_inside(plan, (camera.x, camera.y, z))[2] < z:
        return []
    pan, tilt = _toward_mark(plan, z, (low + high) / 2.0)
    changes = (edit.camera.z(z), edit.camera.pan(pan), edit.camera.tilt(tilt))
    return [Proposal(tell("do/camera-back-turned", z=z, tilt=tilt), changes, tell("cost/framing-moves"))]


def _upright_mm(plan: Plan) -> float:
    """The sensor's side that stands upright."""
    on_its_side = abs(math.sin(math.radians(plan.camera.roll))) > 0.7
    return plan.camera.sensor.width_mm if on_its_side else plan.camera.sensor.height_mm


def _toward_mark(plan: Plan, z: float, y: float) -> tuple[float, float]:
    """Pan and tilt, degrees, from a lens moved to z toward the height y over the mark."""
    if plan.subject is None:
        raise ValueError("without a subject nothing is framed")
    camera, subject = plan.camera, plan.subject
    across, ahead = subject.x - camera.x, z - subject.z
    pan = math.degrees(math.atan2(across, ahead))
    return round(pan, 1), round(math.degrees(math.atan2(y - camera.y, math.hypot(across, ahead))), 1)
