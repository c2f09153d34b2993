"""What the API says of the kit, the room table and proposals."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, Field

from ausblick.app.kit_uses import KitUse
from ausblick.core.advice.search.recorders import Recorder
from ausblick.core.advice.search.room_table import Cell
from ausblick.core.evaluation.number import Number
from ausblick.core.kit import Kit
from ausblick.core.plan import Framing, Plan
from ausblick.core.sentences import Sentence

from .answers import Answer


class KitModel(Answer):
    """`can_undo`, `can_redo`: is there an earlier state to go to, and one that was undone?"""

    revision: int
    kit: Kit
    can_undo: bool
    can_redo: bool


class KitUsesModel(Answer):
    uses: list[KitUse]


class KitBody(BaseModel):
    base: int = Field(ge=0, le=2**31, description="The revision this change was made on.")
    kit: dict[str, Any] = Field(description="A kit document.")


class KitTextBody(BaseModel):
    base: int = Field(ge=0, le=2**31)
    text: str = Field(max_length=500_000, description="A kit as CSV.")


class PlanBody(BaseModel):
    plan: dict[str, Any] = Field(description="A plan document.")


class ProposeBody(PlanBody):
    framing: Framing


class RecorderList(Answer):
    recorders: list[Recorder]


class FramingModel(Answer):
    """Where the camera stands for its lens, and which lens frames the same from where it stands; m, mm."""

    camera_z: float
    focal_mm: float


class RoomTableModel(Answer):
    lenses: list[str]
    cells: list[Cell]


class AlternativeModel(Answer):
    """A whole plan, what it is, what it costs, what stops it, and its readings."""

    name: str
    says: Sentence
    costs: list[Sentence]
    stops: list[Sentence]
    plan: Plan
    numbers: list[Number]


class ProposalsModel(Answer):
    alternatives: list[AlternativeModel]
    impossible: list[Sentence]
