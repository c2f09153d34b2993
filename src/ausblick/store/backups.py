"""Backups: everything in one archive, taken and brought back while a server runs; the database alone once a day.

An archive is a plain zip: the database under its own name, the folders of pictures beside it.
"""

from __future__ import annotations

import logging
import os
import secrets
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Iterator
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from .data_folder import backups_dir, database_file, frames_dir, keys_dir, plates_dir
from .trouble import DamagedData, StoreTrouble, told

log = logging.getLogger(__name__)
KEPT_DAYS = 7
DAILY = "day-"
OWNED = (("frames", frames_dir), ("test_keys", keys_dir))
"""Tables whose rows own a folder of pictures, by its name in `stored`."""


class BackupError(StoreTrouble):
    """A file that can't be written, or that is no backup."""


def stamp() -> str:
    return datetime.now(UTC).strftime("%Y%m%d-%H%M%S")


def copy_database(place: Path, target: Path) -> Path:
    """The database as it is at this moment, whoever writes; whole or not at all."""
    part = target.with_name(f"{target.name}.{secrets.token_hex(4)}.part")
    try:
        with closing(sqlite3.connect(database_file(place))) as source, closing(sqlite3.connect(part)) as copy:
            source.backup(copy)
        part.replace(target)
    except BaseException as err:
        part.unlink(missing_ok=True)
        raise (told(err) or err) from None
    return target


def daily(place: Path) -> None:
    """Today's copy of the database, unless there is one; the last few days are kept."""
    folder = backups_dir(place)
    target = folder / f"{DAILY}{datetime.now(UTC):%Y%m%d}.sqlite3"
    if target.exists():
        return
    try:
        copy_database(place, target)
    except (OSError, sqlite3.Error, StoreTrouble) as err:
        # A day without a copy is no reason not to work.
        log.warning("today's copy of the database could not be made: %s", err)
        return
    for old in sorted(folder.glob(f"{DAILY}*.sqlite3"))[:-KEPT_DAYS]:
        old.unlink(missing_ok=True)


def is_sound(database: Path) -> bool:
    """Can the whole database be read?"""
    try:
        with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as connection:
            return bool(connection.execute("PRAGMA quick_check(1)").fetchone() == ("ok",))
    except sqlite3.Error as err:
        if isinstance(trouble := told(err), DamagedData) or trouble is None:
            return False
        raise trouble from None


def newest_sound(place: Path) -> Path | None:
    """The newest copy of the database that can be brought back."""
    files = sorted(backups_dir(place).glob("*.sqlite3"), key=lambda file: file.stat().st_mtime, reverse=True)
    return next((file for file in files if is_sound(file)), None)


def back_up(place: Path, target: Path) -> int:
    """Database and pictures into one archive; the number of files in it. A running server is not disturbed.

    Raises BackupError where it can't be written, StoreTrouble where there is nothing sound to keep.
    """
    if not database_file(place).is_file():
        raise BackupError(f"{place}: there is no data to back up")
    part = target.with_name(f"{target.name}.{secrets.token_hex(4)}.part")
    try:
        with tempfile.TemporaryDirectory() as folder, zipfile.ZipFile(part, "w", zipfile.ZIP_STORED) as archive:
            copy = copy_database(place, Path(folder) / database_file(place).name)
            count = 0
            for file in _pictures(place, copy):
                archive.write(file, file.relative_to(place))
                count += 1
            archive.write(copy, copy.name)
        with part.open("rb") as written:
            os.fsync(written.fileno())
        part.replace(target)
    except sqlite3.Error as err:
        part.unlink(missing_ok=True)
        raise told(err) or BackupError(f"{place}: {err}") from None
    except OSError as err:
        part.unlink(missing_ok=True)
        raise BackupError(f"{target}: {(err.strerror or 'cannot be written').lower()}") from None
    return count + 1


def _pictures(place: Path, copy: Path) -> Iterator[Path]:
    """Files of the rows in a copy of the database. A row whose folder went meanwhile leaves the copy, too."""
    with closing(sqlite3.connect(copy)) as connection, connection:
        for table, folder_of in OWNED:
            for (stored,) in connection.execute(f"SELECT stored FROM {table}").fetchall():
                files = sorted((folder_of(place) / stored).glob("*"))
                if not files:
                    connection.execute(f"DELETE FROM {table} WHERE stored = ?", (stored,))
                yield from files
    yield from sorted(plates_dir(place).glob("*.jpg"))


def restore(place: Path, source: Path) -> Path | None:
    """Bring back a backup (an archive, or a copy of the database alone), on a running server too. What was there is
    kept; where, is returned (None: nothing was). Raises BackupError for what is no backup."""
    with tempfile.TemporaryDirectory(dir=_parent(place)) as folder:
        unpacked = _unpacked(source, Path(folder))
        copy = unpacked / database_file(place).name
        if not is_sound(copy) or not _is_ours(copy):
            raise BackupError(f"{source}: holds no sound data of this program")
        kept = _set_aside(place)
        for inside in ("frames", "test-keys"):
            for one in (unpacked / inside).glob("*"):
                if not (place / inside / one.name).exists():
                    (place / inside).mkdir(parents=True, exist_ok=True)
                    shutil.move(one, place / inside / one.name)
        for one in (unpacked / "plates").glob("*.jpg"):
            (place / "plates").mkdir(parents=True, exist_ok=True)
            one.replace(place / "plates" / one.name)
        with closing(sqlite3.connect(copy)) as sound, closing(sqlite3.connect(database_file(place))) as live:
            live.execute("PRAGMA busy_timeout=15000")
            sound.backup(live)
    return kept


def _parent(place: Path) -> Path:
    backups_dir(place).mkdir(parents=True, exist_ok=True)
    return place


def _set_aside(place: Path) -> Path | None:
    """What is there now: as a copy where it is sound, else the damaged file itself."""
    present = database_file(place)
    if not present.exists():
        return None
    if is_sound(present):
        return copy_database(place, backups_dir(place) / f"before-restore-{stamp()}.sqlite3")
    kept = backups_dir(place) / f"damaged-{stamp()}"
    for ending in ("", "-wal", "-shm"):
        file = present.with_name(present.name + ending)
        if file.exists():
            file.replace(kept.with_name(kept.name + ending))
    return kept


def _is_ours(copy: Path) -> bool:
    with closing(sqlite3.connect(copy)) as connection:
        tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    return {"setups", "revisions", "alembic_version"} <= tables


def _unpacked(source: Path, folder: Path) -> Path:
    """A folder with the backup's files; only names that a backup has are taken."""
    try:
        if not zipfile.is_zipfile(source):
            shutil.copyfile(source, folder / database_file(folder).name)
            return folder
        with zipfile.ZipFile(source) as archive:
            for name in archive.namelist():
                parts = Path(name).parts
                whole = name == database_file(folder).name
                owned = len(parts) in (2, 3) and parts[0] in ("frames", "test-keys", "plates")
                if not (whole or owned) or ".." in parts or Path(name).is_absolute():
                    raise BackupError(f"{source}: holds {name[:60]!r}, which no backup has")
            archive.extractall(folder)
    except OSError as err:
        raise BackupError(f"{source}: {(err.strerror or 'cannot be read').lower()}") from None
    except zipfile.BadZipFile:
        raise BackupError(f"{source}: is damaged") from None
    return folder
