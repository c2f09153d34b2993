"""The simulated test key as a job: first picture at once, then crops, quality, levers; cancelled at will.

A key of a set-up's own plan is kept with it when it is done, and read again from there.
"""

from __future__ import annotations

import copy
from dataclasses import dataclass
from typing import Any

from flask import Response, current_app, send_file
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.arrays import Bytes
from ausblick.core.light.basis import BasisStore
from ausblick.core.measure.frame import Frame
from ausblick.core.optics.turned import side_turns, upright
from ausblick.core.plan import Plan, Recording, plan_from
from ausblick.core.report import simulated_report
from ausblick.core.testkey.levers import levers_of
from ausblick.core.testkey.render import Drawn
from ausblick.core.testkey.run import quick, simulate
from ausblick.formats.images import png_bytes, read_image
from ausblick.formats.recording import through
from ausblick.formats.testkey_pictures import all_views, shown
from ausblick.store.plates import Plates
from ausblick.store.setups import NotFound
from ausblick.store.test_keys import StoredKey, TestKeys

from ..jobs import Job, TooMany
from ..problems import problem
from ..schemas import SetupPath
from ..testkey_schemas import JobPath, PicturePath, TestKeyBody, TestKeyList, TestKeyModel
from .frames import jobs
from .kit import kits
from .setups import basis, store

api = APIBlueprint("testkey", __name__, url_prefix="/api", abp_tags=[Tag(name="test key")])
KEPT = "kept-"
SAID = ("quality", "residue_percent", "holes_percent", "flicker_percent", "second_keyer")


def kept() -> TestKeys:
    found: TestKeys = current_app.extensions["ausblick-test-keys"]
    return found


@dataclass(frozen=True)
class _Work:
    """Everything a job needs, gathered while the request is there."""

    plan: Plan
    setup_id: int | None
    levers: bool
    plate: Frame | None
    recorders: list[tuple[str, Recording]]
    store: BasisStore
    keys: TestKeys

    def __call__(self, job: Job) -> None:
        job.at("overview")

        def seen(drawn: Drawn) -> None:
            clean = upright(shown(drawn.frame), side_turns(self.plan.camera))
            job.result = {"pictures": {"whole": {"clean": clean}}, "report": {}}

        first = quick(self.plan, self.store, through, drawn=seen)
        key = simulate(self.plan, self.store, through, step=job.at, overview=first)
        pictures = all_views(key, self.plate)
        job.result = {"pictures": pictures, "report": simulated_report(key, [])}
        if self.levers:
            found = levers_of(self.plan, key, self.store, through, job.at, self.recorders)
            job.result = {"pictures": pictures, "report": simulated_report(key, found)}
        self._keep(job, pictures)

    def _keep(self, job: Job, pictures: dict[str, dict[str, Bytes]]) -> None:
        if self.setup_id is None:
            return
        job.at("keeping it")
        files = {f"{part}-{view}.png": png_bytes(p) for part, own in pictures.items() for view, p in own.items()}
        report = {**job.result["report"], "windows": _windows(pictures)}
        try:
            self.keys.add(self.setup_id, self.plan, report, files)
        except NotFound:
            # The set-up was deleted meanwhile: its key goes with it.
            return


def _work(body: TestKeyBody) -> _Work:
    plan = plan_from(body.plan)
    plate = None
    if body.setup_id is not None:
        store().get(body.setup_id)
        plates: Plates = current_app.extensions["ausblick-plates"]
        file = plates.file(body.setup_id)
        plate = read_image(file) if file.is_file() else None
    recorders = [(camera.name, camera.recording) for camera in kits().get().kit.cameras]
    return _Work(plan, body.setup_id, body.levers, plate, recorders, basis(), kept())


@api.post("/test-key", operation_id="startTestKey", responses={202: TestKeyModel})
def start_test_key(body: TestKeyBody) -> Response:
    work = _work(body)
    try:
        job = jobs().start(work)
    except TooMany:
        return problem(429, "Two test keys are being made", "Wait for one of them, or cancel it.")
    return _answer(job, 202)


@api.get("/setups/<int:setup_id>/test-keys", operation_id="listTestKeys", responses={200: TestKeyList})
def list_test_keys(path: SetupPath) -> Response:
    """Keys that are kept of a set-up, newest first; stale where its plan has changed since."""
    plan = _unnamed(store().get(path.setup_id).plan)
    found = [_kept_model(key, _unnamed(key.plan) != plan) for key in kept().of_setup(path.setup_id)]
    return Response(TestKeyList(keys=found).model_dump_json(), mimetype="application/json")


def _unnamed(plan: Plan) -> Plan:
    """All of a plan that a key can show."""
    return plan.model_copy(update={"title": ""})


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
    if path.job_id.startswith(KEPT):
        return _kept_picture(path)
    job = jobs().get(path.job_id)
    pictures: dict[str, dict[str, Bytes]] = {} if job is None else job.result.get("pictures", {})
    picture = pictures.get(path.window, {}).get(path.view)
    return _missing() if picture is None else Response(png_bytes(picture), mimetype="image/png")


def _kept_picture(path: PicturePath) -> Response:
    number = path.job_id.removeprefix(KEPT)
    if not (number.isdecimal() and path.window.isalpha() and path.view.isalpha()):
        return _missing()
    file = kept().get(int(number)).path / f"{path.window}-{path.view}.png"
    return send_file(file, mimetype="image/png") if file.is_file() else _missing()


def _missing() -> Response:
    return problem(404, "No such test key", "It is no longer kept: start it again.")


def _windows(pictures: dict[str, dict[str, Bytes]]) -> list[dict[str, Any]]:
    found = []
    for name, own in pictures.items():
        height, width = next(iter(own.values())).shape[:2]
        found.append({"name": name, "width": width, "height": height, "views": list(own)})
    return found


def _answer(job: Job, status: int = 200) -> Response:
    report: dict[str, Any] = copy.copy(job.result.get("report", {}))
    report["windows"] = _windows(job.result.get("pictures", {}))
    model = _model(report, {"id": job.id, "state": job.state, "step": job.step, "problem": job.problem})
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


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
