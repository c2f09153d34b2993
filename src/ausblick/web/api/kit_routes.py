"""The kit room, what a room can shoot with it, and whole set-ups proposed from it."""

from __future__ import annotations

from flask import Response

from ausblick.app.kit_uses import kit_uses
from ausblick.core.advice.search.framing import lens_for, stand_for
from ausblick.core.advice.search.proposal import propose
from ausblick.core.advice.search.recorders import recorders_of
from ausblick.core.evaluation.numbers import numbers
from ausblick.core.kit import Kit, kit_from
from ausblick.core.kit.added import added
from ausblick.core.kit.catalogue import full_kit
from ausblick.core.plan import plan_from
from ausblick.formats.csv_kit import kit_csv, read_kit_csv
from ausblick.store.kits import KitConflict, StoredKit

from ..context import answer, services
from ..described import group
from ..kit_schemas import (
    AlternativeModel,
    FramingModel,
    KitBody,
    KitModel,
    KitTextBody,
    KitUsesModel,
    PlanBody,
    ProposalsModel,
    ProposeBody,
    RecorderList,
    RoomTableModel,
)
from ..problems import problem

api = group("kit", "kit")


def _told(stored: StoredKit) -> Response:
    back, onward = services().kits.ways()
    return answer(KitModel(revision=stored.revision, kit=stored.kit, can_undo=back, can_redo=onward))


def _save(base: int, kit: Kit) -> Response:
    try:
        stored = services().kits.save(base, kit)
    except KitConflict:
        return problem(
            409, "Somebody changed the kit first", "Load the page again to see their change; yours was not taken."
        )
    return _told(stored)


@api.get("/kit", operation_id="getKit", responses={200: KitModel})
def get_kit() -> Response:
    return _told(services().kits.get())


@api.put("/kit", operation_id="saveKit", responses={200: KitModel})
def save_kit(body: KitBody) -> Response:
    return _save(body.base, kit_from(body.kit))


@api.post("/kit/add", operation_id="addToKit", responses={200: KitModel})
def add_to_kit(body: KitBody) -> Response:
    """More things into the kit; nothing that is there is replaced."""
    return _save(body.base, added(services().kits.get().kit, kit_from(body.kit)))


@api.post("/kit/undo", operation_id="undoKit", responses={200: KitModel})
def undo_kit() -> Response:
    """The kit before its last change."""
    return _told(services().kits.undo())


@api.post("/kit/redo", operation_id="redoKit", responses={200: KitModel})
def redo_kit() -> Response:
    """The kit as it was before the last undo."""
    return _told(services().kits.redo())


@api.get("/kit/catalogue", operation_id="getCatalogue", responses={200: KitModel})
def get_catalogue() -> Response:
    """A generic kit to begin from; nothing is stored."""
    return _told(StoredKit(services().kits.get().revision, full_kit()))


@api.get("/kit/uses", operation_id="kitUses", responses={200: KitUsesModel})
def get_kit_uses() -> Response:
    """Which set-ups use a thing of the kit."""
    return answer(KitUsesModel(uses=list(kit_uses(services()))))


@api.get("/kit.csv", operation_id="getKitCsv", responses={200: None})
def get_kit_csv() -> Response:
    """The kit as CSV."""
    headers = {"Content-Disposition": "attachment; filename=kit.csv"}
    return Response(kit_csv(services().kits.get().kit), mimetype="text/csv", headers=headers)


@api.put("/kit/from-csv", operation_id="saveKitCsv", responses={200: KitModel})
def save_kit_csv(body: KitTextBody) -> Response:
    return _save(body.base, read_kit_csv(body.text))


@api.post("/room-table", operation_id="roomTable", responses={200: RoomTableModel})
def post_room_table(body: PlanBody) -> Response:
    """What this room can shoot with the kit: framing by lens."""
    cells = services().memory.room(plan_from(body.plan), services().kits.get().kit)
    lenses = list(dict.fromkeys(cell.lens for cell in cells))
    return answer(RoomTableModel(lenses=lenses, cells=cells))


@api.post("/framing", operation_id="framing", responses={200: FramingModel})
def post_framing(body: ProposeBody) -> Response:
    """Camera distance for the lens, and lens for the distance, so that a framing fills the picture."""
    plan = plan_from(body.plan)
    if plan.subject is None:
        return problem(422, "No figure", "subject: there is no figure to frame", "subject")
    turned = round(plan.camera.roll / 90.0) % 2 == 1
    distance = stand_for(plan, body.framing, plan.camera.focal_mm, turned).distance
    focal = lens_for(plan, body.framing, plan.camera.z - plan.subject.z, turned)
    return answer(FramingModel(camera_z=round(plan.subject.z + distance, 2), focal_mm=round(focal, 1)))


@api.post("/propose", operation_id="propose", responses={200: ProposalsModel})
def post_propose(body: ProposeBody) -> Response:
    """Whole set-ups for a framing, from the plan's room, subject, plate and schools, and the kit."""
    found = propose(plan_from(body.plan), services().kits.get().kit, body.framing, services().basis)
    alternatives = [
        AlternativeModel.model_validate(
            {
                "name": one.name,
                "says": one.says,
                "costs": list(one.costs),
                "stops": list(one.stops),
                "plan": one.plan,
                "numbers": numbers(one.evaluation),
            }
        )
        for one in found.alternatives
    ]
    return answer(ProposalsModel(alternatives=alternatives, impossible=list(found.impossible)))


@api.post("/recorders", operation_id="compareRecorders", responses={200: RecorderList})
def post_recorders(body: PlanBody) -> Response:
    """The kit's recorders on this plan, best first."""
    found = recorders_of(plan_from(body.plan), services().kits.get().kit)
    return answer(RecorderList(recorders=found))
