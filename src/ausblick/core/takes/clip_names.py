"""Which file is a take's: by the clip's name as it was read off the camera, whole or its number alone."""

from __future__ import annotations

from collections.abc import Mapping


def clip_named(clip: str, files: Mapping[int, str]) -> int | None:
    """The one of the files (number: name) that a clip's name means; None where none or more than one does.

    Capitals and the ending do not matter; digits alone mean the file whose name ends with them.
    """
    wanted = _stem(clip)
    if not wanted:
        return None
    stems = {number: _stem(name) for number, name in files.items()}
    same = [number for number, stem in stems.items() if stem == wanted]
    if not same and wanted.isdigit():
        same = [number for number, stem in stems.items() if _last_digits(stem) == int(wanted)]
    return same[0] if len(same) == 1 else None


def _stem(name: str) -> str:
    """Without folder and ending; a name that has no ending is whole."""
    last = name.strip().replace("\\", "/").rsplit("/", 1)[-1].casefold()
    head, dot, _ = last.rpartition(".")
    return head if dot and head else last


def _last_digits(stem: str) -> int | None:
    digits = stem[len(stem.rstrip("0123456789")) :]
    return int(digits) if digits else None
