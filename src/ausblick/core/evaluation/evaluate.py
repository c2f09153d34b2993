"""Plan -> Evaluation: the one place where the parts of the computation meet. It only calls."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from ..camera.coverage import coverage_of
from ..camera.exposure import grey_lux, luma, signal, stops
from ..camera.focus import defocus_px, depth_of_field
from ..camera.level_schools import key_channel, level_target
from ..camera.motion import motion_blur_px, shutter_angle
from ..camera.view import View, focus_distance, view_of
from ..damage.damage import damage_of
from ..geometry.vectors import Floats, unit
from ..light.basis import BasisStore, weight
from ..light.keys import framing_key
from ..light.mirror import mirrored_screen, pane_reflections
from ..light.mix import dimmed, probes_by_lamp, scalar_lux, tints
from ..light.others_shade import OthersShade, shade_of_others, taken_by_others
from ..light.radiosity import scene_of
from ..light.returned import SceneLight, probe_all, probe_shares, returned_by_lamp, scene_light, screen_nodes
from ..light.spill import spill_of
from ..plan import Plan, seen_as
from ..standards.limits import LIMITS
from .results import Blur, Evaluation, Exposure, Flash, Focus, ScreenMap, Zones
from .screen_light import (
    ScreenLight,
    hue_spread_of,
    patches_of,
    screen_light_of,
    screen_maps_of,
    shadow_of,
    shadow_on,
    texture_of,
)
from .screen_reading import screen_reading


def evaluate(plan: Plan, store: BasisStore) -> Evaluation:
    """Everything this version knows about a plan. `store` remembers lamp maps and scenes between calls."""
    found = _of_subject(plan, store)
    if plan.subject is None or not plan.companions:
        return found
    return replace(found, others=tuple(_of_companion(found, i, store) for i in range(len(plan.companions))))


def _of_companion(found: Evaluation, index: int, store: BasisStore) -> Evaluation:
    """Of a companion in the picture that was evaluated: all but a person's own is the picture's."""
    plan = seen_as(found.plan, index)
    face = _face_light(plan, found.scene_light, store)
    flash = _flash(plan, face)
    seen = found.view, found.screen_maps, found.screen_by_lamp
    own = _own(plan, face, flash, _blur(plan, flash), *seen, found.scene_light, store)
    return replace(found, plan=plan, **own)


def _of_subject(plan: Plan, store: BasisStore) -> Evaluation:
    """Companions are in the picture, but only its subject is looked at."""
    view = view_of(plan.camera, plan.subject)
    coverage = store.record(("coverage", framing_key(plan)), lambda: coverage_of(plan, view))
    scene = scene_light(plan, store)
    face = _face_light(plan, scene, store)
    flash = _flash(plan, face)
    blur = _blur(plan, flash)
    light = screen_light_of(plan, coverage, view, scene, store)
    maps = screen_maps_of(plan, light, view, blur, store)
    on_screen = _screen_by_lamp(plan, light, store)
    return Evaluation(
        plan=plan,
        view=view,
        coverage=coverage,
        screen=screen_reading(plan, maps),
        screen_maps=maps,
        screen_by_lamp=on_screen,
        shadow=shadow_of(plan, light),
        upright_shadow=shadow_on(plan, light, "wall", "left wing", "right wing"),
        ground_shadow=shadow_on(plan, light, "curve", "floor run"),
        reflections=tuple(pane_reflections(plan, view)),
        texture=texture_of(plan, light, maps, view, store),
        hue_spread_deg=hue_spread_of(plan, light),
        scene_light=scene,
        not_computed=NOT_MODELLED,
        **_own(plan, face, flash, blur, view, maps, on_screen, scene, store),
    )


def _own(
    plan: Plan,
    face: _OnFace,
    flash: Flash | None,
    blur: Blur,
    view: View,
    maps: tuple[ScreenMap, ...],
    on_screen: dict[str, float],
    scene: SceneLight,
    store: BasisStore,
) -> dict[str, Any]:
    """What of an evaluation is a person's own, of the plan's subject in the picture that `view` and `maps` show."""
    spill = spill_of(plan, key_channel(plan.screen.hue, np.array(plan.screen.reflectance)), scene, store)
    places = {r.place.name: r.light for r in spill.probes}
    return {
        "exposure": _exposure(plan, face.light),
        "subject_light": face.light,
        "face_by_lamp": face.by_lamp,
        "face_shade": face.shade,
        "target": level_target(plan, face.light),
        "blur": blur,
        "focus": _focus(plan),
        "spill": spill,
        "mirrored": tuple(mirrored_screen(plan, view)),
        "zones": _zones(plan, on_screen, face.by_lamp),
        "flash": flash,
        "rim_ratio": _rim_ratio(plan, face.light, store),
        "damage": damage_of(plan, view, patches_of(plan, view, maps, store), places, blur.motion_px),
    }


NOT_MODELLED = (
    "lamps' bodies and stands shade the screen, but neither figure nor walls; what is held casts no shadow",
    "figure, lamps and stands reflect nothing, and the figure keeps returned light only from the ground at its feet",
    "light that people send to each other; searches light the subject, companions are judged",
    "the wall round a window: it keeps light off, but sends none back",
    "surfaces are matt for light they return; gloss is only counted where the camera sees it",
)
"""What a reader must know is not in these numbers."""


@dataclass(frozen=True)
class _OnFace:
    """All light (3,) on the face held toward the camera as an incident meter is; lux each lamp causes, by its id; and
    who else stands in its light."""

    light: Floats
    by_lamp: dict[str, float]
    shade: OthersShade | None


def _face_light(plan: Plan, scene: SceneLight, store: BasisStore) -> _OnFace:
    if plan.subject is None:
        return _OnFace(np.zeros(3), {}, None)
    place = np.array(plan.subject.skin_at)
    toward = np.array([plan.camera.x, plan.camera.y, plan.camera.z]) - place
    if float(np.linalg.norm(toward)) < 1e-6:
        toward = np.array([0.0, 0.0, 1.0])
    facing = unit(toward)
    taken = taken_by_others(plan, place, facing, store)
    lux = scalar_lux(probe_shares(plan, place, facing, store) - taken)
    total = probe_all(plan, place, facing, scene, store).total - taken.sum(axis=0)
    by_lamp = {lamp.id: float(each) for lamp, each in zip(plan.lights, lux, strict=True)}
    return _OnFace(total, by_lamp, shade_of_others(plan, place, facing, store))


def _screen_by_lamp(plan: Plan, light: ScreenLight, store: BasisStore) -> dict[str, float]:
    """All light in lux that each lamp, dimmed as it is, causes on the judged screen, by its id."""
    if not light.any_judged:
        return {}
    scene = scene_of(plan, store)
    total = sum(float(one.share[one.judged].sum()) for one in light.surfaces)
    lux = np.zeros(len(plan.lights))
    for one in light.surfaces:
        shares = np.where(one.judged, one.share, 0.0) / total
        nodes = screen_nodes(one.grid, scene, store)
        returned = scalar_lux(nodes.mean(returned_by_lamp(plan, scene, one.grid, nodes, store), shares))
        own = np.einsum("lhw,hw->l", one.arriving, shares)
        lux += dimmed(plan, own * tints(plan) + returned)
    return {lamp.id: float(each) for lamp, each in zip(plan.lights, lux, strict=True)}


def _zones(plan: Plan, on_screen: dict[str, float], on_face: dict[str, float]) -> Zones:
    """How much of each zone's lamp light was meant for the other."""
    screen_lamps = {lamp.id for lamp in plan.lights if lamp.role == "screen"}
    subject_lamps = {lamp.id for lamp in plan.lights if lamp.role in ("key", "fill", "back")}

    def share(lux: dict[str, float], of: set[str]) -> float | None:
        total = sum(lux.values())
        return 100.0 * sum(v for k, v in lux.items() if k in of) / total if total > 0.0 else None

    return Zones(share(on_screen, subject_lamps), share(on_face, screen_lamps))


