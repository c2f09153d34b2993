from __future__ import annotations

import json

from flask.testing import FlaskClient

from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import scree


def test_a_plan_goes_out_and_comes_in_again_exactly(client: FlaskClient) -> None:
    plan = dump_plan(scree()) | {"dolly": "kept, as what nobody knows"}
    made = client.post("/api/setups", json={"plan": plan}).get_json()
    out = client.get(f"/api/setups/{made['id']}/export/plan")
    assert out.headers["Content-Disposition"] == "attachment; filename*=UTF-8''Scree-noon.json"
    again = client.post("/api/setups", json={"plan": json.loads(out.data)}).get_json()
    assert again["plan"] == made["plan"]
    assert again["plan"]["dolly"] == "kept, as what nobody knows"
    assert client.get(f"/api/setups/{again['id']}/export/plan").data == out.data


def test_what_is_exported_has_its_type_and_its_name(client: FlaskClient) -> None:
    made = client.post("/api/setups", json={"plan": dump_plan(scree()), "title": "Жуки / ../x"}).get_json()
    at = f"/api/setups/{made['id']}/export"
    for to, kind in (("sheet", "application/pdf"), ("svg", "image/svg+xml"), ("gltf", "model/gltf+json")):
        answer = client.get(f"{at}/{to}?units=ft&paper=letter")
        assert (answer.status_code, answer.mimetype) == (200, kind)
        assert "%2F" not in answer.headers["Content-Disposition"]
    assert client.get(f"{at}/sketch").status_code == 422
    assert client.get(f"{at}/sheet?units=ell").status_code == 422
    assert client.get("/api/setups/999/export/plan").status_code == 404
