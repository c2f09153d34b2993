"""A picture comes in: read, measured, keyed, and only then kept."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import cv2
import numpy as np

from ausblick.core.key.keyer import plain_key
from ausblick.core.measure.frame import Frame
from ausblick.core.measure.reading import frame_scopes, read_frame
from ausblick.core.report import frame_report, key_report
from ausblick.formats.images import jpeg_bytes, png_bytes, read_image
from ausblick.store.frames import Frames, StoredFrame

from .present import deviation_data, scopes_data

LOOK, MATTE = 1600, 1280


def import_frame(frames: Frames, setup_id: int, name: str, path: Path, trace: str) -> StoredFrame:
    """Keep a picture with its reading, scopes, key and matte. Raises ImageError; nothing is kept then."""
    frame = read_image(path)
    reading = read_frame(frame, trace)
    look = scaled(frame, LOOK)
    files = {"look.jpg": jpeg_bytes(look.pixels)}
    key = None
    if reading.found is not None:
        result = plain_key(look, reading)
        key = key_report(result)
        size = min(1.0, MATTE / max(result.matte.shape))
        matte = cv2.resize(result.matte, None, fx=size, fy=size, interpolation=cv2.INTER_AREA)
        files["matte.png"] = png_bytes(np.round(matte * 255.0).astype(np.uint8))
    data: dict[str, Any] = {
        "reading": frame_report(reading),
        "key": key,
        "scopes": scopes_data(frame_scopes(frame, reading)),
        "deviation": deviation_data(reading),
    }
    return frames.add(setup_id, name, path, data, files)


def scaled(frame: Frame, longest: int) -> Frame:
    """The frame, area-averaged to at most `longest` a side, 8 bit: for looking at."""
    reduced = frame.reduced(longest)
    return Frame(np.clip(np.round(reduced * 255.0), 0, 255).astype(np.uint8), 255.0)
