"""What a plan's open findings weigh together: remedies are ordered by what they do to all of them."""

from __future__ import annotations

from collections.abc import Mapping

from ..standards.limit import Severity
from .rule import Judgement

WEIGHTS: dict[Severity, float] = {"stop": 9.0, "fix": 3.0, "consider": 1.0, "fine": 0.0}
"""Three things to consider are about as bad as one to mend, three of those as one that stops the day."""
MATTER_OF_TASTE = 0.25
"""What is only to be considered and no damage of the key weighs a quarter of it."""


def weight_of(judged: Mapping[str, Judgement]) -> float:
    return sum(weight_of_one(rule_id, judgement) for rule_id, judgement in judged.items())


def weight_of_one(rule_id: str, judgement: Judgement) -> float:
    """Nothing for what is fine."""
    weight = WEIGHTS[judgement.severity]
    return weight if judgement.severity != "consider" or rule_id.startswith("key.") else MATTER_OF_TASTE * weight
