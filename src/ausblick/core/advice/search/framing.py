"""Where camera and mark stand for a framing: distance for a lens, height, tilt."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...camera.coverage import framed_part
from ...plan import Camera, Change, Framing, Plan, edit
from ...standards.limits import LIMITS
from ..moves import companions_along

FRAMINGS: tuple[Framing, ...] = ("full", "knees", "waist", "chest", "face", "hands")
FILLS = 0.86
"""The part of the body in the picture fills this share of its height; the rest is air above and below."""
NEAR_FACE = LIMITS["space.distortion"].at


@dataclass(frozen=True)
class Stand:
    """Distance lens to mark in m, lens height in m, tilt in degrees."""

    distance: float
    height: float
    tilt: float


def picture_height_mm(camera: Camera, turned: bool) -> float:
    return camera.sensor.width_mm if turned else camera.sensor.height_mm


def stand_for(plan: Plan, framing: Framing, focal_mm: float, turned: bool) -> Stand:
    """Where the camera stands so that the framing fills the picture: d = f * H / s + f."""
    assert plan.subject is not None
    low, high = framed_part(plan.subject, framing)
    picture = (high - low) / FILLS
    distance = focal_mm * picture / picture_height_mm(plan.camera, turned) + focal_mm / 1000.0
    height = min(plan.camera.y, plan.room.height - 0.2) if plan.room.kind == "interior" else plan.camera.y
    # A little more air above the head than below the cut.
    middle = (low + high) / 2.0 + 0.02 * picture
    return Stand(distance, height, math.degrees(math.atan2(middle - height, distance)))


def lens_for(plan: Plan, framing: Framing, distance: float, turned: bool) -> float:
    """Focal length in mm that fills the picture with the framing from `distance` m: f = s*d / (H + s)."""
    assert plan.subject is not None
    low, high = framed_part(plan.subject, framing)
    size = picture_height_mm(plan.camera, turned) / 1000.0
    return 1000.0 * size * max(distance, 0.1) / ((high - low) / FILLS + size)


def framing_changes(plan: Plan, framing: Framing, focal_mm: float, turned: bool, gap: float) -> list[Change]:
    """Changes that put mark and camera there, straight before the screen, gap in m from it; companions along."""
    stand = stand_for(plan, framing, focal_mm, turned)
    assert plan.subject is not None
    return [
        *companions_along(plan, plan.screen.x_centre - plan.subject.x, gap - plan.subject.z),
        edit.subject.framing(framing),
        edit.subject.feet_seen(framing == "full"),
        edit.subject.x(plan.screen.x_centre),
        edit.subject.z(round(gap, 2)),
        edit.camera.x(plan.screen.x_centre),
        edit.camera.y(round(stand.height, 2)),
        edit.camera.z(round(gap + stand.distance, 2)),
        edit.camera.pan(0.0),
        edit.camera.tilt(round(stand.tilt, 1)),
        edit.camera.roll(90.0 if turned else 0.0),
        edit.camera.focal_mm(focal_mm),
    ]
