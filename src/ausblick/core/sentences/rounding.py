"""A number with so many digits, as it is told."""

from __future__ import annotations

import math
from decimal import ROUND_HALF_UP, Decimal


def digits(value: float, count: int) -> str:
    """Rounded half away from nought, as the page does; a true minus, and none before nought; a dash for a number
    without bound, which an answer has as null."""
    if not math.isfinite(value):
        return "–"
    rounded = Decimal(value).quantize(Decimal(1).scaleb(-count), ROUND_HALF_UP)
    return f"{abs(rounded):f}" if rounded == 0 else f"{rounded:f}".replace("-", "−")
