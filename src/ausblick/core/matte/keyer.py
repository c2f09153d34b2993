"""The plain key: colour difference in linear light.

    d = K - (A + B)/2          K the key channel, A and B the other two
    raw = 1 - d / d_screen     0 on the screen, 1 on the subject

One keyer serves simulated and real frames.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..damage.formula import colour_difference
from ..frames.contact import Contact
from ..frames.find_screen import FoundScreen
from ..frames.frame import Frame, linear_of
from ..frames.reading import FrameReading, on_sample
from ..geometry.vectors import Bools, Floats32

AWAY = 0.07
"""The sample keeps this share of the frame's height away from the subject: hair inflates the clip."""
PATCH = 0.05
BLACK, WHITE = 0.02, 0.95
"""Matte above BLACK on the screen is residue, below WHITE inside the figure a hole."""
LEAST_WHITE_CLIP = 0.04


@dataclass(frozen=True)
class Sample:
    """The screen's colour as picked: mean signal in %, and its place in parts of the frame."""

    rgb: tuple[float, float, float]
    x: float
    y: float


@dataclass(frozen=True)
class Key:
    """`matte` (H, W) 0..1. `black_clip` (the 99.5th percentile) and `white_clip`
    (three sigma of noise) were taken round the sample, `needed_clip` would hold the whole screen.

    `residue_percent`: screen that is not black; `holes_percent`: solid figure that is not white, None
    where there is no figure.
    """

    matte: Floats32
    sample: Sample
    black_clip: float
    white_clip: float
    needed_clip: float
    residue_percent: float
    holes_percent: float | None


def raw_matte(signal: Floats32, channel: int, screen_difference: float) -> Floats32:
    """1 - d / d_screen (...) of an RGB signal (..., 3), unclipped."""
    return np.asarray(1.0 - colour_difference(linear_of(signal), channel) / np.float32(screen_difference))


def plain_key(frame: Frame, reading: FrameReading) -> Key:
    """The one-click key: one sample, one clip, nothing else. Raises ValueError without a screen."""
    found, contact = reading.found, reading.contact
    if found is None or contact is None:
        raise ValueError("no green or blue screen was found in this frame")
    centre = sample_place(found, contact)
    patch = _patch(frame, centre)
    mean = patch.reshape(-1, 3).mean(axis=0)
    screen_difference = max(1e-6, float(colour_difference(linear_of(mean), found.channel)))
    around = raw_matte(patch, found.channel, screen_difference)
    black = float(np.clip(np.percentile(around, 99.5), 0.0, 0.6))
    white = 1.0 - max(LEAST_WHITE_CLIP, min(0.3, 3.0 * float(np.std(around))))
    matte = np.empty((frame.height, frame.width), dtype=np.float32)
    for top in range(0, frame.height, 256):
        rows = frame.signal(frame.pixels[top : top + 256])
        raw = raw_matte(rows, found.channel, screen_difference)
        matte[top : top + 256] = _clipped(raw, black, white)
    small, _ = frame.sampled(600_000)
    raw_small = raw_matte(small, found.channel, screen_difference)
    clipped = _clipped(raw_small, black, white)
    screen = on_sample(found.core, small)
    return Key(
        matte=matte,
        sample=Sample(tuple(float(100.0 * v) for v in mean), *centre),  # type: ignore[arg-type]
        black_clip=black,
        white_clip=white,
        needed_clip=float(np.percentile(raw_small[screen], 99.5)),
        residue_percent=100.0 * float((clipped[screen] > BLACK).mean()),
        holes_percent=_holes(clipped, on_sample(_solid(contact), small)),
    )


def _clipped(raw: Floats32, black: float, white: float) -> Floats32:
    return np.asarray(np.clip((raw - black) / max(0.05, white - black), 0.0, 1.0))


def sample_place(found: FoundScreen, contact: Contact) -> tuple[float, float]:
    """Where to pick, in parts of the frame: beside the head, else the middle of the screen."""
    height, width = found.core.shape
    room = _distance(found.core)
    if contact.figure.any():
        from_figure = cv2.distanceTransform((~contact.figure).astype(np.uint8), cv2.DIST_L2, 3)
        head = int(np.nonzero(contact.figure)[0].min()) + 0.12 * height
        near_head = np.abs(np.arange(height) - head)[:, None] < 0.08 * height
        wanted = (from_figure > AWAY * height) & near_head & (room > 0.5 * PATCH * height)
        if wanted.any():
            cost = np.where(wanted, from_figure, np.inf)
            row, column = np.unravel_index(int(np.argmin(cost)), cost.shape)
            return (float(column) + 0.5) / width, (float(row) + 0.5) / height
    row, column = np.unravel_index(int(np.argmax(room)), room.shape)
    return (float(column) + 0.5) / width, (float(row) + 0.5) / height


def _distance(mask: Bools) -> Floats32:
    padded = np.pad(mask.astype(np.uint8), 1)
    return np.asarray(cv2.distanceTransform(padded, cv2.DIST_L2, 3)[1:-1, 1:-1], dtype=np.float32)


def _patch(frame: Frame, centre: tuple[float, float]) -> Floats32:
    half = max(2, round(0.5 * PATCH * frame.height))
    x, y = round(centre[0] * frame.width), round(centre[1] * frame.height)
    return frame.signal(frame.pixels[max(0, y - half) : y + half, max(0, x - half) : x + half])


def _solid(contact: Contact) -> Bools:
    """The inside of the figure, its soft edge left out."""
    rim = max(1, round(0.02 * contact.figure.shape[0]))
    return np.asarray(_distance(contact.figure) > rim)


def _holes(matte: Floats32, solid: Bools) -> float | None:
    return 100.0 * float((matte[solid] < WHITE).mean()) if solid.any() else None
