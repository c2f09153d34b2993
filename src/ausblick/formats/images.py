"""Camera stills: PNG, JPEG, TIFF, EXR, DPX, WebP through OpenImageIO; HEIF, AVIF and raw through their own readers.

What a file is, is read from its first bytes, never from its name. What its pixels will take is reckoned from the
header, before one is decoded, and they are read in strips, two pictures at a time. Linear pictures (EXR, or tagged
so) become Rec.709 signal here, and pictures with other primaries or curves are led to it (see `still_colour`).
"""

from __future__ import annotations

import re
import struct
from collections.abc import Iterator
from pathlib import Path
from threading import BoundedSemaphore
from typing import Any

import cv2
import numpy as np
from PIL.JpegImagePlugin import JpegImageFile

from ausblick.core.frames.file_colour import FileColour
from ausblick.core.frames.frame import Frame

from .image_limits import KINDS, MAX_BYTES, MAX_PIXELS, MAX_SIDE, MIN_SIDE, ImageError, check_size
from .orientation import upright_as_noted
from .phone_pictures import read_avif, read_heif, read_raw
from .picture_kinds import kind_of
from .still_colour import StillColour, as_said, still_colour

__all__ = ["MAX_BYTES", "MAX_PIXELS", "MAX_SIDE", "MIN_SIDE", "ImageError"]

MAX_DECODED = 400_000_000
"""Bytes of all pixels and channels as they are written: 66 million of 16 bit RGB, 33 million of float."""
PLAUSIBLE, UNPACKED = 64_000_000, 100
"""From so many decoded bytes on, no camera packs them into less than a hundredth."""
MAX_SCANS, SCANNED = 100, 1_200_000_000
"""A progressive JPEG's scans (usual: 10), and scans times pixels: each of them goes over the whole picture."""
STRIP = 4_000_000
"""Pixels that are decoded at once."""
_AT_ONCE = BoundedSemaphore(2)
OWN_READERS = {"heif": read_heif, "avif": read_avif, "raw": read_raw}


def sniff(start: bytes, path: Path | None = None) -> str:
    """The kind of picture by a file's first bytes. Raises ImageError."""
    if not start:
        raise ImageError("the file is empty")
    kind = kind_of(start, path)
    if kind is None:
        raise ImageError(f"this is no {KINDS}")
    return kind


def read_image(path: Path, said: FileColour | None = None) -> Frame:
    """The frame in a file. `said`: how a person says that it is written, in the place of what the file says; HEIF,
    AVIF and raw say it themselves. Raises ImageError for anything that isn't a whole, sane picture."""
    try:
        with path.open("rb") as file:
            kind = sniff(file.read(16), path)
        if path.stat().st_size > MAX_BYTES:
            raise ImageError(f"the file is larger than {MAX_BYTES // 1_000_000} MB")
    except OSError as err:
        raise ImageError((err.strerror or "can't be opened").lower()) from None
    with _AT_ONCE:
        if kind in OWN_READERS:
            if said is not None:
                raise ImageError("a HEIC, AVIF or raw picture says itself how it is written")
            return OWN_READERS[kind](path)
        if kind == "jpeg":
            _check_scans(path)
        source = _opened(path, kind)
        try:
            _check_header(source, kind, path)
            return _decode(source, still_colour(source.spec(), kind) if said is None else as_said(said))
        finally:
            source.close()


def _opened(path: Path, kind: str) -> Any:
    """The library's reader of a picture. Raises ImageError."""
    # 30 MB of memory that a day without stills does without.
    import OpenImageIO as oiio

    settings = oiio.ImageSpec()
    settings.attribute("oiio:UnassociatedAlpha", 1)
    source = oiio.ImageInput.open(str(path), settings)
    if source is None:
        raise ImageError(f"the {kind.upper()} header can't be read: {_reason(oiio.geterror())}")
    return source


def _check_header(source: Any, kind: str, path: Path) -> None:
    """Raises ImageError for what would take more than a picture of a camera does."""
    spec = source.spec()
    width, height = spec.width, spec.height
    if source.format_name() not in (kind, "openexr") or spec.deep or spec.depth > 1:
        raise ImageError(f"this is no {KINDS}")
    check_size(width, height)
    if spec.nchannels == 2 or spec.nchannels > 16:
        raise ImageError(f"the picture has {spec.nchannels} channels; RGB is needed")
    decoded, size = spec.image_bytes(True), path.stat().st_size
    if decoded > MAX_DECODED:
        raise ImageError(
            f"its {spec.nchannels} channels would take {decoded // 1_000_000} MB; at most {MAX_DECODED // 1_000_000} "
            "are read: save it as RGB of 8 or 16 bit, or smaller"
        )
    if decoded > PLAUSIBLE and decoded > UNPACKED * size:
        raise ImageError(
            f"{decoded // 1_000_000} MB of pixels in a file of {max(1, size // 1000)} kB: no camera writes that"
        )


