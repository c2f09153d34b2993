"""Takes of a production: logged once each, whatever is sent twice; changed, removed and brought back."""

from __future__ import annotations

import json

from sqlalchemy import select

from ausblick.core.takes.take_document import Take, dump_take, take_from

from .database import Sessions
from .productions import live_production
from .setups import NotFound, now
from .tables import TakeRow


class Takes:
    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def of_production(self, production_id: int) -> list[Take]:
        """In the order of logging."""
        with self._sessions.read() as session:
            live_production(session, production_id)
            own = select(TakeRow).where(TakeRow.production_id == production_id, TakeRow.deleted.is_(None))
            return [take_from(json.loads(row.document)) for row in session.scalars(own.order_by(TakeRow.id))]

    def known(self, key: str) -> Take | None:
        """What is logged under a key, removed or not."""
        with self._sessions.read() as session:
            row = session.scalar(select(TakeRow).where(TakeRow.key == key))
            return None if row is None else take_from(json.loads(row.document))

    def log(self, production_id: int, take: Take) -> bool:
        """Log it, or change the one of its key; False where exactly this was logged already. A key that was removed
        stays removed: what comes late does not bring it back."""
        text = json.dumps(dump_take(take), allow_nan=False)
        with self._sessions.write() as session:
            live_production(session, production_id)
            row = session.scalar(select(TakeRow).where(TakeRow.key == take.key))
            if row is None:
                session.add(
                    TakeRow(production_id=production_id, key=take.key, document=text, created=now(), deleted=None)
                )
                return True
            if row.production_id != production_id:
                raise NotFound(f"the take {take.key} belongs to another production")
            if row.document == text or row.deleted is not None:
                return False
            row.document = text
            return True

    def delete(self, production_id: int, key: str) -> None:
        """Out of sight; `restore` brings it back."""
        self._mark(production_id, key, gone=True)

    def restore(self, production_id: int, key: str) -> None:
        self._mark(production_id, key, gone=False)

    def _mark(self, production_id: int, key: str, gone: bool) -> None:
        with self._sessions.write() as session:
            row = session.scalar(select(TakeRow).where(TakeRow.key == key, TakeRow.production_id == production_id))
            if row is None:
                raise NotFound(f"there is no take {key}")
            row.deleted = now() if gone else None
