"""Productions over the API: kept whole, judged with their set-ups, and each take logged once."""

from __future__ import annotations

import csv
from io import BytesIO, StringIO
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from icalendar import Calendar

from ausblick.core.plan import dump_plan
from ausblick.core.production.production_document import dump_production
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.visitor_film import visitor_film
from tests.formats.test_clips import write

from .test_check import until_done


def begun(client: FlaskClient) -> int:
    """A production of two shots of two set-ups."""
    setups = [
        client.post("/api/setups", json={"plan": dump_plan(one)}).get_json()["id"] for one in (seed_vault(), scree())
    ]
    shots = [{"id": f"s{n}", "title": f"Shot {n}", "setup": n} for n in setups]
    document = {"format": "ausblick-production", "version": 1, "title": "Film", "date": "2027-03-16", "shots": shots}
    return int(client.post("/api/productions", json={"production": document}).get_json()["id"])


def logged(client: FlaskClient, production: int, key: str, **fields: Any) -> Any:
    take = {"key": key, "shot": "s1", "number": 1, "at": "2027-03-16T10:00:00Z", "setup": 1, **fields}
    answer = client.post(f"/api/productions/{production}/takes", json={"take": take})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def test_a_production_is_kept_whole_and_a_second_writer_is_told(client: FlaskClient) -> None:
    document = dump_production(visitor_film()) | {"colour_of_the_van": "white"}
    made = client.post("/api/productions", json={"production": document}).get_json()
    assert made["production"] == document
    assert made["production"]["people"][2]["from"] == "10:00"
    at = f"/api/productions/{made['id']}"
    changed = made["production"] | {"title": "Other"}
    assert client.put(at, json={"base": made["revision"], "production": changed}).get_json()["revision"] == 2
    assert client.put(at, json={"base": 2, "production": changed}).get_json()["revision"] == 2
    assert client.put(at, json={"base": 1, "production": document}).status_code == 409
    assert client.post(f"{at}/undo").get_json()["production"]["title"] == "Visitor film"
    assert client.post(f"{at}/redo").get_json()["production"]["title"] == "Other"
    wrong = client.put(at, json={"base": 4, "production": {**document, "call": "8"}})
    assert (wrong.status_code, wrong.get_json()["field"]) == (422, "call")
    client.delete(at)
    assert client.get(at).status_code == 404
    assert [one["title"] for one in client.get("/api/productions").get_json()["trash"]] == ["Other"]
    assert client.post(f"{at}/restore").status_code == 200


def test_a_shot_is_judged_by_its_set_up_as_it_is_now(client: FlaskClient) -> None:
    production = begun(client)
    state = client.get(f"/api/productions/{production}/state?day=0&now=600").get_json()["state"]
    assert [one["worst"] for one in state["shots"]] == ["consider", "stop"]
    assert state["shots"][1]["told"]["id"] == "screen.covered/missing"
    assert state["projections"][0]["left"] == state["day"]["order"]
    client.delete("/api/setups/2")
    gone = client.get(f"/api/productions/{production}/state").get_json()["state"]
    assert [one["missing"] for one in gone["shots"]] == [False, True]
    moved = client.get(f"/api/productions/{production}").get_json()["production"]
    moved["shots"][1]["pinned"] = 0
    trial = client.post("/api/productions/day", json={"production": moved}).get_json()["day"]
    assert trial["order"][0] == "s2"
    assert client.get(f"/api/productions/{production}").get_json()["production"]["shots"][1]["pinned"] is None


def test_a_take_is_logged_once_whatever_comes_twice(client: FlaskClient) -> None:
    production = begun(client)
    first = logged(client, production, "key-of-one")
    assert first["shots"][0]["next_number"] == 2
    assert first["takes"][0]["state"]["lamps"]
    again = logged(client, production, "key-of-one")
    assert len(again["takes"]) == 1
    better = logged(client, production, "key-of-one", status="keep", remark="hand")
    assert [(one["status"], one["remark"]) for one in better["takes"]] == [("keep", "hand")]
    gone = client.delete(f"/api/productions/{production}/takes/key-of-one").get_json()
    assert gone["takes"] == []
    # What a phone sends late does not bring back what was removed.
    assert logged(client, production, "key-of-one")["takes"] == []
    back = client.post(f"/api/productions/{production}/takes/key-of-one/restore").get_json()
    assert len(back["takes"]) == 1
    wrong = client.post(f"/api/productions/{production}/takes", json={"take": {"key": "key-of-two"}})
    assert wrong.status_code == 422


