"""Gels that convert a lamp's colour: what makes its light white, and what they take of it."""

from __future__ import annotations

import math

import numpy as np

from ..colour.rec709 import LUMA
from ..colour.white_point import light_rgb
from ..geometry.vectors import Floats
from ..plan import Light

PALE = 0.05
"""Light whose channels, as weights per lux, lie within so much of each other is white enough for one screen."""
DIGITS = 3
KELVINS = tuple(float(kelvin) for kelvin in range(2000, 12001, 100))


def burning(lamp: Light, kelvin: float, white_balance_k: float, tint: float) -> Floats:
    """Weights (3,) of R, G, B per lux of a bare lamp that burns at a colour temperature, K, under a white balance."""
    return light_rgb(kelvin, lamp.fixture.duv, white_balance_k, tint)


def through_gel(lamp: Light, white_balance_k: float, tint: float) -> Floats:
    """Weights (3,) of R, G, B per lux of what comes through a lamp's gel under a white balance."""
    light = burning(lamp, lamp.fixture.cct, white_balance_k, tint) * np.array(lamp.gel)
    return np.asarray(light / (light @ LUMA))


def whitening(light: Floats) -> tuple[float, float, float]:
    """What a gel lets through of each channel of such light (3,), so that it is white: of the weakest all, as no gel
    adds any; none at all, (1, 1, 1), where it is white as it is."""
    if float(np.ptp(light)) <= PALE:
        return 1.0, 1.0, 1.0
    red, green, blue = (round(float(value), DIGITS) for value in light.min() / light)
    return red, green, blue


def converted_to(lamp: Light) -> float | None:
    """The colour temperature, K, that a lamp behind its gel burns at; None where no black body has that colour."""
    off_white = {kelvin: float(np.ptp(through_gel(lamp, kelvin, 0.0))) for kelvin in KELVINS}
    best = min(KELVINS, key=off_white.__getitem__)
    return best if off_white[best] <= PALE else None


def taken_stops(light: Floats, gel: tuple[float, float, float]) -> float:
    """Stops that a gel takes of the luminance of light (3,) of one lux."""
    return -math.log2(float(light * np.array(gel) @ LUMA))
