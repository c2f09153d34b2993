"""Pulling the key from a frame: the screen estimated locally, three keyers to choose from.

    colour difference   d = K - (A + B)/2 in linear light      raw = 1 - d / d_screen(x, y)
    larger channel      d = K - max(A, B): keeps cloth that shares one of the screen's channels
    chroma distance     c = (Cb, Cr) of the Rec.709 signal     raw = |c - c_screen(x, y)| / |c_screen(x, y)|

What is screen is told by the hue of the picked colour, whatever its level: a dark corner is screen, a bright
garment of another hue is not. The local screen is its own light, smoothed over what is surely screen: it cures slow
unevenness, not edges. The clips come from the screen's own spread and its noise; so does the denoising.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import cv2
import numpy as np

from ..colour.curves import rec709
from ..colour.rec709 import colour_differences
from ..damage.formula import Formula, colour_difference
from ..geometry.channels import threefold
from ..geometry.quantiles import quantiles
from ..geometry.vectors import Bools, Floats, Floats32
from .keyer import LEAST_WHITE_CLIP

Keyer = Literal["colour difference", "larger channel", "chroma distance"]
SMOOTH = 0.09
"""Of the frame's height: how far the local estimate looks."""
QUIET, MOST_BLUR = 0.02, 1.0
"""Noise of the raw matte up to which nothing is denoised, and the widest blur in px that it may cause."""
HUE_NEAR = 0.15
"""Distance in the shares of red, green and blue up to which a colour has the picked one's hue: light of 3200 and of
6500 K on one cloth lies within half of it, a yellow, a teal or an olive cloth beyond it."""
LEAST_LEVEL, BESIDE = 0.1, 0.62
"""Of the picked screen's d, below which nothing is taken for screen; of that round about, below which it is not
surely screen but mixed with something."""
MOST_CLIP = 0.6
MIDDLE = (0.45, 0.55)
"""Quantiles of the colour difference between which a screen is as in its middle."""


@dataclass(frozen=True, eq=False)
class Pulled:
    """raw, matte (H, W); `screen` (H, W, 3): its estimated light; `flat` (H, W): screen away from the figure; clips,
    and the clip that would hold all of it."""

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
    picked: Floats,
    away_px: float,
    keyer: Keyer = "colour difference",
    clean: Floats32 | None = None,
    needed: Bools | None = None,
    figure: Bools | None = None,
) -> Pulled | None:
    """None where no screen is in the picture. `picked` (3,): the screen's linear light; `away_px`: how far the flat
    screen keeps from the figure. `figure` (H, W): where somebody stands, whose clothes are never taken for screen,
    whatever their hue.

    `clean` (H, W, 3): the same view without anybody, for the screen's light instead of the estimate. `needed` (H, W):
    flat screen that is known to be needed, for the clip.
    """
    formula: Formula = "larger" if keyer == "larger channel" else "mean"
    d = colour_difference(linear, channel, formula)
    level = float(colour_difference(np.asarray(picked, dtype=np.float32), channel, formula))
    if level <= 1e-4:
        return None
    near = _of_hue(linear, d, picked, level)
    if figure is not None:
        near &= ~figure
    sure = _shrunk(near & (d > BESIDE * _round_about(d, near, SMOOTH * linear.shape[0])))
    if float(sure.mean()) < 0.02:
        return None
    screen = _spread(linear, sure, SMOOTH * linear.shape[0]) if clean is None else clean
    flat = _away(sure, away_px)
    if not flat.any():
        flat = sure
    raw_of = _chroma(linear) if keyer == "chroma distance" else _difference(d, channel, 0.05 * level, formula)
    raw = raw_of(screen)
    noise = float(np.std(raw[flat] - cv2.GaussianBlur(raw, (0, 0), 2.0)[flat]))
    calm = _denoised(raw, noise)
    black = float(np.clip(np.percentile(calm[flat], 99.5), 0.0, MOST_CLIP))
    white = 1.0 - max(LEAST_WHITE_CLIP, min(0.3, 3.0 * noise))
    matte = np.clip((calm - black) / max(0.05, white - black), 0.0, 1.0)
    # What one clip for the whole screen would have to be, without the local estimate's help.
    where = flat if needed is None or not needed.any() else needed
    one = _middle(linear, d, where)
    clip = float(np.clip(np.percentile(raw_of(one)[where], 99.5), 0.0, 1.0))
    return Pulled(raw, np.asarray(matte, dtype=np.float32), screen, flat, black, white, clip)


