"""Camera clips: MP4, MOV, MKV, MXF, AVI, MTS through FFmpeg, frames converted from their own planes.

Matrix, range, primaries and transfer are the stream's own. Untagged: BT.601 up to 576 lines, else BT.709; limited
range; Rec.709 primaries and curve. Other primaries and curves are led to the plan's, as stills are.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import av
import numpy as np

from ausblick.core.frames.apart import screen_alone
from ausblick.core.frames.bands import MOST_FRAMES as MOST_BANDED
from ausblick.core.frames.bands import bands_of, block_means
from ausblick.core.frames.clip_facts import ClipFacts
from ausblick.core.frames.clip_timing import ClipReading, breaches_of, change_on, noise_between, timing_of
from ausblick.core.frames.contact import Contact, contact_of
from ausblick.core.frames.file_colour import FileColour
from ausblick.core.frames.find_screen import FoundScreen, find_screen, screen_of
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import on_sample, read_frame
from ausblick.core.frames.within_screen import LookedAt, looked_at, still_clear
from ausblick.core.geometry.vectors import Bools, Floats, Floats32
from ausblick.core.plan import Camera

from .ahead import ahead
from .clip_frames import LOOK_S, SmallPicture, Way
from .clip_header import RANGE_TAG, clip_facts, picture_track
from .image_limits import ImageError
from .one_thread import on_one_thread
from .picture_kinds import BRANDS

__all__ = ["RANGE_TAG"]

SIGNATURES = (
    (4, b"moov"),
    (4, b"wide"),
    (4, b"mdat"),
    (0, b"\x1a\x45\xdf\xa3"),
    (0, b"\x06\x0e\x2b\x34"),
)
PACKETS = ((0, 188), (4, 192))
"""Where transport streams have their sync byte first, and how long a packet is."""
SYNC = 0x47
LOOKED_AT = 400
"""Bytes of a file's begin that `is_clip` looks at."""
MOST_FRAMES = 20_000
STILL_SEEN = 0.05
"""Of the screen's first places: where fewer are screen, all of them are read, whatever they have become."""
ROUGHLY = 3
"""One of so many rows tells whether a frame may be the worst."""
NOISES = 40
"""Pairs of frames that tell the noise."""


def is_clip(start: bytes) -> bool:
    """Do a file's first LOOKED_AT bytes look like one of the containers? Pictures that begin as clips do are none."""
    if start[4:8] == b"ftyp":
        return start[8:12] not in BRANDS
    if start[:4] == b"RIFF":
        return start[8:12] == b"AVI "
    if any(start[at : at + len(mark)] == mark for at, mark in SIGNATURES):
        return True
    return any(len(start) > at + long and start[at] == start[at + long] == SYNC for at, long in PACKETS)


Progress = Callable[[float], None]
Looked = tuple[FoundScreen | None, tuple[str, ...]]
"""The screen of a frame, and the sides that the subject touches."""


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


def open_clip(
    path: Path,
    trace: str = "luma",
    progress: Progress = lambda _: None,
    turns: int = 0,
    camera: Camera | None = None,
    said: FileColour | None = None,
) -> Clip:
    """The same with pictures. `progress` is told the share done; raising from it cancels. Raises ImageError.

    `turns`: quarter turns of the camera; a picture that its file leaves lying is set upright by them. `camera`: the
    plan's, by whose curve levels are told; Rec.709 without one. `said`: how a person says that it is written.
    """
    try:
        with av.open(str(path), "r") as container:
            facts = replace(clip_facts(container, path), turns=turns)
            facts = facts if said is None else replace(facts, colour=said)
            way = Way(facts, camera)
            watch = _watched(container, facts, way, progress)
            middle, worst = watch.pictures()
            reading = _reading(watch, middle, facts, trace)
            facts = replace(facts, interlaced=watch.interlaced)
    except (av.FFmpegError, IndexError, OSError) as err:
        raise ImageError(f"the clip can't be decoded: {_words(err)}") from None
    return Clip(facts, reading, middle, worst)


