from __future__ import annotations

import pytest
from flask.testing import FlaskClient

from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import seed_vault
from ausblick.demo.fern_house_2 import fern_dancer, gardeners, potting_shed
from tests.core.light.test_emission import GOOD


def test_an_evaluation_says_shadow_spill_and_reflections(client: FlaskClient) -> None:
    body = client.post("/api/evaluate", json={"plan": dump_plan(potting_shed()), "remedies": False}).get_json()
    check = body["check"]
    assert [r["light"] for r in check["reflections"] if r["visible"]] == ["l4"]
    assert check["spill"]["side"] > 1
    assert {p["name"] for p in check["spill"]["probes"]} >= {"face", "chin", "hands", "left cheek"}
    assert len(body["map"]["shadow"]) == 41
    assert max(max(row) for row in body["floor_shadow"]["lost"]) > 0.3
    assert {load["circuit"] for load in body["loads"]} == {"A", "B"}


def test_even_the_screen_over_the_api(client: FlaskClient) -> None:
    body = {"plan": dump_plan(seed_vault()), "heights": False, "positions": False, "aims": False}
    found = client.post("/api/even-screen", json=body).get_json()
    assert found["spread_after"] < found["spread_before"]
    assert all(change["path"].endswith("dimmer") for change in found["changes"])


def test_distances_over_the_api(client: FlaskClient) -> None:
    found = client.post("/api/distances", json={"plan": dump_plan(gardeners())}).get_json()
    assert len(found["schools"]) == 5
    assert found["curve"][0]["z"] == 0.6
    nobody = {"format": "ausblick-plan", "version": 1, "subject": None}
    assert client.post("/api/distances", json={"plan": nobody}).get_json() == {"curve": [], "schools": []}


def test_photometry_is_read_or_refused_by_name(client: FlaskClient) -> None:
    found = client.post("/api/photometry", json={"text": GOOD}).get_json()
    assert found["peak_cd"] == 100
    assert len(found["curve"]) == 61
    bad = client.post("/api/photometry", json={"text": "hello"})
    assert (bad.status_code, bad.get_json()["field"]) == (422, "text")
    plan = {"format": "ausblick-plan", "version": 1, "photometry": {"a": "hello"}}
    bad = client.post("/api/evaluate", json={"plan": plan})
    assert (bad.status_code, bad.get_json()["field"]) == (422, "photometry")


def test_the_ledger_over_the_api(client: FlaskClient) -> None:
    body = {"plan": dump_plan(gardeners()), "locked": ["aperture"]}
    found = client.post("/api/ledger", json=body).get_json()
    assert {e["row"] for e in found["entries"]} >= {"shutter", "aperture", "iso", "nd"}
    assert all("Aperture" not in s["name"] for s in found["solutions"])
    assert found["safe_shutters"][0] == 0.01
    bad = client.post("/api/ledger", json={**body, "locked": ["weather"]})
    assert bad.status_code == 422


def test_a_blue_screen_is_drawn_on_the_channel_that_its_level_is_told_in(client: FlaskClient) -> None:
    """The map's deviation and the wanted level are of one trace: luma of a blue screen says next to nothing."""
    plan = dump_plan(fern_dancer())
    assert plan["targets"]["level_trace"] == "luma"
    found = client.post("/api/evaluate", json={"plan": plan, "remedies": False}).get_json()
    assert found["map"]["trace"] == "key-channel"
    judged = [d for row, on in zip(found["map"]["deviation"], found["map"]["judged"], strict=True)
              for d, one in zip(row, on, strict=True) if one]  # fmt: skip
    level = found["check"]["screen"]["surfaces"][0]["level_key_channel"]
    assert found["map"]["target"] + sum(judged) / len(judged) == pytest.approx(level, abs=3.0)
