"""What a rule is, and what it says: a judgement with a number, its limit, the reason, and remedies."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from ..evaluation.results import Evaluation
from ..light.basis import BasisStore
from ..plan import Change

Severity = Literal["stop", "fix", "consider", "fine"]
Outcome = Literal["cured", "better", "does-not-apply"]
Stage = Literal["plate", "space", "screen", "light", "subject", "camera"]
RANK: dict[Severity, int] = {"stop": 0, "fix": 1, "consider": 2, "fine": 3}


@dataclass(frozen=True)
class Judgement:
    """`excess` says how far beyond the limit the value is, in the limit's own scale: 0 holds.

    `why` takes the place of the rule's own reason where a school has a better one.
    """

    severity: Severity
    value: float | None
    limit: float | None
    unit: str
    says: str
    excess: float
    why: str = ""


@dataclass(frozen=True)
class Proposal:
    """A change that might help. Whether it does is found by evaluating the changed plan."""

    text: str
    changes: tuple[Change, ...]
    cost: str = ""


@dataclass(frozen=True, kw_only=True)
class Remedy:
    """A proposal that was evaluated: `before` and `after` are the rule's value. `outcome` tells a fault that is
    cured from one that is less, and from a rule that the changed plan gives no occasion for."""

    text: str
    effect: str
    cost: str
    outcome: Outcome
    before: float | None
    after: float | None
    worsens: tuple[str, ...]
    changes: tuple[Change, ...]


@dataclass(frozen=True, kw_only=True)
class Rule:
    """`measure` names the value; `why` is the reason in a sentence; `source` who sets the limit."""

    id: str
    stage: Stage
    measure: str
    why: str
    source: str
    judge: Callable[[Evaluation], Judgement | None]
    propose: Callable[[Evaluation, BasisStore], Sequence[Proposal]]
    digits: int = 2


@dataclass(frozen=True)
class Finding:
    rule: Rule
    judgement: Judgement
    remedies: tuple[Remedy, ...] = ()


def graded(excess: float, fix: float, stop: float) -> Severity:
    """Severity from how far beyond the limit: over 0 consider, over `fix` fix, over `stop` stop."""
    if excess <= 0.0:
        return "fine"
    if excess <= fix:
        return "consider"
    return "fix" if excess <= stop else "stop"
