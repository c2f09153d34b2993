"""Set-ups with all their revisions: save, undo, redo, named versions, conflicts, delete and restore."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ausblick.core.plan import Change, Collision, Plan, PlanError, apply_changes, dump_plan, merge, read_plan

from .database import Sessions
from .tables import RevisionRow, SetupRow


@dataclass(frozen=True)
class Setup:
    """A set-up at its current revision. `can_undo`/`can_redo` say whether there is somewhere to go."""

    id: int
    revision: int
    plan: Plan
    created: datetime
    changed: datetime
    can_undo: bool
    can_redo: bool


@dataclass(frozen=True)
class Version:
    """A revision worth finding again: one that was named, or that lost a race of two writers."""

    id: int
    name: str
    origin: str
    created: datetime


@dataclass(frozen=True)
class DamagedSetup:
    """A set-up whose current state can't be read; `can_undo` leads to the one before."""

    id: int
    revision: int
    changed: datetime
    problem: str
    can_undo: bool


class DamagedState(RuntimeError):
    """The current state of a set-up can't be read; the others are not touched."""

    def __init__(self, found: DamagedSetup) -> None:
        way = "undo brings back the state before it" if found.can_undo else "delete it, or restore a backup"
        super().__init__(f"set-up {found.id} is damaged ({found.problem}); {way}")
        self.found = found


class NotFound(LookupError):
    """No such set-up or version."""


class Conflict(RuntimeError):
    """Somebody saved first. What was refused is kept as version `kept_id`; `current` is theirs. Where it was known
    what the change was made on, `collisions` are the fields that both changed and the kept version has all else."""

    def __init__(self, current: Setup, kept_id: int, collisions: tuple[Collision, ...]) -> None:
        super().__init__("somebody saved this set-up first")
        self.current, self.kept_id, self.collisions = current, kept_id, collisions


class Setups:
    """The repository. Every call is one transaction."""

    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def all(self) -> list[Setup | DamagedSetup]:
        """Every set-up that isn't deleted, in the order of making; one that can't be read keeps none from being."""
        with self._sessions.read() as session:
            rows = session.scalars(select(SetupRow).where(SetupRow.deleted.is_(None)).order_by(SetupRow.id))
            return [_or_damaged(session, row) for row in rows]

    def in_trash(self) -> list[Setup | DamagedSetup]:
        """Deleted set-ups, the last deleted first."""
        with self._sessions.read() as session:
            rows = session.scalars(
                select(SetupRow).where(SetupRow.deleted.is_not(None)).order_by(SetupRow.deleted.desc())
            )
            return [_or_damaged(session, row) for row in rows]

    def anything(self) -> bool:
        """Was there ever a set-up here, deleted ones counted?"""
        with self._sessions.read() as session:
            return session.scalar(select(SetupRow.id).limit(1)) is not None

    def get(self, setup_id: int) -> Setup:
        with self._sessions.read() as session:
            return _setup(session, live_row(session, setup_id))

    def create(self, plan: Plan) -> Setup:
        with self._sessions.write() as session:
            row = SetupRow(revision=1, created=now(), changed=now())
            session.add(row)
            session.flush()
            row.current_id = _add(session, row, plan, "save").id
            return _setup(session, row)

    def save(self, setup_id: int, base: int, plan: Plan, was: Plan | None = None) -> Setup:
        """Make the plan the current revision.

        When `base` isn't the latest, the change that was made on the plan `was` is put into the latest; a plan that
        is the latest already was saved, only its answer got lost. Raises Conflict where neither can be.
        """
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            if row.revision == base:
                return _advance(session, row, _add(session, row, plan, "save").id)
            current = _setup(session, row)
            if current.plan == plan:
                return current
            collisions: tuple[Collision, ...] = ()
            if was is not None:
                merged = merge(was, plan, current.plan)
                plan, collisions = merged.plan, merged.collisions
                if not collisions:
                    return _advance(session, row, _add(session, row, plan, "save").id)
            lost = _add(session, row, plan, "conflict")
            lost.name = f"Refused save of {now():%d %b %H:%M}"
            session.flush()
            kept = lost.id
        raise Conflict(current, kept, collisions)

    def rename(self, setup_id: int, title: str) -> Setup:
        """Change the title alone; nobody's drawing is touched, so no base is asked for."""
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            plan = apply_changes(_current(session, row), [Change("title", title)])
            return _advance(session, row, _add(session, row, plan, "save").id)

    def duplicate(self, setup_id: int) -> Setup:
        plan = self.get(setup_id).plan
        title = f"{plan.title[:180]}, copy"
        return self.create(apply_changes(plan, [Change("title", title)]))

    def undo(self, setup_id: int) -> Setup:
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            here = session.get_one(RevisionRow, row.current_id)
            return _setup(session, row) if here.parent_id is None else _advance(session, row, here.parent_id)

    def redo(self, setup_id: int) -> Setup:
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            onward = _onward(session, row)
            return _setup(session, row) if onward is None else _advance(session, row, onward)

    def versions(self, setup_id: int) -> list[Version]:
        """Named versions and refused saves, newest first."""
        with self._sessions.read() as session:
            live_row(session, setup_id)
            rows = session.scalars(
                select(RevisionRow)
                .where(RevisionRow.setup_id == setup_id, RevisionRow.name.is_not(None))
                .order_by(RevisionRow.id.desc())
            )
            return [Version(row.id, row.name or "", row.origin, row.created) for row in rows]

    def name_version(self, setup_id: int, name: str) -> Version:
        """Give the current revision a name under which it is found again."""
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            here = session.get_one(RevisionRow, row.current_id)
            here.name = name
            return Version(here.id, name, here.origin, here.created)

    def version_plan(self, setup_id: int, version_id: int) -> Plan:
        with self._sessions.read() as session:
            return read_plan(_version(session, setup_id, version_id).plan)

    def open_version(self, setup_id: int, version_id: int) -> Setup:
        """Make an old version the current revision again; undo leads back."""
        with self._sessions.write() as session:
            row = live_row(session, setup_id)
            plan = read_plan(_version(session, setup_id, version_id).plan)
            return _advance(session, row, _add(session, row, plan, "restore").id)

    def delete(self, setup_id: int) -> None:
        """Out of sight, not gone: `restore` brings it back."""
        with self._sessions.write() as session:
            live_row(session, setup_id).deleted = now()

    def restore(self, setup_id: int) -> Setup:
        with self._sessions.write() as session:
            row = session.get(SetupRow, setup_id)
            if row is None:
                raise NotFound(f"there is no set-up {setup_id}")
            row.deleted = None
            return _setup(session, row)


