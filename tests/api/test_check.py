"""The check at the API: clips as jobs, causes, corrections, pose, trial key, stand-in, watched folder, lists."""

from __future__ import annotations

import shutil
from base64 import b64decode
from pathlib import Path
from threading import Event
from typing import Any

import cv2
import numpy as np
import pytest
from flask.testing import FlaskClient

from ausblick.core.camera.turned import upright_places
from ausblick.core.plan import Change, Plan, apply_changes, dump_plan
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import screen_corners, standin_capture, standin_picture
from ausblick.demo.fern_house import scree, seed_vault
from tests.formats.test_clips import write
from tests.stores import STORE


def set_up(client: FlaskClient, plan: Plan) -> str:
    made = client.post("/api/setups", json={"plan": dump_plan(plan)}).get_json()
    return f"/api/setups/{made['id']}"


def frame_of(client: FlaskClient, at: str, built: Plan, name: str = "frame.png") -> dict[str, Any]:
    picture = standin_picture(standin_capture(AsBuilt(built), STORE), 960, 3)
    return send(client, at, cv2.imencode(".png", picture[..., ::-1])[1].tobytes(), name)


def send(client: FlaskClient, at: str, content: bytes, name: str) -> dict[str, Any]:
    from io import BytesIO

    answer = client.post(f"{at}/frames", data={"file": (BytesIO(content), name)})
    assert answer.status_code in (201, 202), answer.get_json()
    return dict(answer.get_json())


def until_done(client: FlaskClient, job: dict[str, Any]) -> dict[str, Any]:
    tick = Event()
    for _ in range(300):
        if job["state"] != "running":
            return job
        tick.wait(0.1)
        job = client.get(f"/api/imports/{job['id']}").get_json()
    raise AssertionError("the import never ended")


def test_a_clip_is_read_as_a_job_and_compared_with_the_plan(client: FlaskClient, tmp_path: Path) -> None:
    at = set_up(client, seed_vault())
    clip = write(tmp_path / "take.mp4", frames=40, flicker=0.02, hertz=4.0).read_bytes()
    job = until_done(client, send(client, at, clip, "take.mp4"))
    assert job["state"] == "done", job["problem"]
    frame = job["frame"]
    assert frame["clip"]["frames"] == 40
    assert frame["clip"]["flicker_hz"] == pytest.approx(4.0, rel=0.05)
    compared = client.get(f"/api/frames/{frame['id']}/comparison").get_json()
    assert compared["rows"][0]["measured"] is not None
    cause = client.get(f"/api/frames/{frame['id']}/cause").get_json()
    assert any("Mbit/s" in line for line in cause["recording"])
    look = client.get(f"/api/frames/{frame['id']}/look.jpg")
    assert look.mimetype == "image/jpeg"


def test_a_broken_clip_fails_in_a_line_and_nothing_is_kept(client: FlaskClient) -> None:
    at = set_up(client, seed_vault())
    job = until_done(client, send(client, at, b"\x1a\x45\xdf\xa3" + bytes(500), "broken.mkv"))
    assert job["state"] == "failed"
    assert "can't be decoded" in job["problem"] or "no picture" in job["problem"]
    assert client.get(f"{at}/frames").get_json()["frames"] == []
    assert client.get("/api/imports/gone").status_code == 404


@pytest.mark.torture
def test_the_cause_names_the_lamp_and_taking_it_over_settles_it(client: FlaskClient) -> None:
    plan = scree()
    at = set_up(client, plan)
    frame = frame_of(client, at, apply_changes(plan, [Change("lights[0].dimmer", 0.5)]))
    fit = client.get(f"/api/frames/{frame['id']}/cause").get_json()["cause"]
    assert fit["lamp"] == plan.lights[0].name
    assert fit["cure"].startswith("Raise")
    setup = client.get(at).get_json()
    taken = dump_plan(apply_changes(plan, [Change(c["path"], c["value"]) for c in fit["changes"]]))
    client.put(at, json={"base": setup["revision"], "plan": taken})
    again = client.get(f"/api/frames/{frame['id']}/cause").get_json()["cause"]
    assert again["story"] == "as-planned"


