"""What every answer of the API has in common."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict


def _in_utc(moment: datetime) -> datetime:
    return moment.replace(tzinfo=UTC) if moment.tzinfo is None else moment


Moment = Annotated[datetime, AfterValidator(_in_utc)]
"""A time with its zone: what is kept without one is UTC."""


class Answer(BaseModel):
    """Answers promise exactly their fields, so every one of them is required in the description."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)
