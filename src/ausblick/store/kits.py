"""The kit room: one document with a revision, empty until somebody fills it."""

from __future__ import annotations

import json
from dataclasses import dataclass

from ausblick.core.kit import Kit, dump_kit, kit_from

from .database import Sessions
from .tables import KitRow

ONLY = 1


@dataclass(frozen=True)
class StoredKit:
    revision: int
    kit: Kit


class KitConflict(RuntimeError):
    """Somebody changed the kit first; theirs is `current`."""

    def __init__(self, current: StoredKit) -> None:
        super().__init__("somebody changed the kit first")
        self.current = current


class Kits:
    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def get(self) -> StoredKit:
        with self._sessions.read() as session:
            row = session.get(KitRow, ONLY)
            return StoredKit(0, Kit()) if row is None else StoredKit(row.revision, kit_from(json.loads(row.document)))

    def save(self, base: int, kit: Kit) -> StoredKit:
        """Raises KitConflict when `base` isn't the latest."""
        document = json.dumps(dump_kit(kit), allow_nan=False)
        with self._sessions.write() as session:
            row = session.get(KitRow, ONLY)
            if (0 if row is None else row.revision) == base:
                if row is None:
                    session.add(KitRow(id=ONLY, revision=1, document=document))
                else:
                    row.revision, row.document = base + 1, document
                return StoredKit(base + 1, kit)
        raise KitConflict(self.get())
