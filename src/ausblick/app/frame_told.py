"""What is told of a stored frame beside its plan."""

from __future__ import annotations

from dataclasses import dataclass

from ausblick.core.diagnosis.cause import Cause
from ausblick.core.diagnosis.comparison import Compared, Verdict
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.frames.reading import FrameReading
from ausblick.core.plan import Change


@dataclass(frozen=True)
class FrameCause:
    """`noise`: changes that put this frame's noise in the place of the model."""

    cause: Cause | None
    noise: tuple[Change, ...]
    recording: tuple[str, ...]


@dataclass(frozen=True)
class FrameComparison:
    """`*_planned`: in the reading's order, does the plan's own picture have these spots?"""

    evaluation: Evaluation
    expected: FrameReading
    verdict: Verdict
    rows: tuple[Compared, ...]
    hot_spots_planned: tuple[bool, ...]
    shadows_planned: tuple[bool, ...]
