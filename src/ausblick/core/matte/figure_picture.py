"""The figure as the camera sees it: its body, lit and painted, as layers that are laid over what is behind."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np

from ..figure.body_ink import CLOTHED, ink_of
from ..figure.solid_body import PARTS
from ..geometry.vectors import Floats32
from ..light.basis import Shelf
from ..plan import Subject
from .capture import Capture
from .pixel_window import PixelWindow
from .traced import Traced, traced

GRAIN = 0.03
"""Unrest of cloth and skin from sample to sample, as a share (ours)."""
SMEAR_WAY = (0.78, -0.62)
"""Direction of the hand's movement in the picture: outward and up."""


@dataclass(frozen=True, eq=False)
class BodyLayer:
    """Premultiplied linear light (H, W, 3) and cover (H, W) of a part of the figure, and how much of the pixel its
    first garment covers (H, W)."""

    colour: Floats32
    cover: Floats32
    garment: Floats32


def body_layer(capture: Capture, subject: Subject, window: PixelWindow, moving: bool) -> BodyLayer | None:
    """The part that moves, smeared by its movement, or the rest; None where it is not in the window."""
    if capture.body is None:
        return None
    found = traced(capture.body.body, moving, capture.view, capture.plan.camera.sensor, window)
    if found is None:
        return None
    inked = _inked(capture.seed, subject, capture.body.body.shape.own, found)
    light = found.at(capture.body.both)
    seen = inked.reflectance * light[:, :3] + inked.gloss[:, None] * light[:, 3:]
    # Colour, cover and garment, each times the cover.
    whole = np.zeros((window.height, window.width, 5), dtype=np.float32)
    part = whole[found.box]
    part[..., :3] = found.averaged(seen)
    part[..., 3], part[..., 4] = 1.0, inked.garment
    part *= found.cover[..., None]
    if moving:
        whole = smeared(whole, round(capture.smear_px / window.scale, 3))
    whole = np.clip(whole, 0.0, None)
    cover = np.minimum(whole[..., 3], 1.0)
    return BodyLayer(whole[..., :3], cover, np.minimum(whole[..., 4], cover))


@dataclass(frozen=True, eq=False)
class _Inked:
    """Of the samples of a window: what they reflect (N, 3), its unrest in it, and what they mirror (N,); how much of
    each pixel's share of the figure the first garment is (h, w)."""

    reflectance: Floats32
    gloss: Floats32
    garment: Floats32


_KEPT: Shelf[_Inked] = Shelf(8)


def _inked(seed: int, subject: Subject, own: Floats32, found: Traced) -> _Inked:
    look = (subject.skin, subject.hair, subject.hair_kind, subject.wardrobe[:1])

    def make() -> _Inked:
        ink = ink_of(subject, found.part, found.at(own))
        grain = 1.0 + GRAIN * np.random.default_rng(seed + 5).standard_normal(len(found.part), dtype=np.float32)
        clothed = np.array([name in CLOTHED for name in PARTS], dtype=np.float32)[found.part]
        return _Inked(ink.reflectance * grain[:, None], ink.gloss, found.averaged(clothed[:, None])[..., 0])

    return _KEPT.get((found.key, look, seed), make)


def smeared(picture: Floats32, smear: float) -> Floats32:
    """A premultiplied picture (H, W, C), its cover in the fourth channel, moved evenly over `smear` px while the
    shutter was open."""
    if smear < 0.5:
        return picture
    rows, columns = np.nonzero(picture[..., 3].any(axis=1))[0], np.nonzero(picture[..., 3].any(axis=0))[0]
    if not len(rows):
        return picture
    kernel = _line(smear)
    more = kernel.shape[0] // 2 + 1
    box = (
        slice(max(0, rows[0] - more), rows[-1] + 1 + more), slice(max(0, columns[0] - more), columns[-1] + 1 + more)
    )  # fmt: skip
    part = np.ascontiguousarray(picture[box])
    found = np.zeros_like(picture)
    for i in range(part.shape[2]):
        one = np.ascontiguousarray(part[..., i])
        found[box][..., i] = cv2.filter2D(one, -1, kernel, borderType=cv2.BORDER_CONSTANT)
    return found


def _line(long: float) -> Floats32:
    """A kernel that averages along a line of `long` px in the direction of the movement."""
    reach = math.ceil(0.5 * long) + 1
    kernel = np.zeros((2 * reach + 1, 2 * reach + 1), dtype=np.float32)
    for t in np.linspace(-0.5, 0.5, 4 * math.ceil(long) + 1):
        x, y = reach + t * long * SMEAR_WAY[0], reach + t * long * SMEAR_WAY[1]
        column, row = int(x), int(y)
        fx, fy = x - column, y - row
        kernel[row : row + 2, column : column + 2] += np.outer((1.0 - fy, fy), (1.0 - fx, fx))
    return np.asarray(kernel / kernel.sum())
