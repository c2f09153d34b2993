"""How a file's colour was understood: what it said, and what had to be assumed."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class FileColour:
    """`primaries` (709, 2020, P3, 601, or the profile's own name) and `transfer` (709, sRGB, HLG, PQ, linear, log) as
    they were before the picture was led to the working signal; `assumed`: in words, what nobody had said."""

    primaries: str = "709"
    transfer: str = "709"
    assumed: tuple[str, ...] = ()

    @staticmethod
    def said(primaries: str, transfer: str) -> FileColour:
        """As a person says that a file is written."""
        return FileColour(primaries, transfer, ("written so, as somebody said",))


RECORDED = FileColour()
UNTAGGED = FileColour(assumed=("Rec.709 primaries", "Rec.709 curve"))
