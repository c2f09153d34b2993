"""Plan -> Evaluation: the one place where the parts of the computation meet. It only calls."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .arrays import Bools, Floats, unit
from .light.basis import BasisStore, lamp_maps, not_computed, weight
from .light.mix import ambient_rgb, probe_by_lamp, scalar_lux, screen_light
from .optics.coverage import Coverage, coverage_of
from .optics.focus import defocus_px, depth_of_field
from .optics.grid import Grid, screen_grid, seen_cells
from .optics.motion import motion_blur_px, shutter_angle
from .optics.view import View, focus_distance, view_of
from .plan import Plan, Subject
from .signal.exposure import grey_lux, luma, signal, stops
from .signal.schools import LevelTarget, level_target, screen_levels

COLUMNS, ROWS = 61, 41


@dataclass(frozen=True)
class ScreenReading:
    """Levels in %, light in lux, over the needed part of the screen that the camera sees."""

    level_luma: float
    level_key_channel: float
    lux_mean: float
    lux_min: float
    lux_max: float
    uniformity: float
    spread_stops: float
    band_percent: float


@dataclass(frozen=True)
class ScreenMap:
    """Over the whole screen, rows from the lower edge up: lux and both traces (H, W); `judged` cells."""

    grid: Grid
    lux: Floats
    luma: Floats
    key_channel: Floats
    judged: Bools


@dataclass(frozen=True)
class Exposure:
    """Light on the face in lux (None without a figure), and what the skin then reads in %."""

    subject_lux: float | None
    grey_lux: float
    subject_level: float | None
    stops_over: float | None


@dataclass(frozen=True)
class Blur:
    """Smear of the fastest movement and the screen's defocus disc, in recorded px."""

    motion_px: float | None
    screen_defocus_px: float | None
    shutter_angle: float


@dataclass(frozen=True)
class Focus:
    """Sharp from near to far (m, far may be inf) when focused on the mark."""

    distance_m: float
    near_m: float
    far_m: float


@dataclass(frozen=True)
class Evaluation:
    """The whole of it. `*_by_lamp`: each lamp's lux by id, on the judged screen and on the face."""

    plan: Plan
    view: View
    coverage: Coverage
    screen: ScreenReading | None
    screen_map: ScreenMap
    screen_by_lamp: dict[str, float]
    exposure: Exposure
    subject_light: Floats
    face_by_lamp: dict[str, float]
    target: LevelTarget
    blur: Blur
    focus: Focus | None
    not_computed: tuple[str, ...]


def evaluate(plan: Plan, store: BasisStore) -> Evaluation:
    """Everything this version knows about a plan. `store` remembers lamp maps between calls."""
    view = view_of(plan.camera, plan.subject)
    coverage = coverage_of(plan, view)
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    light = screen_light(plan, grid, store)
    levels = screen_levels(plan, light)
    judged = seen_cells(grid, coverage)
    screen_map = ScreenMap(grid, scalar_lux(light), *levels, judged)
    by_lamp, face_light = _face_light(plan, store)
    return Evaluation(
        plan=plan,
        view=view,
        coverage=coverage,
        screen=_reading(plan, screen_map),
        screen_map=screen_map,
        screen_by_lamp=_screen_by_lamp(plan, grid, judged, store),
        exposure=_exposure(plan, face_light),
        subject_light=face_light,
        face_by_lamp=by_lamp,
        target=level_target(plan, face_light),
        blur=_blur(plan),
        focus=_focus(plan),
        not_computed=_left_out(plan),
    )


def _reading(plan: Plan, screen_map: ScreenMap) -> ScreenReading | None:
    judged = screen_map.judged
    if not judged.any():
        return None
    lux = screen_map.lux[judged]
    trace = screen_map.luma if plan.targets.level_trace == "luma" else screen_map.key_channel
    low, high = np.quantile(trace[judged], (0.01, 0.99))
    mean, least, most = float(lux.mean()), float(lux.min()), float(lux.max())
    return ScreenReading(
        level_luma=float(screen_map.luma[judged].mean()),
        level_key_channel=float(screen_map.key_channel[judged].mean()),
        lux_mean=mean,
        lux_min=least,
        lux_max=most,
        uniformity=least / mean if mean > 0.0 else 0.0,
        spread_stops=stops(most / least) if least > 0.0 else float("inf") if most > 0.0 else 0.0,
        band_percent=float(high - low),
    )


def face_place(subject: Subject) -> Floats:
    """Where the face's light is measured: eye height, on the mark."""
    return np.array([subject.x, 0.93 * subject.height, subject.z])


def _face_light(plan: Plan, store: BasisStore) -> tuple[dict[str, float], Floats]:
    """Lux by lamp, and all light (3,), on the face held toward the camera as an incident meter is."""
    if plan.subject is None:
        return {}, np.zeros(3)
    place = face_place(plan.subject)
    toward = np.array([plan.camera.x, plan.camera.y, plan.camera.z]) - place
    if float(np.linalg.norm(toward)) < 1e-6:
        toward = np.array([0.0, 0.0, 1.0])
    shares = probe_by_lamp(plan, place, unit(toward), store)
    total = ambient_rgb(plan, unit(toward)) + sum((lux for _, lux in shares), start=np.zeros(3))
    return {lamp.id: float(scalar_lux(lux)) for lamp, lux in shares}, total


def _screen_by_lamp(plan: Plan, grid: Grid, judged: Bools, store: BasisStore) -> dict[str, float]:
    lamps, maps = lamp_maps(plan, grid, store)
    if not judged.any():
        return {}
    return {lamp.id: weight(lamp) * float(light[judged].mean()) for lamp, light in zip(lamps, maps, strict=True)}


def _exposure(plan: Plan, light: Floats) -> Exposure:
    grey = grey_lux(plan.camera)
    if plan.subject is None:
        return Exposure(None, grey, None, None)
    lux = float(scalar_lux(light))
    skin = signal(np.array(plan.subject.skin), light, plan.camera)
    return Exposure(lux, grey, float(luma(skin)), stops(lux / grey))


def _blur(plan: Plan) -> Blur:
    angle = shutter_angle(plan.camera.shutter_s, plan.camera.fps)
    reach = focus_distance(plan.camera, plan.subject)
    if plan.subject is None or reach <= 0.0:
        return Blur(None, None, angle)
    screen_at = reach + _behind(plan)
    return Blur(
        motion_px=motion_blur_px(plan.subject.speed, reach, plan.camera),
        screen_defocus_px=defocus_px(plan.camera, reach, screen_at) if screen_at > 0.0 else None,
        shutter_angle=angle,
    )


def _behind(plan: Plan) -> float:
    """How far along the optical axis the screen lies behind the mark, m."""
    subject_reach = focus_distance(plan.camera, plan.subject)
    screen_reach = focus_distance(plan.camera, None)
    return screen_reach - subject_reach


def _focus(plan: Plan) -> Focus | None:
    reach = focus_distance(plan.camera, plan.subject)
    if reach <= 0.0:
        return None
    return Focus(reach, *depth_of_field(plan.camera, reach))


def _left_out(plan: Plan) -> tuple[str, ...]:
    """What a reader must know is not in these numbers."""
    lamps = [f"{lamp.name}: {why}" for lamp in plan.lights if (why := not_computed(lamp))]
    return (
        *lamps,
        "light returned by room, floor and screen: levels are of direct light only",
        "the figure's shadow on the screen",
    )
