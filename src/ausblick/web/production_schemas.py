"""What the API says of productions and takes."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from ausblick.app.production_exports import DayFormat
from ausblick.app.production_state import ProductionState
from ausblick.app.take_exports import LogFormat
from ausblick.app.take_log import ShotLog
from ausblick.core.production.day_plan import DayPlan
from ausblick.core.production.production_document import Production
from ausblick.core.sentences import Units
from ausblick.core.takes.take_document import Take
from ausblick.core.takes.take_rules import TakeFinding
from ausblick.formats.paper.sheet_pdf import Paper

from .answers import Answer, Moment

Number = Annotated[int, Field(ge=1)]


class ProductionPath(BaseModel):
    production_id: Number


class TakePath(ProductionPath):
    key: Annotated[str, Field(max_length=80)]


class ProductionExportPath(ProductionPath):
    to: DayFormat | LogFormat | Literal["bundle"]


class PaperQuery(BaseModel):
    units: Units = Field(default="m", description="Lengths on sheet and drawing.")
    paper: Paper = Field(default="a4", description="Size of the sheet.")


class StateQuery(BaseModel):
    day: Annotated[int | None, Field(ge=0, le=30)] = None
    now: Annotated[float | None, Field(ge=0, le=2880)] = Field(default=None, description="Minutes since midnight.")


class LogQuery(BaseModel):
    wrap: bool = Field(default=False, description="At wrap what is missing stops.")


class ProductionBody(BaseModel):
    base: Annotated[int, Field(ge=0)] = 0
    production: dict[str, Any] = Field(description="A production document.")


class TakeBody(BaseModel):
    take: dict[str, Any] = Field(description="A take; sent twice under one key it is one take.")


class ProductionSummary(Answer):
    """`done`: shots that have a good take of everything wanted."""

    id: int
    title: str
    place: str
    dates: list[str]
    shots: int
    done: int
    changed: Moment


class ProductionList(Answer):
    productions: list[ProductionSummary]
    trash: list[ProductionSummary]


class ProductionModel(Answer):
    id: int
    revision: int
    production: Production
    changed: Moment
    can_undo: bool
    can_redo: bool


class ProductionStateModel(Answer):
    state: ProductionState


class DayPlanModel(Answer):
    day: DayPlan


class TakesModel(Answer):
    takes: list[Take]
    shots: list[ShotLog]


class TakeFindingsModel(Answer):
    findings: list[TakeFinding]
