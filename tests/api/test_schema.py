"""The whole API against its own description, with input nobody thought of."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

import pytest
import schemathesis
from flask import Response
from hypothesis import HealthCheck, settings

from ausblick.web.app import create_app

app = create_app(Path(tempfile.mkdtemp()))
DESCRIPTION = (Path(__file__).parents[2] / "docs/api/openapi.json").read_text("utf-8")
app.add_url_rule("/openapi.json", "description", lambda: Response(DESCRIPTION, mimetype="application/json"))
schema = schemathesis.openapi.from_wsgi("/openapi.json", app)


@schema.parametrize()
@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
def test_no_request_makes_the_server_stumble(case: schemathesis.Case) -> None:
    response = case.call()
    assert response.status_code < 500
    if response.status_code >= 400:
        assert "detail" in response.json()


UNITS = {"_percent": "%", "_m": "m", "_px": "px", "_lux": "lx", "_stops": "stops", "_hz": "Hz"}
"""What a field of a result ends with, and how its description begins or ends."""


@pytest.mark.parametrize(
    "name", ["ScreenReading", "Exposure", "Blur", "Focus", "FrameReport", "ClipReport", "Shadow"]
)
def test_the_description_says_the_unit_of_every_number_of_a_result(name: str) -> None:
    fields = json.loads(DESCRIPTION)["components"]["schemas"][name]["properties"]
    checked = 0
    for field, schema in fields.items():
        unit = next((unit for ending, unit in UNITS.items() if field.endswith(ending)), None)
        said = [one.get("description", "") for one in schema.get("anyOf", [schema])]
        if unit is not None and "$ref" not in str(schema) and "array" not in str(schema):
            assert any(unit in words.split("; ")[0].replace(",", " ").split() for words in said), (field, said)
            checked += 1
    assert checked > 0
