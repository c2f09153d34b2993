"""Without scopes: nine readings and the zebra method; and the lists before and after a take."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response, current_app
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.asbuilt.by_hand import ReadingError, read_nine, zebra
from ausblick.core.asbuilt.lists import items_of
from ausblick.core.measure.compare import compare
from ausblick.core.measure.reading import read_frame
from ausblick.core.plan import plan_from
from ausblick.core.report import drift_between
from ausblick.core.rules.findings import find
from ausblick.store.ticks import Ticks

from ..check_schemas import HandModel, ItemList, NineBody, TickBody, TickPath, ZebraBody, ZebraModel
from ..importing import picture_of, region_of
from ..problems import problem
from ..schemas import SetupPath
from .frames import expected_of, frames
from .setups import basis, store

api = APIBlueprint("by_hand", __name__, url_prefix="/api", abp_tags=[Tag(name="by hand")])


def ticks() -> Ticks:
    found: Ticks = current_app.extensions["ausblick-ticks"]
    return found


@api.post("/readings", operation_id="readNine", responses={200: HandModel})
def post_readings(body: NineBody) -> Response:
    """Nine readings, row by row from the upper left, in %, lux, foot-candles or stops."""
    try:
        found = read_nine(plan_from(body.plan), body.values, body.unit, basis())
    except ReadingError as err:
        return problem(422, "A reading can't be", str(err), "values")
    return Response(HandModel.model_validate(asdict(found)).model_dump_json(), mimetype="application/json")


@api.post("/zebra", operation_id="readZebra", responses={200: ZebraModel})
def post_zebra(body: ZebraBody) -> Response:
    """The aperture at the first stripe, and with the whole screen striped."""
    try:
        found = zebra(body.first, body.full)
    except ReadingError as err:
        return problem(422, "Not these apertures", str(err), "first")
    return Response(ZebraModel.model_validate(asdict(found)).model_dump_json(), mimetype="application/json")


@api.get("/setups/<int:setup_id>/lists", operation_id="getLists", responses={200: ItemList})
def get_lists(path: SetupPath) -> Response:
    """Before the take and after it; what can be measured is ticked from the plan and the newest frame."""
    return _lists(path.setup_id)


@api.put("/setups/<int:setup_id>/lists/<item>", operation_id="tickItem", responses={200: ItemList})
def put_tick(path: TickPath, body: TickBody) -> Response:
    ticks().put(path.setup_id, path.item, body.ticked)
    return _lists(path.setup_id)


@api.delete("/setups/<int:setup_id>/lists", operation_id="clearLists", responses={200: ItemList})
def delete_ticks(path: SetupPath) -> Response:
    """For the next take."""
    ticks().clear(path.setup_id)
    return _lists(path.setup_id)


def _lists(setup_id: int) -> Response:
    plan = store().get(setup_id).plan
    evaluation, findings = find(plan, basis(), with_remedies=False)
    stored = frames().of_setup(setup_id)
    reading, rows = None, []
    if stored:
        reading = read_frame(picture_of(frames(), stored[0]), plan.targets.level_trace, region_of(stored[0]))
        rows = compare(evaluation, expected_of(plan), reading)
    drifted = drift_between(stored[1].data["reading"], stored[0].data["reading"]) if len(stored) > 1 else None
    ticked = ticks().of_setup(setup_id)
    items = [
        {**asdict(item), "ticked": item.done if item.done is not None else item.id in ticked}
        for item in items_of(evaluation, findings, reading, rows, drifted)
    ]
    return Response(ItemList.model_validate({"items": items}).model_dump_json(), mimetype="application/json")
