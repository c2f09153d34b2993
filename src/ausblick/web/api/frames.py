"""Camera frames of a set-up: import, reading, pictures, and the plan beside the reading."""

from __future__ import annotations

import tempfile
from dataclasses import asdict
from pathlib import Path

from flask import Response, current_app, send_file
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.file import FileStorage
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel

from ausblick.core.evaluate import evaluate
from ausblick.core.measure.compare import compare, planned_grid, verdict
from ausblick.core.measure.reading import read_frame
from ausblick.formats.images import MAX_BYTES, ImageError, read_image
from ausblick.store.frames import Frames, StoredFrame

from ..importing import import_frame
from ..schemas import ComparisonModel, FrameList, FrameModel, FramePath, FrameSummary, SetupPath
from .setups import basis, store

api = APIBlueprint("frames", __name__, url_prefix="/api", abp_tags=[Tag(name="frames")])


class FrameForm(BaseModel):
    file: FileStorage


def frames() -> Frames:
    found: Frames = current_app.extensions["ausblick-frames"]
    return found


def _model(frame: StoredFrame) -> Response:
    model = FrameModel.model_validate(
        {"id": frame.id, "setup_id": frame.setup_id, "name": frame.name, "created": frame.created, **frame.data}
    )
    return Response(model.model_dump_json(), mimetype="application/json")


@api.get("/setups/<int:setup_id>/frames", operation_id="listFrames", responses={200: FrameList})
def list_frames(path: SetupPath) -> Response:
    found = [
        FrameSummary(
            id=frame.id,
            name=frame.name,
            created=frame.created,
            hue=frame.data["reading"]["hue"],
            level=(frame.data["reading"]["level_luma"] or {}).get("mean"),
        )
        for frame in frames().of_setup(path.setup_id)
    ]
    return Response(FrameList(frames=found).model_dump_json(), mimetype="application/json")


@api.post("/setups/<int:setup_id>/frames", operation_id="importFrame", responses={201: FrameModel})
def import_upload(path: SetupPath, form: FrameForm) -> Response:
    """Import a frame: PNG, JPEG, TIFF, EXR or DPX, as multipart field `file`."""
    upload = form.file
    setup = store().get(path.setup_id)
    with tempfile.TemporaryDirectory() as folder:
        target = Path(folder) / "frame"
        upload.save(target)
        if target.stat().st_size > MAX_BYTES:
            raise ImageError(f"the file is larger than {MAX_BYTES // 1_000_000} MB")
        name = Path(upload.filename or "frame").name
        frame = import_frame(frames(), path.setup_id, name, target, setup.plan.targets.level_trace)
    response = _model(frame)
    response.status_code = 201
    return response


@api.get("/frames/<int:frame_id>", operation_id="getFrame", responses={200: FrameModel})
def get_frame(path: FramePath) -> Response:
    return _model(frames().get(path.frame_id))


@api.delete("/frames/<int:frame_id>", operation_id="deleteFrame", responses={204: None})
def delete_frame(path: FramePath) -> Response:
    frames().delete(path.frame_id)
    return Response(status=204)


@api.get("/frames/<int:frame_id>/look.jpg", operation_id="getFrameLook", responses={200: None})
def frame_look(path: FramePath) -> Response:
    """The picture, at most 1600 px a side."""
    return send_file(frames().file(path.frame_id, "look.jpg"), mimetype="image/jpeg", max_age=3600)


@api.get("/frames/<int:frame_id>/matte.png", operation_id="getFrameMatte", responses={200: None})
def frame_matte(path: FramePath) -> Response:
    """The matte of the plain key; 404 where no screen was found."""
    return send_file(frames().file(path.frame_id, "matte.png"), mimetype="image/png", max_age=3600)


@api.get("/frames/<int:frame_id>/comparison", operation_id="compareFrame", responses={200: ComparisonModel})
def compare_frame(path: FramePath) -> Response:
    """The plan as it is now beside what the frame shows."""
    frame = frames().get(path.frame_id)
    plan = store().get(frame.setup_id).plan
    evaluation = evaluate(plan, basis())
    reading = read_frame(read_image(frames().file(path.frame_id)), plan.targets.level_trace)
    rows = compare(evaluation, reading)
    model = ComparisonModel.model_validate(
        {
            "verdict": asdict(verdict(evaluation, reading, rows)),
            "rows": [asdict(row) for row in rows],
            "planned_grid": planned_grid(evaluation),
            "target_low": evaluation.target.low,
            "target_high": evaluation.target.high,
            "trace": plan.targets.level_trace,
            "planned_hue": plan.screen.hue,
            "not_computed": list(evaluation.not_computed),
        }
    )
    return Response(model.model_dump_json(), mimetype="application/json")
