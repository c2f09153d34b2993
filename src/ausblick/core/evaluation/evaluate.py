"""Plan -> Evaluation: the one place where the parts of the computation meet. It only calls."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from ..camera.exposure import grey_lux, luma, signal, stops
from ..camera.focus import depth_of_field
from ..camera.level_schools import level_target
from ..camera.view import focus_distance
from ..damage.damage import damage_of
from ..geometry.vectors import Floats
from ..light.basis import BasisStore, weight
from ..light.mirror import mirrored_screen
from ..light.mix import dimmed, probes_by_lamp, scalar_lux
from ..plan import Plan, seen_as
from .exposed_time import blur_of, flash_of
from .lamps_in_picture import lamps_in_picture
from .lit_set import on_face, on_subject, round_subject
from .results import Blur, Evaluation, Exposure, Flash, Focus, Zones
from .screen_light import hue_spread_of, texture_of
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
    flash = flash_of(plan, lambda: on_face(plan, found.scene_light, store))
    own = _own(plan, flash, blur_of(plan, flash), seen, store)
    return replace(found, plan=plan, **own)


def _of_subject(seen: SeenScreen, store: BasisStore) -> Evaluation:
    """Companions are in the picture, but only its subject is looked at."""
    plan, view, light, maps = seen.plan, seen.view, seen.lit.screen, seen.maps
    beyond = seen.lit.beyond()
    return Evaluation(
        plan=plan,
        view=view,
        coverage=seen.coverage,
        screen=seen.reading,
        screen_maps=maps,
        screen_by_lamp=beyond.on_screen,
        shadow=beyond.shadow,
        upright_shadow=beyond.upright_shadow,
        ground_shadow=beyond.ground_shadow,
        lamps_in_picture=lamps_in_picture(plan, view, seen.coverage, store),
        reflections=beyond.reflections,
        texture=texture_of(plan, light, maps, view, store),
        hue_spread_deg=hue_spread_of(plan, light),
        scene_light=seen.lit.scene,
        not_computed=NOT_MODELLED,
        **_own(plan, seen.flash, seen.blur, seen, store),
    )


def _own(plan: Plan, flash: Flash | None, blur: Blur, seen: SeenScreen, store: BasisStore) -> dict[str, Any]:
    """What of an evaluation is a person's own, of the plan's subject in the picture that is `seen`."""
    face = on_face(plan, seen.lit.scene, store)
    spill = on_subject(plan, seen.lit.scene, store)
    places = {r.place.name: r.light for r in spill.probes}
    around = round_subject(plan, seen.lit.scene, store)
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
        "zones": _zones(plan, seen.lit.beyond().on_screen, face.by_lamp),
        "flash": flash,
        "rim_ratio": _rim_ratio(plan, face.light, store),
        "damage": damage_of(plan, seen.view, seen.keyed, places, around, blur.motion_px),
    }


NOT_MODELLED = (
    "lamps' bodies and stands shade the screen, but neither figure nor walls; what is held casts no shadow",
    "figure, lamps and stands reflect nothing, and the figure keeps returned light only from the ground at its feet",
    "light that people send to each other; searches light the subject, companions are judged",
    "the wall round a window: it keeps light off, but sends none back",
    "surfaces are matt for light they return; gloss is only counted where the camera sees it",
)
"""What a reader must know is not in these numbers."""


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
