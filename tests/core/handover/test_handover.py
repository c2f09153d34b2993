"""What is handed over: an outline that never touches the action, a sample beside the face, a plate, all readable."""

from __future__ import annotations

import io
import json
import math
import xml.etree.ElementTree as ET
import zipfile
from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import PyOpenColorIO as ocio
import pytest
import trimesh
from pypdf import PdfReader

from ausblick.app.bundle import HandedOver, Seen, bundle_zip
from ausblick.core.advice.findings import find
from ausblick.core.camera.ground_shade import contact_shade
from ausblick.core.colour.curves import decode
from ausblick.core.frames.clip_timing import Breach
from ausblick.core.frames.contact import contact_of
from ausblick.core.frames.find_screen import find_screen
from ausblick.core.frames.frame import Frame, linear_of, luma_of
from ausblick.core.frames.frame_report import ClipReport, frame_report
from ausblick.core.frames.marks import find_marks
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Bools, Floats32
from ausblick.core.handover.action_outline import action_of, outline_of
from ausblick.core.handover.hold_outs import hold_outs_of
from ausblick.core.handover.key_facts import (
    horizon_v,
    level_match,
    metres_per_px,
    plate_blur,
    problems_of,
)
from ausblick.core.handover.sample_area import samples_of
from ausblick.core.handover.synthetic_plate import synthetic_plate
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, apply_changes
from ausblick.core.plate.plate_picture import PlateReading
from ausblick.demo.fern_house import seed_vault
from ausblick.demo.fern_house_2 import fern_dancer

SHAPE = (270, 480)


def screen_light(slope: float = 0.0) -> Floats32:
    """A green screen (h, w, 3) that is brighter to the right, as recorded."""
    across = np.linspace(-1.0, 1.0, SHAPE[1], dtype=np.float32)[None, :, None]
    green = np.array([0.22, 0.62, 0.28], np.float32) * (1.0 + slope * across)
    return np.broadcast_to(green, (*SHAPE, 3)).copy()


def body(x: int, y: int, arm: float) -> Bools:
    """A head, a trunk and an arm at an angle."""
    mask = np.zeros(SHAPE, np.uint8)
    cv2.circle(mask, (x, y), 16, 1, -1)
    cv2.rectangle(mask, (x - 18, y + 14), (x + 18, SHAPE[0]), 1, -1)
    end = (round(x + 60 * math.cos(arm)), round(y + 34 + 60 * math.sin(arm)))
    cv2.line(mask, (x, y + 34), end, 1, 9)
    return mask.astype(bool)


def pictured(mask: Bools, screen: Floats32, dice: np.random.Generator) -> Floats32:
    picture = screen.copy()
    picture[mask] = (0.55, 0.42, 0.36)
    return np.clip(picture + dice.normal(0.0, 0.004, picture.shape), 0.0, 1.0).astype(np.float32)


def clip_of(seed: int) -> tuple[list[Bools], list[Floats32]]:
    """Somebody who walks and waves, through 12 frames."""
    dice = np.random.default_rng(seed)
    start, pace = int(dice.integers(120, 330)), float(dice.uniform(-5.0, 5.0))
    swing, y = float(dice.uniform(0.2, 0.5)), int(dice.integers(70, 110))
    masks = [body(round(start + pace * n), y, -1.5 + swing * n) for n in range(12)]
    screen = screen_light(float(dice.uniform(-0.08, 0.08)))
    return masks, [pictured(mask, screen, dice) for mask in masks]


@pytest.mark.parametrize(
    "seed", [*range(3), *(pytest.param(seed, marks=pytest.mark.torture) for seed in range(3, 20))]
)
def test_the_outline_holds_every_pixel_of_the_action_in_every_frame(seed: int) -> None:
    masks, pictures = clip_of(seed)
    action = action_of(iter(pictures), "green")
    assert action is not None
    assert action.frames == 12
    outline = outline_of(action)
    everywhere = np.any(masks, axis=0)
    assert not (everywhere & ~outline.mask).any()
    # It is an outline and not the whole frame; and the polygons are the mask.
    assert outline.mask.mean() < 3.0 * everywhere.mean() + 0.1
    drawn = np.zeros(SHAPE, np.uint8)
    for polygon in outline.polygons:
        corners = np.round(np.array(polygon) * (SHAPE[1], SHAPE[0]) - 0.5).astype(np.int32)
        cv2.fillPoly(drawn, [corners], 1)
    assert np.mean(drawn.astype(bool) ^ outline.mask) < 0.01


def test_what_leaves_the_screen_is_cut_off_and_told() -> None:
    dice = np.random.default_rng(1)
    screen = screen_light()
    screen[:, 330:] = (0.3, 0.3, 0.3)
    action = action_of([pictured(body(310, 80, 0.0), screen, dice)], "green")
    assert action is not None
    outline = outline_of(action)
    assert not outline.mask[:, 345:].any()
    assert outline.cut_percent > 5.0


