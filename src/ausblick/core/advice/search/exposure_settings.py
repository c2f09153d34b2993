"""Exposure of a proposal: shutter by school and mains, aperture by depth, light by what there is."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...camera.focus import f_number_for
from ...camera.motion import flicker_error
from ...evaluation.results import Evaluation
from ...kit import KitLens
from ...plan import Change, Plan, edit
from ...standards.limits import LIMITS
from ..rules.camera_rules import sharp_range
from ..shutter_school import school_angle
from ..steps import SHUTTERS, nominal_iso, third_stop

MOST_ISO_STOPS = 3.0
SLOWEST_STILL = 1.0 / 100.0


@dataclass(frozen=True)
class Optics:
    """The lens, and the shutter where that is not left to the plan's school."""

    lens: KitLens
    shutter_s: float | None = None


@dataclass(frozen=True)
class LightSurplus:
    """Stops that the light at full power is above what is wanted (negative: missing)."""

    screen: float | None
    face: float | None

    @property
    def least(self) -> float:
        known = [stops for stops in (self.screen, self.face) if stops is not None]
        return min(known) if known else 0.0


def shutter_for(evaluation: Evaluation) -> float:
    """The shutter of the plan's school that cuts no flash; for stills one that is fast enough to hold."""
    plan = evaluation.plan
    if plan.medium == "stills":
        return SLOWEST_STILL
    low, high = school_angle(evaluation)
    fitting = [1.0 / n for n in SHUTTERS if low - 0.5 <= 360.0 * plan.camera.fps / n <= high + 0.5]
    if not fitting:
        return high / 360.0 / plan.camera.fps
    return min(fitting, key=lambda t: (round(flicker_error(t, plan.room.mains.hz), 2), -t))


LEFT_OF_STOP = 0.6
"""Of the hand that would stop the shoot, how much may be lost at a shutter that is quicker than the school's."""


def quicker_for(evaluation: Evaluation) -> float | None:
    """A shutter at which the moving hand holds: what it loses goes with the way it makes while the shutter is open.

    None where nothing moves or no shutter is quicker.
    """
    if evaluation.damage is None or not evaluation.damage.kinder.motion_error:
        return None
    limit, shutter = LIMITS["key.motion"], evaluation.plan.camera.shutter_s
    wanted = shutter * LEFT_OF_STOP * (limit.at + limit.stop) / evaluation.damage.kinder.motion_error
    quicker = [1.0 / n for n in SHUTTERS if 1.0 / n < 0.99 * shutter]
    return max((t for t in quicker if t <= wanted), default=min(quicker, default=None))


def settings_for(evaluation: Evaluation, optics: Optics) -> list[Change]:
    """Shutter by school or as it is wanted, base ISO, the aperture that the action's depth wants."""
    return [
        edit.camera.shutter_s(round(optics.shutter_s or shutter_for(evaluation), 8)),
        edit.camera.iso(evaluation.plan.camera.sensor.base_iso),
        edit.camera.nd_stops(0.0),
        edit.camera.f_number(aperture_for(evaluation, optics.lens)),
        edit.camera.sharpening(False),
    ]


def aperture_for(evaluation: Evaluation, lens: KitLens) -> float:
    """The widest aperture that keeps the action sharp, within what the lens and diffraction allow."""
    needed, focus = sharp_range(evaluation), evaluation.focus
    if lens.fixed:
        return lens.f_number
    if needed is None or focus is None:
        return max(4.0, lens.f_number)
    wanted = third_stop(max(1.0, f_number_for(evaluation.plan.camera, focus.distance_m, *needed)))
    return min(max(wanted, lens.f_number, 2.8), 11.0)


def exposure_changes(plan: Plan, lens: KitLens, light: LightSurplus, reserve: float) -> tuple[list[Change], float]:
    """Win or spend stops until the light suffices: aperture first, then ISO. Returns what is still missing.

    More light than `reserve` stops beyond what is wanted is taken by a smaller aperture, then by ND:
    dimmers can take a few stops well, daylight has none.
    """
    camera = plan.camera
    f_number, iso, nd = camera.f_number, camera.sensor.base_iso, 0.0
    missing = -light.least
    if missing > 0.0:
        open_to = max(lens.f_number, third_stop(f_number * 2.0 ** (-missing / 2.0), up=False), 1.4)
        open_to = min(f_number, open_to)
        missing -= 2.0 * math.log2(f_number / open_to)
        f_number = open_to
        raised = min(MOST_ISO_STOPS, max(0.0, missing))
        raised = math.ceil(raised * 3.0 - 1e-6) / 3.0
        iso, missing = iso * 2.0**raised, missing - raised
    elif missing < -reserve and not lens.fixed:
        close_to = min(8.0, third_stop(f_number * 2.0 ** ((-missing - reserve) / 2.0), up=False))
        if close_to > f_number:
            missing += 2.0 * math.log2(close_to / f_number)
            f_number = close_to
        nd = float(max(0, round(-missing - reserve)))
    changes = [
        edit.camera.f_number(f_number),
        edit.camera.iso(nominal_iso(iso, camera.sensor.base_iso)),
        edit.camera.nd_stops(nd),
    ]
    return changes, max(0.0, missing)
