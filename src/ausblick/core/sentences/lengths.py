"""Lengths in words: metres, or feet and inches to the quarter, as a tape has them."""

from __future__ import annotations

from typing import Literal

from .rounding import digits

Units = Literal["m", "ft"]
METRES_PER_INCH = 0.0254
QUARTERS = ("", "¼", "½", "¾")


def length(metres: float, units: Units, count: int = 2) -> str:
    """2.40 m, or 7′ 10½″."""
    return f"{digits(metres, count)} m" if units == "m" else feet(metres)


def size(across: float, high: float, units: Units) -> str:
    if units == "m":
        return f"{digits(across, 2)} × {digits(high, 2)} m"
    return f"{feet(across)} × {feet(high)}"


def feet(metres: float) -> str:
    """Rounded to a quarter of an inch, half of one away from nought."""
    quarters = int(abs(metres) / METRES_PER_INCH * 4.0 + 0.5)
    sign = "−" if metres < 0 and quarters else ""
    whole, left = divmod(quarters, 48)
    inches, quarter = divmod(left, 4)
    return f"{sign}{whole}′ {inches}{QUARTERS[quarter]}″"
