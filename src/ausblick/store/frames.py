"""Imported frames: the picture in a folder, its reading beside it in the database."""

from __future__ import annotations

import json
import shutil
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from .data_folder import frames_dir, new_folder, write_whole
from .database import Sessions
from .setups import NotFound, live_row, now
from .tables import FrameRow, SetupRow

ORIGINAL = "original"


@dataclass(frozen=True)
class StoredFrame:
    """`path` is the frame's own folder; `data` what was read of it when it came."""

    id: int
    setup_id: int
    name: str
    path: Path
    data: dict[str, Any]
    created: datetime
    deleted: datetime | None = None


class Frames:
    """The repository. A frame is stored only once it has been read without error."""

    def __init__(self, sessions: Sessions, place: Path) -> None:
        self._sessions, self._folder = sessions, frames_dir(place)

    def of_setup(self, setup_id: int) -> list[StoredFrame]:
        """A set-up's frames, newest first."""
        with self._sessions.read() as session:
            live_row(session, setup_id)
            own = select(FrameRow).where(FrameRow.setup_id == setup_id, FrameRow.deleted.is_(None))
            return [self._frame(row) for row in session.scalars(own.order_by(FrameRow.id.desc()))]

    def in_trash(self) -> list[StoredFrame]:
        """Deleted frames of set-ups that are not, the last deleted first."""
        with self._sessions.read() as session:
            gone = (
                select(FrameRow)
                .join(SetupRow, SetupRow.id == FrameRow.setup_id)
                .where(FrameRow.deleted.is_not(None), SetupRow.deleted.is_(None))
                .order_by(FrameRow.deleted.desc())
            )
            return [self._frame(row) for row in session.scalars(gone)]

    def get(self, frame_id: int) -> StoredFrame:
        with self._sessions.read() as session:
            return self._frame(_live(session, frame_id))

    def add(
        self, setup_id: int, name: str, source: Path, data: dict[str, Any], files: dict[str, bytes]
    ) -> StoredFrame:
        """Keep a copy of the picture in `source` with what was read of it and pictures made of it."""
        with self._sessions.read() as session:
            live_row(session, setup_id)
        # A clip takes its time to copy: nobody's save waits for that.
        with new_folder(self._folder) as folder:
            shutil.copyfile(source, folder.part / ORIGINAL)
            for kind, content in files.items():
                (folder.part / kind).write_bytes(content)
            folder.settle()
            with self._sessions.write() as session:
                live_row(session, setup_id)
                row = FrameRow(
                    setup_id=setup_id, name=name[:200], stored=folder.name, reading=json.dumps(data), created=now()
                )
                session.add(row)
                session.flush()
                return self._frame(row)

    def update(self, frame_id: int, data: dict[str, Any], files: dict[str, bytes | None]) -> StoredFrame:
        """Another reading of the same picture; a file given as None is taken away."""
        with self._sessions.write() as session:
            row = _live(session, frame_id)
            row.reading = json.dumps(data)
            for kind, content in files.items():
                if content is None:
                    (self._folder / row.stored / kind).unlink(missing_ok=True)
                else:
                    write_whole(self._folder / row.stored / kind, content)
            return self._frame(row)

    def file(self, frame_id: int, kind: str = ORIGINAL) -> Path:
        """A file of the frame: the original, or a picture made of it. Raises NotFound."""
        found = self.get(frame_id).path / kind
        if not found.is_file():
            raise NotFound(f"frame {frame_id} has no {kind}")
        return found

    def delete(self, frame_id: int) -> None:
        """Into the trash; `restore` brings it back, until it has lain there for a month (see `sweep`)."""
        with self._sessions.write() as session:
            _live(session, frame_id).deleted = now()

    def restore(self, frame_id: int) -> StoredFrame:
        with self._sessions.write() as session:
            row = session.get(FrameRow, frame_id)
            if row is None:
                raise NotFound(f"there is no frame {frame_id}")
            row.deleted = None
            return self._frame(row)

    def _frame(self, row: FrameRow) -> StoredFrame:
        folder = self._folder / row.stored
        return StoredFrame(row.id, row.setup_id, row.name, folder, json.loads(row.reading), row.created, row.deleted)


def _live(session: Session, frame_id: int) -> FrameRow:
    row = session.get(FrameRow, frame_id)
    if row is None or row.deleted is not None:
        raise NotFound(f"there is no frame {frame_id}")
    return row
