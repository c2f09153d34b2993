from __future__ import annotations

import pytest
from flask.testing import FlaskClient

from ausblick.core.kit import dump_kit
from ausblick.core.kit.catalogue import full_kit

PLAN = {"format": "ausblick-plan", "version": 1}


def filled(client: FlaskClient) -> None:
    assert client.put("/api/kit", json={"base": 0, "kit": dump_kit(full_kit())}).status_code == 200


def test_the_kit_is_kept_and_the_later_writer_is_told(client: FlaskClient) -> None:
    assert client.get("/api/kit").get_json()["revision"] == 0
    filled(client)
    late = client.put("/api/kit", json={"base": 0, "kit": {}})
    assert (late.status_code, late.get_json()["title"]) == (409, "Somebody changed the kit first")
    stored = client.get("/api/kit").get_json()
    assert (stored["revision"], len(stored["kit"]["lenses"])) == (1, 5)


def test_out_as_csv_and_in_again(client: FlaskClient) -> None:
    filled(client)
    text = client.get("/api/kit.csv").get_data(as_text=True)
    again = client.put("/api/kit/from-csv", json={"base": 1, "text": text.replace("85 mm", "90 mm")}).get_json()
    assert [lens["name"] for lens in again["kit"]["lenses"]][-1] == "90 mm"
    bad = client.put("/api/kit/from-csv", json={"base": 2, "text": "kind,name\nboat,x\n"})
    assert (bad.status_code, bad.get_json()["field"]) == (422, "row 2, kind")
    bad = client.put("/api/kit", json={"base": 2, "kit": {"lamps": [{"count": -1}]}})
    assert (bad.status_code, bad.get_json()["field"]) == (422, "lamps[0].count")
    assert client.get("/api/kit").get_json()["revision"] == 2


def test_room_table_and_findings_follow_the_kit(client: FlaskClient) -> None:
    assert client.post("/api/room-table", json={"plan": PLAN}).get_json() == {"lenses": [], "cells": []}
    filled(client)
    table = client.post("/api/room-table", json={"plan": PLAN}).get_json()
    assert len(table["cells"]) == 6 * len(table["lenses"])
    wide = PLAN | {"screen": {"width": 9.0}}
    found = client.post("/api/evaluate", json={"plan": wide}).get_json()["check"]["findings"]
    assert next(f for f in found if f["id"] == "kit.screen")["severity"] == "consider"


@pytest.mark.torture
def test_a_proposal_is_a_plan_that_can_be_saved(client: FlaskClient) -> None:
    filled(client)
    made = client.post("/api/propose", json={"plan": PLAN, "framing": "chest"}).get_json()
    assert made["impossible"] == []
    best = made["alternatives"][0]
    assert best["stops"] == []
    assert client.post("/api/setups", json={"plan": best["plan"]}).status_code == 201
    level = next(n for n in best["numbers"] if n["id"] == "level-luma")
    assert level["value"] == pytest.approx(42, abs=9), "within half a stop of the band"
    assert client.post("/api/propose", json={"plan": PLAN, "framing": "feet"}).status_code == 422


def test_distance_for_a_lens_and_lens_for_a_distance(client: FlaskClient) -> None:
    told = client.post("/api/framing", json={"plan": PLAN, "framing": "waist"}).get_json()
    assert told["camera_z"] > 2.4
    plan = PLAN | {"camera": {"z": told["camera_z"]}}
    assert client.post("/api/framing", json={"plan": plan, "framing": "waist"}).get_json()[
        "focal_mm"
    ] == pytest.approx(35, abs=0.3)
    assert client.post("/api/framing", json={"plan": PLAN | {"subject": None}, "framing": "waist"}).status_code == 422
