"""The simulated test key as a job: first picture at once, then crops, quality, levers; cancelled at will."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from flask import Response, current_app
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.arrays import Bytes
from ausblick.core.plan import plan_from
from ausblick.core.report import simulated_report
from ausblick.core.signal.schools import key_channel
from ausblick.core.testkey.levers import levers_of
from ausblick.core.testkey.run import Shot, quick, simulate
from ausblick.formats.recording import through
from ausblick.formats.testkey_pictures import views

from ..jobs import Job, Jobs, TooMany
from ..problems import problem
from ..testkey_schemas import JobPath, PicturePath, TestKeyBody, TestKeyModel
from .setups import basis

api = APIBlueprint("testkey", __name__, url_prefix="/api", abp_tags=[Tag(name="test key")])


def jobs() -> Jobs:
    found: Jobs = current_app.extensions["ausblick-jobs"]
    return found


@api.post("/test-key", operation_id="startTestKey", responses={202: TestKeyModel})
def start_test_key(body: TestKeyBody) -> Response:
    plan, store = plan_from(body.plan), basis()

    def work(job: Job) -> None:
        job.at("overview")
        first = quick(plan, store, through)
        channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
        job.result = {"pictures": {"whole": views(first, channel)}, "report": {}}
        key = simulate(plan, store, through, step=job.at, overview=first)
        shots: dict[str, Shot] = {"whole": key.overview, **key.crops}
        job.result = {
            "pictures": {name: views(shot, key.capture.key) for name, shot in shots.items()},
            "report": simulated_report(key, []),
        }
        if body.levers:
            levers = levers_of(plan, key, store, through, job.at)
            job.result = {**job.result, "report": simulated_report(key, levers)}

    try:
        job = jobs().start(work)
    except TooMany:
        return problem(429, "Two test keys are being made", "Wait for one of them, or cancel it.")
    return _answer(job, 202)


@api.get("/test-key/<job_id>", operation_id="getTestKey", responses={200: TestKeyModel})
def get_test_key(path: JobPath) -> Response:
    job = jobs().get(path.job_id)
    return _missing() if job is None else _answer(job)


@api.delete("/test-key/<job_id>", operation_id="cancelTestKey", responses={200: TestKeyModel})
def cancel_test_key(path: JobPath) -> Response:
    job = jobs().get(path.job_id)
    if job is None:
        return _missing()
    job.cancel()
    return _answer(job)


@api.get("/test-key/<job_id>/<window>/<view>.png", operation_id="getTestKeyPicture", responses={200: None})
def get_picture(path: PicturePath) -> Response:
    job = jobs().get(path.job_id)
    pictures: dict[str, dict[str, Bytes]] = {} if job is None else job.result.get("pictures", {})
    picture = pictures.get(path.window, {}).get(path.view)
    if picture is None:
        return _missing()
    done, data = cv2.imencode(".png", picture[..., ::-1])
    assert done
    return Response(data.tobytes(), mimetype="image/png")


def _missing() -> Response:
    return problem(404, "No such test key", "It is no longer kept: start it again.")


def _answer(job: Job, status: int = 200) -> Response:
    report: dict[str, Any] = job.result.get("report", {})
    pictures: dict[str, dict[str, Bytes]] = job.result.get("pictures", {})
    windows = [
        {"name": name, "width": own["frame"].shape[1], "height": own["frame"].shape[0], "views": list(own)}
        for name, own in pictures.items()
    ]
    kept = {key: report.get(key) for key in ("quality", "residue_percent", "holes_percent")}
    model = TestKeyModel.model_validate(
        {
            "id": job.id,
            "state": job.state,
            "step": job.step,
            "problem": job.problem,
            **kept,
            "parts": report.get("parts", []),
            "levers": report.get("levers", []),
            "windows": windows,
        }
    )
    return Response(model.model_dump_json(), status=status, mimetype="application/json")
