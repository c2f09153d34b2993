"""From a frame to what to do: the lamp that is wrong, the camera's place, trial key, corrections, single pixels."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict

import numpy as np
from flask import Response, current_app
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.arrays import Floats32
from ausblick.core.asbuilt.colour import fit_colour
from ausblick.core.asbuilt.fit import fit_lamps
from ausblick.core.asbuilt.pose import Pose, PoseError, find_corners, mark_of, pose_of, view_from
from ausblick.core.asbuilt.seen import seen_on
from ausblick.core.asbuilt.trial import Trial, trial_key
from ausblick.core.light.basis import Shelf
from ausblick.core.measure.compare import recording_differs
from ausblick.core.measure.frame import Frame
from ausblick.core.measure.noise import noise_percent
from ausblick.core.measure.reading import FrameReading, read_frame
from ausblick.core.optics.turned import recorded_places, turns_taken, upright
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.testkey.ground import plate_ground
from ausblick.core.testkey.quality import BRIGHT, DARK
from ausblick.core.testkey.window import Window
from ausblick.formats.images import jpeg_bytes, png_bytes, read_image
from ausblick.formats.testkey_pictures import grey, shown
from ausblick.store.frames import StoredFrame
from ausblick.store.plates import Plates

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
from ..importing import LOOK, picture_of, read_again, region_of, scaled
from ..problems import problem
from ..schemas import FrameModel, FramePath
from .frames import frame_model, frames
from .setups import basis, store

api = APIBlueprint("check", __name__, url_prefix="/api", abp_tags=[Tag(name="check")])
GROUNDS = {"dark": DARK, "bright": BRIGHT, "spilled": DARK}


def _answer(model: CauseModel | PoseModel | TrialModel | FrameModel) -> Response:
    return Response(model.model_dump_json(), mimetype="application/json")


def _read(stored: StoredFrame) -> tuple[Plan, Frame, FrameReading]:
    plan = store().get(stored.setup_id).plan
    frame = picture_of(frames(), stored)
    return plan, frame, read_frame(frame, plan.targets.level_trace, region_of(stored))


@api.get("/frames/<int:frame_id>/cause", operation_id="causeOfFrame", responses={200: CauseModel})
def get_cause(path: FramePath) -> Response:
    """Which lamp makes the frame differ from the plan, and what to do about it."""
    stored = frames().get(path.frame_id)
    plan, frame, reading = _read(stored)
    seen = seen_on(plan, frame, reading)
    fit = None if seen is None else fit_lamps(plan, seen, basis())
    # Lamps that are weaker than planned mix other colours: look at them as they burn.
    burning = plan if fit is None else apply_changes(plan, fit.changes)
    colour = None if seen is None else fit_colour(burning, seen, basis())
    model = CauseModel.model_validate(
        {
            "fit": None if fit is None else asdict(fit),
            "colour": None if colour is None else asdict(colour),
            "noise": [asdict(change) for change in _noise(plan, frame, reading)],
            "recording": recording_differs(plan, stored.data.get("clip") or {}),
        }
    )
    return _answer(model)


def _noise(plan: Plan, frame: Frame, reading: FrameReading) -> list[Change]:
    """The key channel's noise and level, as the camera's own."""
    if reading.found is None or reading.level_key_channel is None:
        return []
    noise = noise_percent(frame, reading.found.core, "key-channel", reading.found.channel)
    if not noise:
        return []
    value = {
        "percent": round(noise, 3),
        "level": round(float(np.clip(reading.level_key_channel.mean, 1.0, 100.0)), 1),
        "channel": reading.found.hue,
        "iso": plan.camera.iso,
    }
    return [Change("camera.noise", value)]


@api.post("/frames/<int:frame_id>/region", operation_id="correctFrame", responses={200: FrameModel})
def post_region(path: FramePath, body: RegionBody) -> Response:
    """Read the frame again where a person says the screen is: a rectangle or a lasso."""
    stored = frames().get(path.frame_id)
    if 0 < len(body.corners) < 3:
        return problem(422, "Not a region", "three corners at least are needed", "corners")
    plan = store().get(stored.setup_id).plan
    region = [(float(np.clip(u, 0, 1)), float(np.clip(v, 0, 1))) for u, v in body.corners]
    return _answer(frame_model(read_again(frames(), stored, region, plan.targets.level_trace)))


@api.post("/frames/<int:frame_id>/pose", operation_id="poseOfFrame", responses={200: PoseModel})
def post_pose(path: FramePath, body: PoseBody) -> Response:
    """Where the camera really stood, from the screen's corners; where the subject, from foot and head."""
    plan, frame, reading = _read(frames().get(path.frame_id))
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
    return _answer(
        PoseModel.model_validate(
            {
                "corners": corners,
                "rows": _pose_rows(plan, pose, mark),
                "misfit_px": pose.misfit_px,
                "mark": mark,
                "mark_problem": mark_problem,
                "changes": [asdict(change) for change in changes],
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


def _trial(path: FramePath, query: CleanQuery) -> tuple[Plan, Trial | None]:
    """Raises ValueError where the clean plate does not fit. Its figures and its pictures are of one key."""
    stored = frames().get(path.frame_id)
    plan = store().get(stored.setup_id).plan
    empty = None if query.clean is None else frames().get(query.clean)
    region, trace = region_of(stored), plan.targets.level_trace

    def make() -> Trial | None:
        look = scaled(picture_of(frames(), stored), LOOK)
        clean = None if empty is None else scaled(picture_of(frames(), empty), LOOK)
        return trial_key(look, read_frame(look, trace, region), clean)

    shelf: Shelf[Trial | None] = current_app.extensions["ausblick-trials"]
    # By their folders: the number of a removed frame may come again.
    key = (stored.path, tuple(region), trace, None if empty is None else empty.path)
    return plan, shelf.get(key, make)


@api.get("/frames/<int:frame_id>/trial", operation_id="trialOfFrame", responses={200: TrialModel})
def get_trial(path: FramePath, query: CleanQuery) -> Response:
    try:
        _, trial = _trial(path, query)
    except ValueError as err:
        return problem(422, "The clean plate does not fit", str(err), "clean")
    if trial is None:
        return problem(422, "Nothing to key", "no screen was found in this frame: draw round it")
    return _answer(
        TrialModel(
            residue_percent=trial.residue_percent,
            holes_percent=trial.holes_percent,
            needed_clip=trial.pulled.needed_clip,
            residue=[asdict(box) for box in trial.residue],  # type: ignore[misc]
            holes=[asdict(box) for box in trial.holes],  # type: ignore[misc]
        )
    )


@api.get("/frames/<int:frame_id>/trial/<view>.jpg", operation_id="trialPicture", responses={200: None})
def get_trial_picture(path: TrialPath, query: CleanQuery) -> Response:
    """matte, over dark, bright or the kept plate, or `spilled`: over dark without despill."""
    try:
        plan, trial = _trial(path, query)
    except ValueError as err:
        return problem(422, "The clean plate does not fit", str(err), "clean")
    if trial is None:
        return problem(422, "Nothing to key", "no screen was found in this frame: draw round it")
    if path.view == "matte":
        return Response(jpeg_bytes(grey(trial.pulled.matte)), mimetype="image/jpeg")
    height, width = trial.pulled.matte.shape
    if path.view == "plate":
        plates: Plates = current_app.extensions["ausblick-plates"]
        file = plates.file(frames().get(path.frame_id).setup_id)
        plate = read_image(file) if file.is_file() else None
        ground = _behind(plan, plate, width, height)
    else:
        ground = np.full(3, GROUNDS[path.view], dtype=np.float32)
    return Response(jpeg_bytes(shown(trial.over(ground, path.view != "spilled"))), mimetype="image/jpeg")


def _behind(plan: Plan, plate: Frame | None, width: int, height: int) -> Floats32:
    """The plate (H, W, 3), or its colour (3,), behind a frame of this size."""
    turns = turns_taken(plan.camera, width, height)
    across, down = (height, width) if turns else (width, height)
    ground = plate_ground(plan, plate, Window(0.0, 0.0, across, down, plan.camera.sensor.px_w / across))
    return upright(ground, turns) if ground.ndim == 3 else ground


@api.get("/frames/<int:frame_id>/pixels.png", operation_id="framePixels", responses={200: None})
def get_pixels(path: FramePath, query: PixelQuery) -> Response:
    """The recorded pixels round a place, one for one."""
    frame = picture_of(frames(), frames().get(path.frame_id))
    w, h = min(query.w, frame.width), min(query.h, frame.height)
    left = int(np.clip(round(query.x * frame.width - w / 2), 0, frame.width - w))
    top = int(np.clip(round(query.y * frame.height - h / 2), 0, frame.height - h))
    cut = frame.signal(frame.pixels[top : top + h, left : left + w])
    return Response(png_bytes(np.round(np.clip(cut, 0.0, 1.0) * 255.0).astype(np.uint8)), mimetype="image/png")
