"""Simulated test keys that are kept: the report in the database, the pictures in a folder."""

from __future__ import annotations

import json
import shutil
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from ausblick.core.plan import Plan, dump_plan, read_plan

from .data_folder import keys_dir, new_folder
from .database import Sessions
from .setups import NotFound, live_row, now
from .tables import TestKeyRow

MOST = 4
"""Keys kept of one set-up; the oldest go first."""


@dataclass(frozen=True)
class StoredKey:
    """`plan` is the state that the key is of; `path` the folder of its pictures."""

    id: int
    setup_id: int
    plan: Plan
    report: dict[str, Any]
    path: Path
    created: datetime


class TestKeys:
    """The repository."""

    def __init__(self, sessions: Sessions, place: Path) -> None:
        self._sessions, self._folder = sessions, keys_dir(place)

    def of_setup(self, setup_id: int) -> list[StoredKey]:
        """A set-up's keys, newest first."""
        with self._sessions.read() as session:
            live_row(session, setup_id)
            return [self._key(row) for row in self._rows(session, setup_id)]

    def get(self, key_id: int) -> StoredKey:
        with self._sessions.read() as session:
            row = session.get(TestKeyRow, key_id)
            if row is None:
                raise NotFound(f"there is no test key {key_id}")
            return self._key(row)

    def add(self, setup_id: int, plan: Plan, report: dict[str, Any], pictures: dict[str, bytes]) -> StoredKey:
        """Keep a key; `pictures` by file name. Raises NotFound where the set-up is gone."""
        with new_folder(self._folder) as folder:
            for name, content in pictures.items():
                (folder.part / name).write_bytes(content)
            folder.settle()
            with self._sessions.write() as session:
                live_row(session, setup_id)
                row = TestKeyRow(
                    setup_id=setup_id,
                    plan=json.dumps(dump_plan(plan)),
                    report=json.dumps(report),
                    stored=folder.name,
                    created=now(),
                )
                session.add(row)
                session.flush()
                old = self._rows(session, setup_id)[MOST:]
                for other in old:
                    session.delete(other)
                found = self._key(row)
        for other in old:
            shutil.rmtree(self._folder / other.stored, ignore_errors=True)
        return found

    @staticmethod
    def _rows(session: Session, setup_id: int) -> list[TestKeyRow]:
        asked = select(TestKeyRow).where(TestKeyRow.setup_id == setup_id).order_by(TestKeyRow.id.desc())
        return list(session.scalars(asked))

    def _key(self, row: TestKeyRow) -> StoredKey:
        return StoredKey(
            row.id, row.setup_id, read_plan(row.plan), json.loads(row.report), self._folder / row.stored, row.created
        )
