"""What the API says of a simulated test key."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ausblick.core.damage.scale import QualityPart
from ausblick.core.matte.key_report import LeverReport, SecondReport
from ausblick.core.matte.pull import Keyer

from .answers import Answer, Moment
from .kit_schemas import PlanBody


class TestKeyBody(PlanBody):
    """`levers`: try one practical change each as well, which takes a while. `setup_id`: keep the key with it."""

    setup_id: int | None = Field(default=None, ge=1, le=2**31)
    levers: bool = True


class WindowModel(Answer):
    """A part of the frame that has pictures, and which views of it there are."""

    name: str
    width: int
    height: int
    views: list[str]


class TestKeyModel(Answer):
    """`created` and `stale` are of a kept key: the set-up's plan has changed since. A key of an older version has no
    `formula`: its quality is on another scale."""

    id: str
    created: Moment | None = None
    stale: bool = False
    second_keyer: SecondReport | None = None
    state: Literal["running", "done", "failed", "cancelled"]
    step: str
    problem: str
    quality: float | None
    formula: Keyer | None = None
    other_quality: float | None = None
    person: str | None = None
    parts: list[QualityPart]
    residue_percent: float | None
    holes_percent: float | None
    flicker_percent: float | None
    levers: list[LeverReport]
    windows: list[WindowModel]


class TestKeyList(Answer):
    keys: list[TestKeyModel]


class JobPath(BaseModel):
    job_id: str = Field(min_length=1, max_length=40)


class PicturePath(JobPath):
    window: str = Field(min_length=1, max_length=20)
    view: str = Field(min_length=1, max_length=20)
