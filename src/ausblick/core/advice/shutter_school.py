"""The shutter angles that a plan's school accepts."""

from __future__ import annotations

from ..evaluation.results import Evaluation
from ..standards.schools import FASTER_MOST, SHUTTER_ANGLE, SHUTTER_HIGH, SHUTTER_LOW


def school_angle(evaluation: Evaluation) -> tuple[float, float]:
    """Smallest and largest shutter angle in degrees that the plan's shutter school accepts."""
    school = evaluation.plan.targets.shutter_school
    if school == "faster":
        return 0.0, FASTER_MOST
    wanted = SHUTTER_ANGLE.get(school, evaluation.plan.plate.shutter_angle)
    return wanted * SHUTTER_LOW, wanted * SHUTTER_HIGH
