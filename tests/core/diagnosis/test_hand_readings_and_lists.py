"""Without scopes: nine readings, the zebra method; and the lists round a take."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.camera.view import view_of
from ausblick.core.diagnosis.checklists import Item, items_of
from ausblick.core.diagnosis.comparison import compare, recording_differs
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.diagnosis.hand_readings import LUX_PER_FC, ReadingError, Unit, read_nine, zebra
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.contact import Contact
from ausblick.core.frames.drift import ScreenSeen, drift
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.frame_report import ClipReport
from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_picture
from ausblick.demo.fern_house import scree, seed_vault
from tests.stores import STORE


def planned_zones(plan: Plan) -> list[float | None]:
    """Lux at the middle of each zone of the frame, as a careful person would meter it."""
    evaluation = evaluate(plan, STORE)
    view = view_of(plan.camera, plan.subject)
    grid, found = evaluation.screen_map.grid, []
    for i in range(9):
        ray = view.rays(np.array([(i % 3 + 0.5) / 3.0, (i // 3 + 0.5) / 3.0]))
        at = view.lens - ray * view.lens[2] / ray[2]
        column, row = int(np.argmin(np.abs(grid.x - at[0]))), int(np.argmin(np.abs(grid.y - at[1])))
        inside = abs(at[0] - plan.screen.x_centre) < plan.screen.width / 2 and 0 < at[1] < plan.screen.height
        found.append(float(evaluation.screen_map.lux[row, column]) if inside else None)
    return found


@pytest.mark.torture
def test_the_same_light_in_every_unit() -> None:
    plan = seed_vault()
    lux: list[float | None] = [400, 420, 440, 380, 400, 420, 360, 380, 400]
    same: list[tuple[Unit, list[float | None]]] = [
        ("lux", lux),
        ("foot-candle", [v / LUX_PER_FC for v in lux if v]),
        ("stops", [math.log2(v / 400) for v in lux if v]),
    ]
    for unit, values in same:
        found = read_nine(plan, values, unit, STORE)
        assert found.spread_stops == pytest.approx(math.log2(440 / 360), abs=1e-6)
        assert (found.brightest, found.darkest) == ("upper right", "lower left")
        assert found.state == "holds"
    assert read_nine(plan, same[1][1], "foot-candle", STORE).mean_lux == pytest.approx(400)


def test_nine_readings_name_the_weak_lamp() -> None:
    plan = seed_vault()
    weak = apply_changes(plan, [Change("lights[0].dimmer", 0.25)])
    found = read_nine(plan, planned_zones(weak), "lux", STORE)
    assert found.cause is not None
    assert found.cause.lamp == plan.lights[0].name
    assert found.state == "fails"


@pytest.mark.parametrize(
    ("values", "unit", "says"),
    [
        ([50.0] * 8, "percent", "nine readings"),
        ([None] * 7 + [50.0, 51.0], "percent", "at least three"),
        ([50.0] * 4 + [120.0] + [50.0] * 4, "percent", "middle centre.*above any scope"),
        ([400.0] * 8 + [0.0], "lux", "lower right.*above 0"),
        ([0.0] * 8 + [40.0], "stops", "out of any set"),
    ],
)
def test_a_reading_that_cannot_be_is_named(values: list[float | None], unit: Unit, says: str) -> None:
    with pytest.raises(ReadingError, match=says):
        read_nine(scree(), values, unit, STORE)


def test_zebra() -> None:
    assert zebra(8.0, 5.6).spread_stops == pytest.approx(2.0 * math.log2(8.0 / 5.6))
    assert zebra(8.0, 7.3).state == "holds"
    assert zebra(11.0, 5.6).state == "fails"
    with pytest.raises(ReadingError, match="exchange"):
        zebra(4.0, 8.0)
    with pytest.raises(ReadingError, match="f-number"):
        zebra(0.0, 8.0)


def test_lists_tick_what_can_be_measured() -> None:
    evaluation, findings = find(seed_vault(), STORE, with_remedies=False)
    blank = {item.id: item for item in items_of(evaluation, findings, None, [])}
    assert blank["screen-found"].done is False
    assert blank["white-balance"].done is None
    assert "5600 K" in blank["white-balance"].text
    assert {item.when for item in blank.values()} == {"before", "after"}
    empty = FrameReading(1920, 1080, None, 0.0)
    read = {
        item.id: item
        for item in items_of(
            evaluation, findings, empty, compare(evaluation, expected_reading(evaluation, BasisStore()), empty)
        )
    }
    assert read["screen-found"].done is False
    # Without a screen nothing is ticked by its absence.
    assert [read[i].done for i in ("clipped", "inside", "level", "hue")] == [False] * 4
    assert read["no-sharpening"].done is True
    assert read["drifted"].done is False


@pytest.mark.torture
def test_a_clean_frame_ticks_all_that_a_frame_can_and_a_drift_unticks() -> None:
    plan = apply_changes(scree(), [Change("subject.framing", "waist"), Change("camera.z", 5.4)])
    evaluation, findings = find(plan, STORE, with_remedies=False)
    frame = Frame(standin_picture(standin_capture(AsBuilt(plan), STORE), 1280, 2), 255.0)
    reading = read_frame(frame, plan.targets.level_trace)
    rows = compare(evaluation, expected_reading(evaluation, STORE), reading)
    seen = ScreenSeen(60.0, 239.0, 0.26, 8.0, 0.2)

    def ticked(now: ScreenSeen) -> dict[str, Item]:
        return {i.id: i for i in items_of(evaluation, findings, reading, rows, drift(seen, now))}

    items = ticked(seen)
    measured = ("screen-found", "level", "even", "hue", "noise", "spill", "sharp", "clipped", "drifted")
    assert [name for name in measured if not items[name].done] == []
    warm = ticked(replace(seen, hue_deg=230.0))
    assert warm["drifted"].done is False
    assert "hue -9.0 °" in warm["drifted"].says


def test_a_side_that_the_subject_leaves_is_named_and_the_lower_one_is_none() -> None:
    evaluation, findings = find(seed_vault(), STORE, with_remedies=False)

    def inside(*sides: str) -> Item:
        reading = FrameReading(1920, 1080, "blue", 60.0, contact=Contact((), sides, np.zeros((2, 2), dtype=bool)))
        return {item.id: item for item in items_of(evaluation, findings, reading, [])}["inside"]

    assert inside("left").done is False
    assert inside("left", "bottom").says == "leaves it: left"
    assert inside("bottom").done is True


def test_a_clip_that_is_not_as_planned() -> None:
    plan = seed_vault()
    same = ClipReport(
        container="mp4", codec="h264", pix_fmt="yuv420p", chroma="4:2:0", bits=8, mbit_s=50.0, fps=25.0, frames=50,
        flicker_percent=0.0, flicker_hz=None, drift_percent=0.0, worst_frame=0, breaches=(),
    )  # fmt: skip
    assert recording_differs(plan, same) == []
    off = recording_differs(plan, replace(same, chroma="4:2:2", bits=10, fps=50.0, mbit_s=12.0))
    assert len(off) == 4
    assert off[0] == "chroma is 4:2:2, the plan says 4:2:0"
