"""The pictures of a test key: frame, mattes, over grounds and the plate, deviation of the screen's level."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np

from ausblick.core.camera.turned import side_turns, upright
from ausblick.core.colour.curves import rec709
from ausblick.core.frames.frame import Frame
from ausblick.core.geometry.vectors import Bytes, Floats, Floats32
from ausblick.core.matte.ground import plate_ground
from ausblick.core.matte.pull import over
from ausblick.core.matte.quality import BRIGHT, DARK
from ausblick.core.matte.simulation import SimulatedKey
from ausblick.core.matte.window_shot import Shot

from .images import png_bytes


def shown(linear: Floats | Floats32) -> Bytes:
    """Linear light as an 8 bit Rec.709 picture, RGB."""
    return np.asarray(
        np.round(255.0 * rec709(np.clip(np.asarray(linear, dtype=np.float64), 0.0, 1.0))), dtype=np.uint8
    )


def grey(matte: Floats | Floats32) -> Bytes:
    values = np.round(255.0 * np.clip(np.asarray(matte, dtype=np.float64), 0.0, 1.0)).astype(np.uint8)
    return np.asarray(np.repeat(values[..., None], 3, axis=-1))


BELOW, NEUTRAL, ABOVE = (np.array(c, dtype=np.float32) for c in ((62, 44, 148), (128, 128, 128), (255, 196, 90)))
REACH = 10.0
"""Points of signal at which the deviation's colours end: violet below the screen's median, amber above."""


def deviation(shot: Shot, channel: int) -> Bytes:
    """Key channel of the recorded screen against its median; what is no screen stays dark."""
    assert shot.pulled is not None
    level = cv2.GaussianBlur(100.0 * rec709(shot.linear[..., channel].astype(np.float64)), (0, 0), 3.0)
    sure = (shot.pulled.matte < 0.05) & (shot.drawn.screen[: level.shape[0], : level.shape[1]] > 0.5)
    off = (level - float(np.median(level[sure]))) / REACH if sure.any() else np.zeros_like(level)
    t = np.clip(off, -1.0, 1.0)[..., None].astype(np.float32)
    colour = NEUTRAL + np.maximum(t, 0.0) * (ABOVE - NEUTRAL) + np.maximum(-t, 0.0) * (BELOW - NEUTRAL)
    return np.asarray(np.where(sure[..., None], colour, 24.0), dtype=np.uint8)


def views(shot: Shot, channel: int, ground: Floats32 | None = None) -> dict[str, Bytes]:
    """The views of one window by name: frame, clean, truth, matte, dark, bright, difference, deviation; second where
    the other keyer was asked, plate where a ground (H, W, 3) or (3,) of linear light is given."""
    found = {"frame": shown(shot.linear), "clean": shown(shot.drawn.frame), "truth": grey(shot.drawn.alpha)}
    if shot.pulled is None:
        return found
    h, w = shot.pulled.matte.shape
    found["matte"] = grey(shot.pulled.matte)
    found["deviation"] = deviation(shot, channel)
    if shot.second is not None:
        found["second"] = grey(shot.second.matte)
    if ground is not None:
        cut = ground[:h, :w] if ground.ndim == 3 else ground
        found["plate"] = shown(over(shot.linear, shot.pulled, channel, cut))
    found["difference"] = grey(np.abs(shot.pulled.matte - shot.drawn.alpha[:h, :w]))
    for name, level in (("dark", DARK), ("bright", BRIGHT)):
        found[name] = shown(over(shot.linear, shot.pulled, channel, np.full(3, level, dtype=np.float32)))
    return found


def all_views(key: SimulatedKey, plate: Frame | None = None) -> dict[str, dict[str, Bytes]]:
    """Upright views of every window: whole, and a set for every crop."""
    plan = key.capture.plan
    turns = side_turns(plan.camera)
    return {
        part: {
            name: upright(picture, turns)
            for name, picture in views(shot, key.capture.key, plate_ground(plan, plate, shot.window)).items()
        }
        for part, shot in {"whole": key.overview, **key.crops}.items()
    }


def write_pictures(key: SimulatedKey, folder: Path, plate: Frame | None = None) -> list[Path]:
    """overview-*.png and a set for every crop; the paths in the order in which they were written."""
    written = []
    for part, pictures in all_views(key, plate).items():
        for name, picture in pictures.items():
            path = folder / f"{'overview' if part == 'whole' else part}-{name}.png"
            path.write_bytes(png_bytes(picture))
            written.append(path)
    return written
