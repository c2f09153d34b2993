"""What a picture may be, whoever decodes it, and the error that all readers raise."""

from __future__ import annotations

MAX_BYTES = 400_000_000
MAX_SIDE = 16_384
MAX_PIXELS = 80_000_000
MIN_SIDE = 16
KINDS = "PNG, JPEG, TIFF, EXR, DPX, WebP, HEIC, AVIF or raw picture and no MP4, MOV, MKV, MXF, AVI or MTS clip"


class ImageError(ValueError):
    """A picture that can't be read; the message says why and what would do."""


def check_size(width: int, height: int) -> None:
    """Raises ImageError."""
    if min(width, height) < MIN_SIDE:
        raise ImageError(f"the picture is {width} × {height} px; at least {MIN_SIDE} × {MIN_SIDE} are needed")
    if max(width, height) > MAX_SIDE or width * height > MAX_PIXELS:
        raise ImageError(
            f"the picture is {width} × {height} px; at most {MAX_SIDE} a side and "
            f"{MAX_PIXELS // 1_000_000} million in all are read"
        )
