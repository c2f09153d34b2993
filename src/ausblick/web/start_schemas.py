"""What the page of the first two minutes asks and is answered."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, Field

from ausblick.core.advice.verdict import Verdict
from ausblick.core.kit import Kit
from ausblick.core.plan import Framing, Light, Plan
from ausblick.core.sentences import Sentence
from ausblick.core.standards.limit import Severity
from ausblick.core.start.first_set import Possible
from ausblick.core.start.one_more_lamp import FreeLamp

from .answers import Answer
from .kit_schemas import PlanBody


class SaidBody(BaseModel):
    said: dict[str, Any] = Field(description="What was said of room, cloth, lamps, camera and picture (StartSaid).")


class PossibleModel(Answer):
    """The unlit plan, and of every framing whether room, cloth and lenses do it."""

    plan: Plan
    possible: list[Possible]


class OpenFinding(Answer):
    severity: Severity
    says: Sentence


class FirstSetModel(Answer):
    """A lit set with one sentence over it. `kit`: what was said, as a kit."""

    plan: Plan
    kit: Kit
    verdict: Verdict
    says: Sentence
    told: list[Sentence]
    instead: Framing | None
    open: list[OpenFinding]


class MoreLampBody(PlanBody):
    lamp: dict[str, Any] = Field(description="A preset by its `kind`, or a lamp of the kit by its `name`.")


class MoreLampModel(Answer):
    """A lamp as it goes into the plan."""

    light: Light


class FreeLampsModel(Answer):
    lamps: list[FreeLamp]
