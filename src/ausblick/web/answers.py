"""What every answer of the API has in common."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class Answer(BaseModel):
    """Answers promise exactly their fields, so every one of them is required in the description."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)
