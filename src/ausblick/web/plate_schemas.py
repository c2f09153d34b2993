"""What the API says of plates: readings, marks and the lighting brief."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from flask_openapi3.models.file import FileStorage
from pydantic import AwareDatetime, BaseModel, Field, RootModel, field_validator

from ausblick.core.advice.search.lighting_brief import LightingBrief
from ausblick.core.plate.plate_camera import PlateCamera, PlateLight
from ausblick.core.plate.plate_picture import PlateReading

from .answers import Answer

Part = Annotated[float, Field(ge=-5.0, le=6.0, allow_inf_nan=False)]
Spot = tuple[Part, Part]
Line = tuple[Spot, Spot]
Pair = tuple[Line, Line]


class PlateForm(BaseModel):
    file: FileStorage


class PlateReadingModel(RootModel[PlateReading]):
    """What `PlateReading` says."""


class MarksBody(BaseModel):
    """Marks in parts 0..1 of the picture, from its upper left corner."""

    width: int = Field(ge=16, le=100_000)
    height: int = Field(ge=16, le=100_000)
    focal_mm_ff: float = Field(ge=1.0, le=2000.0, description="Taken where the marks don't tell it.")
    horizon: Line | None = None
    first: Pair | None = None
    second: Pair | None = None
    foot: Spot | None = None
    top: Spot | None = None
    tip: Spot | None = None


class PlateLightModel(RootModel[PlateLight]):
    """What `PlateLight` says."""


class MarksModel(Answer):
    """`light` is null without a marked shadow; `light_problem` says why one can't be read."""

    camera: PlateCamera
    light: PlateLight | None
    light_problem: str | None


class SunBody(BaseModel):
    """Where, when, and which way the camera looks (0 north, 90 east)."""

    latitude: float = Field(ge=-90.0, le=90.0, allow_inf_nan=False)
    longitude: float = Field(ge=-180.0, le=180.0, allow_inf_nan=False)
    when: AwareDatetime
    heading: float = Field(ge=-360.0, le=360.0, allow_inf_nan=False)

    @field_validator("when")
    @classmethod
    def _years_that_are_reckoned(cls, when: datetime) -> datetime:
        if not 1900 <= when.year <= 2100:
            raise ValueError("the sun is reckoned for the years 1900 to 2100")
        return when


class BriefModel(RootModel[LightingBrief]):
    """What `LightingBrief` says."""