def test_a_region_narrows_the_reading_and_can_be_taken_back(client: FlaskClient) -> None:
    at = set_up(client, scree())
    frame = frame_of(client, at, scree())
    area = frame["reading"]["screen_area_percent"]
    corners = [[0.3, 0.1], [0.5, 0.1], [0.5, 0.4], [0.3, 0.4]]
    drawn = client.post(f"/api/frames/{frame['id']}/region", json={"corners": corners}).get_json()
    assert drawn["reading"]["screen_area_percent"] < 0.5 * area
    assert len(drawn["region"]) == 4
    assert client.post(f"/api/frames/{frame['id']}/region", json={"corners": corners[:2]}).status_code == 422
    back = client.post(f"/api/frames/{frame['id']}/region", json={"corners": []}).get_json()
    assert back["reading"]["screen_area_percent"] == pytest.approx(area)


@pytest.mark.torture
def test_pose_from_clicked_corners(client: FlaskClient) -> None:
    plan = scree()
    really = apply_changes(plan, [Change("camera.z", plan.camera.z - 0.6), Change("camera.pan", 3.0)])
    at = set_up(client, plan)
    frame = frame_of(client, at, really)
    corners = [[float(u), float(v)] for u, v in screen_corners(really)]
    body = {"corners": corners, "foot": [0.5, 0.9], "head": [0.5, 0.4], "height": 1.7}
    pose = client.post(f"/api/frames/{frame['id']}/pose", json=body).get_json()
    rows = {row["name"]: row for row in pose["rows"]}
    assert rows["Camera from the screen"]["measured"] == pytest.approx(plan.camera.z - 0.6, rel=0.02)
    assert rows["Pan"]["measured"] == pytest.approx(3.0, abs=0.5)
    assert rows["Camera from the screen"]["error"] > 0.0
    assert pose["mark"] is not None
    assert {"camera.z", "subject.z"} <= {change["path"] for change in pose["changes"]}
    line = [[0.1, 0.1], [0.2, 0.2], [0.3, 0.3], [0.4, 0.4]]
    assert client.post(f"/api/frames/{frame['id']}/pose", json={"corners": line}).status_code == 422


@pytest.mark.torture
def test_a_camera_on_its_side_lying_and_upright_pictures(client: FlaskClient, tmp_path: Path) -> None:
    """Lying files are set upright, upright ones left; corners are clicked in the picture that people see."""
    plan = apply_changes(scree(), [Change("camera.roll", 90.0), Change("camera.focal_mm", 30.0)])
    at = set_up(client, plan)
    picture = standin_picture(standin_capture(AsBuilt(plan), STORE), 960, 3)
    sizes = []
    for name, pixels in (("upright.png", picture), ("lying.png", np.rot90(picture))):
        frame = send(client, at, cv2.imencode(".png", pixels[..., ::-1])[1].tobytes(), name)
        sizes.append((frame["reading"]["width"], frame["reading"]["height"], frame["turned"]))
        compared = client.get(f"/api/frames/{frame['id']}/comparison").get_json()
        assert [row["name"] for row in compared["rows"] if row["means"]] == []
        places = upright_places(screen_corners(plan), 1)
        corners = [[float(u), float(v)] for u, v in places]
        pose = client.post(f"/api/frames/{frame['id']}/pose", json={"corners": corners}).get_json()
        rows = {row["name"]: row["measured"] for row in pose["rows"]}
        assert rows["Camera from the screen"] == pytest.approx(plan.camera.z, rel=0.02)
        assert rows["Roll"] == pytest.approx(90.0, abs=0.5)
        over = client.get(f"/api/frames/{frame['id']}/trial/plate.jpg")
        keyed = cv2.imdecode(np.frombuffer(over.data, np.uint8), cv2.IMREAD_COLOR)
        assert keyed is not None
        assert keyed.shape[0] > keyed.shape[1]
    assert sizes == [(540, 960, 0), (540, 960, 1)]
    clip = write(tmp_path / "take.mp4", frames=12).read_bytes()
    job = until_done(client, send(client, at, clip, "take.mp4"))
    assert job["frame"]["reading"]["height"] > job["frame"]["reading"]["width"]


