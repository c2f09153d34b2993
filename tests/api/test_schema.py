"""The whole API against its own description, with input nobody thought of."""

from __future__ import annotations

import json
import os
import tempfile
import zlib
from datetime import datetime, timedelta
from pathlib import Path

import pytest
import schemathesis
from flask import Response
from hypothesis import HealthCheck, settings

from ausblick.app.frame_import import import_frame
from ausblick.core.kit.catalogue import small_kit
from ausblick.core.plan import dump_plan, plan_from
from ausblick.web.app import create_app, services_of
from ausblick.web.guard import HEADERS
from tests.conftest import frame, write_frame

PLACE = Path(tempfile.mkdtemp())
app = create_app(PLACE, roots=[PLACE])
DESCRIPTION = (Path(__file__).parents[2] / "docs/api/openapi.json").read_text("utf-8")
app.add_url_rule("/openapi.json", "description", lambda: Response(DESCRIPTION, mimetype="application/json"))
PLANS = [dump_plan(plan_from({"format": "ausblick-plan", "version": 1, **parts})) for parts in (
    {}, {"lights": [{"position": [-2, 1.4, 2]}], "subject": None}, {"medium": "stills", "camera": {"roll": 90}},
    {"lights": [{"role": "key", "position": [1, 2, 4]}], "screen": {"width": 6, "floor_run": 4}, "window": {}},
)]  # fmt: skip
"""Real bodies: what is made up at random is hardly ever a plan."""


@pytest.fixture(scope="module", autouse=True)
def filled() -> None:
    """Set-ups, a frame, a kit: numbers that are there."""
    services = services_of(app)
    for plan in PLANS:
        services.setups.create(plan_from(plan))
    services.kits.save(0, small_kit())
    picture = write_frame(PLACE / "frame.png", frame(figure=True))
    import_frame(services.frames, 1, "frame.png", picture, plan_from(PLANS[0]))


schema = schemathesis.openapi.from_wsgi("/openapi.json", app)
# Every edge of every field is tried where there is time: with `make torture`.
schema.config.phases.coverage.enabled = os.environ.get("HYPOTHESIS_PROFILE") == "long"


@schema.hook
def map_case(context: schemathesis.HookContext, case: schemathesis.Case) -> schemathesis.Case:
    """In two of three requests a real plan and numbers that are there."""
    turn = zlib.crc32(repr((case.path, case.body, case.path_parameters, case.query)).encode())
    if turn % 3 and isinstance(case.body, dict) and "plan" in case.body:
        case.body = {**case.body, "plan": PLANS[turn % len(PLANS)]}
    if turn % 3 and case.path_parameters:
        known = {name: 1 for name in ("setup_id", "frame_id", "other_id") if name in case.path_parameters}
        case.path_parameters = {**case.path_parameters, **known}
    return case


def holds(case: schemathesis.Case) -> None:
    """No request makes the server stumble, and every refusal is a problem of a status that is documented."""
    response = case.call()
    documented = {int(status) for status in case.operation.responses.status_codes if status.isdigit()}
    assert response.status_code < 500 or response.status_code in (503, 507), response.text
    # Methods that the path does not have are tried as well.
    if case.method.upper() == case.operation.method.upper():
        assert response.status_code in documented, (response.status_code, documented)
    if response.status_code >= 400:
        assert "detail" in response.json()


QUIET = {"deadline": None, "suppress_health_check": list(HealthCheck)}


@schema.parametrize()
@settings(max_examples=1, derandomize=True, **QUIET)
def test_a_sample_of_requests(case: schemathesis.Case) -> None:
    holds(case)


@pytest.mark.torture
@schema.parametrize()
@settings(max_examples=90, **QUIET)
def test_five_thousand_requests(case: schemathesis.Case) -> None:
    holds(case)


GONE = sorted(
    path for path, methods in json.loads(DESCRIPTION)["paths"].items() if "{setup_id}" in path and "get" in methods
)


@pytest.mark.parametrize("path", GONE)
def test_what_belongs_to_an_absent_set_up_is_absent(path: str) -> None:
    response = app.test_client().get(path.replace("{setup_id}", "99").replace("{to}", "plan"))
    assert response.status_code == 404
    assert response.mimetype == "application/problem+json"


@pytest.mark.parametrize("path", ["/api", "/api/", "/api/setup", "/api/setups/1/nothing", "/api/frames/1/look.png"])
@pytest.mark.parametrize("method", ["GET", "POST", "DELETE"])
def test_a_path_that_nobody_knows_is_a_problem(path: str, method: str) -> None:
    response = app.test_client().open(path, method=method)
    assert response.status_code in ((404, 405) if path in ("/api", "/api/") else (404,))
    assert "detail" in response.get_json()


def test_times_carry_their_zone() -> None:
    changed = app.test_client().get("/api/setups/1").get_json()["changed"]
    assert datetime.fromisoformat(changed).utcoffset() == timedelta(0)


def test_every_answer_carries_the_headers_that_keep_others_out() -> None:
    for path in ("/", "/api/setups", "/api/nothing"):
        headers = app.test_client().get(path).headers
        for name, value in HEADERS.items():
            assert headers[name] == value


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
