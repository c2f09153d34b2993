"""The numbers that the person who keys asks for: planned by the core, measured where there is a picture."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..advice.rule import Finding
from ..camera.focus import defocus_px
from ..camera.ground_shade import ContactShade
from ..camera.view import focus_distance
from ..colour.rec709 import LUMA
from ..colour.white_point import light_rgb
from ..evaluation.numbers import numbers
from ..evaluation.results import Evaluation
from ..frames.frame_report import ClipReport, FrameReport
from ..plan import Plan, people_of
from ..plan.people import Garment, Keying, Prop
from ..plate.plate_picture import PlateReading
from ..sentences import Units, say
from .action_outline import ActionOutline
from .hold_outs import HoldOut, MarkBox
from .sample_area import Samples

NEUTRAL_K = 6504.0
"""Grey of a Rec.709 picture, K (its white is D65)."""
FLICKER, DRIFT = 0.5, 2.0
"""Points of signal from which they are told."""
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
class LevelMatch:
    """Black and white of figure and plate in %, and what lays the one on the other: out = gain · in + lift. `tint`:
    factors of linear R, G, B that make a neutral as warm as the plate's mid-tones, its luma kept; often a part of it
    is enough."""

    figure_black: float
    figure_white: float
    plate_black: float
    plate_white: float
    gain: float
    lift: float
    tint: tuple[float, float, float]


@dataclass(frozen=True)
class CameraFacts:
    """As planned. `shutter_deg` of the frame's time; `focus_m` to the mark, None without one."""

    focal_mm: float
    sensor_mm: tuple[float, float]
    position_m: tuple[float, float, float]
    pan_deg: float
    tilt_deg: float
    roll_deg: float
    focus_m: float | None
    f_number: float
    shutter_deg: float
    shutter_s: float
    iso: float
    fps: float
    white_balance_k: float
    tint: float
    curve: str


@dataclass(frozen=True)
class Grain:
    """Standard deviation of the noise on the screen in % of signal, and where it is from."""

    sigma_percent: float | None
    source: str


@dataclass(frozen=True)
class KeyFacts:
    """`measured` None without a picture, `clip` without a moving one; `inside_outline`: lamps that stand there as
    planned; `planned_hold_outs`: things that must stay though they share the screen's colour, `keyed_away` those that
    have it on purpose; `synthetic_error_percent` None where the clean plate was filmed."""

    title: str
    curve: str
    planned: tuple[Fact, ...]
    measured: FrameReport | None
    clip: ClipReport | None
    camera: CameraFacts
    grain: Grain
    outline: ActionOutline | None
    inside_outline: tuple[str, ...]
    samples: Samples | None
    hold_outs: tuple[HoldOut, ...]
    planned_hold_outs: tuple[str, ...]
    keyed_away: tuple[str, ...]
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


def level_match(figure: tuple[float, float], plate: PlateReading) -> LevelMatch | None:
    """`figure`: its black and white, % of signal."""
    if figure[1] - figure[0] < 1.0:
        return None
    gain = (plate.white_level - plate.black_level) / (figure[1] - figure[0])
    warm = light_rgb(plate.cct, 0.0, NEUTRAL_K, 0.0)
    red, green, blue = (float(part) for part in warm / (warm @ LUMA))
    lift = plate.black_level - gain * figure[0]
    return LevelMatch(*figure, plate.black_level, plate.white_level, gain=gain, lift=lift, tint=(red, green, blue))


def named(plan: Plan, keying: Keying) -> tuple[str, ...]:
    """Garments and props by what the key is to do with them."""
    things: list[Garment | Prop] = []
    for person in people_of(plan):
        things += [*person.wardrobe, *person.props]
    return tuple(one.name for one in things if one.keying == keying)


def camera_facts(plan: Plan) -> CameraFacts:
    camera = plan.camera
    focus = None if plan.subject is None else float(focus_distance(camera, plan.subject))
    return CameraFacts(
        focal_mm=camera.focal_mm,
        sensor_mm=(camera.sensor.width_mm, camera.sensor.height_mm),
        position_m=(camera.x, camera.y, camera.z),
        pan_deg=camera.pan,
        tilt_deg=camera.tilt,
        roll_deg=camera.roll,
        focus_m=focus,
        f_number=camera.f_number,
        shutter_deg=360.0 * camera.shutter_s * camera.fps,
        shutter_s=camera.shutter_s,
        iso=camera.iso,
        fps=camera.fps,
        white_balance_k=camera.white_balance_k,
        tint=camera.tint,
        curve=camera.curve,
    )


def grain_of(planned: Sequence[Fact], measured: FrameReport | None) -> Grain:
    """Measured where there is a picture, else as the plan has it."""
    if measured is not None and measured.noise_percent is not None:
        return Grain(float(measured.noise_percent), "measured on the screen")
    expected = next((fact.value for fact in planned if fact.id == "noise"), None)
    return Grain(expected, "planned")


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


def problems_of(
    findings: Sequence[Finding], clip: ClipReport | None, inside: Sequence[str], units: Units = "m"
) -> tuple[str, ...]:
    """What is open in words: what was seen first, with times, then the plan's own, worst first."""
    return (
        *_times(clip),
        *(f"{lamp} stands inside the outline: paint it out, or cut the outline there" for lamp in inside),
        *(
            f"{one.judgement.severity}: {say(one.judgement.says, units)}"
            for one in findings
            if one.judgement.severity != "fine"
        ),
    )


def _times(clip: ClipReport | None) -> list[str]:
    if clip is None:
        return []
    told = [
        f"something leaves the screen ({', '.join(one.sides)}) from {one.begins:.2f} s to {one.ends:.2f} s"
        for one in clip.breaches
    ]
    if clip.flicker_percent > FLICKER:
        told.append(f"the screen flickers by {clip.flicker_percent:.1f} points")
    if clip.bands_told is not None:
        told.append(say(clip.bands_told))
    if abs(clip.drift_percent) > DRIFT:
        told.append(f"the screen's level drifts by {clip.drift_percent:+.1f} points through the clip")
    return told
