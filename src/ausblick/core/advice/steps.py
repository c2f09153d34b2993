"""The standard steps that cameras offer."""

from __future__ import annotations

import math

SHUTTERS = (24, 25, 30, 48, 50, 60, 80, 100, 120, 150, 160, 200, 240, 250, 300, 320, 400, 500, 640, 800, 1000, 2000)


def third_stop(f_number: float, up: bool = True) -> float:
    """The f-number in thirds of a stop at or beyond the given one (`up`: smaller opening)."""
    steps = 6.0 * math.log2(f_number)
    rounded = math.ceil(steps - 1e-6) if up else math.floor(steps + 1e-6)
    return round(math.pow(2.0, rounded / 6.0), 1)
