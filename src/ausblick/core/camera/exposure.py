"""Exposure: which light makes grey grey, and what any surface then reads.

ISO 2720:1974, incident light: E = C*N^2 / (t*S) with C = 250 for a flat receiver.
"""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from ..colour.curves import Curve, decode, encode
from ..colour.rec709 import LUMA
from ..geometry.vectors import Floats
from ..plan import Camera

INCIDENT_C = 250.0


def grey_lux(camera: Camera) -> float:
    """Lux at which 18 % grey is correctly exposed; every stop of ND doubles it."""
    nd = math.pow(2.0, camera.nd_stops)
    return INCIDENT_C * camera.f_number**2 * nd / (camera.shutter_s * camera.iso)


def scene_light(reflectance: Floats, light: Floats, camera: Camera) -> Floats:
    """Linear signal x = reflectance * E / E18, channel by channel (..., 3). Lux."""
    return np.asarray(reflectance * light / grey_lux(camera))


def signal(reflectance: Floats, light: Floats, camera: Camera) -> Floats:
    """Recorded signal (..., 3) in % of a matt surface under light (..., 3) in lux."""
    return 100.0 * encode(scene_light(reflectance, light, camera), camera.curve, camera.curve_table)


def luma(signal_percent: Floats) -> Floats:
    """Luma (...) in % of a signal (..., 3) in %: weights on the encoded channels (BT.709-6, 3.2)."""
    return np.asarray(signal_percent @ LUMA)


def light_for_luma(reflectance: Floats, level_percent: float, camera: Camera) -> float:
    """White light in lux that makes a matt surface read a given luma; bisection on a rising curve."""
    ink = tuple(float(v) for v in reflectance)
    return grey_lux(camera) * _light_over_grey(ink, level_percent, camera.curve, camera.curve_table)


@lru_cache(maxsize=512)
def _light_over_grey(reflectance: tuple[float, ...], level_percent: float, curve: Curve, table: str) -> float:
    """The same over the light for grey: all that a level depends on besides the camera's exposure."""
    low, high = 0.0, 1000.0
    for _ in range(60):
        middle = 0.5 * (low + high)
        reads = 100.0 * float(luma(encode(middle * np.array(reflectance), curve, table)))
        low, high = (middle, high) if reads < level_percent else (low, middle)
    return 0.5 * (low + high)


def light_for_channel(reflectance: float, level_percent: float, camera: Camera) -> float:
    """Light in lux that makes one channel read a given level."""
    x = float(decode(np.array(level_percent / 100.0), camera.curve, camera.curve_table))
    return x * grey_lux(camera) / max(reflectance, 1e-6)


def stops(ratio: float) -> float:
    """A ratio of light in stops; no light at all is minus infinity."""
    return math.log2(ratio) if ratio > 0.0 else -math.inf
