from __future__ import annotations

from io import BytesIO
from threading import Event

import cv2
import numpy as np
import pytest
from flask.testing import FlaskClient

from ausblick.app.jobs import Job, Jobs, TooMany
from ausblick.app.wanted import NoLongerWanted

PLAN = {
    "format": "ausblick-plan", "version": 1,
    "lights": [{"position": [-2.2, 1.4, 2.2]}, {"position": [2.2, 1.4, 2.2], "aim": [0.3, 1.3, 0]},
               {"role": "key", "position": [-1, 2.1, 4.6], "aim": [0, 1.5, 2.4]}],
    "subject": {"framing": "waist"},
    "camera": {"focal_mm": 50, "iso": 3200, "sensor": {"px_w": 1280, "px_h": 720},
               "recording": {"codec": "raw", "chroma": "raw", "bits": 12}},
}  # fmt: skip


def settled(client: FlaskClient, ident: str) -> dict[str, object]:
    tick = Event()
    for _ in range(600):
        found = client.get(f"/api/test-key/{ident}").get_json()
        if found["state"] != "running":
            return dict(found)
        tick.wait(0.2)
    raise AssertionError("the job never ended")


def test_a_test_key_from_start_to_pictures_upright_the_first_one_too(client: FlaskClient) -> None:
    camera = {**PLAN["camera"], "roll": 90}  # type: ignore[dict-item]
    started = client.post("/api/test-key", json={"plan": {**PLAN, "camera": camera}, "levers": False})
    assert started.status_code == 202
    ident, first, tick = started.get_json()["id"], [], Event()
    while not first:
        first = client.get(f"/api/test-key/{ident}").get_json()["windows"]
        tick.wait(0.02)
    assert [len(first[0]["views"]), first[0]["name"]] == [1, "whole"]
    found = settled(client, ident)
    assert found["state"] == "done", found["problem"]
    assert all(w["height"] > w["width"] for w in [*first, *found["windows"]] if w["name"] == "whole")  # type: ignore[misc]
    assert 0 < float(str(found["quality"])) < 100
    names = {w["name"] for w in found["windows"]}  # type: ignore[attr-defined, index]
    assert names == {"whole", "hair", "hand"}
    matte = client.get(f"/api/test-key/{ident}/whole/matte.png")
    assert matte.mimetype == "image/png"
    picture = cv2.imdecode(np.frombuffer(matte.data, np.uint8), cv2.IMREAD_GRAYSCALE)
    assert picture is not None
    assert picture.min() == 0
    assert picture.max() == 255
    assert client.get(f"/api/test-key/{ident}/whole/nonsense.png").status_code == 404
    assert client.get("/api/test-key/gone").status_code == 404


def test_nothing_to_key_is_said_in_words(client: FlaskClient) -> None:
    away = {**PLAN, "camera": {"pan": 180}}
    found = settled(client, client.post("/api/test-key", json={"plan": away}).get_json()["id"])
    assert found["state"] == "failed"
    assert "nothing to key" in str(found["problem"])


def test_jobs_are_few_and_can_be_cancelled() -> None:
    jobs, go = Jobs(), Event()
    seen: list[str] = []

    def work(job: Job) -> None:
        go.wait(10)
        try:
            job.at("next")
        except NoLongerWanted:
            seen.append(job.id)
            raise

    first, _ = jobs.start(work), jobs.start(work)
    with pytest.raises(TooMany):
        jobs.start(work)
    first.cancel()
    go.set()
    for _ in range(100):
        if first.state != "running":
            break
        Event().wait(0.05)
    assert (first.state, seen) == ("cancelled", [first.id])


@pytest.mark.torture
def test_a_key_is_kept_with_its_set_up_and_goes_stale(client: FlaskClient) -> None:
    setup = client.post("/api/setups", json={"title": "Kept", "plan": PLAN}).get_json()
    at = f"/api/setups/{setup['id']}"
    assert client.get(f"{at}/test-keys").get_json()["keys"] == []
    picture = cv2.imencode(".png", np.full((90, 160, 3), (200, 30, 30), np.uint8))[1].tobytes()
    kept = client.put(f"{at}/plate", data={"file": (BytesIO(picture), "blue.png")})
    assert kept.status_code == 200
    assert client.get(f"{at}/plate").get_json()["width"] == 160
    body = {"plan": setup["plan"], "levers": False, "setup_id": setup["id"]}
    ident = client.post("/api/test-key", json=body).get_json()["id"]
    done = settled(client, ident)
    assert done["state"] == "done", done["problem"]
    [key] = client.get(f"{at}/test-keys").get_json()["keys"]
    assert key["quality"] == done["quality"]
    assert key["second_keyer"]["hair_error"] is not None
    assert not key["stale"]
    over = client.get(f"/api/test-key/{key['id']}/whole/plate.png")
    found = cv2.imdecode(np.frombuffer(over.data, np.uint8), cv2.IMREAD_COLOR)
    assert found is not None
    # The plate shows where the screen was: its blue, not green.
    assert np.abs(found[5, 5].astype(int) - (200, 30, 30)).max() < 12
    renamed = {**setup["plan"], "title": "Kept, and renamed"}
    revision = client.put(at, json={"base": setup["revision"], "plan": renamed}).get_json()["revision"]
    assert not client.get(f"{at}/test-keys").get_json()["keys"][0]["stale"], "a name changes no picture"
    changed = {**renamed, "camera": {**renamed["camera"], "iso": 1600}}
    client.put(at, json={"base": revision, "plan": changed})
    assert client.get(f"{at}/test-keys").get_json()["keys"][0]["stale"]
    assert client.get("/api/test-key/kept-9999/whole/matte.png").status_code == 404
    client.delete(f"{at}/plate")
    assert client.get(f"{at}/plate").status_code == 204


def test_the_kit_s_recorders_on_a_plan(client: FlaskClient) -> None:
    rows = client.post("/api/recorders", json={"plan": PLAN}).get_json()["recorders"]
    assert all(row["gb_minute"] > 0 and row["changes"] for row in rows)
