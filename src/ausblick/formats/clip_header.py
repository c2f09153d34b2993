"""What a clip's file says of itself: track, codec, rates, and how its colour is written."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av

from ausblick.core.frames.clip_facts import ClipFacts
from ausblick.core.frames.file_colour import FileColour

from .colour_tags import MATRIX_TAGS, primaries_of, transfer_of
from .image_limits import MAX_PIXELS, MIN_SIDE, ImageError

RANGE_TAG = "colour_range".replace("ou", "o", 1)
"""The decoder's name for the tag of the signal's range: 1 limited, 2 full."""
PRIMARIES_TAG, TRANSFER_TAG = RANGE_TAG.replace("range", "primaries"), RANGE_TAG.replace("range", "trc")
NAMES = {
    "h264": "H.264", "hevc": "H.265", "av1": "AV1", "libdav1d": "AV1", "vp9": "VP9", "mpeg2video": "MPEG-2",
    "mpeg4": "MPEG-4", "mjpeg": "Motion JPEG", "dvvideo": "DV", "rawvideo": "uncompressed", "ffv1": "FFV1",
    "v210": "uncompressed", "jpeg2000": "JPEG 2000",
}  # fmt: skip
CHROMA = (
    ("420", "4:2:0"), ("422", "4:2:2"), ("444", "4:4:4"), ("411", "4:1:1"), ("410", "4:1:0"), ("440", "4:4:0"),
    ("nv12", "4:2:0"), ("p010", "4:2:0"), ("uyvy", "4:2:2"), ("yuyv", "4:2:2"), ("v210", "4:2:2"),
)  # fmt: skip


def picture_track(container: Any) -> Any:
    """The largest moving picture: small ones beside it are proxies and covers. Raises ImageError."""
    tracks = [one for one in container.streams.video if one.codec_context.width and not _is_cover(one)]
    if not tracks:
        tracks = list(container.streams.video)
    if not tracks:
        raise ImageError("the clip has no picture in it")
    return max(tracks, key=lambda one: one.codec_context.width * one.codec_context.height)


def _is_cover(stream: Any) -> bool:
    return bool(getattr(stream.disposition, "name", "") and "attached_pic" in str(stream.disposition))


def clip_facts(container: Any, path: Path) -> ClipFacts:
    """Raises ImageError."""
    stream = picture_track(container)
    context = stream.codec_context
    width, height = context.width, context.height
    if width * height > MAX_PIXELS or min(width, height) < MIN_SIDE:
        raise ImageError(
            f"the clip is {width} x {height} px; {MIN_SIDE} px a side to {MAX_PIXELS // 1_000_000} Mpx is read"
        )
    name = context.pix_fmt or ""
    if not name:
        raise ImageError("the clip can't be decoded: it ends before its first frame")
    shape = float(stream.sample_aspect_ratio or context.sample_aspect_ratio or 1.0)
    shape = shape if 0.2 < shape < 5.0 else 1.0
    matrix, assumed = _matrix(context, name, height)
    colour = _colour(context, (*assumed, *_range_assumed(context, name)))
    return ClipFacts(
        container=container.format.name.split(",")[0],
        codec=context.name,
        pix_fmt=name,
        chroma=_chroma(name),
        bits=max(component.bits for component in av.VideoFormat(name, width, height).components),
        mbit_s=_rate(stream, container, path),
        fps=float(stream.average_rate or stream.guessed_rate or 25),
        width=round(width * shape),
        height=height,
        matrix=matrix,
        full_range=_range_tag(context) == 2 or name.startswith("yuvj"),
        colour=colour,
        codec_name=NAMES.get(context.name, context.name),
        pixel_shape=shape,
        frames_said=int(stream.frames or 0) or None,
    )


def _colour(context: Any, assumed: tuple[str, ...]) -> FileColour:
    primaries = primaries_of(int(getattr(context, PRIMARIES_TAG) or 2))
    transfer = transfer_of(int(getattr(context, TRANSFER_TAG) or 2))
    said = (("Rec.709 primaries", primaries), ("Rec.709 curve", transfer))
    more = tuple(word for word, known in said if known is None)
    return FileColour(primaries or "709", transfer or "709", (*assumed, *more))


def _range_tag(context: Any) -> int:
    return int(getattr(context, RANGE_TAG) or 0)


def _range_assumed(context: Any, name: str) -> tuple[str, ...]:
    return () if _range_tag(context) or not name.startswith("yuv") or name.startswith("yuvj") else ("limited range",)


def _chroma(name: str) -> str | None:
    found = next((chroma for part, chroma in CHROMA if part in name), None)
    return found or ("4:4:4" if name.startswith(("gbr", "rgb", "bgr")) else None)


def _matrix(context: Any, name: str, height: int) -> tuple[str, tuple[str, ...]]:
    """And what was assumed of it."""
    if name.startswith(("gbr", "rgb", "bgr")):
        return "RGB", ()
    tagged = MATRIX_TAGS.get(int(context.colorspace or 2))
    if tagged:
        return tagged, ()
    guessed = "601" if height <= 576 else "709"
    return guessed, (f"Rec.{guessed} matrix, by the picture's {height} lines",)


def _rate(stream: Any, container: Any, path: Path) -> float:
    """Mbit/s of the picture: the stream's figure, else the file's size over its length."""
    if stream.bit_rate:
        return float(stream.bit_rate) / 1e6
    seconds = float(container.duration or 0) / av.time_base
    return 8.0 * path.stat().st_size / 1e6 / seconds if seconds > 0.0 else 0.0