def test_the_sample_is_beside_the_face_and_is_the_screen_there() -> None:
    dice = np.random.default_rng(3)
    screen, mask = screen_light(0.15), body(240, 90, 0.4)
    picture = pictured(mask, screen, dice)
    found = find_screen(picture, wanted="green")
    assert found is not None
    figure = contact_of(found).figure
    samples = samples_of(picture, figure, found.core, found.channel)
    box = samples.beside_face
    assert box is not None
    x, y, w, h = (round(v * s) for v, s in zip((box.x, box.y, box.w, box.h), (480, 270, 480, 270), strict=True))
    tall = SHAPE[0] - 74
    assert min(abs(x - 256), abs(x + w - 224)) >= 0.07 * tall - 2
    assert 74 - h <= y <= 74 + 0.3 * tall
    truth = 100.0 * screen[y : y + h, x : x + w].reshape(-1, 3).mean(axis=0)
    assert np.abs(np.array(box.recorded) - truth).max() < 2.0
    assert (
        np.abs(np.array(box.linear) - linear_of(screen[y : y + h, x : x + w]).reshape(-1, 3).mean(axis=0)).max()
        < 0.01
    )
    assert samples_of(pictured(mask, screen_light(), dice), figure, found.core, 1).keys == 1
    assert samples_of(pictured(mask, screen_light(0.5), dice), figure, found.core, 1).keys > 1


def test_a_synthetic_plate_is_the_screen_without_anybody() -> None:
    dice = np.random.default_rng(4)
    screen, mask = screen_light(0.1), body(240, 90, 0.4)
    picture = pictured(mask, screen, dice)
    found = find_screen(picture, wanted="green")
    assert found is not None
    made = synthetic_plate(picture, contact_of(found).figure, found.core)
    assert 100.0 * np.abs(made.signal - screen)[mask].mean() < 2.0
    away = np.abs(made.signal - picture).max(axis=-1) == 0.0
    assert away[:, :150].all()
    assert 0.0 < made.error_percent < 1.0


def test_a_grey_green_sash_is_held_out_and_a_mark_on_the_screen_is_found() -> None:
    dice = np.random.default_rng(6)
    screen, mask = screen_light(), body(240, 90, 0.4)
    picture = pictured(mask, screen, dice)
    picture[160:190, 226:254] = (0.33, 0.45, 0.34)
    picture[60:66, 100:106] = (0.7, 0.2, 0.2)
    found = find_screen(picture, wanted="green")
    assert found is not None
    figure = contact_of(found).figure
    light = linear_of(screen[0, 0])
    difference = float(light[1] - (light[0] + light[2]) / 2.0)
    (held,) = hold_outs_of(picture, figure, found.channel, difference)
    corners = np.array(held.polygon) * (SHAPE[1], SHAPE[0])
    assert corners.min(axis=0) == pytest.approx((226, 160), abs=4.0)
    assert corners.max(axis=0) == pytest.approx((254, 190), abs=4.0)
    assert held.matte < 0.9
    assert 226 < held.track[0] * SHAPE[1] < 254
    percent = np.asarray(100.0 * luma_of(picture), dtype=np.float32)
    (mark,) = find_marks(percent, found, figure).marks
    assert (mark.x * SHAPE[1], mark.y * SHAPE[0]) == pytest.approx((100, 60), abs=2.0)
    assert hold_outs_of(pictured(mask, screen, dice), figure, found.channel, difference) == ()


def test_numbers_of_geometry_are_closed_forms() -> None:
    plan = seed_vault()
    assert plan.subject is not None
    lamps = [i for i, lamp in enumerate(plan.lights) if lamp.role == "key"]
    height, x, z = plan.subject.height, plan.subject.x, plan.subject.z
    at = [x + 2.0, height / 2.0 + 2.0, z]
    moved = apply_changes(plan, [Change(f"lights[{lamps[0]}].position", at)])
    shade = contact_shade(moved)
    assert shade is not None
    # The light stands 45 degrees above, to the right: the shade is as long as the figure, to the left.
    assert shade.length_m == pytest.approx(height)
    assert shade.azimuth_deg == pytest.approx(270.0)
    assert horizon_v(apply_changes(plan, [Change("camera.tilt", 0.0)])) == 0.5
    assert horizon_v(apply_changes(plan, [Change("camera.tilt", 3.0)])) > 0.5
    away = abs(plan.camera.z - z)
    wide = 2.0 * away * math.tan(math.atan(plan.camera.sensor.width_mm / 2.0 / plan.camera.focal_mm))
    assert metres_per_px(plan) == pytest.approx(wide / plan.camera.sensor.px_w)
    blur = plate_blur(plan)
    opened = plate_blur(apply_changes(plan, [Change("camera.f_number", plan.camera.f_number / 2.0)]))
    assert blur is not None
    assert opened == pytest.approx(2.0 * blur)
    match = level_match((10.0, 60.0), plate_of(4300.0))
    assert match is not None
    assert (match.gain * 10.0 + match.lift, match.gain * 60.0 + match.lift) == pytest.approx((5.0, 80.0))


