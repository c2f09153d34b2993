"""What a rule is, and what it says: a judgement with a number, its limit, the reason, and remedies."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from ..evaluation.results import Evaluation
from ..evaluation.seen_screen import SeenScreen
from ..light.basis import BasisStore
from ..plan import Change, Plan
from ..sentences import Sentence
from ..standards.limit import Limit, Severity
from ..standards.limits import LIMITS
from ..standards.unbounded import Unbounded

WORSE = 0.5
"""Points of quality that are no loss."""
SAME, WORTH = 0.01, 0.15
"""Weights of open findings that are told as one; and how much less is worth a walk that cures nothing, something less
than one matter of taste."""
Outcome = Literal["cured", "better", "does-not-apply"]
Stage = Literal["plate", "space", "screen", "light", "subject", "camera"]
RANK: dict[Severity, int] = {"stop": 0, "fix": 1, "consider": 2, "fine": 3}


@dataclass(frozen=True)
class Judgement:
    """`excess` says how far beyond the limit the value is, in the limit's own scale: 0 holds.

    `hidden`: the excess that shows once something else is mended, where that is more.
    `why` takes the place of the rule's own reason where a school has a better one. `person`: whom it is of, 0 the
    subject or the set, else a companion's place among them, from 1.
    """

    severity: Severity
    value: float | None
    limit: float | None
    unit: str
    says: Sentence
    excess: float
    why: str = ""
    person: int = 0
    hidden: float = 0.0


@dataclass(frozen=True)
class Proposal:
    """A change that might help. Whether it does is found by evaluating the changed plan."""

    text: Sentence
    changes: tuple[Change, ...]
    cost: Sentence | None = None


@dataclass(frozen=True, kw_only=True)
class Remedy:
    """A proposal that was evaluated: `before` and `after` are the rule's value. `outcome` tells a fault that is
    cured from one that is less, and from a rule that the changed plan gives no occasion for. `open_before` and
    `open_after`: what all open findings weigh; `quality_*`: that of the key, predicted. `frees`: it cures what stops
    the day and is no damage of the key; `breaks`: something else stops the day then."""

    text: Sentence
    cost: Sentence | None
    outcome: Outcome
    before: Unbounded | None
    after: Unbounded | None
    worsens: tuple[str, ...]
    open_before: float
    open_after: float
    quality_before: float
    quality_after: float
    changes: tuple[Change, ...]
    frees: bool = False
    breaks: bool = False

    @property
    def gives(self) -> bool:
        """Is the whole plan better for it, with nothing broken, and the key no worse? Where all that is open weighs
        as much, or hardly less, the key better. What is not costs more than it gives. Where the day was stopped the
        key's quality was one of a shot that nobody could take."""
        key_holds = self.frees or self.quality_after > self.quality_before - WORSE
        worth = WORTH if self.outcome == "better" else 0.0
        gains = self.open_after < self.open_before - worth or (
            self.open_after < self.open_before + SAME and self.quality_after > self.quality_before + WORSE
        )
        return gains and key_holds and not self.breaks


@dataclass(frozen=True, kw_only=True)
class Rule:
    """`measure` names the value; `why` is the reason in a sentence. Its limit, and whose that is, stands with all
    others in standards/limits.py under the rule's id. An excess that the judgement will not be below, told before all
    else of a plan is worked out: by its screen (`at_least`), by where things are and no light (`unlit`)."""

    id: str
    stage: Stage
    measure: str
    why: str
    judge: Callable[[Evaluation], Judgement | None]
    propose: Callable[[Evaluation, BasisStore], Sequence[Proposal]]
    digits: int = 2
    at_least: Callable[[SeenScreen], float] | None = None
    unlit: Callable[[Plan], float] | None = None

    @property
    def limit(self) -> Limit:
        return LIMITS[self.id]

    @property
    def source(self) -> str:
        return self.limit.source


def no_proposal(evaluation: Evaluation, store: BasisStore) -> Sequence[Proposal]:
    """What the rule asks for is done by people, not by another plan."""
    return ()


@dataclass(frozen=True)
class Finding:
    """`no_remedy`: why there is none, where a stop or a fix was looked into and nothing helped."""

    rule: Rule
    judgement: Judgement
    remedies: tuple[Remedy, ...] = ()
    no_remedy: Sentence | None = None