def clip_pictures(path: Path, turns: int = 0, said: FileColour | None = None) -> Iterator[Floats32]:
    """Every frame of a clip, small and upright: signal (h, w, 3); `said` as in `open_clip`. Raises ImageError."""
    try:
        with av.open(str(path), "r") as container:
            facts = replace(clip_facts(container, path), turns=turns)
            way = Way(facts if said is None else replace(facts, colour=said))
            for frame in _frames(container):
                yield way.small(frame)
    except (av.FFmpegError, IndexError, OSError) as err:
        raise ImageError(f"the clip can't be decoded: {_words(err)}") from None


def _words(err: Exception) -> str:
    return str(getattr(err, "strerror", "") or type(err).__name__).lower()


def _watched(container: Any, facts: ClipFacts, way: Way, progress: Progress) -> _Watch:
    """One pass over small pictures: the level of every frame, screen and contacts as often as a hand is quick; the
    middle and the worst frame kept."""
    total = facts.frames_said or round(float(container.duration or 0) / av.time_base * facts.fps) or 1
    watch = _Watch(facts, way, max(1, total // 2))
    with closing(ahead(_frames(container))) as frames, on_one_thread():
        for index, frame in enumerate(frames):
            watch.see(index, frame)
            if index % 25 == 0:
                progress(min(1.0, index / total))
        watch.finish()
    return watch


def _reading(watch: _Watch, middle: Frame, facts: ClipFacts, trace: str) -> ClipReading:
    values: Floats = np.array(watch.levels)
    return ClipReading(
        frame=read_frame(middle, trace),
        frames=watch.count,
        timing=timing_of(values, facts.fps),
        temporal_noise_percent=float(np.median(watch.noises)) if watch.noises else None,
        worst=watch.worst_index,
        breaches=breaches_of(watch.touching, 1.0 / facts.fps),
        bands=bands_of(np.array(watch.blocks), facts.fps),
    )


class _Watch:
    """What is remembered from frame to frame: numbers only, and two frames."""

    def __init__(self, facts: ClipFacts, way: Way, middle_at: int) -> None:
        self.levels: list[float] = []
        self.noises: list[float] = []
        self.touching: list[tuple[float, tuple[str, ...]]] = []
        self.blocks: list[Floats32] = []
        self.middle: Frame | None = None
        self.worst: Frame | None = None
        self.worst_index, self._worst_by = 0, -1.0
        self.count, self.interlaced = 0, False
        self._facts, self._way, self._middle_at = facts, way, middle_at
        self._every = max(1, int(LOOK_S * facts.fps))
        self._unseen: list[tuple[int, SmallPicture]] = []
        self._last: Looked | None = None
        self._before: Floats32 | None = None
        self._clear: LookedAt | None = None
        self._channel: int | None = None
        self._mask: Bools | None = None
        self._reference: Floats32 | None = None
        self._begun, self._sum = 0.0, 0.0

    def pictures(self) -> tuple[Frame, Frame]:
        """The middle and the worst frame. Raises ImageError where none was seen."""
        if self.middle is None:
            raise ImageError("the clip has no frame that can be decoded")
        return self.middle, self.worst or self.middle

    def see(self, index: int, frame: Any) -> None:
        self.count, self.interlaced = index + 1, self.interlaced or bool(frame.interlaced_frame)
        if self.middle is None or index == self._middle_at:
            self.middle = self._way.frame(frame)
        small = self._way.small_picture(frame)
        self._unseen.append((index, small))
        if index % self._every == 0:
            self.finish()
        self._time(index, frame, small)

    def finish(self) -> None:
        """Look at the last of the frames that nobody has looked at yet; where the subject touches what it did not
        touch before, at those between as well."""
        if not self._unseen:
            return
        *between, (at, last) = self._unseen
        before, now = self._last, self._looked_at(last)
        same = before is not None and before[1] == now[1]
        for index, small in between:
            seen = _in_both(before, now) if same else self._looked_at(small)
            self._remember(index, small, *seen)
        self._remember(at, last, *now)
        self._unseen, self._last = [], now

    def _looked_at(self, small: SmallPicture) -> Looked:
        signal = small.signal()
        clear = None if self._clear is None else still_clear(signal, self._clear)
        if clear is not None:
            return clear, ()
        found = self._screen(signal)
        sides = _sides(contact_of(found)) if found is not None else ()
        self._clear = looked_at(signal, found) if found is not None and not sides else None
        return found, sides

    def _remember(self, index: int, small: SmallPicture, found: FoundScreen | None, sides: tuple[str, ...]) -> None:
        self.touching.append((index / self._facts.fps, sides))
        if self._mask is None and found is not None:
            self._mask, self._reference = found.core, small.luma
            self._begun = 100.0 * float(small.luma[found.core].mean())
        level = self._level(small, found)
        if level is not None:
            self.levels.append(level)
            self._sum += level
        if len(self.blocks) < MOST_BANDED:
            # The sensor's rows are those of the picture as it was recorded.
            screen = np.zeros(small.luma.shape, bool) if found is None else found.core
            self.blocks.append(block_means(np.rot90(small.luma, -small.turns), np.rot90(screen, -small.turns)))

    def _screen(self, small: Floats32) -> FoundScreen | None:
        """Of the colour that it had before, where that is still there."""
        known = None if self._channel is None else screen_of(small, self._channel)
        found = find_screen(small) if known is None else known
        self._channel = self._channel if found is None else found.channel
        return None if found is None else screen_alone(found, small)[0]

    def _level(self, small: SmallPicture, found: FoundScreen | None, every: int = 1) -> float | None:
        """On the places that were screen in the first frame that had one and are so now: who walks before them, and
        which of them are seen, changes nothing. None before there was one. `every`: of so many rows one is read."""
        if self._mask is None or self._reference is None or self._mask.shape != small.luma.shape:
            return None
        common = self._mask if found is None else self._mask & found.core
        if np.count_nonzero(common) < STILL_SEEN * np.count_nonzero(self._mask):
            common = self._mask
        return self._begun + change_on(small.luma[::every], self._reference[::every], common[::every])

    def _time(self, index: int, frame: Any, small: SmallPicture) -> None:
        """Noise, and whether no frame was further from the usual level, by the screen that was last looked at."""
        level = self._level(small, None if self._last is None else self._last[0], ROUGHLY)
        if level is None or self._mask is None:
            if self.worst is None:
                self.worst = self.middle
            return
        if len(self.noises) < NOISES:
            fine = self._way.fine_luma(frame)
            if self._before is not None and self._before.shape == fine.shape:
                inside = on_sample(self._mask, np.repeat(fine[..., None], 3, axis=-1))
                self.noises.append(noise_between(self._before, fine, inside))
            self._before = fine
        off = abs(level - self._sum / len(self.levels))
        # Decoding a whole frame costs; a new worst one must be clearly worse.
        if off > self._worst_by + 0.3 or self.worst is None:
            self.worst, self.worst_index, self._worst_by = self._way.frame(frame), index, off


def _in_both(before: Looked | None, now: Looked) -> Looked:
    """Between two frames that touch the same: the screen is what is screen in both."""
    (first, sides), second = before or now, now[0]
    if first is None or second is None or first.core.shape != second.core.shape:
        return second, sides
    return replace(second, core=first.core & second.core), sides


def _frames(container: Any) -> Iterator[Any]:
    """Frames of the picture's track; of a clip that is cut short those before the cut."""
    stream = picture_track(container)
    stream.thread_type = "AUTO"
    found = 0
    try:
        for frame in container.decode(stream):
            yield frame
            found += 1
            if found >= MOST_FRAMES:
                return
    except av.FFmpegError:
        if not found:
            raise


def _sides(contact: Contact) -> tuple[str, ...]:
    return tuple(sorted({*contact.frame_sides, *contact.screen_sides})) if contact.matters else ()
