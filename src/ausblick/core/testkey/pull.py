"""Pulling the key from a simulated frame: the same colour difference, the screen estimated locally.

    d = K - (A + B)/2      raw = 1 - d / d_screen(x, y)

d_screen is the screen's own d, smoothed over what is clearly screen: it cures slow unevenness, not edges.
The clips come from the screen's own spread and its noise.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..arrays import Bools, Floats32
from ..key.keyer import LEAST_WHITE_CLIP, colour_difference

SMOOTH = 0.09
"""Of the frame's height: how far the local estimate looks."""


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


def pull(linear: Floats32, channel: int, away_px: float) -> Pulled | None:
    """None where no screen is in the picture. `away_px`: how far the flat screen keeps from the figure."""
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
    screen = _spread(linear, sure, SMOOTH * linear.shape[0])
    d_screen = np.maximum(colour_difference(screen, channel), 0.2 * strong)
    raw = np.asarray(1.0 - d / d_screen, dtype=np.float32)
    flat = cv2.erode(sure.astype(np.uint8), _disc(max(2.0, away_px))).astype(bool)
    if not flat.any():
        flat = sure
    black = float(np.clip(np.percentile(raw[flat], 99.5), 0.0, 0.6))
    noise = float(np.std(raw[flat] - cv2.GaussianBlur(raw, (0, 0), 2.0)[flat]))
    white = 1.0 - max(LEAST_WHITE_CLIP, min(0.3, 3.0 * noise))
    matte = np.clip((raw - black) / max(0.05, white - black), 0.0, 1.0)
    # What one clip for the whole screen would have to be, without the local estimate's help.
    level = float(np.median(d[flat]))
    needed = float(np.percentile(1.0 - d[flat] / max(level, 1e-6), 99.5))
    return Pulled(raw, np.asarray(matte, dtype=np.float32), screen, flat, black, white, needed)


def _disc(radius: float) -> np.ndarray[tuple[int, int], np.dtype[np.uint8]]:
    size = 2 * min(60, round(radius)) + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (size, size)), dtype=np.uint8)


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


def over(linear: Floats32, pulled: Pulled, channel: int, ground: Floats32) -> Floats32:
    """The keyed figure, despilled, over a ground (H, W, 3) or (3,); linear light."""
    m = pulled.matte[..., None]
    figure = despilled(np.maximum(linear - (1.0 - m) * pulled.screen, 0.0), channel)
    return np.asarray(figure + (1.0 - m) * ground)
