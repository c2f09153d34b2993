"""From a frame to what to do: the lamp that is wrong, the camera's place, trial key, corrections, single pixels."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from flask import Response

from ausblick.app.frame_cause import cause_of, read_stored
from ausblick.app.frame_import import picture_of, read_again
from ausblick.app.frame_trial import trial_of, trial_picture
from ausblick.core.camera.turned import recorded_places, turns_taken
from ausblick.core.diagnosis.camera_pose import Pose, PoseError, find_corners, mark_of, pose_of, view_from
from ausblick.core.plan import Change, Plan
from ausblick.formats.images import jpeg_bytes, png_bytes

from ..check_schemas import (
    CauseModel,
    CleanQuery,
    PixelQuery,
    PoseBody,
    PoseModel,
    RegionBody,
    TrialModel,
    TrialPath,
)
from ..context import answer, services
from ..described import group
from ..problems import problem
from ..schemas import FrameModel, FramePath
from .frame_routes import frame_model

api = group("check", "check")


@api.get("/frames/<int:frame_id>/cause", operation_id="causeOfFrame", responses={200: CauseModel})
def get_cause(path: FramePath) -> Response:
    """Which lamp makes the frame differ from the plan, and what to do about it."""
    return answer(CauseModel(cause_of(services(), path.frame_id)))


@api.post("/frames/<int:frame_id>/region", operation_id="correctFrame", responses={200: FrameModel})
def post_region(path: FramePath, body: RegionBody) -> Response:
    """Read the frame again where a person says the screen is: a rectangle or a lasso."""
    stored = services().frames.get(path.frame_id)
    if 0 < len(body.corners) < 3:
        return problem(422, "Not a region", "three corners at least are needed", "corners")
    plan = services().setups.get(stored.setup_id).plan
    region = [(float(np.clip(u, 0, 1)), float(np.clip(v, 0, 1))) for u, v in body.corners]
    return answer(frame_model(read_again(services().frames, stored, region, plan.targets.level_trace)))


@api.post("/frames/<int:frame_id>/pose", operation_id="poseOfFrame", responses={200: PoseModel})
def post_pose(path: FramePath, body: PoseBody) -> Response:
    """Where the camera really stood, from the screen's corners; where the subject, from foot and head."""
    plan, frame, reading = read_stored(services(), services().frames.get(path.frame_id))
    turns = turns_taken(plan.camera, frame.width, frame.height)
    corners = body.corners
    if not corners and reading.found is not None:
        corners = find_corners(reading.found.mask.astype(float)) or []
    if not corners:
        return problem(422, "No corners", "the screen's edge is cut by the frame: click its four corners", "corners")
    try:
        pose = pose_of(plan, _recorded(corners, turns))
    except PoseError as err:
        return problem(422, "No camera saw this", str(err), "corners")
    mark, mark_problem = None, ""
    if body.foot is not None and body.head is not None:
        try:
            foot, head = _recorded([body.foot, body.head], turns)
            found = mark_of(plan, view_from(plan, pose), foot, head, body.height)
            mark = (float(found[0]), float(found[1]))
        except PoseError as err:
            mark_problem = str(err)
    changes = list(pose.changes())
    if mark is not None:
        changes += [Change("subject.x", round(mark[0], 3)), Change("subject.z", round(mark[1], 3))]
    return answer(
        PoseModel.model_validate(
            {
                "corners": corners,
                "rows": _pose_rows(plan, pose, mark),
                "misfit_px": pose.misfit_px,
                "mark": mark,
                "mark_problem": mark_problem,
                "changes": changes,
            }
        )
    )


def _recorded(places: Sequence[tuple[float, float]], turns: int) -> list[tuple[float, float]]:
    """Places in the upright picture as places in the frame that the sensor recorded."""
    return [(float(u), float(v)) for u, v in recorded_places(np.array(places, dtype=float), turns)]


POSE_ROWS = (
    ("z", "Camera from the screen", "m"), ("y", "Camera height", "m"), ("x", "Camera across", "m"),
    ("pan", "Pan", "°"), ("tilt", "Tilt", "°"), ("roll", "Roll", "°"),
)  # fmt: skip


def _pose_rows(plan: Plan, pose: Pose, mark: tuple[float, float] | None) -> list[dict[str, object]]:
    rows: list[dict[str, object]] = [
        {"name": label, "unit": unit, "planned": getattr(plan.camera, name), "measured": getattr(pose, name),
         "error": pose.errors[name]}
        for name, label, unit in POSE_ROWS
    ]  # fmt: skip
    if mark is not None and plan.subject is not None:
        subject, error = plan.subject, pose.errors["z"]
        rows += [
            {"name": name, "unit": "m", "planned": planned, "measured": measured, "error": error}
            for name, planned, measured in (
                ("Mark from the screen", subject.z, mark[1]),
                ("Mark across", subject.x, mark[0]),
            )
        ]
    return rows


@api.get("/frames/<int:frame_id>/trial", operation_id="trialOfFrame", responses={200: TrialModel})
def get_trial(path: FramePath, query: CleanQuery) -> Response:
    try:
        trial = trial_of(services(), path.frame_id, query.clean)
    except ValueError as err:
        return problem(422, "The clean plate does not fit", str(err), "clean")
    if trial is None:
        return problem(422, "Nothing to key", "no screen was found in this frame: draw round it")
    return answer(
        TrialModel(
            residue_percent=trial.residue_percent,
            holes_percent=trial.holes_percent,
            needed_clip=trial.pulled.needed_clip,
            residue=list(trial.residue),
            holes=list(trial.holes),
        )
    )


@api.get("/frames/<int:frame_id>/trial/<view>.jpg", operation_id="trialPicture", responses={200: None})
def get_trial_picture(path: TrialPath, query: CleanQuery) -> Response:
    """matte, over dark, bright or the kept plate, or `spilled`: over dark without despill."""
    try:
        trial = trial_of(services(), path.frame_id, query.clean)
    except ValueError as err:
        return problem(422, "The clean plate does not fit", str(err), "clean")
    if trial is None:
        return problem(422, "Nothing to key", "no screen was found in this frame: draw round it")
    picture = trial_picture(services(), path.frame_id, trial, path.view)
    return Response(jpeg_bytes(picture), mimetype="image/jpeg")


@api.get("/frames/<int:frame_id>/pixels.png", operation_id="framePixels", responses={200: None})
def get_pixels(path: FramePath, query: PixelQuery) -> Response:
    """The recorded pixels round a place, one for one."""
    frame = picture_of(services().frames, services().frames.get(path.frame_id))
    w, h = min(query.w, frame.width), min(query.h, frame.height)
    left = int(np.clip(round(query.x * frame.width - w / 2), 0, frame.width - w))
    top = int(np.clip(round(query.y * frame.height - h / 2), 0, frame.height - h))
    cut = frame.signal(frame.pixels[top : top + h, left : left + w])
    return Response(png_bytes(np.round(np.clip(cut, 0.0, 1.0) * 255.0).astype(np.uint8)), mimetype="image/png")
