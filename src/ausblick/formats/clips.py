"""Camera clips: MP4, MOV, MKV, MXF through FFmpeg, frames converted from their own planes.

Matrix and range are the stream's own. Untagged: BT.601 up to 576 lines, else BT.709; limited range.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np

from ausblick.core.frames.bands import MOST_FRAMES as MOST_BANDED
from ausblick.core.frames.bands import bands_of, block_means
from ausblick.core.frames.clip_facts import ClipFacts
from ausblick.core.frames.clip_timing import ClipReading, breaches_of, level_on, noise_between, timing_of
from ausblick.core.frames.contact import Contact, contact_of
from ausblick.core.frames.find_screen import find_screen
from ausblick.core.frames.frame import Frame, luma_of
from ausblick.core.frames.reading import on_sample, read_frame
from ausblick.core.geometry.vectors import Floats, Floats32

from .images import MAX_PIXELS, MIN_SIDE, ImageError
from .yuv import Coding, frame_signal, luma_signal, plane_values, rgb_signal

SIGNATURES = (
    (4, b"ftyp"),
    (4, b"moov"),
    (4, b"wide"),
    (4, b"mdat"),
    (0, b"\x1a\x45\xdf\xa3"),
    (0, b"\x06\x0e\x2b\x34"),
)
MOST_FRAMES = 20_000
SMALL = 240


def is_clip(start: bytes) -> bool:
    """Do a file's first bytes look like one of the containers?"""
    return any(start[at : at + len(mark)] == mark for at, mark in SIGNATURES)


Progress = Callable[[float], None]


@dataclass(frozen=True)
class Clip:
    """What was read of a clip: facts, reading, and the pixels of its middle and of its worst frame."""

    facts: ClipFacts
    reading: ClipReading
    middle: Frame
    worst: Frame


def read_clip(path: Path, trace: str = "luma", progress: Progress = lambda _: None) -> tuple[ClipFacts, ClipReading]:
    """Facts and reading. Raises ImageError for what can't be decoded, and what `progress` raises."""
    clip = open_clip(path, trace, progress)
    return clip.facts, clip.reading


def open_clip(path: Path, trace: str = "luma", progress: Progress = lambda _: None, turns: int = 0) -> Clip:
    """The same with pictures. `progress` is told the share done; raising from it cancels. Raises ImageError.

    `turns`: quarter turns of the camera; a picture that its file leaves lying is set upright by them.
    """
    try:
        with av.open(str(path), "r") as container:
            facts = replace(_facts(container, path), turns=turns)
            reading, middle, worst = _reading(container, facts, trace, progress)
    except (av.FFmpegError, IndexError, OSError) as err:
        raise ImageError(f"the clip can't be decoded: {_words(err)}") from None
    return Clip(facts, reading, middle, worst)


def clip_pictures(path: Path, turns: int = 0) -> Iterator[Floats32]:
    """Every frame of a clip, small and upright: signal (h, w, 3). Raises ImageError."""
    try:
        with av.open(str(path), "r") as container:
            facts = replace(_facts(container, path), turns=turns)
            container.streams.video[0].thread_type = "AUTO"
            for frame in _frames(container):
                yield _small(frame, facts)
    except (av.FFmpegError, IndexError, OSError) as err:
        raise ImageError(f"the clip can't be decoded: {_words(err)}") from None


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
    if not name:
        raise ImageError("the clip can't be decoded: it ends before its first frame")
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


