"""Camera frames of a set-up: import, reading, pictures, and the plan beside the reading."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from flask import Response, send_file
from flask_openapi3.models.file import FileStorage
from pydantic import BaseModel

from ausblick.app.frame_comparison import compare_frame
from ausblick.app.frame_import import report_of
from ausblick.app.jobs import Job, TooMany
from ausblick.app.upload import reread, take_upload
from ausblick.core.frames.file_colour import FileColour
from ausblick.core.frames.frame_report import drift_between
from ausblick.store.frames import StoredFrame

from ..check_schemas import ColourBody, ImportModel, ImportPath
from ..context import answer, services
from ..described import group
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

api = group("frames", "frames")


class FrameForm(BaseModel):
    file: FileStorage


def frame_model(frame: StoredFrame) -> FrameModel:
    return FrameModel.model_validate(
        {"id": frame.id, "setup_id": frame.setup_id, "name": frame.name, "created": frame.created, **frame.data}
    )


def _model(frame: StoredFrame) -> Response:
    return answer(frame_model(frame))


@api.get("/setups/<int:setup_id>/frames", operation_id="listFrames", responses={200: FrameList})
def list_frames(path: SetupPath) -> Response:
    return answer(FrameList(frames=[_summary(frame) for frame in services().frames.of_setup(path.setup_id)]))


def _summary(frame: StoredFrame) -> FrameSummary:
    report = report_of(frame)
    return FrameSummary(
        id=frame.id,
        name=frame.name,
        created=frame.created,
        hue=report.hue,
        hue_deg=report.hue_deg,
        level=report.level_luma.mean if report.level_luma else None,
    )


@api.post("/setups/<int:setup_id>/frames", operation_id="importFrame", responses={201: FrameModel, 202: ImportModel})
def import_upload(path: SetupPath, form: FrameForm) -> Response:
    """Import a frame (PNG, JPEG, HEIC, TIFF, EXR, DPX, raw) or a clip (MP4, MOV, MKV, MXF, AVI, MTS) as field `file`.

    A frame is read at once; a clip takes longer and is a job to look after under /api/imports.
    """
    upload = form.file
    name = Path(upload.filename or "frame").name
    return _read(lambda: take_upload(services(), path.setup_id, name, upload.save), 201)


@api.post("/frames/<int:frame_id>/colour", operation_id="readFrameAs", responses={200: FrameModel, 202: ImportModel})
def post_colour(path: FramePath, body: ColourBody) -> Response:
    """Read the file again as written with other primaries or another curve than it says; kept with the frame.

    A clip is a job, as when it came in.
    """
    said = None
    if body.primaries or body.transfer:
        said = FileColour.said(body.primaries or "709", body.transfer or "709")
    return _read(lambda: reread(services(), path.frame_id, said), 200)


def _read(work: Callable[[], StoredFrame | Job], status: int) -> Response:
    try:
        found = work()
    except TooMany:
        return problem(429, "Two things are being worked on", "Wait for one of them, or cancel it.")
    return _import_answer(found, 202) if isinstance(found, Job) else answer(frame_model(found), status)


@api.get("/imports/<job_id>", operation_id="getImport", responses={200: ImportModel})
def get_import(path: ImportPath) -> Response:
    job = services().jobs.get(path.job_id)
    return _no_import() if job is None else _import_answer(job)


@api.delete("/imports/<job_id>", operation_id="cancelImport", responses={200: ImportModel})
def cancel_import(path: ImportPath) -> Response:
    job = services().jobs.get(path.job_id)
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
    return answer(model, status)


@api.get("/frames/<int:frame_id>", operation_id="getFrame", responses={200: FrameModel})
def get_frame(path: FramePath) -> Response:
    return _model(services().frames.get(path.frame_id))


@api.delete("/frames/<int:frame_id>", operation_id="deleteFrame", responses={204: None})
def delete_frame(path: FramePath) -> Response:
    services().frames.delete(path.frame_id)
    return Response(status=204)


@api.post("/frames/<int:frame_id>/restore", operation_id="restoreFrame", responses={200: FrameModel})
def restore_frame(path: FramePath) -> Response:
    """Out of the trash again."""
    return _model(services().frames.restore(path.frame_id))


@api.get("/frames/<int:frame_id>/look.jpg", operation_id="getFrameLook", responses={200: None})
def frame_look(path: FramePath) -> Response:
    """The picture, at most 1600 px a side."""
    return send_file(services().frames.file(path.frame_id, "look.jpg"), mimetype="image/jpeg", max_age=3600)


@api.get("/frames/<int:frame_id>/matte.png", operation_id="getFrameMatte", responses={200: None})
def frame_matte(path: FramePath) -> Response:
    """The matte of the plain key; 404 where no screen was found."""
    return send_file(services().frames.file(path.frame_id, "matte.png"), mimetype="image/png")


@api.get("/frames/<int:frame_id>/comparison", operation_id="compareFrame", responses={200: ComparisonModel})
def get_comparison(path: FramePath) -> Response:
    """The plan as it is now beside what the frame shows."""
    found = compare_frame(services(), path.frame_id)
    plan, target = found.evaluation.plan, found.evaluation.target
    model = ComparisonModel.model_validate(
        {
            "verdict": found.verdict,
            "rows": found.rows,
            "hot_spots_planned": found.hot_spots_planned,
            "shadows_planned": found.shadows_planned,
            "planned_grid": found.expected.grid or [[None] * 3] * 3,
            "target_low": target.low,
            "target_high": target.high,
            "trace": target.trace,
            "planned_hue": plan.screen.hue,
            "not_computed": list(found.evaluation.not_computed),
        }
    )
    return answer(model)


@api.get("/frames/<int:frame_id>/since/<int:other_id>", operation_id="driftOfFrame", responses={200: DriftModel})
def get_drift(path: SincePath) -> Response:
    """What has changed on the screen from another frame or clip to this one; no rows where one shows no screen."""
    now, before = services().frames.get(path.frame_id), services().frames.get(path.other_id)
    rows = drift_between(report_of(before), report_of(now))
    return answer(DriftModel(before=before.name, now=now.name, rows=rows))
