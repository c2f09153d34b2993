"""Plan -> Evaluation: the one place where the parts of the computation meet. It only calls."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from ..camera.exposure import grey_lux, luma, signal, stops
from ..camera.focus import depth_of_field
from ..camera.level_schools import key_channel, level_target
from ..camera.view import focus_distance
from ..damage.damage import damage_of
from ..geometry.vectors import Floats
from ..light.basis import BasisStore, weight
from ..light.mirror import mirrored_screen, pane_reflections
from ..light.mix import dimmed, probes_by_lamp, scalar_lux, tints
from ..light.radiosity import scene_of
from ..light.returned import returned_by_lamp, screen_nodes
from ..light.spill import spill_of
from ..plan import Plan, seen_as
from .exposed_time import blur_of, flash_of
from .on_face import OnFace, face_light
from .results import Blur, Evaluation, Exposure, Flash, Focus, Zones
from .screen_light import ScreenLight, hue_spread_of, shadow_of, shadow_on, texture_of
from .seen_screen import SeenScreen, seen_screen


def evaluate(plan: Plan, store: BasisStore) -> Evaluation:
    """Everything this version knows about a plan. `store` remembers lamp maps and scenes between calls."""
    return evaluation_of(seen_screen(plan, store), store)


def evaluation_of(seen: SeenScreen, store: BasisStore) -> Evaluation:
    """The same of a plan whose screen has been looked at."""
    found, plan = _of_subject(seen, store), seen.plan
    if plan.subject is None or not plan.companions:
        return found
    others = tuple(_of_companion(found, i, seen, store) for i in range(len(plan.companions)))
    return replace(found, others=others)


def _of_companion(found: Evaluation, index: int, seen: SeenScreen, store: BasisStore) -> Evaluation:
    """Of a companion in the picture that was evaluated: all but a person's own is the picture's."""
    plan = seen_as(found.plan, index)
    face = face_light(plan, found.scene_light, store)
    flash = flash_of(plan, lambda: face)
    own = _own(plan, face, flash, blur_of(plan, flash), found.screen_by_lamp, seen, store)
    return replace(found, plan=plan, **own)


def _of_subject(seen: SeenScreen, store: BasisStore) -> Evaluation:
    """Companions are in the picture, but only its subject is looked at."""
    plan, view, light, maps = seen.plan, seen.view, seen.light, seen.maps
    on_screen = _screen_by_lamp(plan, light, store)
    return Evaluation(
        plan=plan,
        view=view,
        coverage=seen.coverage,
        screen=seen.reading,
        screen_maps=maps,
        screen_by_lamp=on_screen,
        shadow=shadow_of(plan, light),
        upright_shadow=shadow_on(plan, light, "wall", "left wing", "right wing"),
        ground_shadow=shadow_on(plan, light, "curve", "floor run"),
        reflections=tuple(pane_reflections(plan, view)),
        texture=texture_of(plan, light, maps, view, store),
        hue_spread_deg=hue_spread_of(plan, light),
        scene_light=seen.scene_light,
        not_computed=NOT_MODELLED,
        **_own(plan, seen.face(), seen.flash, seen.blur, on_screen, seen, store),
    )


def _own(
    plan: Plan,
    face: OnFace,
    flash: Flash | None,
    blur: Blur,
    on_screen: dict[str, float],
    seen: SeenScreen,
    store: BasisStore,
) -> dict[str, Any]:
    """What of an evaluation is a person's own, of the plan's subject in the picture that is `seen`."""
    spill = spill_of(plan, key_channel(plan.screen.hue, np.array(plan.screen.reflectance)), seen.scene_light, store)
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
        "mirrored": tuple(mirrored_screen(plan, seen.view)),
        "zones": _zones(plan, on_screen, face.by_lamp),
        "flash": flash,
        "rim_ratio": _rim_ratio(plan, face.light, store),
        "damage": damage_of(plan, seen.view, seen.keyed, places, blur.motion_px),
    }


NOT_MODELLED = (
    "lamps' bodies and stands shade the screen, but neither figure nor walls; what is held casts no shadow",
    "figure, lamps and stands reflect nothing, and the figure keeps returned light only from the ground at its feet",
    "light that people send to each other; searches light the subject, companions are judged",
    "the wall round a window: it keeps light off, but sends none back",
    "surfaces are matt for light they return; gloss is only counted where the camera sees it",
)
"""What a reader must know is not in these numbers."""


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


def _focus(plan: Plan) -> Focus | None:
    reach = focus_distance(plan.camera, plan.subject)
    if reach <= 0.0:
        return None
    return Focus(reach, *depth_of_field(plan.camera, reach))