def _reading(container: Any, facts: ClipFacts, trace: str, progress: Progress) -> tuple[ClipReading, Frame, Frame]:
    """One pass: level, screen and contacts of every frame on a small picture; the middle and the worst frame kept."""
    stream = container.streams.video[0]
    stream.thread_type = "AUTO"
    total = int(stream.frames or 0) or round(float(container.duration or 0) / av.time_base * facts.fps) or 1
    watch = _Watch(facts, max(1, total // 2))
    for index, frame in enumerate(_frames(container)):
        watch.see(index, frame)
        if index % 25 == 0:
            progress(min(1.0, index / total))
    if watch.middle is None or watch.worst is None:
        raise ImageError("the clip has no frame that can be decoded")
    values: Floats = np.array(watch.levels)
    reading = ClipReading(
        frame=read_frame(watch.middle, trace),
        frames=index + 1,
        timing=timing_of(values, facts.fps),
        temporal_noise_percent=float(np.median(watch.noises)) if watch.noises else None,
        worst=watch.worst_index,
        breaches=breaches_of(watch.touching, 1.0 / facts.fps),
        bands=bands_of(np.array(watch.blocks), facts.fps),
    )
    return reading, watch.middle, watch.worst


class _Watch:
    """What is remembered from frame to frame: numbers only, and two frames."""

    def __init__(self, facts: ClipFacts, middle_at: int) -> None:
        self.levels: list[float] = []
        self.noises: list[float] = []
        self.touching: list[tuple[float, tuple[str, ...]]] = []
        self.blocks: list[Floats32] = []
        self.middle: Frame | None = None
        self.worst: Frame | None = None
        self.worst_index, self._worst_by = 0, -1.0
        self._facts, self._middle_at = facts, middle_at
        self._before: Floats32 | None = None
        self._mask: np.ndarray[Any, np.dtype[np.bool_]] | None = None

    def see(self, index: int, frame: Any) -> None:
        facts = self._facts
        if self.middle is None or index == self._middle_at:
            self.middle = frame_of(frame, facts)
        small = _small(frame, facts)
        found = find_screen(small)
        sides = _sides(contact_of(found)) if found is not None else ()
        self.touching.append((index / facts.fps, sides))
        if self._mask is None and found is not None:
            self._mask = found.core
        if len(self.blocks) < MOST_BANDED:
            # The sensor's rows are those of the picture as it was recorded.
            lying = _turns(frame, facts)
            screen = np.zeros(small.shape[:2], bool) if found is None else found.core
            self.blocks.append(block_means(np.rot90(luma_of(small), -lying), np.rot90(screen, -lying)))
        self._time(index, frame, small)

    def _time(self, index: int, frame: Any, small: Floats32) -> None:
        """Level and noise on the places that were screen in the first frame that had one."""
        if self._mask is None or self._mask.shape != small.shape[:2]:
            if self.worst is None:
                self.worst = self.middle
            return
        level = level_on(luma_of(small).astype(np.float64), self._mask)
        self.levels.append(level)
        fine = _fine_luma(frame, self._facts)
        if self._before is not None and len(self.noises) < 40 and self._before.shape == fine.shape:
            inside = on_sample(self._mask, np.repeat(fine[..., None], 3, axis=-1))
            self.noises.append(noise_between(self._before, fine, inside))
        self._before = fine if len(self.noises) < 40 else None
        off = abs(level - float(np.mean(self.levels)))
        # Decoding a whole frame costs; a new worst one must be clearly worse.
        if off > self._worst_by + 0.3 or self.worst is None:
            self.worst, self.worst_index, self._worst_by = frame_of(frame, self._facts), index, off


def _frames(container: Any) -> Iterator[Any]:
    for index, frame in enumerate(container.decode(video=0)):
        if index >= MOST_FRAMES:
            return
        yield frame


def _sides(contact: Contact) -> tuple[str, ...]:
    return tuple(sorted({*contact.frame_sides, *contact.screen_sides})) if contact.matters else ()


def _small(frame: Any, facts: ClipFacts) -> Floats32:
    """The upright frame as signal (h, w, 3), SMALL wide, area-averaged: enough for level, screen and contacts."""
    return np.ascontiguousarray(_upright(_lying(frame, facts), frame, facts))


def _lying(frame: Any, facts: ClipFacts) -> Floats32:
    height = max(2, round(SMALL * facts.height / facts.width))
    size = (min(SMALL, facts.width), min(height, facts.height))
    if not facts.pix_fmt.startswith("yuv"):
        return np.asarray(cv2.resize(frame.to_ndarray(format="rgb24"), size, interpolation=cv2.INTER_AREA) / 255.0)
    planes = [cv2.resize(plane_values(p, facts.bits), size, interpolation=cv2.INTER_AREA) for p in frame.planes[:3]]
    y, cb, cr = (np.asarray(plane, dtype=np.float32) for plane in planes)
    coding = _coding(facts)
    return rgb_signal(luma_signal(y, coding), cb, cr, coding)


def _coding(facts: ClipFacts) -> Coding:
    return Coding(facts.bits, facts.matrix, facts.full_range, high=facts.pix_fmt.startswith("p010"))


def _fine_luma(frame: Any, facts: ClipFacts) -> Floats32:
    """Luma 0..1 of every n-th place, about 160 wide: single pixels, for their noise."""
    if not facts.pix_fmt.startswith("yuv"):
        grey = frame.to_ndarray(format="gray")
        step = max(1, grey.shape[1] // 160)
        return np.asarray(_upright(grey[::step, ::step], frame, facts), dtype=np.float32) / np.float32(255.0)
    plane = plane_values(frame.planes[0], facts.bits)
    step = max(1, plane.shape[1] // 160)
    return luma_signal(np.asarray(_upright(plane[::step, ::step], frame, facts), dtype=np.float32), _coding(facts))


def frame_of(frame: Any, facts: ClipFacts) -> Frame:
    """A decoded frame as signal, upright as its rotation flag says."""
    found = _frame_of(frame, facts)
    return Frame(np.ascontiguousarray(_upright(found.pixels, frame, facts)), found.white)


def _upright(pixels: Any, frame: Any, facts: ClipFacts) -> Any:
    """Phones record lying pictures with a flag that says how to turn them (counterclockwise, quarter turns); other
    cameras on their side leave it to whoever knows how they were turned."""
    turns = _turns(frame, facts)
    return np.rot90(pixels, turns) if turns else pixels


def _turns(frame: Any, facts: ClipFacts) -> int:
    turns = round(float(frame.rotation or 0) / 90.0) % 4
    return turns if turns % 2 or facts.width <= facts.height else turns - facts.turns


def _frame_of(frame: Any, facts: ClipFacts) -> Frame:
    """From its native planes; formats without Y, Cb, Cr planes through FFmpeg's RGB."""
    if not facts.pix_fmt.startswith("yuv"):
        wide = frame.to_ndarray(format="rgb48le" if facts.bits > 8 else "rgb24")
        return Frame(wide, 65535.0 if facts.bits > 8 else 255.0)
    return Frame(frame_signal(frame, _coding(facts)), 1.0)
