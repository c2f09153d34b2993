"""Where data is kept: one folder with the database, the imported frames and the backups."""

from __future__ import annotations

import os
import secrets
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path


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


@contextmanager
def new_folder(inside: Path) -> Iterator[Path]:
    """A folder under a name that nobody has; taken away again where what follows fails."""
    made = inside / secrets.token_hex(12)
    made.mkdir()
    try:
        yield made
    except BaseException:
        shutil.rmtree(made, ignore_errors=True)
        raise
