"""What the API says of light: evening the screen, distances, photometry files."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from .answers import Answer
from .evaluation_schemas import ChangeModel
from .kit_schemas import PlanBody


class EvenBody(PlanBody):
    """What may be changed besides dimmers."""

    heights: bool = True
    positions: bool = False
    aims: bool = True


class EvenModel(Answer):
    """Changes that even the screen (none: nothing better was found), and what is in the way."""

    changes: list[ChangeModel]
    words: list[str]
    spread_before: float | None
    spread_after: float | None
    lux_before: float
    lux_after: float
    limits: list[str]


class AtDistanceModel(Answer):
    z: float
    shadow_percent: float
    shadow_area: float
    edge: float | None
    under: float | None
    needed: tuple[float, float] | None
    margin_m: float | None
    others_percent: float | None
    changes: list[ChangeModel]


class SchoolRowModel(Answer):
    school: Literal["1m", "1.2-2m", "2m-plus", "3m", "shadow-gone"]
    found: AtDistanceModel | None
    why_not: str


class DistancesModel(Answer):
    curve: list[AtDistanceModel]
    schools: list[SchoolRowModel]


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


class EntryModel(Answer):
    row: Literal["frame rate", "shutter", "aperture", "iso", "nd", "screen lamps", "subject lamps"]
    setting: str
    stops: float
    locked: bool


class StandingModel(Answer):
    """Stops over what is wanted."""

    screen: float | None
    face: float | None


class OutcomeModel(Answer):
    smear_px: float | None
    noise_percent: float | None
    depth_m: float | None
    cut_flashes: float
    watts: float
    edge_percent: float | None
    standing: StandingModel


class SolutionModel(Answer):
    name: str
    changes: list[ChangeModel]
    entries: list[EntryModel]
    outcome: OutcomeModel
    missing: float
    says: str


class LedgerModel(Answer):
    entries: list[EntryModel]
    outcome: OutcomeModel
    solutions: list[SolutionModel]
    safe_shutters: list[float]
