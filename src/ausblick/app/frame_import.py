"""A picture or a clip comes in: read, measured, keyed, and only then kept."""

from __future__ import annotations

import hashlib
from dataclasses import replace
from pathlib import Path
from typing import Any

import cv2
import numpy as np

from ausblick.core.camera.turned import side_turns, turns_to_upright, upright
from ausblick.core.frames.file_colour import FileColour
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.frame_report import ClipReport, FrameReport, clip_report, frame_report
from ausblick.core.frames.reading import FrameReading, Region, frame_scopes, read_frame
from ausblick.core.matte.key_report import key_report
from ausblick.core.matte.keyer import plain_key
from ausblick.core.plan import Plan
from ausblick.core.standards.plain import plain, unplain
from ausblick.formats.clips import LOOKED_AT, Progress, is_clip, open_clip
from ausblick.formats.images import jpeg_bytes, png_bytes, read_image
from ausblick.store.frames import Frames, StoredFrame

from .scope_data import deviation_data, scopes_data

LOOK, MATTE = 1600, 1280
MIDDLE = "middle.png"


def looks_like_clip(path: Path) -> bool:
    with path.open("rb") as file:
        return is_clip(file.read(LOOKED_AT))


def import_frame(frames: Frames, setup_id: int, name: str, path: Path, plan: Plan) -> StoredFrame:
    """Keep a picture with its reading, scopes, key and matte; one that lies although the plan's camera is turned on
    its side is set upright. Raises ImageError; nothing is kept then."""
    frame = read_image(path)
    turned = turns_to_upright(plan.camera, frame.width, frame.height)
    frame = _turned(frame, turned)
    data, files = _of_frame(frame, read_frame(frame, plan.targets.level_trace, (), plan.screen.hue))
    return frames.add(setup_id, name, path, {**data, "turned": turned}, _present(files))


def import_clip(
    frames: Frames, setup_id: int, name: str, path: Path, plan: Plan, progress: Progress = lambda _: None
) -> StoredFrame:
    """Keep a clip with its reading over time and its middle frame, upright as a still is. Raises ImageError, and what
    `progress` raises."""
    data, files = _of_clip(path, plan, progress, None)
    return frames.add(setup_id, name, path, data, _present(files))


def _of_clip(
    path: Path, plan: Plan, progress: Progress, said: FileColour | None
) -> tuple[dict[str, Any], dict[str, bytes | None]]:
    clip = open_clip(path, plan.targets.level_trace, progress, side_turns(plan.camera), plan.camera, said)
    data, files = _of_frame(clip.middle, clip.reading.frame)
    still, told = clip_report(clip.facts, clip.reading)
    data |= {"reading": plain(still), "clip": plain(told)}
    files[MIDDLE] = png_bytes(_deep(clip.middle))
    return data, files


def picture_of(frames: Frames, frame: StoredFrame) -> Frame:
    """The pixels that were read: of a clip its middle frame."""
    if frame.data.get("clip"):
        return read_image(frames.file(frame.id, MIDDLE))
    return _turned(read_image(frames.file(frame.id), said_of(frame)), int(frame.data.get("turned", 0)))


def said_of(frame: StoredFrame) -> FileColour | None:
    """How a person said that the file is written; None: as it says itself."""
    said = frame.data.get("said")
    return FileColour.said(said["primaries"], said["transfer"]) if said else None


def read_as(
    frames: Frames, stored: StoredFrame, plan: Plan, said: FileColour | None, progress: Progress = lambda _: None
) -> StoredFrame:
    """The same file read as written otherwise; None takes that back. A region that was drawn is let go of.

    Raises ImageError, and what `progress`, which a clip tells how far it is, raises: the frame stays as it was."""
    file, turned = frames.file(stored.id), int(stored.data.get("turned", 0))
    if stored.data.get("clip"):
        data, files = _of_clip(file, plan, progress, said)
    else:
        frame = _turned(read_image(file, said), turned)
        reading = read_frame(frame, plan.targets.level_trace, (), plan.screen.hue)
        data, files = _of_frame(frame, reading)
    kept = {"turned": turned} if "turned" in stored.data else {}
    told = {"said": {"primaries": said.primaries, "transfer": said.transfer}} if said else {}
    return frames.update(stored.id, {**data, **kept, **told}, files)


def _turned(frame: Frame, turns: int) -> Frame:
    return replace(frame, pixels=upright(frame.pixels, turns))


def report_of(frame: StoredFrame) -> FrameReport:
    """What was read when it came in."""
    return unplain(FrameReport, frame.data["reading"])


def clip_of(frame: StoredFrame) -> ClipReport | None:
    """What only time shows; None for a still."""
    return unplain(ClipReport, frame.data["clip"]) if frame.data.get("clip") else None


def region_of(frame: StoredFrame) -> Region:
    """Where a person said that the screen is; empty without a correction."""
    return [(float(u), float(v)) for u, v in frame.data.get("region", [])]


def read_again(frames: Frames, stored: StoredFrame, region: Region, trace: str) -> StoredFrame:
    """The same picture read inside a region that a person drew; an empty one takes the correction back."""
    frame = picture_of(frames, stored)
    data, files = _of_frame(frame, read_frame(frame, trace, region))
    kept: dict[str, Any] = {key: stored.data[key] for key in ("clip", "turned", "said") if key in stored.data}
    return frames.update(stored.id, {**data, **kept, "region": [list(c) for c in region]}, files)


def read_from(frames: Frames, stored: StoredFrame) -> str:
    """What a frame's reading was made from, as one line: its pixels, and what a person said of them."""
    file = frames.file(stored.id, MIDDLE) if stored.data.get("clip") else frames.file(stored.id)
    said = {name: stored.data.get(name) for name in ("clip", "region", "said", "turned")}
    with file.open("rb") as pixels:
        return f"{hashlib.file_digest(pixels, 'sha256').hexdigest()} {said}"


def _of_frame(frame: Frame, reading: FrameReading) -> tuple[dict[str, Any], dict[str, bytes | None]]:
    look = scaled(frame, LOOK)
    files: dict[str, bytes | None] = {"look.jpg": jpeg_bytes(look.pixels), "matte.png": None}
    key = None
    if reading.found is not None:
        result = plain_key(look, reading)
        key = plain(key_report(result))
        size = min(1.0, MATTE / max(result.matte.shape))
        matte = cv2.resize(result.matte, None, fx=size, fy=size, interpolation=cv2.INTER_AREA)
        files["matte.png"] = png_bytes(np.round(matte * 255.0).astype(np.uint8))
    data: dict[str, Any] = {
        "reading": plain(frame_report(reading, colour=frame.colour)),
        "key": key,
        "scopes": scopes_data(frame_scopes(frame, reading)),
        "deviation": deviation_data(reading),
    }
    return data, files


def _present(files: dict[str, bytes | None]) -> dict[str, bytes]:
    return {kind: content for kind, content in files.items() if content is not None}


def _deep(frame: Frame) -> np.ndarray[Any, Any]:
    """16 bit RGB, for PNG."""
    return np.round(65535.0 * np.clip(frame.signal(frame.pixels), 0.0, 1.0)).astype(np.uint16)


def scaled(frame: Frame, longest: int) -> Frame:
    """The frame, area-averaged to at most `longest` a side, 8 bit: for looking at."""
    reduced = frame.reduced(longest)
    return Frame(np.clip(np.round(reduced * 255.0), 0, 255).astype(np.uint8), 255.0)
