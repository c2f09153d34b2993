"""The stand-in camera and meter of a set-up, and the folder that is watched in its place."""

from __future__ import annotations

import tempfile
from base64 import b64encode
from dataclasses import asdict
from pathlib import Path

import numpy as np
from flask import Response, current_app
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.asbuilt.built import FIRST_SEED
from ausblick.core.asbuilt.standin import exposures, incident, spot, standin_picture
from ausblick.core.measure.frame import Frame
from ausblick.core.measure.reading import frame_scopes, read_frame
from ausblick.core.plan import Change, dump_plan
from ausblick.core.report import frame_report
from ausblick.core.testkey.render import draw
from ausblick.core.testkey.run import overview_window
from ausblick.formats.images import jpeg_bytes, png_bytes
from ausblick.formats.recording import write_clip
from ausblick.store.setups import NotFound

from ..check_schemas import (
    LookModel,
    MeterBody,
    MeterModel,
    RecordBody,
    StandinBody,
    StandinChanges,
    StandinModel,
    TruthQuery,
    WatchBody,
    WatchModel,
)
from ..importing import import_clip, import_frame, looks_like_clip
from ..present import scopes_data
from ..problems import problem
from ..schemas import FrameModel, SetupPath
from ..standins import Standin, Standins
from ..watching import Watch, WatchError, Watches
from .frames import expected_of, frame_model, frames
from .setups import basis, store

api = APIBlueprint("standin", __name__, url_prefix="/api/setups", abp_tags=[Tag(name="stand-in")])
LIVE, STILL = 640, 1920
CLIP_WIDTH, CLIP_S = 1280, 1.6


def standins() -> Standins:
    found: Standins = current_app.extensions["ausblick-standins"]
    return found


def watches() -> Watches:
    found: Watches = current_app.extensions["ausblick-watches"]
    return found


def _answer(model: StandinModel | LookModel | MeterModel | WatchModel | FrameModel, status: int = 200) -> Response:
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


def _standin(setup_id: int) -> Standin:
    """The set-up's stand-in; without one a set with hidden faults is built from the plan as it is now."""
    found = standins().get(setup_id)
    return found or standins().build(setup_id, store().get(setup_id).plan, FIRST_SEED, faults=True)


def _model(standin: Standin, tell: bool = False) -> StandinModel:
    return StandinModel(
        seed=standin.seed, plan=dump_plan(standin.built.plan), truth=list(standin.built.truth) if tell else []
    )


@api.post("/<int:setup_id>/standin", operation_id="buildStandin", responses={200: StandinModel})
def post_standin(path: SetupPath, body: StandinBody) -> Response:
    """Build the set from the plan as it is now, with deviations of this seed, or exactly as planned."""
    plan = store().get(path.setup_id).plan
    return _answer(_model(standins().build(path.setup_id, plan, body.seed, body.faults)))


@api.get("/<int:setup_id>/standin", operation_id="getStandin", responses={200: StandinModel})
def get_standin(path: SetupPath, query: TruthQuery) -> Response:
    store().get(path.setup_id)
    return _answer(_model(_standin(path.setup_id), query.tell))


@api.patch("/<int:setup_id>/standin", operation_id="touchStandin", responses={200: StandinModel})
def patch_standin(path: SetupPath, body: StandinChanges) -> Response:
    """Touch a lamp or the camera's controls on the set."""
    store().get(path.setup_id)
    standin = _standin(path.setup_id)
    try:
        standin.change([Change(change.path, change.value) for change in body.changes])
    except ValueError as err:
        return problem(422, "Can't be done on the set", str(err), "changes")
    return _answer(_model(standin))