def _check_scans(path: Path) -> None:
    """Before it is opened, as a progressive JPEG's scans are all gone over for that. Raises ImageError."""
    scans = _scans(path)
    try:
        with JpegImageFile(path) as seen:
            width, height = seen.size
    except (OSError, SyntaxError, ValueError, struct.error):
        # What is wrong with its header is told by whom it is opened with.
        width = height = 0
    if scans > MAX_SCANS or scans * width * height > SCANNED:
        raise ImageError(f"the JPEG goes over its picture in {scans} scans; save it anew as a plain one")


def _scans(path: Path) -> int:
    """Markers that begin a scan: in packed data a byte 0xFF is always followed by nought, so none looks like one."""
    count, last = 0, b""
    with path.open("rb") as file:
        while piece := file.read(1_000_000):
            count += (last + piece).count(b"\xff\xda")
            last = piece[-1:]
    return count


def _decode(source: Any, colour: StillColour) -> Frame:
    spec = source.spec()
    depth, white = {"uint8": ("uint8", 255.0), "uint16": ("uint16", 65535.0)}.get(str(spec.format), ("float", 1.0))
    kept = colour.as_it_is
    pixels = np.empty((spec.height, spec.width, 3), depth if kept and depth != "float" else np.float32)
    for begin, end in _strips(spec):
        strip = _read_strip(source, spec, begin, end, depth)
        if depth == "float" and not np.isfinite(strip).all():
            raise ImageError("the picture holds values that are not finite numbers")
        pixels[begin:end] = strip if kept else colour.working(strip / np.float32(white))
    turned = spec.getattribute("Orientation")
    upright = upright_as_noted(pixels, int(turned) if turned else 1)
    return Frame(np.ascontiguousarray(upright), white if kept else 1.0, colour.told)


def _strips(spec: Any) -> Iterator[tuple[int, int]]:
    """Rows that are read at once, whole tiles where there are some."""
    tile = spec.tile_height or 1
    rows = max(1, STRIP // (spec.width * tile)) * tile
    return ((begin, min(begin + rows, spec.height)) for begin in range(0, spec.height, rows))


def _read_strip(source: Any, spec: Any, begin: int, end: int, depth: str) -> Any:
    """Rows (n, w, 3) or (n, w, 1) of the first channels. Raises ImageError."""
    channels = min(3, spec.nchannels)
    top, left = spec.y + begin, spec.x
    if spec.tile_width:
        rows = source.read_tiles(left, left + spec.width, top, spec.y + end, 0, 1, 0, channels, depth)
    else:
        rows = source.read_scanlines(top, spec.y + end, 0, 0, channels, depth)
    if rows is None or source.has_error:
        raise ImageError(f"the picture is damaged or cut short: {_reason(source.geterror())}")
    return rows.reshape(end - begin, spec.width, channels)


def _reason(text: str) -> str:
    """The library's reason on one line, without paths."""
    line = re.sub(r"\"?/[^\s\"]+\"?", "the file", " ".join(text.split())) or "unknown reason"
    return line[:160]


def write_gray_png(path: Path, matte: np.ndarray[Any, Any]) -> None:
    """A matte (H, W) 0..1 as a 16-bit gray PNG. Raises ImageError where it can't be written."""
    done = False
    if path.suffix.lower() == ".png" and path.parent.is_dir():
        done = cv2.imwrite(str(path), np.round(matte * 65535.0).astype(np.uint16))
    if not done:
        raise ImageError("the matte can't be written there; give a path that ends in .png in an existing folder")


def png_bytes(rgb: np.ndarray[Any, Any]) -> bytes:
    """An RGB or gray picture (H, W, 3) or (H, W), uint8, as PNG."""
    flipped = rgb[..., ::-1] if rgb.ndim == 3 else rgb
    return bytes(cv2.imencode(".png", np.ascontiguousarray(flipped), [cv2.IMWRITE_PNG_COMPRESSION, 1])[1])


def jpeg_bytes(rgb: np.ndarray[Any, Any]) -> bytes:
    """An RGB picture (H, W, 3), uint8, as JPEG for looking at."""
    return bytes(cv2.imencode(".jpg", np.ascontiguousarray(rgb[..., ::-1]), [cv2.IMWRITE_JPEG_QUALITY, 90])[1])
