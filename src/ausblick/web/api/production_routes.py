"""Productions, what is ready of them, their days, and the takes that are logged."""

from __future__ import annotations

from urllib.parse import quote

from flask import Response

from ausblick.app.bundle import bundle_zip
from ausblick.app.handed_over import production_parts
from ausblick.app.plan_exports import file_name
from ausblick.app.production_exports import MEDIA, export_day
from ausblick.app.production_state import filled, production_state
from ausblick.app.take_exports import LOG_MEDIA, export_log
from ausblick.app.take_log import log_take, shot_logs, take_findings, with_pictures
from ausblick.core.production.day_plan import plan_day
from ausblick.core.production.production_document import Production, days_of, production_from
from ausblick.core.takes.shot_progress import shot_progress
from ausblick.core.takes.take_document import take_from
from ausblick.store.productions import ProductionConflict, StoredProduction

from ..context import answer, services
from ..described import group
from ..problems import problem
from ..production_schemas import (
    DayPlanModel,
    LogQuery,
    PaperQuery,
    ProductionBody,
    ProductionExportPath,
    ProductionList,
    ProductionModel,
    ProductionPath,
    ProductionStateModel,
    ProductionSummary,
    StateQuery,
    TakeBody,
    TakeFindingsModel,
    TakePath,
    TakesModel,
)

api = group("productions", "productions", "/api/productions")


def _model(stored: StoredProduction) -> ProductionModel:
    return ProductionModel(
        id=stored.id,
        revision=stored.revision,
        production=stored.production,
        changed=stored.changed,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
    )


def _summary(stored: StoredProduction, done: bool = True) -> ProductionSummary:
    production = stored.production
    takes = services().takes.of_production(stored.id) if done else []
    return ProductionSummary(
        id=stored.id,
        title=production.title,
        place=production.place,
        dates=[day.date for day in days_of(production) if day.date],
        shots=len(production.shots),
        done=sum(shot_progress(shot, takes).done for shot in production.shots),
        changed=stored.changed,
    )


@api.get("", operation_id="listProductions", responses={200: ProductionList})
def list_productions() -> Response:
    store = services().productions
    return answer(
        ProductionList(
            productions=[_summary(one) for one in store.all()],
            trash=[_summary(one, done=False) for one in store.in_trash()],
        )
    )


@api.post("", operation_id="createProduction", responses={201: ProductionModel})
def create_production(body: ProductionBody) -> Response:
    return answer(_model(services().productions.create(production_from(body.production))), 201)


@api.get("/<int:production_id>", operation_id="getProduction", responses={200: ProductionModel})
def get_production(path: ProductionPath) -> Response:
    return answer(_model(services().productions.get(path.production_id)))


@api.put("/<int:production_id>", operation_id="saveProduction", responses={200: ProductionModel})
def save_production(path: ProductionPath, body: ProductionBody) -> Response:
    production = production_from(body.production)
    try:
        return answer(_model(services().productions.save(path.production_id, body.base, production)))
    except ProductionConflict:
        return problem(409, "Somebody changed this production first", "What they changed is loaded; do yours again.")


@api.post("/<int:production_id>/undo", operation_id="undoProduction", responses={200: ProductionModel})
def undo_production(path: ProductionPath) -> Response:
    return answer(_model(services().productions.undo(path.production_id)))


@api.post("/<int:production_id>/redo", operation_id="redoProduction", responses={200: ProductionModel})
def redo_production(path: ProductionPath) -> Response:
    return answer(_model(services().productions.redo(path.production_id)))


@api.delete("/<int:production_id>", operation_id="deleteProduction", responses={204: None})
def delete_production(path: ProductionPath) -> Response:
    services().productions.delete(path.production_id)
    return Response(status=204)


@api.post("/<int:production_id>/restore", operation_id="restoreProduction", responses={200: ProductionModel})
def restore_production(path: ProductionPath) -> Response:
    return answer(_model(services().productions.restore(path.production_id)))


