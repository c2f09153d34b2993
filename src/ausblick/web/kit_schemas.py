"""What the API says of the kit, the room table and proposals."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, Field

from ausblick.core.kit import Kit
from ausblick.core.plan import Framing, Plan, Recording

from .answers import Answer
from .evaluation_schemas import ChangeModel, NumberModel


class KitModel(Answer):
    revision: int
    kit: Kit


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


class RecorderModel(Answer):
    name: str
    recording: Recording
    bits_a_pixel: float
    gb_minute: float
    card_minutes: float
    chosen: bool
    changes: list[ChangeModel]


class RecorderList(Answer):
    recorders: list[RecorderModel]


class FramingModel(Answer):
    """Where the camera stands for its lens, and which lens frames the same from where it stands; m, mm."""

    camera_z: float
    focal_mm: float


class CellModel(Answer):
    """One framing with one lens in this room."""

    framing: Framing
    lens: str
    focal_mm: float
    state: Literal["possible", "tight", "impossible"]
    blocks: Literal["", "depth", "width", "height", "screen", "lens"]
    why: str
    turned: bool
    gap: float | None
    camera_z: float | None
    screen: str | None
    margin_m: float | None
    changes: list[ChangeModel]


class RoomTableModel(Answer):
    lenses: list[str]
    cells: list[CellModel]


class AlternativeModel(Answer):
    """A whole plan, what it is, what it costs, what stops it, and its readings."""

    name: str
    says: str
    costs: list[str]
    stops: list[str]
    plan: Plan
    numbers: list[NumberModel]


class ProposalsModel(Answer):
    alternatives: list[AlternativeModel]
    impossible: list[str]
