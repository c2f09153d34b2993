"""Other primaries and transfer functions led to Rec.709: what tagged files are written in.

Matrices from chromaticities: SMPTE RP 177-1993; another white by Bradford's adaptation (Lam, 1985). Perceptual
quantizer: SMPTE ST 2084-2014, with diffuse white at 203 cd/m2 (ITU-R BT.2408).
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from typing import Literal

import numpy as np

from ..geometry.vectors import Floats, Floats32
from .curves import Curve, encode, hlg_linear, rec709_linear

Chromaticities = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]
"""x, y of red, green, blue and white."""
Transfer = Literal["709", "sRGB", "HLG", "PQ", "linear", "log"]
D65 = (0.3127, 0.3290)
PRIMARIES: dict[str, Chromaticities] = {
    "709": ((0.640, 0.330), (0.300, 0.600), (0.150, 0.060), D65),
    "2020": ((0.708, 0.292), (0.170, 0.797), (0.131, 0.046), D65),
    "P3": ((0.680, 0.320), (0.265, 0.690), (0.150, 0.060), D65),
    "601": ((0.630, 0.340), (0.310, 0.595), (0.155, 0.070), D65),
    "601-625": ((0.640, 0.330), (0.290, 0.600), (0.150, 0.060), D65),
}
"""ITU-R BT.709-6, BT.2020-2, SMPTE EG 432-1, BT.601-7 for 525 and for 625 lines."""
BRADFORD = np.array([[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]])
WHITE_NITS = 203.0
STEPS = 16_384
"""Of the tables that curves are read from: linear between them, closer than any camera's step."""


def _xyz(place: tuple[float, float]) -> Floats:
    x, y = place
    return np.array([x / y, 1.0, (1.0 - x - y) / y])


def _to_xyz(chromaticities: Chromaticities) -> Floats:
    primaries = np.stack([_xyz(place) for place in chromaticities[:3]], axis=1)
    return np.asarray(primaries * np.linalg.solve(primaries, _xyz(chromaticities[3])))


@lru_cache(maxsize=64)
def matrix_to_709(chromaticities: Chromaticities) -> Floats:
    """(3, 3) of linear R, G, B with these primaries to Rec.709's; white stays white."""
    ours = PRIMARIES["709"]
    here, there = (BRADFORD @ _xyz(one[3]) for one in (chromaticities, ours))
    adapted = np.linalg.solve(BRADFORD, np.diag(there / here)) @ BRADFORD
    return np.asarray(np.linalg.solve(_to_xyz(ours), adapted @ _to_xyz(chromaticities)))


def from_named(primaries: str) -> Floats | None:
    """(3, 3) to Rec.709's primaries from those of a name; None where nothing is to be done."""
    return None if primaries == "709" or primaries not in PRIMARIES else matrix_to_709(PRIMARIES[primaries])


def pq_linear(v: Floats) -> Floats:
    """Light relative to diffuse white of a signal 0..1."""
    root = np.clip(v, 0.0, 1.0) ** (1.0 / 78.84375)
    light = (np.maximum(root - 0.8359375, 0.0) / (18.8515625 - 18.6875 * root)) ** (1.0 / 0.1593017578125)
    return np.asarray(light * (10_000.0 / WHITE_NITS))


def srgb_linear(v: Floats) -> Floats:
    """IEC 61966-2-1."""
    v = np.clip(v, 0.0, 1.0)
    return np.where(v <= 0.04045, v / 12.92, ((v + 0.055) / 1.055) ** 2.4)


def srgb(x: Floats) -> Floats:
    x = np.clip(x, 0.0, 1.0)
    return np.where(x <= 0.0031308, 12.92 * x, 1.055 * x ** (1.0 / 2.4) - 0.055)


def film_log_linear(v: Floats) -> Floats:
    """Printing density as film scanners write it: 10 bits, 0.002 a code, 685 for diffuse white, 95 for black, over a
    film of gamma 0.6."""
    black = 10.0 ** ((95.0 - 685.0) * 0.002 / 0.6)
    light = 10.0 ** ((1023.0 * np.clip(v, 0.0, 1.0) - 685.0) * 0.002 / 0.6)
    return np.asarray(np.maximum((light - black) / (1.0 - black), 0.0))


def linear_by(v: Floats, transfer: Transfer) -> Floats:
    """Scene light of a signal, relative to diffuse white."""
    if transfer == "linear":
        return np.clip(v, 0.0, None)
    ways: dict[str, Callable[[Floats], Floats]] = {
        "709": rec709_linear,
        "sRGB": srgb_linear,
        "HLG": hlg_linear,
        "PQ": pq_linear,
        "log": film_log_linear,
    }
    return np.asarray(ways[transfer](v))


@lru_cache(maxsize=32)
def _table(way: Transfer) -> Floats32:
    return linear_by(np.linspace(0.0, 1.0, STEPS), way).astype(np.float32)


@lru_cache(maxsize=32)
def _coded(curve: Curve, table: str, stills: bool) -> tuple[Floats32, Floats32]:
    """Light and its signal: steps that are even in the signal of a square root, so that the dark has its share."""
    light = np.linspace(0.0, 1.0, STEPS) ** 2 * (1.0 if stills or curve == "rec709" else 16.0)
    return light.astype(np.float32), (srgb(light) if stills else encode(light, curve, table)).astype(np.float32)


def to_working(
    signal: Floats32, matrix: Floats | None, transfer: Transfer, curve: Curve = "rec709", table: str = ""
) -> Floats32:
    """A picture's signal (..., 3) with a matrix to Rec.709's primaries, None where it has them, as the signal that a
    plan's curve makes of the same light. A still's sRGB stays sRGB. Light beyond the curve's end is clipped."""
    flat = np.linspace(0.0, 1.0, STEPS, dtype=np.float32)
    light = np.clip(signal, 0.0, None) if transfer == "linear" else np.interp(signal, flat, _table(transfer))
    if matrix is not None:
        light = light @ matrix.T.astype(np.float32)
    places, values = _coded(curve, table, transfer == "sRGB")
    return np.interp(light, places, values).astype(np.float32)
