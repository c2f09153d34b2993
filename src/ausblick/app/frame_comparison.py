"""The plan as it is now beside what a frame shows, by one ruler."""

from __future__ import annotations

from ausblick.core.diagnosis.comparison import as_planned, compare, verdict
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Plan
from ausblick.store.frames import StoredFrame

from .frame_cause import read_for
from .frame_import import read_from, region_of
from .frame_told import FrameComparison
from .services import Services


def compare_frame(services: Services, frame_id: int) -> FrameComparison:
    stored = services.frames.get(frame_id)
    plan = services.setups.get(stored.setup_id).plan
    key = plan.model_dump_json(), read_from(services.frames, stored)
    return services.memory.comparisons.get(key, lambda: _compared(services, stored, plan))


def _compared(services: Services, stored: StoredFrame, plan: Plan) -> FrameComparison:
    _, reading = read_for(services, stored, plan)
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
