"""What has changed on the screen from one frame or clip to another: level, hue, colour, white balance, noise.

The shift of the white balance is read from the ratio of red to blue light on the same screen: the shift of a lamp's
colour in mired (1e6 / K) that would change the ratio so (Krystek's locus, see `light.colour`).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from ..colour.rec709 import CB_SCALE, CR_SCALE
from ..colour.white_point import light_rgb
from .frame import linear_of

BASE_K = 5600.0
MOST_MIRED = 120.0
LEVEL, HUE, MIRED, NOISE = 1.5, 2.0, 12.0, 0.5
"""Changes that are told: points of signal, degrees, mired, points of noise."""
LEAST_SATURATION = 0.02


@dataclass(frozen=True)
class ScreenSeen:
    """A screen's mean in a frame: luma in %, hue in degrees, saturation; unevenness and noise in %, where known."""

    luma: float
    hue_deg: float
    saturation: float
    even: float | None
    noise: float | None


@dataclass(frozen=True)
class Drifted:
    """`means` says what the change tells; empty where it is too small to matter."""

    name: str
    unit: str
    before: float
    now: float
    difference: float
    means: str


def drift(before: ScreenSeen, now: ScreenSeen) -> list[Drifted]:
    """Rows in the order of importance; the white balance as mired warmer than before."""
    rows = [
        _row("Level", "%", before.luma, now.luma, LEVEL, "brighter than before", "darker than before"),
        _hue(before, now),
    ]
    mired = warmer_mired(before, now)
    if mired is not None:
        colour = "than before: the white balance or a lamp's colour; lock one, look at the other"
        rows.append(_row("Colour of the light", "mired", 0.0, mired, MIRED, f"warmer {colour}", f"colder {colour}"))
    if before.even is not None and now.even is not None:
        wider = "more uneven than before: a lamp has moved, or somebody stands in its light"
        rows.append(_row("Unevenness", "%", before.even, now.even, LEVEL, wider, "more even than before"))
    if before.noise is not None and now.noise is not None:
        rows.append(_row("Noise", "%", before.noise, now.noise, NOISE, "noisier than before: the ISO", ""))
    return rows


def warmer_mired(before: ScreenSeen, now: ScreenSeen) -> float | None:
    """By how many mired the light on the screen is warmer; None where it is too dark to tell."""
    ratios = [_red_to_blue(seen) for seen in (before, now)]
    if any(ratio is None for ratio in ratios):
        return None
    wanted = math.log(ratios[1] / ratios[0])  # type: ignore[operator]

    def off(mired: float) -> float:
        rgb = light_rgb(1e6 / (1e6 / BASE_K + mired), 0.0, BASE_K, 0.0)
        return math.log(float(rgb[0] / rgb[2])) - wanted

    low, high = -MOST_MIRED, MOST_MIRED
    if off(low) >= 0.0:
        return low
    return high if off(high) <= 0.0 else float(brentq(off, low, high, xtol=0.05))


def _red_to_blue(seen: ScreenSeen) -> float | None:
    """Ratio of the linear light, from luma and chroma (ITU-R BT.709-6, 3.2 and 3.3)."""
    turn = math.radians(seen.hue_deg)
    luma = seen.luma / 100.0
    red = luma + CR_SCALE * seen.saturation * math.sin(turn)
    blue = luma + CB_SCALE * seen.saturation * math.cos(turn)
    light = linear_of(np.array([red, blue], dtype=np.float32))
    return None if float(light.min()) < 2e-3 else float(light[0] / light[1])


def _hue(before: ScreenSeen, now: ScreenSeen) -> Drifted:
    if min(before.saturation, now.saturation) < LEAST_SATURATION:
        return Drifted("Hue", "°", before.hue_deg, now.hue_deg, 0.0, "")
    off = (now.hue_deg - before.hue_deg + 180.0) % 360.0 - 180.0
    means = "another hue than before: the white balance, or a lamp's colour" if abs(off) > HUE else ""
    return Drifted("Hue", "°", before.hue_deg, now.hue_deg, off, means)


def _row(name: str, unit: str, before: float, now: float, within: float, above: str, below: str) -> Drifted:
    off = now - before
    means = "" if abs(off) <= within else above if off > 0 else below
    return Drifted(name, unit, before, now, off, means)
