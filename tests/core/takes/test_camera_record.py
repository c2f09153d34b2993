"""How the camera stood at a take, smoke from take to take, and which file is whose."""

from __future__ import annotations

import pytest

from ausblick.core.plan import Camera
from ausblick.core.takes.camera_record import CameraRecord, differing, other_than_planned
from ausblick.core.takes.clean_plate import clean_plate_state, state_of
from ausblick.core.takes.clip_names import clip_named
from ausblick.core.takes.take_rules import judge_smoke
from ausblick.demo.fern_house import seed_vault

from .test_takes import REPORT, replace

CAMERA = Camera(iso=400.0, shutter_s=1 / 50, f_number=5.6, white_balance_k=5600.0, fps=25.0)


def test_settings_that_are_not_the_plans_are_named_with_both() -> None:
    told = other_than_planned(CameraRecord(iso=800.0, shutter_s=1 / 100, white_balance_k=4300.0, fps=24.0), CAMERA)
    assert [one.says for one in told] == [
        "ISO 800, planned 400",
        "Shutter 1/100, planned 1/50",
        "White balance 4300 K, planned 5600 K",
        "24 frames a second, planned 25",
    ]
    assert {(one.id, one.severity) for one in told} == {("take.settings", "consider")}


@pytest.mark.parametrize("nominal", [{"shutter_s": 1 / 48}, {"f_number": 5.66}, {"fps": 24.99}, {"iso": None}])
def test_nominal_settings_are_no_difference(nominal: dict[str, float]) -> None:
    assert other_than_planned(CameraRecord(**nominal), CAMERA) == []  # type: ignore[arg-type]


def test_a_third_of_a_stop_is_a_difference() -> None:
    camera = CameraRecord(f_number=5.6, shutter_s=1 / 50, iso=400.0, fps=24.0)
    third = CameraRecord(f_number=6.3, shutter_s=1 / 60, iso=500.0, fps=25.0)
    assert set(differing(camera, third)) == {"f_number", "shutter_s", "iso", "fps"}


def test_a_clean_plate_with_other_settings_does_not_hold() -> None:
    state = state_of(seed_vault())
    found = clean_plate_state(state, state, [], None, settings=("iso", "white_balance_k"))
    assert found.state == "changed"
    assert found.finding is not None
    assert found.finding.severity == "fix"
    assert found.finding.says == "The clean plate was filmed with another ISO and white balance than the last take"
    assert clean_plate_state(state, state, [], None).state == "holds"


@pytest.mark.parametrize(
    ("saturation", "says"),
    [
        (0.24, "The screen has lost 20 % of its colour since the take before: thicker smoke"),
        (0.345, "The screen has 15 % more colour than in the take before: thinner smoke"),
        (0.28, None),
        (None, None),
    ],
)
def test_smoke_is_told_from_take_to_take(saturation: float | None, says: str | None) -> None:
    found = judge_smoke(REPORT, replace(REPORT, saturation=saturation))
    assert [one.says for one in found] == ([] if says is None else [says])


FILES = {3: "A003_C011.MOV", 4: "a003_c012.mov", 7: "C0012.MP4", 9: "still.png"}


@pytest.mark.parametrize(
    ("clip", "frame"),
    [
        ("A003_C012", 4),
        ("a003_c011.mov", 3),
        ("card\\A003_C011", 3),
        ("11", 3),
        ("12", None),
        ("still", 9),
        ("C", None),
        ("", None),
        ("13", None),
    ],
)
def test_a_file_is_found_by_its_clips_name(clip: str, frame: int | None) -> None:
    assert clip_named(clip, FILES) == frame
