"""What can be wrong with a data folder, each in one line with what to do."""

from __future__ import annotations

from typing import Any


class StoreTrouble(RuntimeError):
    """Something that the person at the machine has to put right. Nothing half written stays."""


class NoSpace(StoreTrouble):
    def __init__(self) -> None:
        super().__init__("there is no space left where the data is kept: free some and try again; nothing was stored")


class Locked(StoreTrouble):
    def __init__(self) -> None:
        super().__init__("another program holds the data: try again in a moment; nothing was stored")


class ReadOnly(StoreTrouble):
    def __init__(self) -> None:
        super().__init__("the data can't be written: give the folder's files write permission")


class DamagedData(StoreTrouble):
    """`backup`: the newest file that can be restored, in words; empty where there is none."""

    def __init__(self, backup: str = "") -> None:
        way = f"bring back the newest backup with: ausblick restore {backup}" if backup else (
            "bring back a backup with: ausblick restore FILE"
        )  # fmt: skip
        super().__init__(f"the database is damaged; {way}")


class NewerData(StoreTrouble):
    def __init__(self, revision: str) -> None:
        super().__init__(
            f"the data was written by a newer version of this program (state {revision}): use that version, "
            "or another folder with --data; nothing was changed"
        )


WORDS: tuple[tuple[str, type[StoreTrouble]], ...] = (
    ("disk is full", NoSpace),
    ("is locked", Locked),
    ("readonly database", ReadOnly),
    ("malformed", DamagedData),
    ("not a database", DamagedData),
)


def told(error: BaseException) -> StoreTrouble | None:
    """What the database's own complaint means here; None for what is no trouble of the folder."""
    text = str(error)
    return next((kind() for word, kind in WORDS if word in text), None)


def tell(context: Any) -> None:
    """For the engine's errors: the trouble in the place of the driver's words."""
    trouble = told(context.original_exception)
    if trouble is not None:
        raise trouble from context.original_exception
