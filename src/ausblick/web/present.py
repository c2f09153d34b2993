"""From the core's results to the API's models."""

from __future__ import annotations

from typing import Any

import numpy as np

from ausblick.core.advice.check_report import check_report
from ausblick.core.advice.rule import Finding
from ausblick.core.camera.coverage import action_heights
from ausblick.core.camera.view import angle_of_view
from ausblick.core.evaluation.contours import contour_step, contours
from ausblick.core.evaluation.frame_outlines import Picture, field_on_screen, lattice_in_picture, picture_of
from ausblick.core.evaluation.numbers import numbers
from ausblick.core.evaluation.results import Evaluation, ScreenMap
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.beam_width import beam_width
from ausblick.core.light.emission import emission_of
from ausblick.core.light.floor_shadow import FloorShadow, floor_shadow
from ausblick.core.light.keys import framing_key
from ausblick.core.plan import unknown_fields
from ausblick.core.rig.circuits import loads
from ausblick.store.setups import Setup

from .evaluation_schemas import EvaluationModel
from .schemas import SetupModel


def pairs(points: Floats, digits: int = 5) -> list[Any]:
    listed: list[Any] = np.round(points, digits).tolist()
    return listed


def evaluation_model(evaluation: Evaluation, findings: list[Finding], store: BasisStore) -> EvaluationModel:
    plan = evaluation.plan
    return EvaluationModel.model_validate(
        {
            "check": check_report(evaluation, findings),
            "needed_outline": pairs(evaluation.coverage.corners),
            "picture": _picture(evaluation, store),
            "map": _map(evaluation, store),
            "floor_shadow": _floor_shadow(floor_shadow(evaluation.plan, store)),
            "lamps": [
                {
                    "id": lamp.id,
                    "screen_lux": evaluation.screen_by_lamp.get(lamp.id, 0.0),
                    "face_lux": evaluation.face_by_lamp.get(lamp.id, 0.0),
                    "beam": beam_width(emission_of(lamp, plan)),
                }
                for lamp in evaluation.plan.lights
            ],
            "loads": loads(plan),
            "numbers": numbers(evaluation),
            "action_heights": action_heights(plan.subject) if plan.subject else None,
            "field_on_screen": field_on_screen(plan, evaluation.view),
            "field_of_view_deg": angle_of_view(
                evaluation.plan.camera.sensor.width_mm, evaluation.plan.camera.focal_mm
            ),
        }
    )


def _picture(evaluation: Evaluation, store: BasisStore) -> dict[str, Any]:
    """Outlines are listed once for all places of the lamps."""
    picture = picture_of(evaluation.plan, evaluation.view, evaluation.coverage, store)
    still = store.record(("listed picture", framing_key(evaluation.plan)), lambda: _outlines(picture))
    return still | {"lamps": [{"id": lamp, "u": u, "v": v} for lamp, u, v in picture.lamps]}


def _outlines(picture: Picture) -> dict[str, Any]:
    return {
        "width": picture.width,
        "height": picture.height,
        "plane": picture.plane.tolist(),
        "surfaces": [{"name": name, "points": pairs(outline)} for name, outline in picture.surfaces],
        "needed": pairs(picture.needed),
        "figure": [{"name": name, "points": pairs(outline)} for name, outline in picture.figure],
    }


def _map(evaluation: Evaluation, store: BasisStore) -> dict[str, Any]:
    screen_map, target = evaluation.screen_map, evaluation.target
    trace = target.trace
    deviation = _deviation(evaluation, screen_map)
    step = contour_step(deviation)
    return {
        "beside": [_beside(evaluation, one, store) for one in evaluation.screen_maps[1:]],
        "x": pairs(screen_map.grid.x),
        "y": pairs(screen_map.grid.y),
        "deviation": np.round(deviation, 1).tolist(),
        "shadow": np.round(screen_map.shadow, 3).tolist(),
        "judged": screen_map.judged.tolist(),
        "target": target.level,
        "target_low": target.low,
        "target_high": target.high,
        "trace": trace,
        "step": step,
        "contours": [
            {"level": contour.level, "line": pairs(contour.line, 3)}
            for contour in contours(deviation, screen_map.grid, step)
        ],
    }


def _deviation(evaluation: Evaluation, one: ScreenMap) -> Floats:
    trace = one.luma if evaluation.target.trace == "luma" else one.key_channel
    return np.asarray(trace - evaluation.target.level)


def _beside(evaluation: Evaluation, one: ScreenMap, store: BasisStore) -> dict[str, Any]:
    u, v = lattice_in_picture(evaluation.plan, evaluation.view, one.grid, store)
    return {
        "name": one.grid.sheet.name,
        "x": pairs(one.grid.x, 3),
        "y": pairs(one.grid.y, 3),
        "u": pairs(u, 4),
        "v": pairs(v, 4),
        "deviation": np.round(_deviation(evaluation, one), 1).tolist(),
        "shadow": np.round(one.shadow, 3).tolist(),
        "judged": one.judged.tolist(),
    }


def _floor_shadow(shadow: FloorShadow | None) -> dict[str, Any] | None:
    if shadow is None:
        return None
    return {"x": pairs(shadow.x), "z": pairs(shadow.z), "lost": np.round(shadow.lost, 3).tolist()}


def setup_model(setup: Setup) -> SetupModel:
    return SetupModel(
        id=setup.id,
        revision=setup.revision,
        plan=setup.plan,
        changed=setup.changed,
        can_undo=setup.can_undo,
        can_redo=setup.can_redo,
        unknown_fields=unknown_fields(setup.plan),
    )
