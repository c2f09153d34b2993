"""The simulated test key as a job: first picture at once, then crops, quality, levers; cancelled at will.

A key of a set-up's own plan is kept with it when it is done, and read again from there.
"""

from __future__ import annotations

import copy
from typing import Any

from flask import Response, send_file

from ausblick.app.jobs import Job, TooMany
from ausblick.app.test_key_job import Pictures, test_key_job, windows_of
from ausblick.core.plan import Plan, plan_from
from ausblick.store.simulated_keys import StoredKey

from ..context import answer, services
from ..described import group
from ..problems import problem
from ..schemas import SetupPath
from ..testkey_schemas import JobPath, PicturePath, TestKeyBody, TestKeyList, TestKeyModel

api = group("testkey", "test key")
KEPT = "kept-"
SAID = (
    "quality",
    "residue_percent",
    "holes_percent",
    "flicker_percent",
    "second_keyer",
    "formula",
    "other_quality",
    "person",
)


@api.post("/test-key", operation_id="startTestKey", responses={202: TestKeyModel})
def start_test_key(body: TestKeyBody) -> Response:
    work = test_key_job(services(), plan_from(body.plan), body.setup_id, body.levers)
    try:
        job = services().jobs.start(work)
    except TooMany:
        return problem(429, "Two test keys are being made", "Wait for one of them, or cancel it.")
    return _job_answer(job, 202)


@api.get("/setups/<int:setup_id>/test-keys", operation_id="listTestKeys", responses={200: TestKeyList})
def list_test_keys(path: SetupPath) -> Response:
    """Keys that are kept of a set-up, newest first; stale where its plan has changed since."""
    plan = _unnamed(services().setups.get(path.setup_id).plan)
    found = [_kept_model(key, _unnamed(key.plan) != plan) for key in services().test_keys.of_setup(path.setup_id)]
    return answer(TestKeyList(keys=found))


def _unnamed(plan: Plan) -> Plan:
    """All of a plan that a key can show."""
    return plan.model_copy(update={"title": ""})


@api.get("/test-key/<job_id>", operation_id="getTestKey", responses={200: TestKeyModel})
def get_test_key(path: JobPath) -> Response:
    job = services().jobs.get(path.job_id)
    return _missing() if job is None else _job_answer(job)


@api.delete("/test-key/<job_id>", operation_id="cancelTestKey", responses={200: TestKeyModel})
def cancel_test_key(path: JobPath) -> Response:
    job = services().jobs.get(path.job_id)
    if job is None:
        return _missing()
    job.cancel()
    return _job_answer(job)


@api.get("/test-key/<job_id>/<window>/<view>.png", operation_id="getTestKeyPicture", responses={200: None})
def get_picture(path: PicturePath) -> Response:
    if path.job_id.startswith(KEPT):
        return _kept_picture(path)
    job = services().jobs.get(path.job_id)
    pictures: Pictures = {} if job is None else job.result.get("pictures", {})
    picture = pictures.get(path.window, {}).get(path.view)
    return _missing() if picture is None else Response(picture.png(), mimetype="image/png")


def _kept_picture(path: PicturePath) -> Response:
    number = path.job_id.removeprefix(KEPT)
    if not (number.isdecimal() and path.window.isalnum() and path.view.isalpha()):
        return _missing()
    file = services().test_keys.get(int(number)).path / f"{path.window}-{path.view}.png"
    return send_file(file, mimetype="image/png", max_age=3600) if file.is_file() else _missing()


def _missing() -> Response:
    return problem(404, "No such test key", "It is no longer kept: start it again.")


def _job_answer(job: Job, status: int = 200) -> Response:
    report: dict[str, Any] = copy.copy(job.result.get("report", {}))
    report["windows"] = windows_of(job.result.get("pictures", {}))
    model = _model(report, {"id": job.id, "state": job.state, "step": job.step, "problem": job.problem})
    return answer(model, status)


def _kept_model(key: StoredKey, stale: bool) -> TestKeyModel:
    about = {
        "id": f"{KEPT}{key.id}",
        "state": "done",
        "step": "",
        "problem": "",
        "created": key.created,
        "stale": stale,
    }
    return _model(key.report, about)


def _model(report: dict[str, Any], about: dict[str, Any]) -> TestKeyModel:
    said = {key: report.get(key) for key in SAID}
    lists = {key: report.get(key, []) for key in ("parts", "levers", "windows")}
    return TestKeyModel.model_validate({**about, **said, **lists})