def now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


def live_row(session: Session, setup_id: int) -> SetupRow:
    row = session.get(SetupRow, setup_id)
    if row is None or row.deleted is not None:
        raise NotFound(f"there is no set-up {setup_id}")
    return row


def _version(session: Session, setup_id: int, version_id: int) -> RevisionRow:
    live_row(session, setup_id)
    found = session.get(RevisionRow, version_id)
    if found is None or found.setup_id != setup_id:
        raise NotFound(f"set-up {setup_id} has no version {version_id}")
    return found


def _add(session: Session, row: SetupRow, plan: Plan, origin: str) -> RevisionRow:
    text = json.dumps(dump_plan(plan), allow_nan=False)
    revision = RevisionRow(setup_id=row.id, parent_id=row.current_id, plan=text, origin=origin, created=now())
    session.add(revision)
    session.flush()
    return revision


def _advance(session: Session, row: SetupRow, revision_id: int) -> Setup:
    row.current_id = revision_id
    row.revision += 1
    row.changed = now()
    session.flush()
    return _setup(session, row)


def _current(session: Session, row: SetupRow) -> Plan:
    return read_plan(session.get_one(RevisionRow, row.current_id).plan)


def _onward(session: Session, row: SetupRow) -> int | None:
    """The newest revision that was made from the current one, refused saves aside."""
    return session.scalar(
        select(func.max(RevisionRow.id)).where(
            RevisionRow.parent_id == row.current_id, RevisionRow.origin != "conflict"
        )
    )


def _or_damaged(session: Session, row: SetupRow) -> Setup | DamagedSetup:
    try:
        return _setup(session, row)
    except DamagedState as err:
        return err.found


def _setup(session: Session, row: SetupRow) -> Setup:
    """Raises DamagedState."""
    here = session.get_one(RevisionRow, row.current_id)
    try:
        plan = read_plan(here.plan)
    except PlanError as err:
        undo = here.parent_id is not None
        raise DamagedState(DamagedSetup(row.id, row.revision, row.changed, str(err), undo)) from None
    return Setup(
        row.id,
        row.revision,
        plan,
        row.created,
        row.changed,
        can_undo=here.parent_id is not None,
        can_redo=_onward(session, row) is not None,
    )
