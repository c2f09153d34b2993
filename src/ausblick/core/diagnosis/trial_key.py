"""The trial key of a real frame: the keyer of the simulation, residue and holes located, over any ground."""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..frames.frame import Frame, linear_of
from ..frames.reading import FrameReading
from ..geometry.vectors import Bools, Floats32
from ..matte.key_report import KeyReport
from ..matte.keyer import AWAY, BLACK, WHITE
from ..matte.pull import Pulled, despilled, pull

LEAST_BOX = 0.0004
"""Share of the frame below which a patch of residue or a hole is not worth a box."""
MOST_BOXES = 8


@dataclass(frozen=True)
class Box:
    """Upper left corner and size in parts of the frame; `percent`: its share of the frame."""

    x: float
    y: float
    w: float
    h: float
    percent: float


@dataclass(frozen=True, eq=False)
class TrialKey:
    """`linear` (H, W, 3) light; residue and holes in % of screen and of the solid figure, and where they are."""

    linear: Floats32
    pulled: Pulled
    channel: int
    residue_percent: float
    holes_percent: float | None
    residue: tuple[Box, ...]
    holes: tuple[Box, ...]

    def over(self, ground: Floats32, despill: bool = True) -> Floats32:
        """Linear light (H, W, 3) of the figure over a ground (H, W, 3) or (3,)."""
        m = self.pulled.matte[..., None]
        figure = np.maximum(self.linear - (1.0 - m) * self.pulled.screen, 0.0)
        if despill:
            figure = despilled(figure, self.channel)
        return np.asarray(figure + (1.0 - m) * ground, dtype=np.float32)


def trial_key(frame: Frame, reading: FrameReading, clean: Frame | None = None) -> TrialKey | None:
    """None where no screen was found. `clean`: the same view without anybody; another size is refused.

    Raises ValueError.
    """
    if reading.found is None:
        return None
    linear = linear_of(frame.signal(frame.pixels))
    empty = None
    if clean is not None:
        if (clean.width, clean.height) != (frame.width, frame.height):
            raise ValueError(
                f"the clean plate is {clean.width} x {clean.height} px, the frame {frame.width} x {frame.height}"
            )
        smooth = cv2.GaussianBlur(clean.signal(clean.pixels), (0, 0), 1.5)
        empty = linear_of(np.asarray(smooth, dtype=np.float32))
    channel, size = reading.found.channel, (frame.width, frame.height)
    core, solid = _sized(reading.found.core, size), _solid(reading, size)
    picked = np.median(linear[core], axis=0)
    away = min(AWAY * frame.height, 0.12 * frame.height)
    pulled = pull(linear, channel, picked.astype(np.float64), away, clean=empty, figure=solid & ~core)
    if pulled is None:
        return None
    residue, holes = core & (pulled.matte > BLACK), solid & (pulled.matte < WHITE)
    return TrialKey(
        linear=linear,
        pulled=pulled,
        channel=channel,
        residue_percent=100.0 * float(residue.sum()) / max(1, int(core.sum())),
        holes_percent=100.0 * float(holes.sum()) / float(solid.sum()) if solid.any() else None,
        residue=_boxes(residue),
        holes=_boxes(holes),
    )


def _sized(mask: Bools, size: tuple[int, int]) -> Bools:
    return np.asarray(cv2.resize(mask.astype(np.uint8), size, interpolation=cv2.INTER_NEAREST) > 0)


def _solid(reading: FrameReading, size: tuple[int, int]) -> Bools:
    """The inside of the figure without its soft edge."""
    if reading.contact is None:
        return np.zeros((size[1], size[0]), dtype=bool)
    figure = reading.contact.figure.astype(np.uint8)
    rim = max(1, round(0.02 * figure.shape[0]))
    inner = cv2.distanceTransform(np.pad(figure, 1), cv2.DIST_L2, 3)[1:-1, 1:-1] > rim
    return _sized(inner, size)


def _boxes(mask: Bools) -> tuple[Box, ...]:
    height, width = mask.shape
    joined = cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_CLOSE, np.ones((5, 5), np.uint8))
    count, _, stats, _ = cv2.connectedComponentsWithStats(joined, connectivity=8)
    found = [
        Box(x / width, y / height, w / width, h / height, 100.0 * area / mask.size)
        for x, y, w, h, area in (stats[k] for k in range(1, count))
        if area >= LEAST_BOX * mask.size
    ]
    return tuple(sorted(found, key=lambda box: -box.percent)[:MOST_BOXES])


def trial_report(plain_key: KeyReport, trial: TrialKey) -> KeyReport:
    """The plain key's report with the figures of the key against a clean plate."""
    return replace(
        plain_key,
        residue_percent=trial.residue_percent,
        holes_percent=trial.holes_percent,
        black_clip=trial.pulled.black_clip,
        white_clip=trial.pulled.white_clip,
        needed_clip=trial.pulled.needed_clip,
    )
