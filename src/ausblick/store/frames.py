"""Imported frames: the picture in a folder, its reading beside it in the database."""

from __future__ import annotations

import json
import shutil
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import select

from .data_folder import frames_dir, new_folder, write_whole
from .database import Sessions
from .setups import NotFound, live_row, now
from .tables import FrameRow

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


class Frames:
    """The repository. A frame is stored only once it has been read without error."""

    def __init__(self, sessions: Sessions, place: Path) -> None:
        self._sessions, self._folder = sessions, frames_dir(place)

    def of_setup(self, setup_id: int) -> list[StoredFrame]:
        """A set-up's frames, newest first."""
        with self._sessions.read() as session:
            live_row(session, setup_id)
            rows = session.scalars(select(FrameRow).where(FrameRow.setup_id == setup_id).order_by(FrameRow.id.desc()))
            return [self._frame(row) for row in rows]

    def get(self, frame_id: int) -> StoredFrame:
        with self._sessions.read() as session:
            row = session.get(FrameRow, frame_id)
            if row is None:
                raise NotFound(f"there is no frame {frame_id}")
            return self._frame(row)

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
            row = session.get(FrameRow, frame_id)
            if row is None:
                raise NotFound(f"there is no frame {frame_id}")
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
        with self._sessions.write() as session:
            row = session.get(FrameRow, frame_id)
            if row is None:
                raise NotFound(f"there is no frame {frame_id}")
            session.delete(row)
            folder = self._folder / row.stored
        shutil.rmtree(folder, ignore_errors=True)

    def _frame(self, row: FrameRow) -> StoredFrame:
        return StoredFrame(
            row.id, row.setup_id, row.name, self._folder / row.stored, json.loads(row.reading), row.created
        )
