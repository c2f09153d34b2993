"""What the API says of moving cameras and of copies."""

from __future__ import annotations

from pydantic import Field

from ausblick.core.camera.copies import Copy
from ausblick.core.camera.ground_shade import ContactShade

from .answers import Answer
from .kit_schemas import PlanBody


class MarksForMoveBody(PlanBody):
    """The camera's move: whole ranges in degrees and m, longest over shortest lens."""

    wanted: int = Field(default=6, ge=1, le=50)
    pan: float = Field(default=0.0, ge=0.0, le=180.0, allow_inf_nan=False)
    tilt: float = Field(default=0.0, ge=0.0, le=90.0, allow_inf_nan=False)
    travel: float = Field(default=0.0, ge=0.0, le=20.0, allow_inf_nan=False)
    zoom: float = Field(default=1.0, ge=1.0, le=20.0, allow_inf_nan=False)


class TrackingMarksModel(Answer):
    places: list[tuple[float, float]]
    least: int
    shade: tuple[float, float, float]
    says: str


class CopiesBody(PlanBody):
    rows: int = Field(default=1, ge=1, le=12)
    columns: int = Field(default=3, ge=1, le=24)
    spacing: float = Field(default=1.4, ge=0.2, le=20.0, allow_inf_nan=False)
    row_depth: float = Field(default=1.5, ge=0.0, le=100.0, allow_inf_nan=False)


class CopiesModel(Answer):
    """`shade`: whose light throws the copies' shadows, how long and where to on level ground."""

    copies: list[Copy]
    shade: ContactShade | None
