"""The stand-in camera and meter of a set-up, and the folder that is watched in its place."""

from __future__ import annotations

from base64 import b64encode

import numpy as np
from flask import Response

from ausblick.app.scope_data import scopes_data
from ausblick.app.standin_recording import record, standin_of
from ausblick.app.standins import Standin
from ausblick.app.upload import watch_folder
from ausblick.app.watched_folder import Watch, WatchError
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.frame_report import frame_report
from ausblick.core.frames.reading import frame_scopes, read_frame
from ausblick.core.plan import Change, dump_plan
from ausblick.core.standin.standin_camera import incident, spot, standin_picture
from ausblick.formats.images import jpeg_bytes

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
from ..context import answer, services
from ..described import group
from ..problems import problem
from ..schemas import FrameModel, SetupPath
from .frame_routes import frame_model

api = group("standin", "stand-in", "/api/setups")
LIVE = 640


def _model(standin: Standin, tell: bool = False) -> StandinModel:
    return StandinModel(
        seed=standin.seed, plan=dump_plan(standin.built.plan), truth=list(standin.built.truth) if tell else []
    )


@api.post("/<int:setup_id>/standin", operation_id="buildStandin", responses={200: StandinModel})
def post_standin(path: SetupPath, body: StandinBody) -> Response:
    """Build the set from the plan as it is now, with deviations of this seed, or exactly as planned."""
    plan = services().setups.get(path.setup_id).plan
    return answer(_model(services().standins.build(path.setup_id, plan, body.seed, body.faults)))


@api.get("/<int:setup_id>/standin", operation_id="getStandin", responses={200: StandinModel})
def get_standin(path: SetupPath, query: TruthQuery) -> Response:
    services().setups.get(path.setup_id)
    return answer(_model(standin_of(services(), path.setup_id), query.tell))


@api.patch("/<int:setup_id>/standin", operation_id="touchStandin", responses={200: StandinModel})
def patch_standin(path: SetupPath, body: StandinChanges) -> Response:
    """Touch a lamp or the camera's controls on the set."""
    services().setups.get(path.setup_id)
    standin = standin_of(services(), path.setup_id)
    try:
        standin.change([Change(change.path, change.value) for change in body.changes])
    except ValueError as err:
        return problem(422, "Can't be done on the set", str(err), "changes")
    return answer(_model(standin))


@api.get("/<int:setup_id>/standin/look", operation_id="lookThroughStandin", responses={200: LookModel})
def get_look(path: SetupPath) -> Response:
    """The live picture with its reading and instruments: asked for again and again."""
    setup = services().setups.get(path.setup_id)
    standin = standin_of(services(), path.setup_id)
    expected = services().memory.expected(setup.plan)
    picture = standin_picture(standin.capture(services().basis), LIVE, standin.shots)
    frame = Frame(picture, 255.0)
    reading = read_frame(frame, setup.plan.targets.level_trace, (), setup.plan.screen.hue)
    look = {
        "picture": b64encode(jpeg_bytes(picture)).decode(),
        "reading": frame_report(reading),
        "scopes": scopes_data(frame_scopes(frame, reading)),
        "planned_luma": expected.level_luma.mean if expected.level_luma else None,
        "planned_even": expected.even_percent,
    }
    return answer(LookModel.model_validate(look))


@api.post("/<int:setup_id>/standin/record", operation_id="recordStandin", responses={201: FrameModel})
def post_record(path: SetupPath, body: RecordBody) -> Response:
    """A still, or a short clip through the plan's codec, measured like any that comes from a camera."""
    return answer(frame_model(record(services(), path.setup_id, body.what)), 201)


@api.post("/<int:setup_id>/standin/meter", operation_id="meterStandin", responses={200: MeterModel})
def post_meter(path: SetupPath, body: MeterBody) -> Response:
    """An incident meter held somewhere, or a spot meter through the lens."""
    services().setups.get(path.setup_id)
    built = standin_of(services(), path.setup_id).built
    if not np.all(np.isfinite(body.at)) or max(abs(v) for v in body.at) > 100.0:
        return problem(422, "No such place", "numbers within 100 m, or parts of the frame", "at")
    if body.kind == "incident":
        if len(body.at) != 3:
            return problem(422, "No such place", "an incident meter needs x, y and z", "at")
        reading = incident(built.plan, (body.at[0], body.at[1], body.at[2]), services().basis)
    else:
        reading = spot(built, (body.at[0], body.at[1]), services().basis)
    return answer(MeterModel(reading))


@api.put("/<int:setup_id>/watch", operation_id="watchFolder", responses={200: WatchModel})
def put_watch(path: SetupPath, body: WatchBody) -> Response:
    """Measure what comes into a folder of this machine from now on."""
    try:
        return answer(_watch(watch_folder(services(), path.setup_id, body.folder)))
    except WatchError as err:
        return problem(422, "Can't be watched", str(err), "folder")


@api.get("/<int:setup_id>/watch", operation_id="getWatch", responses={200: WatchModel})
def get_watch(path: SetupPath) -> Response:
    services().setups.get(path.setup_id)
    return answer(_watch(services().watches.get(path.setup_id)))


@api.delete("/<int:setup_id>/watch", operation_id="stopWatch", responses={200: WatchModel})
def delete_watch(path: SetupPath) -> Response:
    services().setups.get(path.setup_id)
    services().watches.stop(path.setup_id)
    return answer(_watch(None))


def _watch(watch: Watch | None) -> WatchModel:
    if watch is None:
        return WatchModel(folder=None, seen=0, problem="")
    return WatchModel(folder=watch.folder, seen=watch.seen, problem=watch.problem)
