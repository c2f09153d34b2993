"""The whole API against its own description, with input nobody thought of."""

from __future__ import annotations

import tempfile
from pathlib import Path

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
