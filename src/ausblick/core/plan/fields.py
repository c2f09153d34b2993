"""The kinds of field a plan is made of: numbers with a unit, a range and no nonsense in them.

Strictness lives here: text is not a number, true is not a number, and neither NaN nor an infinity
ever reaches a formula.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints


def number(lowest: float, highest: float, about: str) -> object:
    """Constraints of a number field. Both ends of the range belong to it."""
    return Field(ge=lowest, le=highest, allow_inf_nan=False, strict=True, description=about)


class Part(BaseModel):
    """A part of the plan document: immutable, and unknown fields are kept (and reported)."""

    model_config = ConfigDict(extra="allow", frozen=True, validate_default=False)


Name = Annotated[str, StringConstraints(strict=True, max_length=200)]
Switch = StrictBool
Coordinate = Annotated[float, number(-100.0, 100.0, "metres")]
Reach = Annotated[float, number(0.0, 20.0, "metres")]
Size = Annotated[float, number(0.001, 20.0, "metres")]
Share = Annotated[float, number(0.0, 1.0, "linear, 0..1")]
Angle = Annotated[float, number(-360.0, 360.0, "degrees")]
Kelvin = Annotated[float, number(1000.0, 25000.0, "kelvin")]
Level = Annotated[float, number(0.0, 110.0, "% of the recorded signal")]
Lux = Annotated[float, number(0.0, 200_000.0, "lux")]
Point = tuple[Coordinate, Coordinate, Coordinate]
Rgb = tuple[Share, Share, Share]