@api.get("/<int:setup_id>/standin/look", operation_id="lookThroughStandin", responses={200: LookModel})
def get_look(path: SetupPath) -> Response:
    """The live picture with its reading and instruments: asked for again and again."""
    setup = store().get(path.setup_id)
    standin = _standin(path.setup_id)
    expected = expected_of(setup.plan)
    picture = standin_picture(standin.capture(basis()), LIVE, standin.shots)
    frame = Frame(picture, 255.0)
    reading = read_frame(frame, setup.plan.targets.level_trace)
    look = {
        "picture": b64encode(jpeg_bytes(picture)).decode(),
        "reading": frame_report(reading),
        "scopes": scopes_data(frame_scopes(frame, reading)),
        "planned_luma": expected.level_luma.mean if expected.level_luma else None,
        "planned_even": expected.even_percent,
    }
    return _answer(LookModel.model_validate(look))


@api.post("/<int:setup_id>/standin/record", operation_id="recordStandin", responses={201: FrameModel})
def post_record(path: SetupPath, body: RecordBody) -> Response:
    """A still, or a short clip through the plan's codec, measured like any that comes from a camera."""
    setup = store().get(path.setup_id)
    standin = _standin(path.setup_id)
    capture = standin.capture(basis())
    camera, name = standin.built.plan.camera, f"stand-in {body.what} {standin.shots}"
    with tempfile.TemporaryDirectory() as folder:
        if body.what == "still":
            file = Path(folder) / "still.png"
            file.write_bytes(png_bytes(standin_picture(capture, STILL, standin.shots)))
            frame = import_frame(frames(), path.setup_id, name, file, setup.plan)
        else:
            file = Path(folder) / "clip.mov"
            linear = draw(capture, overview_window(camera_plan := standin.built.plan, CLIP_WIDTH)).frame
            count = max(8, round(CLIP_S * camera_plan.camera.fps))
            expose = exposures(capture, linear)
            shots = (expose(standin.shots * 1000 + k) for k in range(count))
            write_clip(file, shots, camera.recording, camera.fps)
            frame = import_clip(frames(), path.setup_id, name, file, setup.plan)
    return _answer(frame_model(frame), 201)


@api.post("/<int:setup_id>/standin/meter", operation_id="meterStandin", responses={200: MeterModel})
def post_meter(path: SetupPath, body: MeterBody) -> Response:
    """An incident meter held somewhere, or a spot meter through the lens."""
    store().get(path.setup_id)
    built = _standin(path.setup_id).built
    if not np.all(np.isfinite(body.at)) or max(abs(v) for v in body.at) > 100.0:
        return problem(422, "No such place", "numbers within 100 m, or parts of the frame", "at")
    if body.kind == "incident":
        if len(body.at) != 3:
            return problem(422, "No such place", "an incident meter needs x, y and z", "at")
        reading = incident(built.plan, (body.at[0], body.at[1], body.at[2]), basis())
    else:
        reading = spot(built, (body.at[0], body.at[1]), basis())
    return _answer(MeterModel.model_validate(asdict(reading)))


@api.put("/<int:setup_id>/watch", operation_id="watchFolder", responses={200: WatchModel})
def put_watch(path: SetupPath, body: WatchBody) -> Response:
    """Measure what comes into a folder of this machine from now on."""
    setup_id, keeper, setups = path.setup_id, frames(), store()
    setups.get(setup_id)

    def take(file: Path) -> None:
        try:
            plan = setups.get(setup_id).plan
        except NotFound:
            return
        work = import_clip if looks_like_clip(file) else import_frame
        work(keeper, setup_id, file.name, file, plan)

    try:
        return _answer(_watch(watches().start(setup_id, body.folder, take)))
    except WatchError as err:
        return problem(422, "Can't be watched", str(err), "folder")


@api.get("/<int:setup_id>/watch", operation_id="getWatch", responses={200: WatchModel})
def get_watch(path: SetupPath) -> Response:
    return _answer(_watch(watches().get(path.setup_id)))


@api.delete("/<int:setup_id>/watch", operation_id="stopWatch", responses={200: WatchModel})
def delete_watch(path: SetupPath) -> Response:
    watches().stop(path.setup_id)
    return _answer(_watch(None))


def _watch(watch: Watch | None) -> WatchModel:
    if watch is None:
        return WatchModel(folder=None, seen=0, problem="")
    return WatchModel(folder=watch.folder, seen=watch.seen, problem=watch.problem)
