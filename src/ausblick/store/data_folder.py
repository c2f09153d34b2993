"""Where data is kept: one folder with the database, the imported frames and the backups."""

from __future__ import annotations

import os
import secrets
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

try:
    import fcntl
except ImportError:  # a system without it
    fcntl = None  # type: ignore[assignment]


def data_dir() -> Path:
    """The user's own data folder (XDG Base Directory, else ~/.local/share)."""
    base = os.environ.get("XDG_DATA_HOME")
    return (Path(base) if base else Path.home() / ".local" / "share") / "ausblick"


def demo_dir() -> Path:
    """The demo never mixes with real work."""
    return data_dir() / "demo"


def database_file(place: Path) -> Path:
    return place / "ausblick.sqlite3"


def frames_dir(place: Path) -> Path:
    return place / "frames"


def keys_dir(place: Path) -> Path:
    return place / "test-keys"


def plates_dir(place: Path) -> Path:
    return place / "plates"


def backups_dir(place: Path) -> Path:
    return place / "backups"


def work_dir(place: Path) -> Path:
    """What is being read or made; swept when a server begins."""
    return place / "work"


@contextmanager
def held(place: Path) -> Iterator[bool]:
    """Hold the folder as one of its servers; True for the first, who finds what a killed one left behind."""
    with (place / "in-use").open("a") as file:
        alone = _lock(file, alone=True)
        _lock(file, alone=False)
        yield alone


def _lock(file: IO[str], alone: bool) -> bool:
    """A lock of the system, gone with the process; where the system has none, nobody is alone."""
    if fcntl is None:
        return False
    try:
        fcntl.flock(file, (fcntl.LOCK_EX if alone else fcntl.LOCK_SH) | fcntl.LOCK_NB)
    except OSError:
        return False
    return True


class NewFolder:
    """A folder under a name that nobody has, written as a part until it is settled."""

    def __init__(self, inside: Path) -> None:
        self.name = secrets.token_hex(12)
        self.part, self.path = inside / f"{self.name}.part", inside / self.name
        self.part.mkdir()

    def settle(self) -> None:
        """All of it on the disk and under its own name: from here on a row may name it."""
        for file in self.part.iterdir():
            _to_disk(file)
        _to_disk(self.part)
        self.part.rename(self.path)
        _to_disk(self.path.parent)

    def remove(self) -> None:
        shutil.rmtree(self.part, ignore_errors=True)
        shutil.rmtree(self.path, ignore_errors=True)


@contextmanager
def new_folder(inside: Path) -> Iterator[NewFolder]:
    """A new folder; taken away again where what follows fails."""
    made = NewFolder(inside)
    try:
        yield made
    except BaseException:
        made.remove()
        raise


def write_whole(file: Path, content: bytes) -> None:
    """A reader, and whoever comes after a power cut, sees the old file or the new one, never half of one."""
    part = file.with_name(f"{file.name}.{secrets.token_hex(4)}.part")
    try:
        part.write_bytes(content)
        _to_disk(part)
        part.replace(file)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def _to_disk(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
