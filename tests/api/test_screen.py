from __future__ import annotations

from flask.testing import FlaskClient

FERN = {
    "format": "ausblick-plan",
    "version": 1,
    "subject": {"wardrobe": [{"name": "fern costume", "reflectance": [0.10, 0.28, 0.08]}]},
    "room": {"kind": "exterior", "wind_ms": 5.0},
}


def test_advice_evidence_and_rigging_sheet(client: FlaskClient) -> None:
    told = client.post("/api/screen-advice", json={"plan": FERN}).get_json()
    assert told["advice"]["colour"] == "blue"
    worst = min(told["evidence"], key=lambda row: row["matte"])
    assert (worst["surface"], worst["screen"]) == ("fern costume", "green")
    assert told["sheet"]["bags_per_stand"] > 3
    assert any("Wind of 5 m/s" in caution["says"] for caution in told["sheet"]["cautions"])