def pull_by(linear: Floats32, channel: int, screen: Floats32, known: Pulled, keyer: Keyer) -> Pulled:
    """A part of a frame (H, W, 3) by what is `known` of the whole: `screen` (H, W, 3), and the clips."""
    formula: Formula = "larger" if keyer == "larger channel" else "mean"
    d = colour_difference(linear, channel, formula)
    raw = (_chroma(linear) if keyer == "chroma distance" else _difference(d, channel, 1e-4, formula))(screen)
    matte = np.clip((raw - known.black_clip) / max(0.05, known.white_clip - known.black_clip), 0.0, 1.0)
    return replace(
        known, raw=raw, matte=matte.astype(np.float32), screen=screen, flat=np.zeros(raw.shape, dtype=bool)
    )


def _middle(linear: Floats32, d: Floats32, where: Bools) -> Floats32:
    """Colour (3,) of the screen where its colour difference is that of the middle: the middle of each channel alone
    has another where light of several colours or a lamp in a pane lies on it."""
    low, high = quantiles(d[where], MIDDLE)
    return np.asarray(np.median(linear[where & (d >= low) & (d <= high)], axis=0), dtype=np.float32)


def _of_hue(linear: Floats32, d: Floats32, picked: Floats, level: float) -> Bools:
    """Where (H, W) a picture has the hue of the picked screen; noise is smoothed away before it is asked."""
    calm = cv2.GaussianBlur(linear, (0, 0), 1.5)
    red, green, blue = cv2.split(calm)
    whole = np.maximum(red + green + blue, np.float32(1e-6))
    r, g, b = (picked / picked.sum()).astype(np.float32)
    off = (red / whole - r) ** 2 + (green / whole - g) ** 2 + (blue / whole - b) ** 2
    return np.asarray((off < HUE_NEAR**2) & (d > LEAST_LEVEL * level))


def _round_about(d: Floats32, near: Bools, reach: float) -> Floats32:
    """d (H, W) of the screen round about."""
    return _spread(d, near, reach)


def _shrunk(mask: Bools) -> Bools:
    return np.asarray(cv2.erode(mask.astype(np.uint8), np.ones((5, 5), np.uint8)) > 0)


def _away(mask: Bools, px: float) -> Bools:
    return np.asarray(cv2.distanceTransform(mask.astype(np.uint8), cv2.DIST_L2, 3) > max(2.0, px))


def _difference(d: Floats32, channel: int, least: float, formula: Formula) -> Callable[[Floats32], Floats32]:
    def raw(screen: Floats32) -> Floats32:
        return np.asarray(1.0 - d / np.maximum(colour_difference(screen, channel, formula), least), dtype=np.float32)

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


def _spread(light: Floats32, sure: Bools, reach: float) -> Floats32:
    """The screen's light (H, W, 3), or one number of it (H, W), smoothed over sure screen and carried under the
    figure."""
    mask, of_all = sure.astype(np.float32), threefold if light.ndim == 3 else np.asarray
    small = max(1, round(reach / 6.0))
    size = (max(4, light.shape[1] // small), max(4, light.shape[0] // small))
    known = cv2.resize(light * of_all(mask), size, interpolation=cv2.INTER_AREA)
    share = cv2.resize(mask, size, interpolation=cv2.INTER_AREA)
    sigma = reach / small
    total, weight = np.zeros_like(known), np.zeros_like(share)
    for factor, trust in ((1.0, 1.0), (3.0, 0.03), (9.0, 0.001)):
        total = total + trust * cv2.GaussianBlur(known, (0, 0), sigma * factor)
        weight = weight + trust * cv2.GaussianBlur(share, (0, 0), sigma * factor)
    estimate = total / of_all(np.maximum(weight, np.float32(1e-9)))
    return np.asarray(cv2.resize(estimate, (light.shape[1], light.shape[0]), interpolation=cv2.INTER_LINEAR))


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
