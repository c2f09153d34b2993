from __future__ import annotations

import pytest
from flask.testing import FlaskClient

PLAN = {"format": "ausblick-plan", "version": 1, "screen": {"width": 12.0, "height": 3.4}}


def test_marks_copies_and_sun(client: FlaskClient) -> None:
    marks = client.post("/api/tracking-marks", json={"plan": PLAN, "pan": 30, "wanted": 5}).get_json()
    assert marks["least"] >= 5
    assert len(marks["places"]) >= 5
    found = client.post("/api/copies", json={"plan": PLAN, "rows": 2, "columns": 3}).get_json()["copies"]
    assert len(found) == 6
    assert found[-1]["scale"] < found[0]["scale"]
    where = {"latitude": 51.5, "longitude": 0, "when": "2026-06-21T12:02:00Z", "heading": 90}
    sun = client.post("/api/sun", json=where).get_json()
    assert sun["azimuth"] == pytest.approx(90, abs=2)
    assert client.post("/api/sun", json=where | {"when": "2026-06-21T12:02:00"}).status_code == 422
    assert client.post("/api/tracking-marks", json={"plan": PLAN, "pan": -1}).status_code == 422
    assert client.post("/api/copies", json={"plan": PLAN, "columns": 1000}).status_code == 422
