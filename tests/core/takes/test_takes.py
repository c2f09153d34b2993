"""Takes: what has changed since the reference take, what voids a clean plate, and what is missing."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.frames.frame_report import FrameReport
from ausblick.core.frames.reading import Level
from ausblick.core.geometry.vectors import Bools, Floats32
from ausblick.core.plan import Change, apply_changes
from ausblick.core.production.production_document import PlannedShot
from ausblick.core.takes.clean_plate import clean_plate_state, state_of
from ausblick.core.takes.movement import FrameSeen, Movement, background_percent, degrees_of, movement
from ausblick.core.takes.shot_progress import not_done, outfit_changed, shot_progress
from ausblick.core.takes.take_document import Take, TakeError, next_number, take_from
from ausblick.core.takes.take_rules import TakeSeen, judge_take
from ausblick.demo.fern_house import seed_vault

REPORT = FrameReport(
    width=1920, height=1080, hue="green", screen_area_percent=80.0, level_luma=Level(55.0, 50.0, 60.0),
    level_key_channel=None, band_percent=10.0, even_percent=4.0, grid=None, slope_percent=None, hot_spots=(),
    shadows=(), noise_percent=1.0, hue_deg=125.0, saturation=0.3, clipped_percent=0.0, edge_contact=False,
    edge_contact_frame=(), edge_contact_screen=(),
)  # fmt: skip


def told(moved: Movement | None = None, **now: Any) -> dict[str, str]:
    take = TakeSeen(replace(REPORT, **now), None, 2000.0)
    return {one.id: one.severity for one in judge_take(take, TakeSeen(REPORT, None, 2000.0), moved)}


def level(mean: float) -> Level:
    return Level(mean, mean - 5.0, mean + 5.0)


def test_a_take_like_the_reference_says_nothing() -> None:
    assert told() == {}
    assert told(level_luma=level(56.9), hue_deg=126.9, noise_percent=1.4, even_percent=5.0) == {}


def test_limits_are_those_of_the_rules() -> None:
    assert told(level_luma=level(57.5))["take.level"] == "consider"
    assert told(level_luma=level(49.0))["take.level"] == "fix"
    assert told(hue_deg=128.0)["take.hue"] == "consider"
    assert told(hue_deg=131.0)["take.hue"] == "fix"
    assert told(noise_percent=1.6) == {"take.noise": "consider"}
    assert told(even_percent=9.0) == {"take.evenness": "consider"}
    assert told(edge_contact_screen=("left",)) == {"take.breach": "fix"}
    assert told(Movement(2.0, 10.0)) == {}
    assert told(Movement(5.0, None)) == {"take.screen-moved": "fix"}
    assert told(Movement(0.0, 2000.0 * np.tan(np.radians(0.6)))) == {"take.camera-turned": "fix"}


def room(dx: int = 0, dy: int = 0, screen_dx: int = 0, light: float = 1.0) -> FrameSeen:
    """A screen in a room with shelves and doors, seen (480, 270) px; a figure stands before it."""
    dice = np.random.default_rng(5)
    wall: Floats32 = np.full((330, 560), 0.35, np.float32)
    for x, y, w, h, tone in zip(*(dice.integers(0, most, 60) for most in (540, 310, 50, 50, 100)), strict=True):
        wall[y : y + h + 4, x : x + w + 4] = 0.1 + 0.006 * tone
    screen: Bools = np.zeros(wall.shape, bool)
    screen[80:330, 190 + screen_dx : 390 + screen_dx] = True
    wall[screen] = 0.55
    figure: Bools = np.zeros(wall.shape, bool)
    figure[140:330, 270:310] = True
    wall[figure] = 0.2
    cut = np.s_[30 - dy : 300 - dy, 40 - dx : 520 - dx]
    return FrameSeen(np.ascontiguousarray(light * wall[cut]), (screen & ~figure)[cut], 4.0)


def test_a_camera_that_turned_is_told_from_a_screen_that_moved() -> None:
    still = movement(room(), room(light=0.9))
    assert still.screen_px == 0.0
    assert still.camera_px == pytest.approx(0.0, abs=1.0)
    turned = movement(room(), room(dx=6, dy=-3))
    assert turned.screen_px == 0.0
    assert turned.camera_px == pytest.approx(4.0 * np.hypot(6, 3), abs=3.0)
    pushed = movement(room(), room(screen_dx=5))
    assert pushed.screen_px == pytest.approx(20.0, abs=4.0)
    assert pushed.camera_px == pytest.approx(0.0, abs=2.0)
    assert degrees_of(2000.0, 2000.0) == pytest.approx(45.0)


def test_a_screen_that_fills_the_frame_tells_of_no_movement() -> None:
    full = FrameSeen(np.full((270, 480), 0.5, np.float32), np.ones((270, 480), bool), 4.0)
    assert movement(full, full) == Movement(None, None)


def test_the_background_is_compared_outside_the_figure() -> None:
    assert background_percent(room(), room(light=0.9)) == pytest.approx(5.5, abs=0.1)
    assert background_percent(room(), room()) == 0.0


def test_a_clean_plate_is_void_after_a_change_of_lamp_camera_or_screen() -> None:
    plan = seed_vault()
    now = state_of(plan)
    assert clean_plate_state(None, now, [], None).state == "missing"
    assert clean_plate_state(now, state_of(plan), [], 0.4).state == "holds"
    for path, value, word in (
        ("lights[0].dimmer", 0.31, "a lamp"),
        ("camera.iso", 999.0, "the camera"),
        ("screen.width", 3.33, "the screen"),
    ):
        found = clean_plate_state(now, state_of(apply_changes(plan, [Change(path, value)])), [], None)
        assert found.state == "changed"
        assert found.finding is not None
        assert word in found.finding.says
        assert found.finding.severity == "fix"
    # Whoever has only moved has changed nothing of it.
    other = apply_changes(plan, [Change("subject.x", 0.2)])
    assert clean_plate_state(now, state_of(other), [], None).state == "holds"
    looked_at = clean_plate_state(now, now, [], 1.4)
    assert (looked_at.state, looked_at.finding and looked_at.finding.severity) == ("holds", "consider")
    wrap = clean_plate_state(None, now, [], None, at_wrap=True).finding
    assert wrap is not None
    assert wrap.severity == "stop"


def take(n: int, status: str = "good", **fields: Any) -> Take:
    at = f"2027-03-16T10:{n:02d}:00Z"
    return take_from({"key": f"take-{n:06d}", "shot": "a", "number": n, "at": at, "status": status, **fields})


def test_variants_are_counted_and_a_shot_without_a_good_take_is_not_done() -> None:
    shot = PlannedShot(id="a", title="Door", variants=("open", "shut"))
    takes = [take(1, "no"), take(2, variant="open"), take(3, "keep", variant="shut"), take(1, shot="b")]
    found = shot_progress(shot, takes)
    assert (found.takes, found.share, found.reference) == (3, 0.5, "take-000002")
    assert [(one.name, one.good) for one in found.variants] == [("open", 1), ("shut", 0)]
    missing = not_done(shot, found)
    assert missing is not None
    assert missing.says == "Door: 1 of 2 good"
    assert shot_progress(shot, [*takes, take(4, variant="shut")]).done
    assert not_done(PlannedShot(id="a", priority="if-time"), found) is None
    assert next_number(takes, "a") == 4
    assert next_number([*takes, take(9, kind="clean-plate")], "a") == 4


def test_another_outfit_is_looked_at_again_until_a_take_in_it() -> None:
    shot = PlannedShot(id="a", outfit="coat")
    assert outfit_changed(shot, []) is None
    assert outfit_changed(shot, [take(1, outfit="coat")]) is None
    found = outfit_changed(shot, [take(1, outfit="apron")])
    assert found is not None
    assert (found.severity, "white balance" in found.says) == ("consider", True)
    assert outfit_changed(shot, [take(1, outfit="apron"), take(2, "no", outfit="coat")]) is None


def test_a_take_that_cannot_be_says_which_field() -> None:
    with pytest.raises(TakeError, match="number"):
        take(0)
    with pytest.raises(TakeError, match="status"):
        take(1, "splendid")
