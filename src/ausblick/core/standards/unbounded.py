"""Numbers that may be without bound: a far limit of sharpness, a spread over a dark place. JSON has no infinity."""

from __future__ import annotations

import math
from typing import Annotated

from pydantic import PlainSerializer


def finite(value: float | None) -> float | None:
    """What is unbounded is null in an answer."""
    return value if value is not None and math.isfinite(value) else None


Unbounded = Annotated[float, PlainSerializer(finite, return_type=float | None)]
"""A number that is null in an answer where it is without bound."""
