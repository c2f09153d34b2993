"""The kit room: one document with a revision, empty until somebody fills it."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import lru_cache

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from ausblick.core.kit import Kit, dump_kit, kit_from

from .database import Sessions
from .tables import KitRow, KitStateRow

ONLY = 1
KIT = select(KitRow.revision, KitRow.document).where(KitRow.id == ONLY)
KEPT = 100
"""Earlier states."""


@dataclass(frozen=True)
class StoredKit:
    revision: int
    kit: Kit


class KitConflict(RuntimeError):
    """Somebody changed the kit first; theirs is `current`."""

    def __init__(self, current: StoredKit) -> None:
        super().__init__("somebody changed the kit first")
        self.current = current


@lru_cache(maxsize=4)
def _read(document: str) -> Kit:
    """Asked for with every judgement, and seldom another."""
    return kit_from(json.loads(document))


class Kits:
    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def get(self) -> StoredKit:
        with self._sessions.read() as session:
            row = session.execute(KIT).one_or_none()
            return StoredKit(0, Kit()) if row is None else StoredKit(row.revision, _read(row.document))

    def save(self, base: int, kit: Kit) -> StoredKit:
        """Raises KitConflict when `base` isn't the latest."""
        document = json.dumps(dump_kit(kit), allow_nan=False)
        with self._sessions.write() as session:
            row = session.get(KitRow, ONLY)
            if (0 if row is None else row.revision) == base:
                before = json.dumps(dump_kit(Kit())) if row is None else row.document
                session.execute(delete(KitStateRow).where(KitStateRow.ahead))
                session.add(KitStateRow(document=before, ahead=False))
                _forget(session)
                if row is None:
                    session.add(KitRow(id=ONLY, revision=1, document=document))
                else:
                    row.revision, row.document = base + 1, document
                return StoredKit(base + 1, kit)
        raise KitConflict(self.get())

    def ways(self) -> tuple[bool, bool]:
        """Is there something to undo, and something to redo?"""
        with self._sessions.read() as session:
            return _newest(session, ahead=False) is not None, _newest(session, ahead=True) is not None

    def undo(self) -> StoredKit:
        """The state before the last change, as a revision of its own; where there is none, the kit as it is."""
        return self._step(ahead=False)

    def redo(self) -> StoredKit:
        """What was undone last, as a revision of its own; where there is nothing, the kit as it is."""
        return self._step(ahead=True)

    def _step(self, ahead: bool) -> StoredKit:
        with self._sessions.write() as session:
            row = session.get(KitRow, ONLY)
            to = _newest(session, ahead)
            if row is None or to is None:
                return self.get()
            session.add(KitStateRow(document=row.document, ahead=not ahead))
            row.revision, row.document = row.revision + 1, to.document
            session.delete(to)
            return StoredKit(row.revision, kit_from(json.loads(row.document)))


def _newest(session: Session, ahead: bool) -> KitStateRow | None:
    return session.scalar(
        select(KitStateRow).where(KitStateRow.ahead.is_(ahead)).order_by(KitStateRow.id.desc()).limit(1)
    )


def _forget(session: Session) -> None:
    """Only so many states are kept."""
    session.flush()
    newest = session.scalar(select(func.max(KitStateRow.id))) or 0
    session.execute(delete(KitStateRow).where(KitStateRow.id <= newest - KEPT))
