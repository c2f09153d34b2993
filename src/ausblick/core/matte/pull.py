"""Pulling the key from a simulated frame: the screen estimated locally, two keyers to choose from.

    colour difference   d = K - (A + B)/2 in linear light      raw = 1 - d / d_screen(x, y)
    chroma distance     c = (Cb, Cr) of the Rec.709 signal     raw = |c - c_screen(x, y)| / |c_screen(x, y)|

The local screen is its own light, smoothed over what is clearly screen: it cures slow unevenness, not edges.
The clips come from the screen's own spread and its noise; so does the denoising, before the clips.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np

from ..colour.curves import rec709
from ..colour.rec709 import colour_differences
from ..geometry.vectors import Bools, Floats32
from .keyer import LEAST_WHITE_CLIP, colour_difference

Keyer = Literal["colour difference", "chroma distance"]
SMOOTH = 0.09
"""Of the frame's height: how far the local estimate looks."""
QUIET, MOST_BLUR = 0.02, 1.0
"""Noise of the raw matte up to which nothing is denoised, and the widest blur in px that it may cause."""


@dataclass(frozen=True, eq=False)
class Pulled:
    """raw, matte (H, W); `screen` (H, W, 3): its estimated light; clips, and the clip that would hold it all."""

    raw: Floats32
    matte: Floats32
    screen: Floats32
    flat: Bools
    black_clip: float
    white_clip: float
    needed_clip: float


def pull(
    linear: Floats32,
    channel: int,
    away_px: float,
    keyer: Keyer = "colour difference",
    clean: Floats32 | None = None,
) -> Pulled | None:
    """None where no screen is in the picture. `away_px`: how far the flat screen keeps from the figure.

    `clean` (H, W, 3): the same view without anybody, for the screen's light instead of the estimate.
    """
    d = colour_difference(linear, channel)
    strong = float(np.percentile(d, 97.0))
    if strong <= 1e-4:
        return None
    sure = d > 0.62 * strong
    if float(sure.mean()) < 0.02:
        return None
    sure = cv2.erode(sure.astype(np.uint8), np.ones((5, 5), np.uint8)).astype(bool)
    if not sure.any():
        return None
    screen = _spread(linear, sure, SMOOTH * linear.shape[0]) if clean is None else clean
    flat = cv2.distanceTransform(sure.astype(np.uint8), cv2.DIST_L2, 3) > max(2.0, away_px)
    if not flat.any():
        flat = sure
    raw_of = _difference(linear, d, channel, 0.2 * strong) if keyer == "colour difference" else _chroma(linear)
    raw = raw_of(screen)
    noise = float(np.std(raw[flat] - cv2.GaussianBlur(raw, (0, 0), 2.0)[flat]))
    calm = _denoised(raw, noise)
    black = float(np.clip(np.percentile(calm[flat], 99.5), 0.0, 0.6))
    white = 1.0 - max(LEAST_WHITE_CLIP, min(0.3, 3.0 * noise))
    matte = np.clip((calm - black) / max(0.05, white - black), 0.0, 1.0)
    # What one clip for the whole screen would have to be, without the local estimate's help.
    one = np.median(linear[flat], axis=0).astype(np.float32)
    needed = float(np.percentile(raw_of(one)[flat], 99.5))
    return Pulled(raw, np.asarray(matte, dtype=np.float32), screen, flat, black, white, needed)


def _difference(linear: Floats32, d: Floats32, channel: int, least: float) -> Callable[[Floats32], Floats32]:
    def raw(screen: Floats32) -> Floats32:
        return np.asarray(1.0 - d / np.maximum(colour_difference(screen, channel), least), dtype=np.float32)

    return raw


def _chroma(linear: Floats32) -> Callable[[Floats32], Floats32]:
    own = _cb_cr(linear)

    def raw(screen: Floats32) -> Floats32:
        back = _cb_cr(screen)
        away = np.linalg.norm(own - back, axis=-1) / np.maximum(np.linalg.norm(back, axis=-1), 1e-3)
        return np.asarray(away, dtype=np.float32)

    return raw


def _cb_cr(linear: Floats32) -> Floats32:
    """Cb and Cr (..., 2) of linear light (..., 3): ITU-R BT.709-6, 3.3."""
    return np.stack(colour_differences(rec709(linear.astype(np.float64))), axis=-1).astype(np.float32)


def _denoised(raw: Floats32, noise: float) -> Floats32:
    """Smoothed as far as the measured noise asks for; a quiet matte stays as sharp as it is."""
    sigma = min(MOST_BLUR, 0.5 * (noise / QUIET - 1.0))
    return raw if sigma < 0.2 else np.asarray(cv2.GaussianBlur(raw, (0, 0), sigma), dtype=np.float32)


def _spread(linear: Floats32, sure: Bools, reach: float) -> Floats32:
    """The screen's light (H, W, 3) smoothed over sure screen and carried under the figure."""
    mask = sure.astype(np.float32)
    small = max(1, round(reach / 6.0))
    size = (max(4, linear.shape[1] // small), max(4, linear.shape[0] // small))
    light = cv2.resize(linear * mask[..., None], size, interpolation=cv2.INTER_AREA)
    share = cv2.resize(mask, size, interpolation=cv2.INTER_AREA)
    sigma = reach / small
    total = np.zeros_like(light)
    weight = np.zeros_like(share)
    for factor, trust in ((1.0, 1.0), (3.0, 0.03), (9.0, 0.001)):
        total = total + trust * cv2.GaussianBlur(light, (0, 0), sigma * factor)
        weight = weight + trust * cv2.GaussianBlur(share, (0, 0), sigma * factor)
    estimate = total / np.maximum(weight, 1e-9)[..., None]
    return np.asarray(cv2.resize(estimate, (linear.shape[1], linear.shape[0]), interpolation=cv2.INTER_LINEAR))


def despilled(linear: Floats32, channel: int) -> Floats32:
    """The key channel held to half the larger of the others and a quarter of their sum."""
    found = linear.copy()
    others = [c for c in range(3) if c != channel]
    a, b = linear[..., others[0]], linear[..., others[1]]
    found[..., channel] = np.minimum(linear[..., channel], 0.5 * np.maximum(a, b) + 0.25 * (a + b))
    return found


def figure_of(linear: Floats32, matte: Floats32, screen: Floats32, channel: int) -> Floats32:
    """The keyed figure (..., 3), despilled and premultiplied by its matte (...)."""
    return despilled(np.maximum(linear - (1.0 - matte[..., None]) * screen, 0.0), channel)


def over(linear: Floats32, pulled: Pulled, channel: int, ground: Floats32) -> Floats32:
    """The keyed figure over a ground (H, W, 3) or (3,); linear light."""
    figure = figure_of(linear, pulled.matte, pulled.screen, channel)
    return np.asarray(figure + (1.0 - pulled.matte[..., None]) * ground)
