"""Camera frames of a set-up: import, reading, pictures, and the plan beside the reading."""

from __future__ import annotations

import shutil
import tempfile
from dataclasses import asdict
from pathlib import Path

from flask import Response, current_app, send_file
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.file import FileStorage
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel

from ausblick.core.asbuilt.expected import expected_reading
from ausblick.core.evaluate import evaluate
from ausblick.core.light.basis import Shelf
from ausblick.core.measure.compare import as_planned, compare, verdict
from ausblick.core.measure.reading import FrameReading, read_frame
from ausblick.core.plan import Plan
from ausblick.core.report import drift_report
from ausblick.formats.images import MAX_BYTES, ImageError
from ausblick.store.frames import Frames, StoredFrame

from ..check_schemas import ImportModel, ImportPath
from ..importing import import_clip, import_frame, looks_like_clip, picture_of, region_of
from ..jobs import Job, Jobs, TooMany
from ..problems import problem
from ..schemas import (
    ComparisonModel,
    DriftModel,
    FrameList,
    FrameModel,
    FramePath,
    FrameSummary,
    SetupPath,
    SincePath,
)
from .setups import basis, store

api = APIBlueprint("frames", __name__, url_prefix="/api", abp_tags=[Tag(name="frames")])


class FrameForm(BaseModel):
    file: FileStorage


def frames() -> Frames:
    found: Frames = current_app.extensions["ausblick-frames"]
    return found


def jobs() -> Jobs:
    found: Jobs = current_app.extensions["ausblick-jobs"]
    return found


def frame_model(frame: StoredFrame) -> FrameModel:
    return FrameModel.model_validate(
        {"id": frame.id, "setup_id": frame.setup_id, "name": frame.name, "created": frame.created, **frame.data}
    )


def _model(frame: StoredFrame) -> Response:
    return Response(frame_model(frame).model_dump_json(), mimetype="application/json")


@api.get("/setups/<int:setup_id>/frames", operation_id="listFrames", responses={200: FrameList})
def list_frames(path: SetupPath) -> Response:
    found = [
        FrameSummary(
            id=frame.id,
            name=frame.name,
            created=frame.created,
            hue=frame.data["reading"]["hue"],
            hue_deg=frame.data["reading"]["hue_deg"],
            level=(frame.data["reading"]["level_luma"] or {}).get("mean"),
        )
        for frame in frames().of_setup(path.setup_id)
    ]
    return Response(FrameList(frames=found).model_dump_json(), mimetype="application/json")


@api.post("/setups/<int:setup_id>/frames", operation_id="importFrame", responses={201: FrameModel, 202: ImportModel})
def import_upload(path: SetupPath, form: FrameForm) -> Response:
    """Import a frame (PNG, JPEG, TIFF, EXR, DPX) or a clip (MP4, MOV, MKV, MXF) as multipart field `file`.

    A frame is read at once; a clip takes longer and is a job to look after under /api/imports.
    """
    upload = form.file
    setup = store().get(path.setup_id)
    folder = Path(tempfile.mkdtemp(prefix="ausblick-import-"))
    target = folder / "file"
    name = Path(upload.filename or "frame").name
    try:
        upload.save(target)
        if target.stat().st_size > MAX_BYTES:
            raise ImageError(f"the file is larger than {MAX_BYTES // 1_000_000} MB")
        if looks_like_clip(target):
            return _import_clip(folder, target, path.setup_id, name, setup.plan)
        response = _model(import_frame(frames(), path.setup_id, name, target, setup.plan))
        response.status_code = 201
        return response
    finally:
        if not target.with_suffix(".taken").exists():
            shutil.rmtree(folder, ignore_errors=True)


