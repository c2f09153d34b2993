"""The numbers that files tag their colour with (ITU-T H.273), and what they mean here."""

from __future__ import annotations

from ausblick.core.colour.gamut import Transfer

PRIMARIES_TAGS = {1: "709", 5: "601-625", 6: "601", 7: "601", 9: "2020", 11: "P3", 12: "P3"}
TRANSFER_TAGS: dict[int, Transfer] = {
    1: "709", 6: "709", 8: "linear", 13: "sRGB", 14: "709", 15: "709", 16: "PQ", 18: "HLG",
}  # fmt: skip
"""14 and 15 are BT.2020's, which is BT.709's with more digits."""
MATRIX_TAGS = {1: "709", 5: "601", 6: "601", 9: "2020", 10: "2020"}


def primaries_of(tag: int) -> str | None:
    """None: not tagged, or none that is known."""
    return PRIMARIES_TAGS.get(int(tag))


def transfer_of(tag: int) -> Transfer | None:
    return TRANSFER_TAGS.get(int(tag))