def test_a_clean_plate_is_void_once_a_lamp_is_changed(client: FlaskClient) -> None:
    production = begun(client)
    assert logged(client, production, "first-take")["shots"][0]["clean_plate"]["state"] == "missing"
    plated = logged(client, production, "the-plate", kind="clean-plate")
    assert plated["shots"][0]["clean_plate"]["state"] == "holds"
    setup = client.get("/api/setups/1").get_json()
    setup["plan"]["lights"][0]["dimmer"] = 0.4
    client.put("/api/setups/1", json={"base": setup["revision"], "plan": setup["plan"]})
    state = client.get(f"/api/productions/{production}/takes").get_json()["shots"][0]["clean_plate"]
    assert (state["state"], state["finding"]["severity"]) == ("changed", "fix")
    assert "a lamp" in state["finding"]["says"]
    wrap = client.get(f"/api/productions/{production}/takes?wrap=true").get_json()["shots"][0]["clean_plate"]
    assert wrap["finding"]["severity"] == "stop"


def test_a_clip_is_found_by_its_name_and_the_log_is_taken_along(client: FlaskClient, tmp_path: Path) -> None:
    production = begun(client)
    clip = write(tmp_path / "clip.mp4", frames=40).read_bytes()
    logged(client, production, "named-take", clip="c0007", remark="=SUM(1)", camera={"iso": 3200.0})
    at = f"/api/productions/{production}"
    assert client.get(f"{at}/takes").get_json()["takes"][0]["frame"] is None
    sent = client.post("/api/setups/1/frames", data={"file": (BytesIO(clip), "C0007.MP4")})
    job = until_done(client, sent.get_json())
    (take,) = client.get(f"{at}/takes").get_json()["takes"]
    assert take["frame"] == job["frame"]["id"]
    assert take["seconds"] == pytest.approx(40 / 25)
    log = client.get(f"{at}/export/log").get_json()
    assert log["production"] == "Film"
    told = {one["id"]: one["says"] for one in log["takes"][0]["findings"]}
    assert told["take.settings"] == "ISO 3200, planned 1600"
    assert [(one["shot"], one["done"]) for one in log["shots"]] == [("s1", True), ("s2", False)]
    (row,) = list(csv.DictReader(StringIO(client.get(f"{at}/export/log-csv").get_data(as_text=True))))
    assert row["remark"] == "'=SUM(1)"
    assert "ISO 3200, planned 1600" in row["findings"]


def test_a_production_is_held_against_its_own_kit(client: FlaskClient) -> None:
    production = begun(client)
    at = f"/api/productions/{production}"
    document = client.get(at).get_json()["production"]
    lens = next(one for one in state_of(client, at)["packing"] if one["kind"] == "lens")
    assert lens["missing"] is None
    document["kit"] = {"lenses": [{"name": "other", "focal_mm": 200.0}]}
    client.put(at, json={"base": 1, "production": document})
    state = state_of(client, at)
    assert next(one for one in state["packing"] if one["kind"] == "lens")["missing"] == 1
    assert state["shots"][0]["open_findings"] > 0
    document["shots"][0]["needs"] = ["sound"]
    client.put(at, json={"base": 2, "production": document})
    assert [one["boom_m"] is None for one in state_of(client, at)["shots"]] == [False, True]


def state_of(client: FlaskClient, at: str) -> Any:
    return client.get(f"{at}/state").get_json()["state"]


def test_the_day_goes_into_a_calendar_and_the_document_comes_back(client: FlaskClient) -> None:
    production = begun(client)
    at = f"/api/productions/{production}"
    calendar = Calendar.from_ical(client.get(f"{at}/export/ics").get_data())
    events = [event for event in calendar.walk("VEVENT") if str(event["summary"]).startswith("Shot")]
    day = client.get(f"{at}/state").get_json()["state"]["day"]
    shots = [entry for entry in day["entries"] if entry["kind"] == "shot"]
    assert [event["dtstart"].dt.strftime("%Y-%m-%d %H:%M") for event in events] == [
        f"2027-03-16 {entry['at']}" for entry in shots
    ]
    document = client.get(f"{at}/export/json").get_json()
    assert [shot["plan"]["title"] for shot in document["shots"]] == ["Seed vault, night round", "Scree, noon"]
    again = client.post("/api/productions", json={"production": document}).get_json()["production"]
    assert again == document
    undated = client.get(f"{at}").get_json()["production"] | {"date": None}
    client.put(at, json={"base": 1, "production": undated})
    refused = client.get(f"{at}/export/ics")
    assert (refused.status_code, refused.get_json()["field"]) == (422, "date")
