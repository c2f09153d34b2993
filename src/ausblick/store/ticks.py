"""Ticks by hand on the lists round a take."""

from __future__ import annotations

from sqlalchemy import delete, select

from .database import Sessions
from .setups import live_row
from .tables import TickRow


class Ticks:
    """The repository."""

    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def of_setup(self, setup_id: int) -> set[str]:
        with self._sessions.read() as session:
            return set(session.scalars(select(TickRow.item).where(TickRow.setup_id == setup_id)))

    def put(self, setup_id: int, item: str, ticked: bool) -> None:
        """Raises NotFound where the set-up is gone."""
        with self._sessions.write() as session:
            live_row(session, setup_id)
            session.execute(delete(TickRow).where(TickRow.setup_id == setup_id, TickRow.item == item))
            if ticked:
                session.add(TickRow(setup_id=setup_id, item=item))

    def clear(self, setup_id: int) -> None:
        """For the next take."""
        with self._sessions.write() as session:
            session.execute(delete(TickRow).where(TickRow.setup_id == setup_id))
