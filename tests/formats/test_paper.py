"""The set on paper, read by readers that are not ours: a PDF reader, an XML parser, a glTF loader."""

from __future__ import annotations

import io
import json
import re
import xml.etree.ElementTree as ElementTree
from typing import Any

import numpy as np
import pytest
import trimesh
from pypdf import PdfReader

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.paper.set_drawing import Stroke, set_views
from ausblick.core.paper.set_sheet import set_sheet
from ausblick.core.plan import Change, Plan, apply_changes, plan_from
from ausblick.demo.fern_house import scree
from ausblick.demo.fern_house_2 import welcome
from ausblick.formats.paper.drawing_svg import drawing_svg
from ausblick.formats.paper.sheet_pdf import sheet_pdf
from ausblick.formats.scene_gltf import scene_gltf
from tests.stores import STORE

SVG = "{http://www.w3.org/2000/svg}"
MM = 72.0 / 25.4


def found(plan: Plan) -> tuple[Evaluation, list[Finding]]:
    return find(plan, STORE, with_remedies=False)


def text_of(data: bytes) -> tuple[int, str]:
    reader = PdfReader(io.BytesIO(data))
    return len(reader.pages), " ".join(page.extract_text() for page in reader.pages).replace("\n", " ")


def test_the_sheet_says_where_each_stand_goes_as_a_tape_measures_it() -> None:
    gelled = apply_changes(
        scree(), [Change("lights[0].fixture.cct", 3200.0), Change("lights[0].gel", [0.248, 0.413, 1.0])]
    )
    pages, text = text_of(sheet_pdf(set_sheet(*found(gelled))))
    assert pages == 2
    assert "3200 K, gel to 5600 K" in text
    # left panel of the plan: x -2.7, z 2.7, in a hall from -3.7 to 3.7, screen's middle at 0
    assert re.search(r"left panel \(screen\) 2\.70 m 2\.70 m left 1\.00 m left 1\.10 m", text), text[:900]
    assert "Will not do, because: 0.50 m of screen is missing where the action goes" in text
    for words in ("f/4.0, ISO 400", "To the mark 6.28 m", "3.60 × 3.00 m", "Clamps 32", "400 W, 1.7 A of 16"):
        assert words in text
    assert "Cautions, not instructions" in text
    assert "White balance set to 5600 K and locked" in text


def test_in_feet_on_letter() -> None:
    data = sheet_pdf(set_sheet(*found(scree()), "ft"), "letter")
    page = PdfReader(io.BytesIO(data)).pages[0]
    assert (float(page.mediabox.width), float(page.mediabox.height)) == (612.0, 792.0)
    _, text = text_of(data)
    assert "8′ 10¼″" in text
    assert "1′ 7¾″ of screen is missing" in text
    assert " 2.70 m" not in text


def test_a_faultless_set_up_is_told_good_and_a_title_of_any_script_prints() -> None:
    plan = apply_changes(welcome(), [Change("title", "Приветствие · Ωδείο <1>")])
    _, text = text_of(sheet_pdf(set_sheet(*found(plan))))
    assert "Good: nothing here costs the key anything that shows" in text
    assert "Приветствие · Ωδείο <1>" in text


def test_the_most_lamps_that_a_plan_has_still_are_two_pages() -> None:
    lamp = {"name": "a lamp with quite a long name", "fixture": {"flux_lm": 3000.0}}
    lights = [{**lamp, "position": [-3 + 0.2 * i, 2.0, 1 + 0.1 * i]} for i in range(32)]
    plan = plan_from({"format": "ausblick-plan", "version": 1, "lights": lights})
    pages, text = text_of(sheet_pdf(set_sheet(*found(plan))))
    assert pages == 2
    assert text.count("a lamp with quite a long name") >= 32


