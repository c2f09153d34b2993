"""The picture of a set-up's plate: one file each, replaced when another is opened."""

from __future__ import annotations

from pathlib import Path

from .data_folder import plates_dir, write_whole


class Plates:
    """The repository."""

    def __init__(self, place: Path) -> None:
        self._folder = plates_dir(place)

    def put(self, setup_id: int, picture: bytes) -> None:
        """The picture that was there is kept beside it, to come back."""
        self._lay_aside(setup_id)
        write_whole(self.file(setup_id), picture)

    def file(self, setup_id: int) -> Path:
        """Where the plate lies; there need not be one."""
        return self._folder / f"{setup_id}.jpg"

    def delete(self, setup_id: int) -> None:
        self._lay_aside(setup_id)

    def can_restore(self, setup_id: int) -> bool:
        return self._before(setup_id).is_file()

    def restore(self, setup_id: int) -> None:
        """The picture that was there before; the one that is there now takes its place."""
        before, now, between = self._before(setup_id), self.file(setup_id), self._folder / f"{setup_id}.part"
        if not before.is_file():
            return
        if now.is_file():
            now.replace(between)
        before.replace(now)
        if between.is_file():
            between.replace(before)

    def _before(self, setup_id: int) -> Path:
        return self._folder / f"{setup_id}.before"

    def _lay_aside(self, setup_id: int) -> None:
        if self.file(setup_id).is_file():
            self.file(setup_id).replace(self._before(setup_id))
