"""Plates from known cameras and suns, marked as a person would: a pixel or so beside the truth."""

from __future__ import annotations

import math
from datetime import UTC, datetime
from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.search.lighting_brief import lighting_brief
from ausblick.core.camera.view import View, camera_axes
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.plate.plate_camera import Line, MarkError, Marks, Spot, plate_camera, plate_light
from ausblick.core.plate.plate_picture import read_plate
from ausblick.core.plate.sun import sun_for
from ausblick.core.sentences import say
from tests.conftest import MakePlan, lamp

WIDTH, HEIGHT = 1920, 1080
SCENES = [
    {"height": 1.6, "tilt": -3.0, "roll": 0.0, "focal": 35.0, "azimuth": -60.0, "elevation": 25.0},
    {"height": 2.4, "tilt": 6.0, "roll": 1.5, "focal": 24.0, "azimuth": 130.0, "elevation": 48.0},
    {"height": 1.1, "tilt": 0.0, "roll": -1.0, "focal": 50.0, "azimuth": 20.0, "elevation": 62.0},
]


def marked(scene: dict[str, float], seed: int, corner: bool = True) -> Marks:
    """Project a corner of two walls on the ground and a post with its shadow; jitter by a pixel."""
    tan = 18.0 / scene["focal"]
    axes = camera_axes(0.0, scene["tilt"], scene["roll"])
    view = View(np.array([0.0, scene["height"], 0.0]), axes, tan, tan * HEIGHT / WIDTH)
    rng = np.random.default_rng(seed)

    def spot(x: float, y: float, z: float) -> Spot:
        frame, depth = view.project(np.array([x, y, z]))
        assert depth > 0
        u, v = frame + rng.normal(0.0, 0.7, 2) / (WIDTH, HEIGHT)
        return float(u), float(v)

    def receding(angle: float) -> tuple[Line, Line]:
        a = math.radians(angle)
        along = np.array([math.sin(a), 0.0, -math.cos(a)])
        starts = (np.array([-1.0, 0.0, -9.0]), np.array([-1.0, 2.5, -9.0]))
        lines = [(spot(*p), spot(*(p + 6.0 * along))) for p in starts]
        return lines[0], lines[1]

    far = [spot(x, scene["height"], -4000.0) for x in (-900.0, 900.0)]
    foot = np.array([0.4, 0.0, -7.0])
    a, e = math.radians(scene["azimuth"]), math.radians(scene["elevation"])
    shadow = 1.2 / math.tan(e)
    tip = foot - shadow * np.array([math.sin(a), 0.0, math.cos(a)])
    return Marks(
        horizon=None if corner else (far[0], far[1]),
        first=receding(40.0) if corner else None,
        second=receding(-50.0) if corner else None,
        foot=spot(*foot),
        top=spot(0.4, 1.2, -7.0),
        tip=spot(*tip),
    )


@pytest.mark.parametrize("scene", SCENES)
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_camera_and_light_of_known_scenes(scene: dict[str, float], seed: int) -> None:
    marks = marked(scene, seed)
    camera = plate_camera(marks, WIDTH, HEIGHT, focal_mm_ff=40.0)
    assert camera.measured_view
    assert camera.tilt == pytest.approx(scene["tilt"], abs=1.5)
    assert camera.roll == pytest.approx(scene["roll"], abs=1.0)
    assert camera.view_deg == pytest.approx(2 * math.degrees(math.atan(18 / scene["focal"])), rel=0.1)
    light = plate_light(marks, camera, WIDTH, HEIGHT)
    off = (light.azimuth - scene["azimuth"] + 180) % 360 - 180
    assert off == pytest.approx(0.0, abs=5.0)
    assert light.elevation == pytest.approx(scene["elevation"], abs=5.0)


@pytest.mark.parametrize("scene", SCENES)
def test_the_horizon_alone_gives_the_tilt_for_a_known_lens(scene: dict[str, float]) -> None:
    camera = plate_camera(marked(scene, 4, corner=False), WIDTH, HEIGHT, focal_mm_ff=scene["focal"])
    assert not camera.measured_view
    assert camera.tilt == pytest.approx(scene["tilt"], abs=0.5)


SQUARE: tuple[Line, Line] = (((0.1, 0.2), (0.5, 0.4)), ((0.1, 0.8), (0.5, 0.6)))


