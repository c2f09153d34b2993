"""Pictures as phones and cameras keep them: HEIF and AVIF whole, raw files developed.

Raw files: linear, with the camera's own white balance, into Rec.709 primaries; full sensor is 100 % of light.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import pillow_heif
import rawpy
from PIL import Image, UnidentifiedImageError

from ausblick.core.colour.curves import rec709
from ausblick.core.colour.gamut import from_named, to_working
from ausblick.core.frames.file_colour import UNTAGGED, FileColour
from ausblick.core.frames.frame import Frame

from .colour_tags import primaries_of, transfer_of
from .image_limits import ImageError, check_size
from .orientation import ORIENTATION, upright_as_noted
from .still_colour import StillColour, of_profile


def read_heif(path: Path) -> Frame:
    """The main picture, tiles put together, upright as the file says."""
    try:
        found = pillow_heif.open_heif(str(path), convert_hdr_to_8bit=False)
        check_size(*found.size)
        pixels = np.asarray(found)
    except ImageError:
        raise
    except (OSError, ValueError, RuntimeError, EOFError):
        raise ImageError("the HEIC picture is damaged or cut short") from None
    white = 255.0 if pixels.dtype == np.uint8 else 65535.0
    return _coloured(pixels[..., :3], white, found.info.get("icc_profile"), found.info.get("nclx_profile"))


def read_avif(path: Path) -> Frame:
    """The main picture with its own bits, tiles put together, upright as the file says."""
    try:
        with Image.open(path, formats=["AVIF"]) as found:
            check_size(*found.size)
            profile, turned = found.info.get("icc_profile"), found.getexif().get(ORIENTATION, 1)
            bits, tags = _avif_header(path)
            pixels = np.asarray(found.convert("RGB")) if bits <= 8 else _deep_avif(path)
    except ImageError:
        raise
    except (OSError, ValueError, SyntaxError, UnidentifiedImageError, Image.DecompressionBombError):
        raise ImageError("the AVIF picture is damaged or cut short") from None
    return _coloured(upright_as_noted(pixels, turned), 2.0**bits - 1.0, profile, tags)


def _avif_header(path: Path) -> tuple[int, dict[str, Any]]:
    """Bits of a component, and the numbers of primaries and curve: what the decoders keep to themselves. 8 and none
    where they can't be read: whether the picture is whole its decoder says."""
    try:
        with av.open(str(path), "r") as container:
            codec = container.streams.video[0].codec_context
            tags = {"color_primaries": codec.color_primaries, "transfer_characteristics": codec.color_trc}
            return (codec.format.components[0].bits if codec.format else 8), tags
    except (av.FFmpegError, IndexError):
        return 8, {}


def _deep_avif(path: Path) -> Any:
    """Codes (h, w, 3) of more than 8 bit, up to 2^bits - 1."""
    pixels = cv2.imread(str(path), cv2.IMREAD_UNCHANGED)
    if pixels is None or pixels.ndim != 3:
        raise ImageError("the AVIF picture is damaged, cut short, or has no colour")
    return pixels[..., 2::-1]


def _coloured(pixels: Any, white: float, profile: bytes | None, tags: dict[str, Any] | None) -> Frame:
    if profile:
        return led(pixels, white, of_profile(profile))
    if not tags:
        return Frame(np.ascontiguousarray(pixels), white, UNTAGGED)
    primaries, transfer = primaries_of(tags["color_primaries"]), transfer_of(tags["transfer_characteristics"])
    assumed = tuple(
        word for word, known in zip(UNTAGGED.assumed, (primaries, transfer), strict=True) if known is None
    )
    told = FileColour(primaries or "709", transfer or "sRGB", assumed)
    matrix = from_named(told.primaries)
    if transfer in ("HLG", "PQ"):
        signal = np.asarray(pixels, dtype=np.float32) / np.float32(white)
        return Frame(to_working(signal, matrix, transfer), 1.0, told)
    return led(pixels, white, StillColour(told, matrix))


def led(pixels: Any, white: float, colour: StillColour) -> Frame:
    """A display picture in the working primaries; one that has them keeps its bits."""
    if colour.as_it_is:
        return Frame(np.ascontiguousarray(pixels), white, colour.told)
    return Frame(colour.working(np.asarray(pixels, dtype=np.float32) / np.float32(white)), 1.0, colour.told)


def read_raw(path: Path) -> Frame:
    """Developed without any brightening, so that levels are the sensor's."""
    try:
        with rawpy.imread(str(path)) as raw:
            check_size(raw.sizes.width, raw.sizes.height)
            linear = raw.postprocess(
                gamma=(1.0, 1.0), no_auto_bright=True, use_camera_wb=True, output_bps=16,
                output_color=rawpy.ColorSpace.sRGB,
            )  # fmt: skip
    except ImageError:
        raise
    except (rawpy.LibRawError, OSError, ValueError, MemoryError):
        raise ImageError(
            "this is a raw picture that can't be developed here: develop it to a 16 bit TIFF, or save a JPEG too"
        ) from None
    told = FileColour("709", "linear", ("developed from raw: the camera's white balance, full sensor as 100 %",))
    return Frame(rec709(linear / np.float32(65535.0)).astype(np.float32), 1.0, told)