def test_what_has_drifted_since_another_take(client: FlaskClient) -> None:
    plan = scree()
    at = set_up(client, plan)
    first = frame_of(client, at, plan, "one.png")
    warm = [Change(f"lights[{i}].fixture.cct", 4300.0) for i in range(len(plan.lights))]
    second = frame_of(client, at, apply_changes(plan, warm), "two.png")
    told = client.get(f"/api/frames/{second['id']}/since/{first['id']}").get_json()
    assert (told["before"], told["now"]) == ("one.png", "two.png")
    rows = {row["name"]: row for row in told["rows"]}
    assert rows["Colour of the light"]["difference"] == pytest.approx(1e6 / 4300 - 1e6 / 5600, abs=8.0)
    assert "warmer" in rows["Colour of the light"]["means"]
    grey = cv2.imencode(".png", np.full((200, 300, 3), 90, np.uint8))[1].tobytes()
    third = send(client, at, grey, "grey.png")
    assert client.get(f"/api/frames/{third['id']}/since/{first['id']}").get_json()["rows"] == []
    assert client.get(f"/api/frames/{third['id']}/since/9999").status_code == 404


def test_trial_key_with_a_clean_plate_and_pixels(client: FlaskClient) -> None:
    plan = scree()
    at = set_up(client, plan)
    frame = frame_of(client, at, plan)
    empty = frame_of(client, at, plan.model_copy(update={"subject": None}), "empty.png")
    found = client.get(f"/api/frames/{frame['id']}/trial?clean={empty['id']}").get_json()
    assert found["residue_percent"] < 5.0
    for view in ("matte", "dark", "bright", "plate", "spilled"):
        picture = client.get(f"/api/frames/{frame['id']}/trial/{view}.jpg")
        assert picture.mimetype == "image/jpeg", view
    cut = client.get(f"/api/frames/{frame['id']}/pixels.png?x=0.5&y=0.5&w=64&h=32")
    assert cv2.imdecode(np.frombuffer(cut.data, np.uint8), cv2.IMREAD_COLOR).shape == (32, 64, 3)


def test_a_removed_frame_s_number_does_not_come_again(client: FlaskClient) -> None:
    at = set_up(client, seed_vault())
    picture = cv2.imencode(".png", np.full((54, 96, 3), (70, 150, 60), np.uint8))[1].tobytes()
    numbers = []
    for _ in range(3):
        numbers.append(send(client, at, picture, "take.png")["id"])
        client.delete(f"/api/frames/{numbers[-1]}")
    assert len(set(numbers)) == 3


@pytest.mark.torture
def test_the_stand_in_reacts_records_and_is_metered(client: FlaskClient) -> None:
    at = set_up(client, scree())
    built = client.post(f"{at}/standin", json={"seed": 4}).get_json()
    assert built["truth"] == []
    truth = client.get(f"{at}/standin?tell=true").get_json()["truth"]
    assert "dimmer" in truth[0]
    before = client.get(f"{at}/standin/look").get_json()
    assert b64decode(before["picture"])[:2] == b"\xff\xd8"
    planned = [lamp.dimmer for lamp in scree().lights]
    cure = [{"path": f"lights[{i}].dimmer", "value": v} for i, v in enumerate(planned)]
    client.patch(f"{at}/standin", json={"changes": cure})
    after = client.get(f"{at}/standin/look").get_json()
    # The floor run keeps it uneven either way; left and right are alike again.
    left, cured = (abs(look["reading"]["slope_percent"][0]) for look in (before, after))
    assert cured < left - 1.0
    refused = client.patch(f"{at}/standin", json={"changes": [{"path": "screen.width", "value": 9}]})
    assert refused.status_code == 422
    clip = client.post(f"{at}/standin/record", json={"what": "clip"}).get_json()
    assert clip["clip"]["frames"] == 40
    assert clip["clip"]["chroma"] == "4:2:0"
    held = client.post(f"{at}/standin/meter", json={"kind": "incident", "at": [0.0, 1.6, 2.6]}).get_json()
    assert held["lux"] > 10.0
    assert client.post(f"{at}/standin/meter", json={"kind": "incident", "at": [0.0, 1.6]}).status_code == 422


def test_new_files_of_a_watched_folder_are_measured(client: FlaskClient, tmp_path: Path) -> None:
    at = set_up(client, seed_vault())
    folder = tmp_path / "card"
    folder.mkdir()
    for wrong in (str(folder / "no"), "x" * 900, "a\0b", "~nobody-of-this-name/card"):
        assert client.put(f"{at}/watch", json={"folder": wrong}).status_code == 422
    assert client.put(f"{at}/watch", json={"folder": str(folder)}).get_json()["seen"] == 0
    clip = write(tmp_path / "take.mov", frames=10)
    shutil.copy(clip, folder / "take.mov")
    (folder / "notes.txt").write_text("no picture")
    (folder / "broken.png").write_bytes(b"\x89PNG\r\n\x1a\n" + bytes(60))
    tick = Event()
    for _ in range(150):
        state = client.get(f"{at}/watch").get_json()
        if state["seen"] and state["problem"]:
            break
        tick.wait(0.1)
    assert state["seen"] == 1
    [frame] = client.get(f"{at}/frames").get_json()["frames"]
    assert frame["name"] == "take.mov"
    assert client.delete(f"{at}/watch").get_json()["folder"] is None