@pytest.mark.parametrize(
    ("marks", "word"),
    [
        (Marks(), "mark the horizon"),
        (Marks(horizon=((0.5, 0.5), (0.51, 0.5))), "too short"),
        (Marks(first=(((0.1, 0.2), (0.5, 0.2)), ((0.1, 0.8), (0.5, 0.8)))), "parallel"),
        (Marks(first=SQUARE, second=SQUARE), "right angles"),
        (Marks(first=(((0.1, 0.2), (0.101, 0.2)), ((0.1, 0.8), (0.5, 0.6)))), "too short"),
    ],
)
def test_marks_that_cannot_be_are_refused(marks: Marks, word: str) -> None:
    with pytest.raises(MarkError, match=word):
        plate_camera(marks, WIDTH, HEIGHT, 35.0)


def test_a_shadow_needs_ground_and_a_thing() -> None:
    level = Marks(horizon=((0.0, 0.5), (1.0, 0.5)), foot=(0.5, 0.4), top=(0.5, 0.3), tip=(0.6, 0.8))
    camera = plate_camera(level, WIDTH, HEIGHT, 35.0)
    with pytest.raises(MarkError, match="below the horizon"):
        plate_light(level, camera, WIDTH, HEIGHT)
    with pytest.raises(MarkError, match="foot"):
        plate_light(Marks(), camera, WIDTH, HEIGHT)


def picture(level: float, tint: tuple[float, float, float] = (1, 1, 1), blur: bool = False) -> Frame:
    import cv2

    rng = np.random.default_rng(5)
    blocks = np.kron(rng.uniform(0.4, 1.6, (45, 80)), np.ones((16, 16)))[..., None] * np.array(tint)
    signal = np.clip(level * blocks, 0, 1).astype(np.float32)
    if blur:
        signal = cv2.GaussianBlur(signal, (0, 0), 9.0)
    return Frame(np.round(signal * 255).astype(np.uint8), 255.0)


def test_levels_brightness_and_sharpness_of_a_picture() -> None:
    dark, bright = read_plate(picture(0.12)), read_plate(picture(0.62))
    assert dark.mean_level == pytest.approx(12, abs=0.5)
    assert (dark.brightness, bright.brightness) == ("night", "day")
    assert dark.black_level < dark.mean_level < dark.white_level
    assert read_plate(picture(0.4)).sharpness == "sharp"
    assert read_plate(picture(0.4, blur=True)).sharpness == "blurred"


def test_the_colour_of_the_light() -> None:
    assert read_plate(picture(0.4)).cct == pytest.approx(6500, abs=150)
    assert read_plate(picture(0.4, (1.15, 1.0, 0.7))).cct < 4800
    assert read_plate(picture(0.4, (0.9, 1.0, 1.2))).cct > 7500


def severities(plan: Plan) -> dict[str, str]:
    return {f.rule.id: f.judgement.severity for f in find(plan, BasisStore(), with_remedies=False)[1]}


@pytest.mark.parametrize(
    ("rule", "near", "far"),
    [
        ("plate.tilt", {"tilt": 2.9}, {"tilt": 3.1}),
        ("plate.height", {"camera_height": 1.66}, {"camera_height": 1.76}),
        ("plate.view", {"focal_mm_ff": 50}, {"focal_mm_ff": 40}),
    ],
)
def test_a_mismatch_is_found_from_three_degrees_and_goes_when_its_remedy_is_applied(
    make: MakePlan, rule: str, near: dict[str, Any], far: dict[str, Any]
) -> None:
    assert severities(make(plate=near))[rule] == "fine"
    plan = make(plate=far)
    (finding,) = find(plan, BasisStore(), only={rule})[1]
    assert finding.judgement.severity in ("consider", "fix")
    assert severities(apply_changes(plan, finding.remedies[0].changes))[rule] == "fine"
    assert rule not in severities(make(plate=far | {"known": False}))


def test_a_key_from_the_wrong_side_is_found_and_can_be_moved(make: MakePlan) -> None:
    key = lamp(role="key", flux_lm=9000, position=[2.0, 2.2, 4.0], aim=[0, 1.6, 2.4])
    plan = make(lights=[key], plate={"key_azimuth": -60, "key_elevation": 20})
    (finding,) = find(plan, BasisStore(), only={"plate.key"})[1]
    assert finding.judgement.severity == "consider", "a match is taste and grade, not the key"
    moved = apply_changes(plan, finding.remedies[0].changes)
    assert severities(moved)["plate.key"] == "fine"
    assert moved.lights[0].position[0] < -1.0


