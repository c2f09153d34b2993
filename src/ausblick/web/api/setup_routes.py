"""Set-ups: list, make, save, rename, duplicate, undo, redo, versions, delete and restore."""

from __future__ import annotations

from flask import Response

from ausblick.core.plan import FORMAT, VERSION, Change, apply_changes, plan_from
from ausblick.core.sentences import say
from ausblick.store.setups import Conflict, DamagedSetup, Setup, Version

from ..context import answer, services
from ..described import group
from ..present import setup_model
from ..schemas import (
    CollisionModel,
    ConflictModel,
    CreateBody,
    NameBody,
    SaveBody,
    SetupList,
    SetupModel,
    SetupPath,
    SetupSummary,
    SetupTitle,
    SetupTitles,
    TitleBody,
    VersionList,
    VersionModel,
    VersionPath,
    VersionPlan,
)

api = group("setups", "set-ups", "/api/setups")


def _title(setup: Setup | DamagedSetup) -> SetupTitle:
    if isinstance(setup, DamagedSetup):
        title, damaged = f"Set-up {setup.id}", setup.problem
    else:
        title, damaged = setup.plan.title, ""
    return SetupTitle(id=setup.id, title=title, revision=setup.revision, changed=setup.changed, damaged=damaged)


def _summary(setup: Setup | DamagedSetup) -> SetupSummary:
    known = dict(_title(setup))
    if isinstance(setup, DamagedSetup):
        return SetupSummary(**known, worst="stop", worst_says="", worst_told=None, open_findings=0)
    _, findings = services().findings(setup.plan, with_remedies=False)
    worst = findings[0].judgement
    return SetupSummary(
        **known,
        worst=worst.severity,
        worst_says="" if worst.severity == "fine" else say(worst.says),
        worst_told=None if worst.severity == "fine" else worst.says,
        open_findings=sum(finding.judgement.severity != "fine" for finding in findings),
    )


def _version(version: Version) -> VersionModel:
    return VersionModel(id=version.id, name=version.name, origin=version.origin, created=version.created)


@api.get("", operation_id="listSetups", responses={200: SetupList})
def list_setups() -> Response:
    return answer(SetupList(setups=[_summary(setup) for setup in services().setups.all()]))


@api.get("/titles", operation_id="listTitles", responses={200: SetupTitles})
def list_titles() -> Response:
    """What there is to open, at once: nothing is judged for it."""
    return answer(SetupTitles(setups=[_title(setup) for setup in services().setups.all()]))


@api.post("", operation_id="createSetup", responses={201: SetupModel})
def create_setup(body: CreateBody) -> Response:
    plan = plan_from({"format": FORMAT, "version": VERSION} if body.plan is None else body.plan)
    if body.title is not None:
        plan = apply_changes(plan, [Change("title", body.title)])
    return answer(setup_model(services().setups.create(plan)), 201)


@api.get("/<int:setup_id>", operation_id="getSetup", responses={200: SetupModel})
def get_setup(path: SetupPath) -> Response:
    return answer(setup_model(services().setups.get(path.setup_id)))


@api.put("/<int:setup_id>", operation_id="saveSetup", responses={200: SetupModel, 409: ConflictModel})
def save_setup(path: SetupPath, body: SaveBody) -> Response:
    was = None if body.was is None else plan_from(body.was)
    try:
        return answer(setup_model(services().setups.save(path.setup_id, body.base, plan_from(body.plan), was)))
    except Conflict as err:
        conflict = ConflictModel(
            title="Somebody saved this set-up first",
            detail="Your change is kept as a version of its own; nothing is lost.",
            current=setup_model(err.current),
            kept=err.kept_id,
            collisions=[CollisionModel(path=c.path, mine=c.mine, theirs=c.theirs) for c in err.collisions],
        )
        return answer(conflict, 409)


@api.patch("/<int:setup_id>", operation_id="renameSetup", responses={200: SetupModel})
def rename_setup(path: SetupPath, body: TitleBody) -> Response:
    return answer(setup_model(services().setups.rename(path.setup_id, body.title)))


@api.delete("/<int:setup_id>", operation_id="deleteSetup", responses={204: None})
def delete_setup(path: SetupPath) -> Response:
    services().setups.delete(path.setup_id)
    return Response(status=204)


@api.post("/<int:setup_id>/restore", operation_id="restoreSetup", responses={200: SetupModel})
def restore_setup(path: SetupPath) -> Response:
    return answer(setup_model(services().setups.restore(path.setup_id)))


@api.post("/<int:setup_id>/duplicate", operation_id="duplicateSetup", responses={201: SetupModel})
def duplicate_setup(path: SetupPath) -> Response:
    return answer(setup_model(services().setups.duplicate(path.setup_id)), 201)


@api.post("/<int:setup_id>/undo", operation_id="undoSetup", responses={200: SetupModel})
def undo_setup(path: SetupPath) -> Response:
    return answer(setup_model(services().setups.undo(path.setup_id)))


@api.post("/<int:setup_id>/redo", operation_id="redoSetup", responses={200: SetupModel})
def redo_setup(path: SetupPath) -> Response:
    return answer(setup_model(services().setups.redo(path.setup_id)))


@api.get("/<int:setup_id>/versions", operation_id="listVersions", responses={200: VersionList})
def list_versions(path: SetupPath) -> Response:
    return answer(VersionList(versions=[_version(v) for v in services().setups.versions(path.setup_id)]))


@api.post("/<int:setup_id>/versions", operation_id="nameVersion", responses={201: VersionModel})
def name_version(path: SetupPath, body: NameBody) -> Response:
    return answer(_version(services().setups.name_version(path.setup_id, body.name)), 201)


@api.get("/<int:setup_id>/versions/<int:version_id>", operation_id="getVersion", responses={200: VersionPlan})
def get_version(path: VersionPath) -> Response:
    """The plan of a version, to look at; nothing becomes current."""
    return answer(VersionPlan(plan=services().setups.version_plan(path.setup_id, path.version_id)))


@api.post("/<int:setup_id>/versions/<int:version_id>/open", operation_id="openVersion", responses={200: SetupModel})
def open_version(path: VersionPath) -> Response:
    return answer(setup_model(services().setups.open_version(path.setup_id, path.version_id)))