def _import_clip(folder: Path, target: Path, setup_id: int, name: str, plan: Plan) -> Response:
    """Hand the folder over to a job that reads it and takes it away."""
    keeper = frames()

    def work(job: Job) -> None:
        def progress(share: float) -> None:
            job.at("reading")
            job.result = {"name": name, "share": share}

        try:
            frame = import_clip(keeper, setup_id, name, target, plan, progress)
            job.result = {"name": name, "share": 1.0, "frame": frame}
        finally:
            shutil.rmtree(folder, ignore_errors=True)

    target.with_suffix(".taken").touch()
    try:
        job = jobs().start(work)
    except TooMany:
        target.with_suffix(".taken").unlink()
        return problem(429, "Two things are being worked on", "Wait for one of them, or cancel it.")
    return _import_answer(job, 202)


@api.get("/imports/<job_id>", operation_id="getImport", responses={200: ImportModel})
def get_import(path: ImportPath) -> Response:
    job = jobs().get(path.job_id)
    return _no_import() if job is None else _import_answer(job)


@api.delete("/imports/<job_id>", operation_id="cancelImport", responses={200: ImportModel})
def cancel_import(path: ImportPath) -> Response:
    job = jobs().get(path.job_id)
    if job is None:
        return _no_import()
    job.cancel()
    return _import_answer(job)


def _no_import() -> Response:
    return problem(404, "No such import", "It is no longer kept: drop the file again.")


def _import_answer(job: Job, status: int = 200) -> Response:
    frame = job.result.get("frame")
    model = ImportModel(
        id=job.id,
        state=job.state,
        name=job.result.get("name", ""),
        share=job.result.get("share", 0.0),
        problem=job.problem,
        frame=None if frame is None else frame_model(frame),
    )
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


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
    return send_file(frames().file(path.frame_id, "look.jpg"), mimetype="image/jpeg")


@api.get("/frames/<int:frame_id>/matte.png", operation_id="getFrameMatte", responses={200: None})
def frame_matte(path: FramePath) -> Response:
    """The matte of the plain key; 404 where no screen was found."""
    return send_file(frames().file(path.frame_id, "matte.png"), mimetype="image/png")


@api.get("/frames/<int:frame_id>/comparison", operation_id="compareFrame", responses={200: ComparisonModel})
def compare_frame(path: FramePath) -> Response:
    """The plan as it is now beside what the frame shows."""
    frame = frames().get(path.frame_id)
    plan = store().get(frame.setup_id).plan
    evaluation = evaluate(plan, basis())
    reading = read_frame(picture_of(frames(), frame), plan.targets.level_trace, region_of(frame))
    expected = expected_of(plan)
    rows = compare(evaluation, expected, reading, whole=not region_of(frame))
    model = ComparisonModel.model_validate(
        {
            "verdict": asdict(verdict(evaluation, expected, reading, rows)),
            "rows": [asdict(row) for row in rows],
            "hot_spots_planned": [as_planned(spot, expected, reading) for spot in reading.hot_spots],
            "shadows_planned": [as_planned(spot, expected, reading) for spot in reading.shadows],
            "planned_grid": expected.grid or [[None] * 3] * 3,
            "target_low": evaluation.target.low,
            "target_high": evaluation.target.high,
            "trace": plan.targets.level_trace,
            "planned_hue": plan.screen.hue,
            "not_computed": list(evaluation.not_computed),
        }
    )
    return Response(model.model_dump_json(), mimetype="application/json")


def expected_of(plan: Plan) -> FrameReading:
    """What the plan's own picture reads; the last few plans are remembered."""
    shelf: Shelf[FrameReading] = current_app.extensions["ausblick-expected"]
    return shelf.get(plan.model_dump_json(), lambda: expected_reading(evaluate(plan, basis()), basis()))


@api.get("/frames/<int:frame_id>/since/<int:other_id>", operation_id="driftOfFrame", responses={200: DriftModel})
def get_drift(path: SincePath) -> Response:
    """What has changed on the screen from another frame or clip to this one; no rows where one shows no screen."""
    now, before = frames().get(path.frame_id), frames().get(path.other_id)
    rows = drift_report(before.data["reading"], now.data["reading"])
    model = DriftModel.model_validate({"before": before.name, "now": now.name, "rows": rows})
    return Response(model.model_dump_json(), mimetype="application/json")
