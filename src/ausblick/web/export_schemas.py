"""What an export is asked for."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ausblick.app.plan_exports import PlanFormat
from ausblick.core.sentences import Units
from ausblick.formats.paper.sheet_pdf import Paper

from .schemas import SetupPath


class ExportPath(SetupPath):
    to: PlanFormat | Literal["bundle"]


class ExportQuery(BaseModel):
    units: Units = Field(default="m", description="Lengths on sheet and drawing.")
    paper: Paper = Field(default="a4", description="Size of the sheet.")
