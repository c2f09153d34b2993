from __future__ import annotations

import io
import json
from base64 import b64decode
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest
from flask.testing import FlaskClient

from ausblick.core.plan import Change, apply_changes, dump_plan
from ausblick.demo.fern_house import seed_vault
from tests.conftest import frame, write_frame
from tests.formats.test_images import bad_files

PLAN = {"format": "ausblick-plan", "version": 1}


def made(client: FlaskClient, plan: dict[str, Any] | None = None) -> dict[str, Any]:
    response = client.post("/api/setups", json={"plan": plan or PLAN, "title": "A set-up"})
    assert response.status_code == 201
    body: dict[str, Any] = response.get_json()
    return body


def test_make_save_undo_redo_and_list(client: FlaskClient) -> None:
    setup = made(client)
    plan = setup["plan"] | {"title": "Changed"}
    saved = client.put(f"/api/setups/{setup['id']}", json={"base": setup["revision"], "plan": plan}).get_json()
    assert (saved["plan"]["title"], saved["can_undo"]) == ("Changed", True)
    assert client.post(f"/api/setups/{setup['id']}/undo").get_json()["plan"]["title"] == "A set-up"
    assert client.post(f"/api/setups/{setup['id']}/redo").get_json()["plan"]["title"] == "Changed"
    (listed,) = client.get("/api/setups").get_json()["setups"]
    assert (listed["title"], listed["worst"]) == ("Changed", "stop")
    assert "No light" in listed["worst_says"]
    (named,) = client.get("/api/setups/titles").get_json()["setups"]
    assert named == {name: listed[name] for name in ("id", "title", "revision", "changed", "damaged")}


def test_two_writers(client: FlaskClient) -> None:
    setup = made(client)
    url = f"/api/setups/{setup['id']}"
    client.put(url, json={"base": 1, "plan": PLAN | {"title": "first"}})
    late = client.put(url, json={"base": 1, "plan": PLAN | {"title": "second"}})
    assert late.status_code == 409
    body = late.get_json()
    assert body["current"]["plan"]["title"] == "first"
    (version,) = client.get(f"{url}/versions").get_json()["versions"]
    assert version["id"] == body["kept"]
    assert client.post(f"{url}/versions/{version['id']}/open").get_json()["plan"]["title"] == "second"


def test_rename_duplicate_delete_restore_name(client: FlaskClient) -> None:
    url = f"/api/setups/{made(client)['id']}"
    assert client.patch(url, json={"title": "  Tuesday "}).get_json()["plan"]["title"] == "Tuesday"
    assert client.post(f"{url}/duplicate").get_json()["plan"]["title"] == "Tuesday, copy"
    assert client.post(f"{url}/versions", json={"name": "noon"}).get_json()["name"] == "noon"
    assert client.delete(url).status_code == 204
    assert client.get(url).status_code == 404
    assert client.post(f"{url}/restore").get_json()["plan"]["title"] == "Tuesday"


def test_evaluation_with_changes_and_remedies(client: FlaskClient) -> None:
    plan = dump_plan(seed_vault())
    now = client.post("/api/evaluate", json={"plan": plan}).get_json()
    worst = next(finding for finding in now["check"]["findings"] if finding["remedies"])
    remedy = worst["remedies"][0]
    body = {"plan": plan, "changes": remedy["changes"], "remedies": False}
    then = client.post("/api/evaluate", json=body).get_json()
    after = next(f for f in then["check"]["findings"] if f["id"] == worst["id"])
    assert after["value"] == pytest.approx(remedy["after"])
    assert all(f["remedies"] == [] for f in then["check"]["findings"])
    grid = now["map"]
    assert (len(grid["deviation"]), len(grid["deviation"][0])) == (len(grid["y"]), len(grid["x"])) == (41, 61)
    assert now["picture"]["figure"]


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "field"),
    [
        ("post", "/api/evaluate", {"plan": {}}, 422, "format"),
        ("post", "/api/evaluate", {"plan": PLAN | {"camera": {"iso": "fast"}}}, 422, "camera.iso"),
        ("post", "/api/evaluate", {"plan": PLAN, "changes": [{"path": "a.b", "value": 1}]}, 422, "a.b"),
        ("post", "/api/evaluate", {}, 422, "plan"),
        ("post", "/api/evaluate", [], 422, None),
        ("post", "/api/setups", {"plan": PLAN | {"version": 9}}, 422, "version"),
        ("post", "/api/setups", {"title": ""}, 422, "title"),
        ("get", "/api/setups/99", None, 404, None),
        ("put", "/api/setups/99", {"base": 1, "plan": PLAN}, 404, None),
        ("get", "/api/setups/0", None, 422, "setup_id"),
        ("get", "/api/setups/99/frames", None, 404, None),
        ("get", "/api/frames/99", None, 404, None),
        ("get", "/api/frames/99/matte.png", None, 404, None),
        ("get", "/api/frames/99/comparison", None, 404, None),
        ("delete", "/api/frames/99", None, 404, None),
        ("post", "/api/setups/99/versions/1/open", None, 404, None),
        ("patch", "/api/evaluate", {}, 405, None),
    ],
)
def test_every_error_is_a_problem(
    client: FlaskClient, method: str, path: str, body: Any, status: int, field: str | None
) -> None:
    response = client.open(path, method=method.upper(), json=body)
    assert response.status_code == status
    problem = response.get_json()
    assert set(problem) == {"title", "detail", "field"}
    assert problem["field"] == field or field is None


