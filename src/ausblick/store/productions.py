"""Productions: one document each, with a revision that two writers are told apart by, and a step back."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from ausblick.core.production.production_document import Production, dump_production, read_production

from .database import Sessions
from .setups import NotFound, now
from .tables import ProductionRow


@dataclass(frozen=True)
class StoredProduction:
    """`can_undo`: the state before the last change is there."""

    id: int
    revision: int
    production: Production
    changed: datetime
    can_undo: bool


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
            return [
                _told(row) for row in session.scalars(select(ProductionRow).where(gone).order_by(ProductionRow.id))
            ]

    def get(self, production_id: int) -> StoredProduction:
        with self._sessions.read() as session:
            return _told(live_production(session, production_id))

    def create(self, production: Production) -> StoredProduction:
        with self._sessions.write() as session:
            row = ProductionRow(revision=1, document=_text(production), before=None, changed=now(), deleted=None)
            session.add(row)
            session.flush()
            return _told(row)

    def save(self, production_id: int, base: int, production: Production) -> StoredProduction:
        """Raises ProductionConflict when `base` isn't the latest and the document is another."""
        text = _text(production)
        with self._sessions.write() as session:
            row = live_production(session, production_id)
            if row.document == text:
                return _told(row)
            if row.revision != base:
                raise ProductionConflict(_told(row))
            row.before, row.document = row.document, text
            row.revision, row.changed = base + 1, now()
            session.flush()
            return _told(row)

    def undo(self, production_id: int) -> StoredProduction:
        """Back to before the last change, and with a second undo on again."""
        with self._sessions.write() as session:
            row = live_production(session, production_id)
            if row.before is not None:
                row.before, row.document = row.document, row.before
                row.revision, row.changed = row.revision + 1, now()
                session.flush()
            return _told(row)

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
            return _told(row)


def live_production(session: Session, production_id: int) -> ProductionRow:
    row = session.get(ProductionRow, production_id)
    if row is None or row.deleted is not None:
        raise NotFound(f"there is no production {production_id}")
    return row


def _text(production: Production) -> str:
    return json.dumps(dump_production(production), allow_nan=False)


def _told(row: ProductionRow) -> StoredProduction:
    return StoredProduction(row.id, row.revision, read_production(row.document), row.changed, row.before is not None)
