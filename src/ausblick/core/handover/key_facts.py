"""The numbers that the person who keys asks for: planned by the core, measured where there is a picture."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..advice.rule import Finding
from ..camera.focus import defocus_px
from ..evaluation.numbers import numbers
from ..evaluation.results import Evaluation
from ..frames.frame_report import FrameReport
from ..plan import Plan
from ..sentences import Units, say
from .action_outline import ActionOutline
from .hold_outs import HoldOut, MarkBox
from .sample_area import Samples

FAR = 1e4
"""Where a plate's distance lies, m: for the camera it is all one from here on."""


@dataclass(frozen=True)
class Fact:
    """A number with its unit and what it is."""

    id: str
    label: str
    value: float | None
    unit: str


@dataclass(frozen=True)
class ContactShade:
    """From the feet: azimuth in degrees (0 away from the camera, 90 to its right) and length on the floor in m."""

    lamp: str
    azimuth_deg: float
    length_m: float


@dataclass(frozen=True)
class LevelMatch:
    """Black and white of figure and plate in %, and what lays the one on the other: out = gain · in + lift."""

    figure_black: float
    figure_white: float
    plate_black: float
    plate_white: float
    gain: float
    lift: float


@dataclass(frozen=True)
class KeyFacts:
    """`measured` None without a picture; `synthetic_error_percent` None where the clean plate was filmed."""

    title: str
    curve: str
    planned: tuple[Fact, ...]
    measured: FrameReport | None
    outline: ActionOutline | None
    samples: Samples | None
    hold_outs: tuple[HoldOut, ...]
    marks: tuple[MarkBox, ...]
    clean_plate: str
    synthetic_error_percent: float | None
    levels: LevelMatch | None
    shade: ContactShade | None
    plate_blur_px: float | None
    horizon_v: float
    metres_per_px: float | None
    problems: tuple[str, ...]


def planned_facts(evaluation: Evaluation) -> tuple[Fact, ...]:
    return tuple(Fact(one.id, one.label, one.value, one.unit) for one in numbers(evaluation))


def contact_shade(plan: Plan) -> ContactShade | None:
    """Of the key light: the figure's height over the tangent of the light's elevation; away from the lamp."""
    keys = [lamp for lamp in plan.lights if lamp.on and lamp.role == "key"]
    if plan.subject is None or not keys:
        return None
    lamp, subject = keys[0], plan.subject
    dx, dz = subject.x - lamp.position[0], subject.z - lamp.position[2]
    flat = math.hypot(dx, dz)
    up = lamp.position[1] - subject.height / 2.0
    if flat < 1e-6 or up <= 0.0:
        return None
    # The plan's z runs from the screen to the camera: away from the camera is toward smaller z.
    azimuth = math.degrees(math.atan2(dx, -dz)) % 360.0
    return ContactShade(lamp.name, azimuth, subject.height / (up / flat))


def level_match(figure: tuple[float, float], plate: tuple[float, float]) -> LevelMatch | None:
    """Black and white of both, % of signal."""
    if figure[1] - figure[0] < 1.0:
        return None
    gain = (plate[1] - plate[0]) / (figure[1] - figure[0])
    return LevelMatch(*figure, *plate, gain=gain, lift=plate[0] - gain * figure[0])


def plate_blur(plan: Plan) -> float | None:
    """How far the camera would blur what the plate shows, px of the full frame, focused on the mark."""
    if plan.subject is None:
        return None
    return float(defocus_px(plan.camera, abs(plan.camera.z - plan.subject.z), FAR))


def metres_per_px(plan: Plan) -> float | None:
    """At the mark."""
    if plan.subject is None:
        return None
    camera = plan.camera
    away = abs(camera.z - plan.subject.z)
    return away * camera.sensor.width_mm / camera.focal_mm / camera.sensor.px_w


def horizon_v(plan: Plan) -> float:
    """Height of the horizon in the middle of the picture, in parts of it, y down."""
    camera = plan.camera
    return 0.5 + math.tan(math.radians(camera.tilt)) * camera.focal_mm / camera.sensor.height_mm


def problems_of(findings: Sequence[Finding], units: Units = "m") -> tuple[str, ...]:
    """What is open, worst first, in words."""
    return tuple(
        f"{one.judgement.severity}: {say(one.judgement.says, units)}"
        for one in findings
        if one.judgement.severity != "fine"
    )
