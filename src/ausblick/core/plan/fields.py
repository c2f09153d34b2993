"""The kinds of field a plan is made of: numbers with a unit, a range and no nonsense in them.

Strictness lives here: text is not a number, true is not a number, and neither NaN nor an infinity
ever reaches a formula.
"""

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler, StrictBool, StringConstraints
from pydantic_core import CoreSchema, core_schema


class WithinRange:
    """That a number is in a range, said to the validator in one piece.

    As single constraints, each of them would be looked up for each of some 200 fields whenever the program starts.
    """

    def __init__(self, lowest: float, highest: float, about: str) -> None:
        self._lowest, self._highest, self._about = lowest, highest, about

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        if source is not float:
            raise TypeError(f"a range is of a float, not of {source}: what else a field may be stands beside it")
        return core_schema.float_schema(ge=self._lowest, le=self._highest, allow_inf_nan=False, strict=True)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return handler(schema) | {"description": self._about}


def number(lowest: float, highest: float, about: str) -> WithinRange:
    """Constraints of a number field. Both ends of the range belong to it."""
    return WithinRange(lowest, highest, about)


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
