"""Camera clips: MP4, MOV, MKV, MXF through FFmpeg, frames converted from their own planes.

Matrix and range are the stream's own. Untagged: BT.601 up to 576 lines, else BT.709; limited range.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np

from ausblick.core.arrays import Floats, Floats32
from ausblick.core.measure.clip import ClipReading, breaches_of, level_on, timing_of
from ausblick.core.measure.frame import Frame
from ausblick.core.measure.reading import FrameReading, on_sample, read_frame

from .images import MAX_PIXELS, MIN_SIDE, ImageError

SIGNATURES = (
    (4, b"ftyp"),
    (4, b"moov"),
    (4, b"wide"),
    (4, b"mdat"),
    (0, b"\x1a\x45\xdf\xa3"),
    (0, b"\x06\x0e\x2b\x34"),
)
KR_KB = {"601": (0.299, 0.114), "709": (0.2126, 0.0722), "2020": (0.2627, 0.0593)}
MOST_FRAMES = 20_000
SAMPLED = 9


@dataclass(frozen=True)
class ClipFacts:
    """What the file says of itself. `mbit_s` from the packets where the container has no figure."""

    container: str
    codec: str
    pix_fmt: str
    chroma: str | None
    bits: int
    mbit_s: float
    fps: float
    width: int
    height: int
    matrix: str
    full_range: bool


def is_clip(start: bytes) -> bool:
    """Do a file's first bytes look like one of the containers?"""
    return any(start[at : at + len(mark)] == mark for at, mark in SIGNATURES)


def read_clip(path: Path, trace: str = "luma") -> tuple[ClipFacts, ClipReading]:
    """Facts and reading. Raises ImageError for what can't be decoded."""
    try:
        with av.open(str(path), "r") as container:
            facts = _facts(container, path)
            reading = _reading(container, facts, trace)
    except (av.FFmpegError, IndexError, OSError) as err:
        raise ImageError(f"the clip can't be decoded: {_words(err)}") from None
    return facts, reading


def _words(err: Exception) -> str:
    return str(getattr(err, "strerror", "") or type(err).__name__).lower()


def _facts(container: Any, path: Path) -> ClipFacts:
    if not container.streams.video:
        raise ImageError("the clip has no picture in it")
    stream = container.streams.video[0]
    width, height = stream.codec_context.width, stream.codec_context.height
    if width * height > MAX_PIXELS or min(width, height) < MIN_SIDE:
        raise ImageError(
            f"the clip is {width} x {height} px; {MIN_SIDE} px a side to {MAX_PIXELS // 1_000_000} Mpx is read"
        )
    name = stream.codec_context.pix_fmt or ""
    layout = av.VideoFormat(name, width, height)
    return ClipFacts(
        container=container.format.name.split(",")[0],
        codec=stream.codec_context.name,
        pix_fmt=name,
        chroma=_chroma(name),
        bits=max(component.bits for component in layout.components),
        mbit_s=_rate(stream, container, path),
        fps=float(stream.average_rate or stream.guessed_rate or 25),
        width=width,
        height=height,
        matrix=_matrix(stream.codec_context, height),
        full_range=_range_tag(stream.codec_context) == 2 or name.startswith("yuvj"),
    )


RANGE_TAG = "colour_range".replace("ou", "o", 1)
"""The decoder's name for the tag of the signal's range: 1 limited, 2 full."""


def _range_tag(context: Any) -> int:
    return int(getattr(context, RANGE_TAG) or 0)


def _chroma(name: str) -> str | None:
    for part, chroma in (("420", "4:2:0"), ("422", "4:2:2"), ("444", "4:4:4"), ("nv12", "4:2:0"), ("p010", "4:2:0")):
        if part in name:
            return chroma
    return "4:4:4" if name.startswith(("gbr", "rgb", "bgr")) else None


def _matrix(context: Any, height: int) -> str:
    tagged = {1: "709", 5: "601", 6: "601", 9: "2020", 10: "2020"}.get(int(context.colorspace or 2))
    return tagged or ("601" if height <= 576 else "709")


def _rate(stream: Any, container: Any, path: Path) -> float:
    """Mbit/s of the picture: the stream's figure, else the file's size over its length."""
    if stream.bit_rate:
        return float(stream.bit_rate) / 1e6
    seconds = float(container.duration or 0) / av.time_base
    return 8.0 * path.stat().st_size / 1e6 / seconds if seconds > 0.0 else 0.0


