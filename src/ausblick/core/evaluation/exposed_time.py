"""How long light is gathered, and what moves or is out of focus in the meantime."""

from __future__ import annotations

from collections.abc import Callable

from ..camera.focus import defocus_px
from ..camera.motion import motion_blur_px, shutter_angle
from ..camera.view import focus_distance
from ..light.mix import scalar_lux
from ..plan import Plan
from ..standards.limits import LIMITS
from .on_face import OnFace
from .results import Blur, Flash


def flash_of(plan: Plan, on_face: Callable[[], OnFace]) -> Flash | None:
    """None where nothing flashes; only where something does is the light on the face asked for."""
    lit = [lamp for lamp in plan.lights if lamp.on and lamp.dimmer > 0.0 and lamp.fixture.flash_lms]
    if not lit:
        return None
    face = on_face()
    total = float(scalar_lux(face.light))
    own = sum(face.by_lamp.get(lamp.id, 0.0) for lamp in lit)
    camera = plan.camera
    return Flash(
        ambient_percent=100.0 * max(0.0, 1.0 - own / total) if total > 0.0 else 100.0,
        fires_whole=camera.shutter_s >= 0.999 * camera.sync_s,
        lux_s=own * camera.shutter_s,
        recycle_s=max(lamp.fixture.recycle_s * lamp.dimmer for lamp in lit),
    )


def _exposed_s(plan: Plan, flash: Flash | None) -> float:
    """How long movement is drawn for: the flash where it is all that counts, else the shutter."""
    if flash is None or flash.ambient_percent > LIMITS["camera.flash-ghost"].at:
        return plan.camera.shutter_s
    burning = [lamp.fixture.flash_s for lamp in plan.lights if lamp.on and lamp.fixture.flash_lms]
    return min(plan.camera.shutter_s, max(burning))


def blur_of(plan: Plan, flash: Flash | None) -> Blur:
    """Of the fastest movement and of the screen behind the mark; None each without a figure before the lens."""
    angle = shutter_angle(plan.camera.shutter_s, plan.camera.fps)
    reach = focus_distance(plan.camera, plan.subject)
    if plan.subject is None or reach <= 0.0:
        return Blur(None, None, angle)
    screen_at = focus_distance(plan.camera, None)
    return Blur(
        motion_px=motion_blur_px(plan.subject.speed, reach, plan.camera, _exposed_s(plan, flash)),
        screen_defocus_px=defocus_px(plan.camera, reach, screen_at) if screen_at > 0.0 else None,
        shutter_angle=angle,
    )
