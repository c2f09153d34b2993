"""A set built exactly as planned reads as planned, whatever the set-up: one ruler for both columns."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from ausblick.core.diagnosis.comparison import compare
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.plan import Plan
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_picture
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar
from tests.stores import STORE

HALF_A_POINT = (
    "Screen, luma",
    "Screen, key channel",
    "Unevenness",
    "Left to right",
    "Saturation",
    "Screen in the frame",
)


OTHERS = (scree, seed_vault, fern_dancer, potting_shed, gardeners)


@pytest.mark.parametrize("make", [seed_jar, *(pytest.param(one, marks=pytest.mark.torture) for one in OTHERS)])
def test_a_set_without_a_fault_differs_in_nothing(make: Callable[[], Plan]) -> None:
    plan = make()
    evaluation = evaluate(plan, STORE)
    expected = expected_reading(evaluation, STORE)
    frame = Frame(standin_picture(standin_capture(AsBuilt(plan), STORE), 1280, 3), 255.0)
    rows = {row.name: row for row in compare(evaluation, expected, read_frame(frame, plan.targets.level_trace))}
    assert [row.name for row in rows.values() if row.means] == []
    for name in HALF_A_POINT:
        assert rows[name].difference == pytest.approx(0.0, abs=0.5), name
    assert rows["Hue"].difference == pytest.approx(0.0, abs=1.0)
