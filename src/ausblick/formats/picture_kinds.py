"""What kind of picture a file is, by its first bytes and never by its name."""

from __future__ import annotations

import struct
from collections.abc import Iterator
from pathlib import Path
from typing import BinaryIO

SIGNATURES = (
    (b"\x89PNG\r\n\x1a\n", "png"),
    (b"\xff\xd8\xff", "jpeg"),
    (b"II*\0", "tiff"),
    (b"MM\0*", "tiff"),
    (b"\x76\x2f\x31\x01", "openexr"),
    (b"SDPX", "dpx"),
    (b"XPDS", "dpx"),
    # What a sensor wrote, in the ways of several makers.
    (b"IIU\0", "raw"),
    (b"IIRO", "raw"),
    (b"IIRS", "raw"),
    (b"MMOR", "raw"),
    (b"FOVb", "raw"),
    (b"\x46\x55\x4a\x49", "raw"),
)
BRANDS = {
    **dict.fromkeys((b"heic", b"heix", b"heim", b"heis", b"hevc", b"hevx", b"mif1", b"msf1"), "heif"),
    **dict.fromkeys((b"avif", b"avis"), "avif"),
    b"crx ": "raw",
}
"""Of files that begin as clips do."""
PHOTOMETRIC, SUB_IFDS, DNG_VERSION = 262, 330, 50706
SENSOR = (32803, 34892)
"""Photometric interpretations of what a sensor wrote: filter array, linear raw."""
MOST_TAGS, MOST_IFDS = 400, 12


def kind_of(start: bytes, path: Path | None = None) -> str | None:
    """The kind of a picture by a file's first 16 bytes; a TIFF that holds a sensor's data is `raw`. None: no picture
    that is known."""
    if start[4:8] == b"ftyp":
        return BRANDS.get(start[8:12])
    if start[:4] == b"RIFF" and start[8:12] == b"WEBP":
        return "webp"
    found = next((kind for signature, kind in SIGNATURES if start.startswith(signature)), None)
    if found == "tiff" and (start[8:10] == b"CR" or (path is not None and _holds_raw(path))):
        return "raw"
    return found


def _holds_raw(path: Path) -> bool:
    """Does any of a TIFF's pictures, the ones below them too, hold what a sensor wrote?"""
    try:
        with path.open("rb") as file:
            order = "<" if file.read(2) == b"II" else ">"
            file.seek(4)
            return any(
                tag == DNG_VERSION or (tag == PHOTOMETRIC and value in SENSOR)
                for tag, value in _tags(file, order, struct.unpack(f"{order}I", file.read(4))[0])
            )
    except (OSError, struct.error):
        return False


def _tags(file: BinaryIO, order: str, first: int) -> Iterator[tuple[int, int]]:
    """Tags with their first value, of every picture in the file; bounded, whatever a file says of itself."""
    todo, seen = [first], 0
    while todo and seen < MOST_IFDS:
        place, seen = todo.pop(), seen + 1
        file.seek(place)
        (count,) = struct.unpack(f"{order}H", file.read(2))
        entries = file.read(12 * min(count, MOST_TAGS))
        following = file.read(4)
        for at in range(0, len(entries) - 11, 12):
            tag, kind, number = struct.unpack(f"{order}HHI", entries[at : at + 8])
            short = struct.unpack(f"{order}H", entries[at + 8 : at + 10])[0]
            value = short if kind == 3 else struct.unpack(f"{order}I", entries[at + 8 : at + 12])[0]
            if tag == SUB_IFDS:
                todo += _places(file, order, value, number)
            yield tag, value
        if len(following) == 4 and (after := struct.unpack(f"{order}I", following)[0]):
            todo.append(after)


def _places(file: BinaryIO, order: str, value: int, number: int) -> list[int]:
    if number == 1:
        return [value]
    file.seek(value)
    data = file.read(4 * min(number, MOST_IFDS))
    return [int(one) for one in struct.unpack(f"{order}{len(data) // 4}I", data[: len(data) // 4 * 4])]
