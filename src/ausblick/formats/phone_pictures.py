"""Pictures as phones and cameras keep them: HEIF and AVIF whole, raw files developed.

Raw files: linear, with the camera's own white balance, into Rec.709 primaries; full sensor is 100 % of light.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

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
    """Pictures of 8 bit; deeper ones come down to 8 on the way."""
    try:
        with Image.open(path, formats=["AVIF"]) as found:
            check_size(*found.size)
            pixels, profile = np.asarray(found.convert("RGB")), found.info.get("icc_profile")
    except ImageError:
        raise
    except (OSError, ValueError, SyntaxError, UnidentifiedImageError, Image.DecompressionBombError):
        raise ImageError("the AVIF picture is damaged or cut short") from None
    return _coloured(pixels, 255.0, profile, None)


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