def test_the_brief_says_where_the_key_stands(make: MakePlan) -> None:
    brief = lighting_brief(evaluate(make(plate={"key_azimuth": -90, "key_elevation": 0}), BasisStore()))
    assert [stand.away for stand in brief.stands] == [1.5, 2.0, 3.0]
    stand = brief.stands[1]
    assert (stand.x, stand.y, stand.z) == pytest.approx((-2.0, 0.93 * 1.72, 2.4), abs=0.01)
    assert "left" in brief.words[0]
    assert {target.school for target in brief.levels} == {"below-face", "mid-grey", "follow-plate", "away-from-edge"}
    assert brief.ratio == pytest.approx(4.0)


def test_an_unknown_plate_is_wrapped_in_soft_light(make: MakePlan) -> None:
    brief = lighting_brief(evaluate(make(plate={"known": False}), BasisStore()))
    assert brief.wrap_around
    assert brief.stands == ()
    assert "costs shape" in brief.words[1]


def test_the_sun_at_a_published_hour() -> None:
    """Equinox noon on the equator, 0 E: overhead. London, 21 June 2026, 12:00 UTC: 62 deg high, due south."""
    overhead = sun_for(0.0, 0.0, datetime(2026, 3, 20, 12, 7, tzinfo=UTC), 0.0)
    assert overhead.elevation == pytest.approx(90.0, abs=1.0)
    noon = datetime(2026, 6, 21, 12, 2, tzinfo=UTC)
    looking_north = sun_for(51.5, 0.0, noon, 0.0)
    assert looking_north.elevation == pytest.approx(61.9, abs=0.3)
    assert looking_north.azimuth == pytest.approx(0.0, abs=1.5)
    # Looking east, the southern sun stands to the right; looking west, to the left.
    assert sun_for(51.5, 0.0, noon, 90.0).azimuth == pytest.approx(90.0, abs=1.5)
    assert sun_for(51.5, 0.0, noon, 270.0).azimuth == pytest.approx(-90.0, abs=1.5)
    with pytest.raises(ValueError, match="time zone"):
        sun_for(0.0, 0.0, noon.replace(tzinfo=None), 0.0)


def lit_from(make: MakePlan, *azimuths: float, roles: tuple[str, ...] = ("key", "back"), **plate: Any) -> Any:
    """The judgement of the plate's light with lamps 2 m from the face, 20 degrees up."""
    face = np.array([0.0, 0.93 * 1.72, 2.4])
    lamps = []
    for azimuth, role in zip(azimuths, roles, strict=False):
        a, e = math.radians(azimuth), math.radians(20.0)
        way = np.array([math.sin(a) * math.cos(e), math.sin(e), math.cos(a) * math.cos(e)])
        lamps.append(lamp(role=role, position=list(face + 2.0 * way), flux_lm=4000))
    plan = make(lights=lamps, plate={"key_azimuth": -60, "key_elevation": 20, **plate})
    found = find(plan, BasisStore(), with_remedies=False)[1]
    return next((one.judgement for one in found if one.rule.id == "plate.key"), None)


def test_moon_and_lantern_want_a_lamp_each(make: MakePlan) -> None:
    two = {"light": "two", "second_azimuth": 150, "second_elevation": 20}
    both = lit_from(make, -60, 150, **two)
    assert (both.severity, both.value) == ("fine", pytest.approx(0.0, abs=0.1))
    alone = lit_from(make, -60, **two)
    assert alone.severity == "consider"
    assert say(alone.says).startswith("The plate's second light has no lamp: ")
    off = lit_from(make, -60, 110, **two)
    assert off.value == pytest.approx(math.degrees(math.acos(closeness(40.0))), abs=0.1)
    # One light: what comes from behind is no stand-in for the key.
    assert lit_from(make, 20, -60).value > 60.0


def closeness(turn: float) -> float:
    """Cosine between two directions of 20 degrees elevation that differ by a turn."""
    e = math.radians(20.0)
    return math.sin(e) ** 2 + math.cos(e) ** 2 * math.cos(math.radians(turn))


@pytest.mark.parametrize("light", ["overcast", "flat"])
def test_light_without_a_side_is_compared_with_none(make: MakePlan, light: str) -> None:
    assert lit_from(make, 100, light=light) is None