def test_the_drawing_is_to_the_scale_that_it_names() -> None:
    """The room's outline in points against its size in metres."""
    views = set_views(found(scree())[0], "m")
    root = ElementTree.fromstring(drawing_svg(views, "Scree & noon").split("?>", 1)[1])
    title = next(root.iter(f"{SVG}title")).text or ""
    scale = int(title.rpartition("1:")[2])
    widest = max(
        np.ptp(np.array(re.findall(r"[-\d.]+", shape.get("points", "")), dtype=float)[0::2])
        for shape in root.iter(f"{SVG}polygon")
    )
    assert widest == pytest.approx(9.8 * 1000.0 / scale * MM, abs=0.05)
    assert "Scree & noon" in title


def test_what_stands_in_the_set_is_drawn_where_it_stands() -> None:
    floor, section = set_views(found(scree())[0], "m")

    def box(strokes: tuple[Stroke, ...], kind: str) -> list[float]:
        points = np.array([p for stroke in strokes if stroke.kind == kind for p in stroke.points])
        return [*points.min(axis=0).round(3), *points.max(axis=0).round(3)]

    assert box(floor.strokes, "room") == [-0.3, -3.7, 9.5, 3.7]
    assert box(section.strokes, "room") == [-0.3, 0.0, 9.5, 3.6]
    # Wall of 3.6 x 3 m and 2.4 m of floor run.
    assert box(floor.strokes, "screen") == [0.0, -1.8, 2.4, 1.8]
    assert box(section.strokes, "screen") == [0.0, 0.0, 2.4, 3.0]
    assert box(section.strokes, "sight")[1] == 0.0
    assert {one.text for one in floor.dimensions} == {"2.60 m", "6.30 m", "3.60 m", "9.80 m", "7.40 m"}
    assert ("2", (2.7, 2.7)) in [(one.text, one.at) for one in floor.labels]


def test_the_scene_loads_with_its_lights_and_its_camera() -> None:
    plan = scree()
    text = scene_gltf(plan)
    scene: Any = trimesh.load(io.BytesIO(text.encode()), file_type="gltf")
    assert scene.bounds == pytest.approx(np.array([[-3.7, 0.0, -0.3], [3.7, 3.6, 9.5]]), abs=1e-5)
    # Width and height of the screen's wall as the loader measures them.
    wall = next(mesh for name, mesh in scene.geometry.items() if name.startswith("screen, wall"))
    assert wall.area == pytest.approx(3.6 * 3.0, rel=1e-5)
    document = json.loads(text)
    lights = document["extensions"]["KHR_lights_punctual"]["lights"]
    assert [light["name"] for light in lights] == [lamp.name for lamp in plan.lights]
    node = next(n for n in document["nodes"] if n["name"] == "left panel")
    matrix = np.array(node["matrix"]).reshape(4, 4).T
    lamp = plan.lights[0]
    assert matrix[:3, 3] == pytest.approx(lamp.position)
    away = np.array(lamp.aim) - np.array(lamp.position)
    assert -matrix[:3, 2] == pytest.approx(away / np.linalg.norm(away))
    assert np.linalg.det(matrix[:3, :3]) == pytest.approx(1.0)
    # A panel that sends F lm as a Lambert face has F / pi cd along its aim.
    assert lights[0]["intensity"] == pytest.approx((lamp.fixture.flux_lm or 0.0) / np.pi * lamp.dimmer, rel=1e-6)
    lens = document["cameras"][0]["perspective"]
    assert 2 * np.tan(lens["yfov"] / 2) * lens["aspectRatio"] == pytest.approx(23.5 / 32.0, rel=0.02)


def test_a_sun_and_an_empty_set_are_scenes_too() -> None:
    sun = {"fixture": {"emitter": {"shape": "sun"}, "normal_lux": 50_000.0}, "name": "sun"}
    plan = plan_from({"format": "ausblick-plan", "version": 1, "room": {"kind": "exterior"}, "lights": [sun]})
    light = json.loads(scene_gltf(plan))["extensions"]["KHR_lights_punctual"]["lights"][0]
    assert (light["type"], light["intensity"]) == ("directional", 50_000.0)
    assert "extensions" not in json.loads(scene_gltf(plan.model_copy(update={"lights": ()})))