def _rim_ratio(plan: Plan, face_light: Floats, store: BasisStore) -> float:
    """0 without a figure, a back lamp or light on the face."""
    face = float(scalar_lux(face_light))
    back = [i for i, lamp in enumerate(plan.lights) if lamp.role == "back" and weight(lamp, plan.camera) > 0.0]
    if plan.subject is None or face <= 0.0 or not back:
        return 0.0
    at = np.array([[plan.subject.x, plan.subject.up(0.98), plan.subject.z]])
    full = probes_by_lamp(plan, at, np.array([BACK_AND_UP]), store)[:, 0]
    return float(dimmed(plan, full)[back].sum()) / face


BACK_AND_UP = (0.0, 0.5**0.5, -(0.5**0.5))


def _exposure(plan: Plan, light: Floats) -> Exposure:
    grey = grey_lux(plan.camera)
    if plan.subject is None:
        return Exposure(None, grey, None, None)
    lux = float(scalar_lux(light))
    skin = signal(np.array(plan.subject.skin), light, plan.camera)
    return Exposure(lux, grey, float(luma(skin)), stops(lux / grey))


def _flash(plan: Plan, face: _OnFace) -> Flash | None:
    lit = [lamp for lamp in plan.lights if lamp.on and lamp.dimmer > 0.0 and lamp.fixture.flash_lms]
    if not lit:
        return None
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


def _blur(plan: Plan, flash: Flash | None) -> Blur:
    angle = shutter_angle(plan.camera.shutter_s, plan.camera.fps)
    reach = focus_distance(plan.camera, plan.subject)
    if plan.subject is None or reach <= 0.0:
        return Blur(None, None, angle)
    screen_at = reach + _behind(plan)
    return Blur(
        motion_px=motion_blur_px(plan.subject.speed, reach, plan.camera, _exposed_s(plan, flash)),
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