def plate_of(cct: float) -> PlateReading:
    return PlateReading(640, 360, 30.0, 5.0, 80.0, 3.0, cct, "dusk", "sharp")


def test_the_tint_takes_a_neutral_to_the_plates_warmth_and_keeps_its_luma() -> None:
    warm, neutral, cold = (level_match((10.0, 60.0), plate_of(cct)) for cct in (3200.0, 6504.0, 9000.0))
    assert warm is not None
    assert neutral is not None
    assert cold is not None
    assert neutral.tint == pytest.approx((1.0, 1.0, 1.0), abs=0.02)
    assert warm.tint[0] > 1.2 > 1.0 > 0.6 > warm.tint[2]
    assert cold.tint[0] < 1.0 < cold.tint[2]
    for match in (warm, cold):
        assert np.dot(match.tint, (0.2126, 0.7152, 0.0722)) == pytest.approx(1.0)


def test_what_was_seen_is_told_with_its_times_before_the_plans_own() -> None:
    clip = ClipReport(
        container="mov", codec="x", pix_fmt="yuv420p", chroma="4:2:0", bits=8, mbit_s=50.0, fps=25.0, frames=100,
        flicker_percent=0.9, flicker_hz=10.0, drift_percent=-3.0, worst_frame=4,
        breaches=(Breach(1.2, 2.32, ("left",)),),
    )  # fmt: skip
    _, findings = find(seed_vault(), BasisStore(), with_remedies=False)
    told = problems_of(findings, clip, ("key panel",))
    assert told[0] == "something leaves the screen (left) from 1.20 s to 2.32 s"
    assert told[1] == "the screen flickers by 0.9 points"
    assert told[2] == "the screen's level drifts by -3.0 points through the clip"
    assert told[3].startswith("key panel stands inside the outline")
    quiet = replace(clip, flicker_percent=0.4, drift_percent=1.9, breaches=())
    assert problems_of(findings, quiet, ()) == told[4:]


def test_every_file_of_a_bundle_is_opened_by_another_reader(tmp_path: Path) -> None:
    dice = np.random.default_rng(5)
    picture = pictured(body(240, 90, 0.4), screen_light(0.05), dice)
    frame = Frame(np.round(255.0 * picture).astype(np.uint8), 255.0)
    plan = seed_vault()
    seen = Seen(frame, None, frame_report(read_frame(frame)), None)
    data = bundle_zip([HandedOver(plan, seen, frame)])
    assert data == bundle_zip([HandedOver(plan, seen, frame)])
    archive = zipfile.ZipFile(io.BytesIO(data))
    assert archive.testzip() is None
    keying = json.loads(archive.read("keying.json"))
    assert keying["samples"]["beside_face"]["recorded"][1] == pytest.approx(62.0, abs=4.0)
    assert keying["clean_plate"].startswith("clean-plate-synthetic.png, made from the picture and not filmed")
    assert keying["measured"]["hue"] == "green"
    assert keying["levels"]["gain"] > 0.0
    assert {fact["id"] for fact in keying["planned"]} >= {"level-luma", "band", "clip", "noise", "smear"}
    assert "Seed vault" in PdfReader(io.BytesIO(archive.read("sheet.pdf"))).pages[0].extract_text()
    paths = ET.fromstring(archive.read("outline.svg")).findall(".//{http://www.w3.org/2000/svg}path")
    assert len(paths) == len(keying["outline"]["polygons"])
    mask = cv2.imdecode(np.frombuffer(archive.read("outline.png"), np.uint8), cv2.IMREAD_UNCHANGED)
    assert mask.shape == SHAPE
    assert set(np.unique(mask)) == {0, 255}
    scene = trimesh.load(io.BytesIO(archive.read("scene.gltf")), file_type="gltf")
    assert len(scene.geometry) > 0
    table = tmp_path / "to-linear.cube"
    table.write_bytes(archive.read("to-linear.cube"))
    config = ocio.Config.CreateRaw()
    lut = config.getProcessor(
        ocio.FileTransform(str(table), interpolation=ocio.INTERP_LINEAR)
    ).getDefaultCPUProcessor()
    for value in (0.0, 0.18, 0.5, 1.0):
        assert lut.applyRGB([value] * 3)[1] == pytest.approx(float(decode(np.array([value]), "rec709")[0]), abs=1e-3)


def test_several_shots_have_a_folder_each() -> None:
    archive = zipfile.ZipFile(
        io.BytesIO(bundle_zip([HandedOver(seed_vault(), title="Door"), HandedOver(fern_dancer())]))
    )
    folders = {name.split("/")[0] for name in archive.namelist()}
    assert folders == {"01-Door", "02-Fern-dancer"}
    assert "no picture" in json.loads(archive.read("01-Door/keying.json"))["clean_plate"]
