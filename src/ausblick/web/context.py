"""What a request works with."""

from __future__ import annotations

from typing import cast

import orjson
from flask import Response, current_app
from pydantic import BaseModel

from ausblick.app.services import Services

EXTENSION, NETWORK = "ausblick", "ausblick-network"


def services() -> Services:
    """The application's services."""
    return cast(Services, current_app.extensions[EXTENSION])


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


def quick_answer(model: BaseModel) -> Response:
    """The same of a model of many plain numbers, in a third of the time; its times and enumerations would not be
    written as `answer` writes them."""
    return Response(orjson.dumps(model, default=dict), mimetype="application/json")
