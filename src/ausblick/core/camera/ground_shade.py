"""Where a figure's shadow lies on level ground: of the key light, or of the light that the plate was filmed in."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..plan import Plan

PLATE = "the plate's light"


@dataclass(frozen=True)
class ContactShade:
    """From the feet: azimuth in degrees (0 away from the camera, 90 to its right) and length on the floor in m;
    `lamp`: whose light it is, a lamp's name or PLATE."""

    lamp: str
    azimuth_deg: float
    length_m: float


def contact_shade(plan: Plan) -> ContactShade | None:
    """Of the key light: the figure's height over the tangent of the light's elevation; away from the lamp."""
    keys = [lamp for lamp in plan.lights if lamp.on and lamp.role == "key"]
    if plan.subject is None or not keys:
        return None
    lamp, subject = keys[0], plan.subject
    dx, dz = subject.x - lamp.position[0], subject.z - lamp.position[2]
    flat = math.hypot(dx, dz)
    up = lamp.position[1] - subject.top / 2.0
    if flat < 1e-6 or up <= 0.0:
        return None
    # The plan's z runs from the screen to the camera: away from the camera is toward smaller z.
    azimuth = math.degrees(math.atan2(dx, -dz)) % 360.0
    return ContactShade(lamp.name, azimuth, subject.top / (up / flat))


def shade_in_plate(plan: Plan) -> ContactShade | None:
    """Of the plate's light, where it has a side and stands above the horizon: height over the tangent of its
    elevation, away from it. Else of the key light."""
    plate, subject = plan.plate, plan.subject
    told = plate.tells("key_azimuth") and plate.tells("key_elevation") and plate.light in ("one", "two")
    if subject is None or not told or plate.key_elevation <= 0.0 or plate.key_elevation >= 90.0:
        return contact_shade(plan)
    # The plate's azimuth is where light comes from, 0 the camera and negative its left.
    return ContactShade(PLATE, -plate.key_azimuth % 360.0, subject.top / math.tan(math.radians(plate.key_elevation)))
