"""The plan as it is now beside what a frame shows, by one ruler."""

from __future__ import annotations

from dataclasses import dataclass

from ausblick.core.diagnosis.comparison import Compared, Verdict, as_planned, compare, verdict
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.frames.reading import FrameReading

from .frame_cause import read_stored
from .frame_import import region_of
from .services import Services


@dataclass(frozen=True)
class FrameComparison:
    """`*_planned`: in the reading's order, does the plan's own picture have these spots?"""

    evaluation: Evaluation
    expected: FrameReading
    verdict: Verdict
    rows: tuple[Compared, ...]
    hot_spots_planned: tuple[bool, ...]
    shadows_planned: tuple[bool, ...]


def compare_frame(services: Services, frame_id: int) -> FrameComparison:
    stored = services.frames.get(frame_id)
    plan, _, reading = read_stored(services, stored)
    evaluation, expected = evaluate(plan, services.basis), services.memory.expected(plan)
    rows = compare(evaluation, expected, reading, whole=not region_of(stored))
    return FrameComparison(
        evaluation=evaluation,
        expected=expected,
        verdict=verdict(evaluation, expected, reading, rows),
        rows=tuple(rows),
        hot_spots_planned=tuple(as_planned(spot, expected, reading) for spot in reading.hot_spots),
        shadows_planned=tuple(as_planned(spot, expected, reading) for spot in reading.shadows),
    )
