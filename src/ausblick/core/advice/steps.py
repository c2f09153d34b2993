"""The standard steps that cameras offer."""

from __future__ import annotations

import math

from ..plan import Camera

SHUTTERS = (24, 25, 30, 48, 50, 60, 80, 100, 120, 150, 160, 200, 240, 250, 300, 320, 400, 500, 640, 800, 1000, 2000)


F_NUMBERS = (
    1.0, 1.1, 1.2, 1.4, 1.6, 1.8, 2.0, 2.2, 2.5, 2.8, 3.2, 3.5, 4.0, 4.5, 5.0, 5.6, 6.3, 7.1, 8.0, 9.0, 10.0, 11.0,
    13.0, 14.0, 16.0, 18.0, 20.0, 22.0, 25.0, 29.0, 32.0,
)  # fmt: skip
ISOS = (
    50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000,
    6400, 8000, 10000, 12800, 16000, 20000, 25600,
)  # fmt: skip
"""Nominal thirds of a stop, as they are engraved and shown."""
SMALLEST = 22.0
MOST_ND = 10.0
"""Of the darkest filters that are usual, stops."""
NEAR = 0.02
"""A nominal number stands for what it is rounded from: 5.6 for 5.66."""


def third_stop(f_number: float, up: bool = True) -> float:
    """The nominal f-number at or beyond the given one (`up`: smaller opening), the last one where there is none."""
    if up:
        return next((n for n in F_NUMBERS if n >= f_number * (1.0 - NEAR)), F_NUMBERS[-1])
    return next((n for n in reversed(F_NUMBERS) if n <= f_number * (1.0 + NEAR)), F_NUMBERS[0])


def opened(camera: Camera, f_number: float) -> float:
    """The nominal f-number at or before the given one, no wider than the lens opens."""
    return max(third_stop(f_number, up=False), min(camera.widest, camera.f_number))


def nominal_iso(iso: float, base: float) -> float:
    """The nearest nominal ISO, or the sensor's base."""
    return float(min((*ISOS, base), key=lambda n: abs(math.log2(n / iso))))