def test_lists_are_ticked_and_cleared(client: FlaskClient) -> None:
    at = set_up(client, seed_vault())
    items = client.put(f"{at}/lists/card", json={"ticked": True}).get_json()["items"]
    assert next(i for i in items if i["id"] == "card")["ticked"]
    items = client.delete(f"{at}/lists").get_json()["items"]
    assert not any(i["ticked"] for i in items if i["done"] is None)


def test_readings_by_hand(client: FlaskClient) -> None:
    body = {"plan": dump_plan(seed_vault()), "values": [70, 72, 74, 70, 72, 74, 60, 62, 64], "unit": "percent"}
    assert client.post("/api/readings", json=body).get_json()["darkest"] == "lower left"
    bad = client.post("/api/readings", json={**body, "values": [70] * 8 + [130]})
    assert bad.status_code == 422
    assert "lower right" in bad.get_json()["detail"]
    assert client.post("/api/zebra", json={"first": 8, "full": 5.6}).get_json()["state"] == "fails"


def test_a_frame_is_read_as_a_person_says_that_it_is_written(client: FlaskClient, tmp_path: Path) -> None:
    at = set_up(client, seed_vault())
    # Light of 18 % as HLG writes it: sqrt(3 E), with diffuse white at E = 0.265.
    grey = np.full((90, 160, 3), round(255 * (3 * 0.265 * 0.18) ** 0.5), np.uint8)
    grey[:, :100] = (40, 150, 70)
    sent = send(client, at, cv2.imencode(".png", grey[..., ::-1])[1].tobytes(), "a.png")
    here = f"/api/frames/{sent['id']}"
    told = client.post(f"{here}/colour", json={"transfer": "HLG"}).get_json()
    assert (told["reading"]["transfer"], told["said"]) == ("HLG", {"primaries": "709", "transfer": "HLG"})
    cut = cv2.imdecode(np.frombuffer(client.get(f"{here}/pixels.png?x=0.95&w=16&h=16").get_data(), np.uint8), -1)
    assert 100.0 * float(np.median(cut)) / 255.0 == pytest.approx(40.9, abs=0.4)
    # Kept with the frame, across another correction too.
    corners = [[0.0, 0.0], [0.6, 0.0], [0.6, 1.0], [0.0, 1.0]]
    assert client.post(f"{here}/region", json={"corners": corners}).get_json()["said"]["transfer"] == "HLG"
    back = client.post(f"{here}/colour", json={}).get_json()
    assert (back["said"], back["reading"]["transfer"]) == (None, "sRGB")
    clip = until_done(client, send(client, at, write(tmp_path / "a.mp4", frames=12).read_bytes(), "a.mp4"))["frame"]
    asked = client.post(f"/api/frames/{clip['id']}/colour", json={"primaries": "2020"})
    assert asked.status_code == 202
    wide = until_done(client, asked.get_json())["frame"]
    assert wide["id"] == clip["id"]
    assert wide["reading"]["primaries"] == "2020"
    assert wide["reading"]["saturation"] > clip["reading"]["saturation"] + 0.02
    assert client.post(f"{here}/colour", json={"transfer": "film"}).status_code == 422


@pytest.mark.torture
def test_a_clip_that_is_removed_while_it_is_read_again(client: FlaskClient, tmp_path: Path) -> None:
    at = set_up(client, seed_vault())
    sent = send(client, at, write(tmp_path / "a.mp4", frames=40).read_bytes(), "a.mp4")
    clip = until_done(client, sent)["frame"]
    here = f"/api/frames/{clip['id']}"
    asked = client.post(f"{here}/colour", json={"primaries": "2020"}).get_json()
    assert client.delete(here).status_code == 204
    ended = until_done(client, asked)
    assert (ended["state"], "removed meanwhile" in ended["problem"]) == ("failed", True)
    assert client.post(f"{here}/restore").get_json()["reading"]["primaries"] == clip["reading"]["primaries"]
