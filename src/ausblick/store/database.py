"""Opening the database: WAL, foreign keys, migrations with a backup before them."""

from __future__ import annotations

import logging
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from .backups import copy_database, daily, is_sound, newest_sound, stamp
from .data_folder import backups_dir, database_file, frames_dir, keys_dir, plates_dir, work_dir
from .trouble import DamagedData, NewerData, tell

log = logging.getLogger(__name__)

WAIT_MS = 15_000
"""How long a writer waits for those before it; a save takes a few milliseconds."""


class Sessions:
    """`read()` sees the database as it is now; `write()` holds the write lock from its first word on.

    What a write decides by is read under the lock. Otherwise two writers read the same revision, and the later one
    overwrites the earlier: SQLite's plain BEGIN takes the lock at the first change only.
    """

    def __init__(self, engine: Engine) -> None:
        self.read = sessionmaker(engine, expire_on_commit=False)
        self._write = sessionmaker(engine.execution_options(write=True), expire_on_commit=False)

    @contextmanager
    def write(self) -> Iterator[Session]:
        """One transaction: committed at the end, or rolled back on an error."""
        with self._write.begin() as session:
            yield session


def open_database(place: Path) -> Sessions:
    """Sessions on the database of a data folder, made and migrated as needed.

    Raises OSError where the folder can't be made or written, StoreTrouble where what is in it can't be used.
    """
    for folder in (place, frames_dir(place), keys_dir(place), plates_dir(place), backups_dir(place), work_dir(place)):
        folder.mkdir(parents=True, exist_ok=True)
    there = database_file(place).exists()
    if there and not is_sound(database_file(place)):
        raise DamagedData(str(newest_sound(place) or ""))
    engine = create_engine(f"sqlite:///{database_file(place)}")
    event.listen(engine, "connect", _settings)
    event.listen(engine, "begin", _begin)
    event.listen(engine, "handle_error", tell)
    _migrate(engine, place)
    if there:
        daily(place)
    return Sessions(engine)


def _settings(connection: Any, record: Any) -> None:
    """An acknowledged save survives a kill and a power cut: WAL with a full sync at every commit."""
    # The driver begins nothing by itself: `_begin` does.
    connection.isolation_level = None
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", f"busy_timeout={WAIT_MS}"):
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Connection) -> None:
    connection.exec_driver_sql("BEGIN IMMEDIATE" if connection.get_execution_options().get("write") else "BEGIN")


def _migrate(engine: Engine, place: Path) -> None:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    scripts = ScriptDirectory.from_config(config)
    head = scripts.get_current_head()
    with engine.begin() as connection:
        now = MigrationContext.configure(connection).get_current_revision()
    if now == head:
        return
    if now is not None and now not in {script.revision for script in scripts.walk_revisions()}:
        raise NewerData(now)
    if now is not None:
        log.info("data folder of version %s: backed up, then brought to %s", now, head)
        copy_database(place, backups_dir(place) / f"before-migration-from-{now}-{stamp()}.sqlite3")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
