"""The picture of a set-up's plate: one file each, replaced when another is opened."""

from __future__ import annotations

from pathlib import Path

from .data_folder import plates_dir, write_whole


class Plates:
    """The repository."""

    def __init__(self, place: Path) -> None:
        self._folder = plates_dir(place)

    def put(self, setup_id: int, picture: bytes) -> None:
        write_whole(self.file(setup_id), picture)

    def file(self, setup_id: int) -> Path:
        """Where the plate lies; there need not be one."""
        return self._folder / f"{setup_id}.jpg"

    def delete(self, setup_id: int) -> None:
        self.file(setup_id).unlink(missing_ok=True)