@pytest.mark.parametrize("text", ['{"plan": {"format": NaN}}', '{"plan":' * 3000, "not json", '{"plan": 1e999}', ""])
def test_bodies_that_are_no_json(client: FlaskClient, text: str) -> None:
    response = client.post("/api/evaluate", data=text, content_type="application/json")
    assert 400 <= response.status_code < 500
    assert response.get_json()["detail"]


def test_nan_and_infinity_are_refused_and_nothing_is_stored(client: FlaskClient) -> None:
    setup = made(client)
    for value in ("NaN", "Infinity", "-1e999"):
        text = json.dumps({"base": 1, "plan": PLAN | {"screen": {"width": "?"}}}).replace('"?"', value)
        response = client.put(f"/api/setups/{setup['id']}", data=text, content_type="application/json")
        assert (response.status_code, response.get_json()["field"]) == (422, "screen.width")
    assert client.get(f"/api/setups/{setup['id']}").get_json()["revision"] == 1


def test_other_pages_and_other_hosts_are_kept_out(client: FlaskClient) -> None:
    assert client.post("/api/setups", json={}, headers={"Origin": "http://elsewhere.example"}).status_code == 403
    assert client.get("/api/setups", headers={"Host": "elsewhere.example"}).status_code == 403
    assert client.post("/api/setups", json={}, headers={"Origin": "http://localhost"}).status_code == 201
    headers = client.get("/api/setups").headers
    assert "default-src 'self'" in headers["Content-Security-Policy"]


def send(client: FlaskClient, setup_id: int, name: str, data: bytes) -> Any:
    return client.post(f"/api/setups/{setup_id}/frames", data={"file": (io.BytesIO(data), name)})


def test_a_frame_is_read_kept_shown_compared_and_removed(client: FlaskClient, tmp_path: Path) -> None:
    setup = made(client, dump_plan(seed_vault()))
    data = write_frame(tmp_path / "a.png", frame(figure=True, noise=0.5, spot=7)).read_bytes()
    body = send(client, setup["id"], "take one.png", data).get_json()
    assert body["reading"]["hue"] == "green"
    assert len(body["reading"]["hot_spots"]) == 1
    assert body["key"]["holes_percent"] is not None
    url = f"/api/frames/{body['id']}"
    assert client.get(url).get_json() == body
    assert client.get(f"{url}/look.jpg").data[:2] == b"\xff\xd8"
    assert client.get(f"{url}/matte.png").data[1:4] == b"PNG"
    comparison = client.get(f"{url}/comparison").get_json()
    row = comparison["rows"][0]
    assert row["difference"] == pytest.approx(row["measured"] - row["planned"])
    assert comparison["verdict"]["says"]
    (listed,) = client.get(f"/api/setups/{setup['id']}/frames").get_json()["frames"]
    assert listed["name"] == "take one.png"
    assert client.delete(url).status_code == 204
    assert client.get(url).status_code == 404


def test_bad_frames_are_refused_and_not_stored(client: FlaskClient, tmp_path: Path) -> None:
    setup = made(client)
    for name, data in bad_files(tmp_path).items():
        response = send(client, setup["id"], name, data)
        assert response.status_code == 422, name
        assert response.get_json()["field"] == "file"
    assert client.post(f"/api/setups/{setup['id']}/frames", data={}).status_code == 422
    assert client.get(f"/api/setups/{setup['id']}/frames").get_json()["frames"] == []
    assert list((tmp_path / "data/frames").iterdir()) == []


def test_a_frame_without_a_screen_is_kept_and_said_to_have_none(client: FlaskClient, tmp_path: Path) -> None:
    setup = made(client)
    grey = frame(colour=(40.0, 40.0, 40.0))
    body = send(client, setup["id"], "grey.png", write_frame(tmp_path / "g.png", grey).read_bytes()).get_json()
    assert body["reading"]["hue"] is None
    assert body["key"] is None
    assert client.get(f"/api/frames/{body['id']}/comparison").get_json()["verdict"]["state"] == "fails"


def test_the_planned_set_is_drawn_and_a_bad_plan_is_a_problem(client: FlaskClient) -> None:
    answer = client.post("/api/picture", json={"plan": dump_plan(seed_vault())})
    picture = cv2.imdecode(np.frombuffer(b64decode(answer.get_json()["picture"]), np.uint8), cv2.IMREAD_COLOR)
    assert picture is not None
    assert picture.shape == (360, 640, 3)
    blue, green, red = picture[40:80, 60:120].reshape(-1, 3).mean(axis=0)
    assert green > 1.5 * max(red, blue)
    assert answer.get_json()["settled"]
    aside = dump_plan(apply_changes(seed_vault(), [Change("subject.x", 0.2)]))
    settled = [
        client.post("/api/picture", json={"plan": aside, "at_once": once}).get_json()["settled"]
        for once in (True, False)
    ]
    assert settled == [False, True]
    darker = dump_plan(apply_changes(seed_vault(), [Change("lights[0].dimmer", 0.1)]))
    assert client.post("/api/picture", json={"plan": darker, "at_once": True}).get_json()["picture"] is None
    refused = client.post("/api/picture", json={"plan": {**PLAN, "camera": {"focal_mm": 0}}})
    assert refused.status_code == 422
    assert "camera.focal_mm" in refused.get_json()["detail"]


def test_glossary_explains_the_terms_the_page_uses(client: FlaskClient) -> None:
    terms = {entry["term"]: entry["means"] for entry in client.get("/api/glossary").get_json()["terms"]}
    used = Path(__file__).parents[2] / "web/src"
    import re

    for path in used.rglob("*.svelte"):
        for term in re.findall(r'<Term term="([^"{]+)"', path.read_text("utf-8")):
            assert term in terms, f"{path.name}: {term}"
    assert all(means.endswith(".") for means in terms.values())
