from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.conftest import frame, write_frame

PLAN = {"format": "ausblick-plan", "version": 1}
SIZE = {"width": 1920, "height": 1080, "focal_mm_ff": 35}


def test_a_plate_is_read_and_nothing_is_kept(client: FlaskClient, tmp_path: Path) -> None:
    data = write_frame(tmp_path / "p.png", frame(colour=(30.0, 30.0, 30.0))).read_bytes()
    read = client.post("/api/plate/read", data={"file": (io.BytesIO(data), "p.png")}).get_json()
    assert read["mean_level"] == pytest.approx(30, abs=0.5)
    assert read["brightness"] == "dusk"
    assert list((tmp_path / "data/frames").iterdir()) == []
    bad = client.post("/api/plate/read", data={"file": (io.BytesIO(b"text"), "p.png")})
    assert (bad.status_code, bad.get_json()["field"]) == (422, "file")


def test_marks_give_camera_and_light(client: FlaskClient) -> None:
    marks: dict[str, Any] = {"horizon": [[0.0, 0.4], [1.0, 0.4]]}
    read = client.post("/api/plate/marks", json=SIZE | marks).get_json()
    # The horizon above the middle: the camera looks down.
    assert read["camera"]["tilt"] < -2
    assert read["light"] is None
    marks |= {"foot": [0.5, 0.8], "top": [0.5, 0.5], "tip": [0.7, 0.8]}
    read = client.post("/api/plate/marks", json=SIZE | marks).get_json()
    assert read["light"]["azimuth"] == pytest.approx(-90, abs=3)
    assert read["light"]["elevation"] > 30
    marks |= {"tip": [0.7, 0.1]}
    assert "below the horizon" in client.post("/api/plate/marks", json=SIZE | marks).get_json()["light_problem"]


@pytest.mark.parametrize(
    "body", [{}, SIZE, SIZE | {"horizon": [[0, 0.5]]}, SIZE | {"horizon": [[0, 0.5], [1, 1e9]]}, SIZE | {"width": 0}]
)
def test_marks_that_cannot_be_read(client: FlaskClient, body: dict[str, Any]) -> None:
    response = client.post("/api/plate/marks", json=body)
    assert response.status_code == 422
    assert response.get_json()["detail"]


def test_the_brief_follows_the_plate(client: FlaskClient) -> None:
    known = client.post("/api/brief", json={"plan": PLAN}).get_json()
    assert len(known["stands"]) == 3
    assert [target["school"] for target in known["levels"]][2] == "follow-plate"
    unknown = client.post("/api/brief", json={"plan": PLAN | {"plate": {"known": False}}}).get_json()
    assert unknown["wrap_around"] is True


@pytest.mark.parametrize("when", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00"])
def test_the_sun_of_another_age_is_refused_with_its_field(client: FlaskClient, when: str) -> None:
    asked = client.post("/api/sun", json={"latitude": 50, "longitude": 8, "when": when, "heading": 0})
    assert asked.status_code == 422
    assert asked.get_json()["field"] == "when"
