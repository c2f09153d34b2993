"""From the core's results to the API's models."""

from __future__ import annotations

from base64 import b64encode
from dataclasses import asdict
from typing import Any

import numpy as np

from ausblick.core.arrays import Floats
from ausblick.core.explain import numbers
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.contours import contour_step, contours
from ausblick.core.light.floor import FloorShadow, floor_shadow
from ausblick.core.measure.reading import FrameReading
from ausblick.core.measure.scopes import VECTOR_BINS, VECTOR_REACH, WAVE_BINS, WAVE_COLUMNS, WAVE_TOP, Scopes
from ausblick.core.optics.coverage import action_heights
from ausblick.core.optics.picture import field_on_screen, picture_of
from ausblick.core.optics.view import angle_of_view
from ausblick.core.plan import unknown_fields
from ausblick.core.report import check_report, finite
from ausblick.core.results import Evaluation
from ausblick.core.rig.power import loads
from ausblick.core.rules.model import Finding
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
            "picture": _picture(evaluation),
            "map": _map(evaluation),
            "floor_shadow": _floor_shadow(floor_shadow(evaluation.plan, store)),
            "lamps": [
                {
                    "id": lamp.id,
                    "screen_lux": evaluation.screen_by_lamp.get(lamp.id, 0.0),
                    "face_lux": evaluation.face_by_lamp.get(lamp.id, 0.0),
                }
                for lamp in evaluation.plan.lights
            ],
            "loads": [asdict(load) for load in loads(plan)],
            "numbers": [{**asdict(number), "value": finite(number.value)} for number in numbers(evaluation)],
            "action_heights": action_heights(plan.subject) if plan.subject else None,
            "field_on_screen": field_on_screen(plan, evaluation.view),
            "field_of_view_deg": angle_of_view(
                evaluation.plan.camera.sensor.width_mm, evaluation.plan.camera.focal_mm
            ),
        }
    )


def _picture(evaluation: Evaluation) -> dict[str, Any]:
    picture = picture_of(evaluation.plan, evaluation.view, evaluation.coverage)
    return {
        "width": picture.width,
        "height": picture.height,
        "plane": picture.plane.tolist(),
        "surfaces": [{"name": name, "points": pairs(outline)} for name, outline in picture.surfaces],
        "needed": pairs(picture.needed),
        "figure": [{"name": name, "points": pairs(outline)} for name, outline in picture.figure],
        "lamps": [{"id": lamp, "u": u, "v": v} for lamp, u, v in picture.lamps],
    }


def _map(evaluation: Evaluation) -> dict[str, Any]:
    screen_map, target = evaluation.screen_map, evaluation.target
    trace = evaluation.plan.targets.level_trace
    deviation = (screen_map.luma if trace == "luma" else screen_map.key_channel) - target.level
    step = contour_step(deviation)
    return {
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


def scopes_data(scopes: Scopes) -> dict[str, Any]:
    return {
        "waveform": b64encode(scopes.waveform.tobytes()).decode(),
        "waveform_key": b64encode(scopes.waveform_key.tobytes()).decode(),
        "parade": [b64encode(part.tobytes()).decode() for part in scopes.parade],
        "wave_columns": WAVE_COLUMNS,
        "wave_rows": WAVE_BINS,
        "top": WAVE_TOP,
        "vectorscope": b64encode(scopes.vectorscope.tobytes()).decode(),
        "vector_side": VECTOR_BINS,
        "vector_reach": VECTOR_REACH,
        "histogram": np.round(scopes.histogram, 4).tolist(),
    }


def deviation_data(reading: FrameReading) -> dict[str, Any] | None:
    if reading.deviation is None:
        return None
    rounded = np.round(reading.deviation, 1)
    return {"values": [[None if np.isnan(v) else float(v) for v in row] for row in rounded]}
