from __future__ import annotations

from flask.testing import FlaskClient

from ausblick.core.kit.catalogue import small_kit
from ausblick.core.kit.kit_document import dump_kit
from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import scree


def test_what_was_said_becomes_a_set_and_nothing_is_stored(client: FlaskClient) -> None:
    said = {"room": {"length": 8.0, "width": 5.0}, "lamps": [{"kind": "large-panel", "count": 3}], "framing": "chest"}
    made = client.post("/api/start", json={"said": said}).get_json()
    assert made["verdict"] in ("good", "usable")
    assert len(made["plan"]["lights"]) == 3
    assert client.get("/api/setups").get_json()["setups"] == []
    possible = client.post("/api/start/possible", json={"said": said}).get_json()
    assert {one["framing"]: one["state"] for one in possible["possible"]}["chest"] == "possible"
    wrong = client.post("/api/start", json={"said": {"room": {"length": 0.2}}})
    assert (wrong.status_code, wrong.get_json()["field"]) == (422, "room.length")
    assert client.post("/api/start", json={"said": {"lamps": [{"name": "beacon"}]}}).status_code == 422


def test_the_kit_grows_and_says_where_it_is_used(client: FlaskClient) -> None:
    kit = dump_kit(small_kit())
    first = client.post("/api/kit/add", json={"base": 0, "kit": kit}).get_json()
    assert len(first["kit"]["lamps"]) == 2
    again = client.post("/api/kit/add", json={"base": first["revision"], "kit": kit}).get_json()
    assert again["kit"]["lamps"] == first["kit"]["lamps"]
    plan = dump_plan(scree())
    plan["lights"][0]["fixture"] = first["kit"]["lamps"][0]["fixture"]
    client.post("/api/setups", json={"plan": plan})
    uses = client.get("/api/kit/uses").get_json()["uses"]
    assert {"kind": "lamps", "name": "panel", "titles": ["Scree, noon"]} in uses
    free = client.post("/api/start/free-lamps", json={"plan": plan}).get_json()["lamps"]
    assert [(one["name"], one["free"]) for one in free] == [("panel", 1), ("soft light", 1)]
    light = client.post("/api/start/lamp", json={"plan": plan, "lamp": {"name": "panel"}}).get_json()["light"]
    assert light["name"] == "panel"
    assert light["id"] not in [lamp["id"] for lamp in plan["lights"]]