def _reading(container: Any, facts: ClipFacts, trace: str) -> ClipReading:
    """One pass: the level on the screen for every frame, whole readings for some, the middle one kept."""
    stream = container.streams.video[0]
    stream.thread_type = "AUTO"
    total = int(stream.frames or 0) or round(float(container.duration or 0) / av.time_base * facts.fps) or SAMPLED
    step = max(1, total // SAMPLED)
    levels: list[float] = []
    kept: list[tuple[int, FrameReading]] = []
    noises: list[float] = []
    mask: np.ndarray[Any, np.dtype[np.bool_]] | None = None
    before: Floats32 | None = None
    for index, frame in enumerate(_frames(container)):
        small = _small_luma(frame, facts)
        if index % step == 0:
            reading = read_frame(frame_of(frame, facts), trace)
            kept.append((index, reading))
            if mask is None and reading.found is not None:
                mask = on_sample(reading.found.core, np.repeat(small[..., None], 3, axis=-1))
        if mask is not None and mask.shape == small.shape:
            levels.append(level_on(small.astype(np.float64), mask))
            if before is not None and len(noises) < 40:
                change = 100.0 * (small - before)[mask]
                noises.append(float(np.std(change - change.mean())) / 2.0**0.5)
        before = small
    if not kept:
        raise ImageError("the clip has no frame that can be decoded")
    values: Floats = np.array(levels)
    touching = [(i / facts.fps, _sides(r)) for i, r in kept]
    return ClipReading(
        frame=kept[len(kept) // 2][1],
        frames=index + 1,
        timing=timing_of(values, facts.fps),
        temporal_noise_percent=float(np.median(noises)) if noises else None,
        worst=int(np.argmax(np.abs(values - values.mean()))) if len(values) else 0,
        breaches=breaches_of(touching, step / facts.fps),
    )


def _frames(container: Any) -> Iterator[Any]:
    for index, frame in enumerate(container.decode(video=0)):
        if index >= MOST_FRAMES:
            return
        yield frame


def _sides(reading: FrameReading) -> tuple[str, ...]:
    contact = reading.contact
    return tuple(sorted({*contact.frame_sides, *contact.screen_sides})) if contact and contact.matters else ()


def _plane(plane: Any, wide: bool) -> np.ndarray[Any, Any]:
    kind = np.dtype("<u2") if wide else np.dtype(np.uint8)
    return np.frombuffer(bytes(plane), dtype=kind).reshape(plane.height, -1)[:, : plane.width]


def _small_luma(frame: Any, facts: ClipFacts) -> Floats32:
    """Luma 0..1 of every n-th place, about 160 wide: enough for a level, cheap for every frame."""
    if not facts.pix_fmt.startswith(("yuv", "nv12", "p010")):
        grey = frame.to_ndarray(format="gray")
        step = max(1, grey.shape[1] // 160)
        return np.asarray(grey[::step, ::step], dtype=np.float32) / np.float32(255.0)
    plane = _plane(frame.planes[0], facts.bits > 8)
    step = max(1, plane.shape[1] // 160)
    values = np.asarray(plane[::step, ::step], dtype=np.float32)
    return _luma_signal(values, facts)


def _unit(facts: ClipFacts) -> float:
    """Code values of one 8 bit step. P010 carries its ten bits at the top of sixteen."""
    return 2.0 ** ((16 if facts.pix_fmt.startswith("p010") else facts.bits) - 8)


def _luma_signal(values: Floats32, facts: ClipFacts) -> Floats32:
    unit = _unit(facts)
    if facts.full_range:
        return np.asarray(values / np.float32(2.0**facts.bits - 1.0), dtype=np.float32)
    return np.asarray((values / np.float32(unit) - 16.0) / 219.0, dtype=np.float32)


def frame_of(frame: Any, facts: ClipFacts) -> Frame:
    """A decoded frame as signal from its native planes; formats without Y, Cb, Cr planes through FFmpeg's RGB."""
    if not facts.pix_fmt.startswith("yuv"):
        wide = frame.to_ndarray(format="rgb48le" if facts.bits > 8 else "rgb24")
        return Frame(wide, 65535.0 if facts.bits > 8 else 255.0)
    y, *chroma = (np.asarray(_plane(plane, facts.bits > 8), dtype=np.float32) for plane in frame.planes[:3])
    luma = _luma_signal(y, facts)
    unit = _unit(facts)
    middle, reach = 128.0 * unit, (2.0**facts.bits - 1.0 if facts.full_range else 224.0 * unit)
    size = (luma.shape[1], luma.shape[0])
    cb, cr = ((c if c.shape == luma.shape else cv2.resize(c, size, interpolation=cv2.INTER_LINEAR)) for c in chroma)
    kr, kb = KR_KB[facts.matrix]
    red = luma + np.float32(2.0 * (1.0 - kr)) * (cr - np.float32(middle)) / np.float32(reach)
    blue = luma + np.float32(2.0 * (1.0 - kb)) * (cb - np.float32(middle)) / np.float32(reach)
    green = (luma - np.float32(kr) * red - np.float32(kb) * blue) / np.float32(1.0 - kr - kb)
    rgb = np.clip(np.stack([red, green, blue], axis=-1), 0.0, 1.0)
    return Frame(np.asarray(rgb, dtype=np.float32), 1.0)
