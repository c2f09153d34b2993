"""Without scopes: nine readings and the zebra method; and the lists before and after a take."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from ausblick.app.take_lists import lists_of
from ausblick.core.diagnosis.hand_readings import ReadingError, read_nine, zebra
from ausblick.core.plan import plan_from

from ..check_schemas import HandModel, ItemList, NineBody, TickBody, TickPath, ZebraBody, ZebraModel
from ..context import answer, services
from ..described import group
from ..problems import problem
from ..schemas import SetupPath

api = group("by_hand", "by hand")


@api.post("/readings", operation_id="readNine", responses={200: HandModel})
def post_readings(body: NineBody) -> Response:
    """Nine readings, row by row from the upper left, in %, lux, foot-candles or stops."""
    try:
        found = read_nine(plan_from(body.plan), body.values, body.unit, services().basis)
    except ReadingError as err:
        return problem(422, "A reading can't be", str(err), "values")
    return answer(HandModel(found))


@api.post("/zebra", operation_id="readZebra", responses={200: ZebraModel})
def post_zebra(body: ZebraBody) -> Response:
    """The aperture at the first stripe, and with the whole screen striped."""
    try:
        found = zebra(body.first, body.full)
    except ReadingError as err:
        return problem(422, "Not these apertures", str(err), "first")
    return answer(ZebraModel(found))


@api.get("/setups/<int:setup_id>/lists", operation_id="getLists", responses={200: ItemList})
def get_lists(path: SetupPath) -> Response:
    """Before the take and after it; what can be measured is ticked from the plan and the newest frame."""
    return _lists(path.setup_id)


@api.put("/setups/<int:setup_id>/lists/<item>", operation_id="tickItem", responses={200: ItemList})
def put_tick(path: TickPath, body: TickBody) -> Response:
    services().ticks.put(path.setup_id, path.item, body.ticked)
    return _lists(path.setup_id)


@api.delete("/setups/<int:setup_id>/lists", operation_id="clearLists", responses={200: ItemList})
def delete_ticks(path: SetupPath) -> Response:
    """For the next take."""
    services().ticks.clear(path.setup_id)
    return _lists(path.setup_id)


def _lists(setup_id: int) -> Response:
    # Here and not before, so that a tick is kept even where its sender leaves while others are at work.
    with services().turns.taken():
        items = [{**asdict(one.item), "ticked": one.ticked} for one in lists_of(services(), setup_id)]
    return answer(ItemList.model_validate({"items": items}))
