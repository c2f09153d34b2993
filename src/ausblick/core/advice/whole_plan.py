"""What a plan's open findings weigh together: remedies are ordered by what they do to all of them."""

from __future__ import annotations

from collections.abc import Mapping

from ..damage.scale import halvings_alone
from ..standards.limit import Limit, Severity
from ..standards.limits import LIMITS
from .rule import Judgement

WEIGHTS: dict[Severity, float] = {"stop": 9.0, "fix": 3.0, "consider": 1.0, "fine": 0.0}
"""Three things to consider are about as bad as one to mend, three of those as one that stops the day."""
MOST = 27.0
"""A screen that burns three times over weighs no more than three that do."""
MATTER_OF_TASTE = 0.25
"""What is only to be considered and no damage of the key weighs a quarter of it."""
OF_A_HALVING = WEIGHTS["stop"]
"""What alone takes half of the key's quality weighs as much as what stops the day."""
ON_THE_SCALE = {
    "key.clip": "needed_clip",
    "key.edge": "edge_error",
    "key.hair": "hair_error",
    "key.motion": "motion_error",
}
"""Damages that are parts of the quality, by their rules."""


def weight_of(judged: Mapping[str, Judgement]) -> float:
    return sum(weight_of_one(rule_id, judgement) for rule_id, judgement in judged.items())


def weight_of_one(rule_id: str, judgement: Judgement) -> float:
    """Nothing for what is fine. What the key itself loses weighs by how much that takes of the quality; what is only
    hidden weighs as if it showed, or to show it would be a loss."""
    weight = WEIGHTS[judgement.severity]
    if not rule_id.startswith("key."):
        return weight if judgement.severity != "consider" else MATTER_OF_TASTE * weight
    severity, excess = severity_unhidden(rule_id, judgement), max(judgement.excess, judgement.hidden)
    if severity == "fine":
        return 0.0
    if rule_id in ON_THE_SCALE:
        return OF_A_HALVING * halvings_alone(ON_THE_SCALE[rule_id], LIMITS[rule_id].at + excess)
    return _on_the_way(LIMITS[rule_id], severity, excess)


def severity_unhidden(rule_id: str, judgement: Judgement) -> Severity:
    """How severe it is once it shows."""
    if judgement.hidden <= judgement.excess:
        return judgement.severity
    return LIMITS[rule_id].grade(judgement.hidden)


def _on_the_way(limit: Limit, severity: Severity, excess: float) -> float:
    """From the weight of a severity, at the excess it begins at, to that of the next one."""
    if severity == "stop":
        return min(MOST, WEIGHTS["stop"] * excess / limit.stop)
    if severity == "fix":
        share = (excess - limit.fix) / (limit.stop - limit.fix)
        return WEIGHTS["fix"] + share * (WEIGHTS["stop"] - WEIGHTS["fix"])
    return WEIGHTS["consider"] + excess / limit.fix * (WEIGHTS["fix"] - WEIGHTS["consider"])
