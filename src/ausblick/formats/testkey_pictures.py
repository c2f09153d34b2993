"""The pictures of a test key as PNG: frame, matte, over dark and bright ground, crops."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np

from ausblick.core.arrays import Bytes, Floats, Floats32
from ausblick.core.signal.curves import rec709
from ausblick.core.testkey.pull import over
from ausblick.core.testkey.quality import BRIGHT, DARK
from ausblick.core.testkey.run import Shot, SimulatedKey


def shown(linear: Floats | Floats32) -> Bytes:
    """Linear light as an 8 bit Rec.709 picture, RGB."""
    return np.asarray(
        np.round(255.0 * rec709(np.clip(np.asarray(linear, dtype=np.float64), 0.0, 1.0))), dtype=np.uint8
    )


def grey(matte: Floats | Floats32) -> Bytes:
    values = np.round(255.0 * np.clip(np.asarray(matte, dtype=np.float64), 0.0, 1.0)).astype(np.uint8)
    return np.asarray(np.repeat(values[..., None], 3, axis=-1))


def views(shot: Shot, channel: int) -> dict[str, Bytes]:
    """The views of one window by name: frame, clean, truth, matte, dark, bright, difference."""
    found = {"frame": shown(shot.linear), "clean": shown(shot.drawn.frame), "truth": grey(shot.drawn.alpha)}
    if shot.pulled is None:
        return found
    h, w = shot.pulled.matte.shape
    found["matte"] = grey(shot.pulled.matte)
    found["difference"] = grey(np.abs(shot.pulled.matte - shot.drawn.alpha[:h, :w]))
    for name, level in (("dark", DARK), ("bright", BRIGHT)):
        found[name] = shown(over(shot.linear, shot.pulled, channel, np.full(3, level, dtype=np.float32)))
    return found


def write_pictures(key: SimulatedKey, folder: Path) -> list[Path]:
    """overview-*.png and a set for every crop; the paths in the order in which they were written."""
    written = []
    for part, shot in {"overview": key.overview, **key.crops}.items():
        for name, picture in views(shot, key.capture.key).items():
            path = folder / f"{part}-{name}.png"
            done, data = cv2.imencode(".png", picture[..., ::-1])
            if not done:
                raise OSError(5, "could not be encoded")
            path.write_bytes(data.tobytes())
            written.append(path)
    return written
