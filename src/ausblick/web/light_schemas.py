"""What the API says of light: evening the screen, distances, photometry files."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field, RootModel

from ausblick.core.advice.search.distances import Distances
from ausblick.core.advice.search.even_screen import Even
from ausblick.core.advice.search.ledger import Ledger

from .answers import Answer
from .kit_schemas import PlanBody


class EvenBody(PlanBody):
    """What may be changed besides dimmers."""

    heights: bool = True
    positions: bool = False
    aims: bool = True


class EvenModel(RootModel[Even]):
    """What `Even` says."""


class DistancesModel(RootModel[Distances]):
    """What `Distances` says."""


class PhotometryBody(BaseModel):
    text: str = Field(max_length=400_000, description="The text of an LM-63 file.")


class PhotometryModel(Answer):
    """Candela along two planes through the axis: (angle, along the height, across the width)."""

    flux_lm: float
    peak_cd: float
    watts: float
    half_peak_deg: float
    curve: list[tuple[float, float, float]]


class LedgerBody(PlanBody):
    """`locked`: rows that stay as they are."""

    locked: list[Literal["shutter", "aperture", "iso", "nd", "screen lamps", "subject lamps"]] = Field(
        default=[], max_length=6
    )


class LedgerModel(RootModel[Ledger]):
    """What `Ledger` says."""
