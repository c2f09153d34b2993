"""Productions: one document each, with a revision that two writers are told apart by, and steps back and on."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, delete, select
from sqlalchemy.orm import Session

from ausblick.core.production.production_document import Production, dump_production, read_production

from .database import Sessions
from .setups import NotFound, now
from .tables import ProductionRow, ProductionStateRow

KEPT = 100
"""Earlier states of each."""


@dataclass(frozen=True)
class StoredProduction:
    """`can_undo`, `can_redo`: is there somewhere to go?"""

    id: int
    revision: int
    production: Production
    changed: datetime
    can_undo: bool
    can_redo: bool


class ProductionConflict(RuntimeError):
    """Somebody changed the production first; theirs is `current`."""

    def __init__(self, current: StoredProduction) -> None:
        super().__init__("somebody changed the production first")
        self.current = current


class Productions:
    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def all(self) -> list[StoredProduction]:
        """Those that are not deleted, in the order of making."""
        return self._listed(deleted=False)

    def in_trash(self) -> list[StoredProduction]:
        return self._listed(deleted=True)

    def _listed(self, deleted: bool) -> list[StoredProduction]:
        gone = ProductionRow.deleted.is_not(None) if deleted else ProductionRow.deleted.is_(None)
        with self._sessions.read() as session:
            rows = session.scalars(select(ProductionRow).where(gone).order_by(ProductionRow.id))
            return [_told(session, row) for row in rows]

    def get(self, production_id: int) -> StoredProduction:
        with self._sessions.read() as session:
            return _told(session, live_production(session, production_id))

    def create(self, production: Production) -> StoredProduction:
        with self._sessions.write() as session:
            row = ProductionRow(revision=1, document=_text(production), changed=now(), deleted=None)
            session.add(row)
            session.flush()
            return _told(session, row)

    def save(self, production_id: int, base: int, production: Production) -> StoredProduction:
        """Raises ProductionConflict when `base` isn't the latest and the document is another."""
        text = _text(production)
        with self._sessions.write() as session:
            row = live_production(session, production_id)
            if row.document == text:
                return _told(session, row)
            if row.revision != base:
                raise ProductionConflict(_told(session, row))
            session.execute(delete(ProductionStateRow).where(*_of(production_id, ahead=True)))
            session.add(ProductionStateRow(production_id=production_id, document=row.document, ahead=False))
            row.document, row.revision, row.changed = text, base + 1, now()
            session.flush()
            _forget(session, production_id)
            return _told(session, row)

    def undo(self, production_id: int) -> StoredProduction:
        """Back to before the last change; where there is none, as it is."""
        return self._step(production_id, ahead=False)

    def redo(self, production_id: int) -> StoredProduction:
        """What was undone last; where there is nothing, as it is."""
        return self._step(production_id, ahead=True)

    def _step(self, production_id: int, ahead: bool) -> StoredProduction:
        with self._sessions.write() as session:
            row, to = live_production(session, production_id), _newest(session, production_id, ahead)
            if to is not None:
                session.add(ProductionStateRow(production_id=production_id, document=row.document, ahead=not ahead))
                row.document, row.revision, row.changed = to.document, row.revision + 1, now()
                session.delete(to)
                session.flush()
            return _told(session, row)

    def delete(self, production_id: int) -> None:
        """Out of sight, not gone, with all its takes; its set-ups stay."""
        with self._sessions.write() as session:
            live_production(session, production_id).deleted = now()

    def restore(self, production_id: int) -> StoredProduction:
        with self._sessions.write() as session:
            row = session.get(ProductionRow, production_id)
            if row is None:
                raise NotFound(f"there is no production {production_id}")
            row.deleted = None
            return _told(session, row)


def live_production(session: Session, production_id: int) -> ProductionRow:
    row = session.get(ProductionRow, production_id)
    if row is None or row.deleted is not None:
        raise NotFound(f"there is no production {production_id}")
    return row


def _text(production: Production) -> str:
    return json.dumps(dump_production(production), allow_nan=False)


def _of(production_id: int, ahead: bool) -> tuple[ColumnElement[bool], ...]:
    return ProductionStateRow.production_id == production_id, ProductionStateRow.ahead.is_(ahead)


def _newest(session: Session, production_id: int, ahead: bool) -> ProductionStateRow | None:
    newest = select(ProductionStateRow).where(*_of(production_id, ahead)).order_by(ProductionStateRow.id.desc())
    return session.scalar(newest.limit(1))


def _forget(session: Session, production_id: int) -> None:
    """Only so many states are kept."""
    kept = select(ProductionStateRow.id).where(*_of(production_id, ahead=False))
    kept = kept.order_by(ProductionStateRow.id.desc()).limit(KEPT)
    old = (*_of(production_id, ahead=False), ProductionStateRow.id.not_in(kept))
    session.execute(delete(ProductionStateRow).where(*old))


def _told(session: Session, row: ProductionRow) -> StoredProduction:
    back, onward = (_newest(session, row.id, ahead) is not None for ahead in (False, True))
    return StoredProduction(row.id, row.revision, read_production(row.document), row.changed, back, onward)
