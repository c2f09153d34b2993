"""A frame beside its plan: what differs, the one thing to say first, and what caused it."""

from __future__ import annotations

from dataclasses import dataclass

from ..evaluation.evaluate import evaluate
from ..frames.frame import Frame
from ..frames.reading import FrameReading
from ..light.basis import BasisStore
from ..plan import Plan
from .cause import Cause, cause_of_light
from .comparison import Compared, Verdict, compare, verdict
from .expected import expected_reading
from .observed_light import observed_light


@dataclass(frozen=True)
class BesidePlan:
    """`cause` is None where the frame shows too little of the screen, or the plan has no lamp on."""

    verdict: Verdict
    rows: tuple[Compared, ...]
    cause: Cause | None


def beside_plan(plan: Plan, frame: Frame, reading: FrameReading, store: BasisStore) -> BesidePlan:
    evaluation = evaluate(plan, store)
    expected = expected_reading(evaluation, store)
    rows = compare(evaluation, expected, reading)
    observed = observed_light(plan, frame, reading)
    cause = None if observed is None else cause_of_light(plan, observed, store)
    return BesidePlan(verdict(evaluation, expected, reading, rows), tuple(rows), cause)