@api.get("/<int:production_id>/state", operation_id="getProductionState", responses={200: ProductionStateModel})
def get_state(path: ProductionPath, query: StateQuery) -> Response:
    """What is ready, the days in their order, the outfits, and how late it is at `now` on `day`."""
    production = services().productions.get(path.production_id).production
    takes = services().takes.of_production(path.production_id)
    state = production_state(services(), production, takes, query.day, query.now)
    return answer(ProductionStateModel(state=state))


@api.post("/day", operation_id="planDays", responses={200: DayPlanModel})
def post_day(body: ProductionBody) -> Response:
    """The days of a production that is not saved: what a shot moved by hand would cost."""
    return answer(DayPlanModel(day=plan_day(filled(services(), production_from(body.production)))))


@api.get("/<int:production_id>/export/<to>", operation_id="exportProduction", responses={200: None})
def get_day_export(path: ProductionExportPath, query: PaperQuery) -> Response:
    """A file: the day to print, as a table, as a calendar, the packing list, or the document itself."""
    stored = services().productions.get(path.production_id).production
    if path.to == "bundle":
        return _bundle(path.production_id, stored, query)
    if path.to == "log" or path.to == "log-csv":
        takes = services().takes.of_production(path.production_id)
        with services().turns.taken():
            data = export_log(services(), stored, takes, path.to)
        return _file(data, stored, *LOG_MEDIA[path.to])
    production = filled(services(), stored)
    with services().drags.taken():
        data = export_day(production, path.to, query.paper, services().kits.get().kit)
    return _file(data, production, *MEDIA[path.to], how="inline" if path.to == "day" else "attachment")


def _file(data: bytes, production: Production, ending: str, media: str, how: str = "attachment") -> Response:
    name = quote(f"{production.title or 'production'}{ending}")
    return Response(data, mimetype=media, headers={"Content-Disposition": f"{how}; filename*=UTF-8''{name}"})


def _bundle(production_id: int, production: Production, query: PaperQuery) -> Response:
    """For who keys: a folder for each shot with its best take."""
    takes = with_pictures(services(), services().takes.of_production(production_id))
    with services().turns.taken():
        parts = production_parts(services(), production, takes)
        data = bundle_zip(parts, query.units, query.paper, services().basis)
    named = f"attachment; filename*=UTF-8''{quote(file_name(production.title))}.zip"
    return Response(data, mimetype="application/zip", headers={"Content-Disposition": named})


def _takes(production_id: int, at_wrap: bool = False, measure: bool = False) -> Response:
    """Nobody who logs waits for pictures to be compared: the list does that, once for each pair of them."""
    production = services().productions.get(production_id).production
    takes = with_pictures(services(), services().takes.of_production(production_id))
    return answer(TakesModel(takes=takes, shots=shot_logs(services(), production, takes, at_wrap, measure)))


@api.get("/<int:production_id>/takes", operation_id="listTakes", responses={200: TakesModel})
def list_takes(path: ProductionPath, query: LogQuery) -> Response:
    return _takes(path.production_id, query.wrap, measure=True)


@api.post("/<int:production_id>/takes", operation_id="logTake", responses={200: TakesModel})
def post_take(path: ProductionPath, body: TakeBody) -> Response:
    """Log a take, or change the one of its key; what is sent twice is logged once."""
    log_take(services(), path.production_id, take_from(body.take))
    return _takes(path.production_id)


@api.delete("/<int:production_id>/takes/<key>", operation_id="deleteTake", responses={200: TakesModel})
def delete_take(path: TakePath) -> Response:
    services().takes.delete(path.production_id, path.key)
    return _takes(path.production_id)


@api.post("/<int:production_id>/takes/<key>/restore", operation_id="restoreTake", responses={200: TakesModel})
def restore_take(path: TakePath) -> Response:
    services().takes.restore(path.production_id, path.key)
    return _takes(path.production_id)


@api.get("/<int:production_id>/takes/<key>/findings", operation_id="takeFindings", responses={200: TakeFindingsModel})
def get_take_findings(path: TakePath) -> Response:
    """What has changed since the shot's reference take."""
    production = services().productions.get(path.production_id).production
    takes = services().takes.of_production(path.production_id)
    return answer(TakeFindingsModel(findings=take_findings(services(), production, takes, path.key)))
