"""The rules that a plan is judged by: those of the craft, and those of a kit where there is one.

One set travels through everything that judges: findings, the trials of their remedies, proposals, lists.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from dataclasses import dataclass

from ..evaluation.results import Evaluation
from .causes import told_as_causes
from .companions import PERSONAL, with_companions
from .rule import Judgement, Rule
from .rule_table import RULES


@dataclass(frozen=True)
class RuleSet:
    """Rules in the order of the work."""

    rules: tuple[Rule, ...]

    def __iter__(self) -> Iterator[Rule]:
        return iter(self.rules)

    def judge(self, evaluation: Evaluation) -> dict[str, Judgement]:
        """Judgement by rule id, for every rule that applies, of whom it is worst; causes count where their damage
        does."""
        personal = tuple(rule for rule in self.rules if rule.id in PERSONAL)
        theirs = [_judged(other, personal) for other in evaluation.others]
        return with_companions(_judged(evaluation, self.rules), theirs)

    def only(self, ids: Collection[str]) -> RuleSet:
        """The rules named, in the same order. Raises KeyError for an id that is none of these."""
        unknown = set(ids) - {rule.id for rule in self.rules}
        if unknown:
            raise KeyError(f"no such rule: {', '.join(sorted(unknown))}")
        return RuleSet(tuple(rule for rule in self.rules if rule.id in ids))


def _judged(evaluation: Evaluation, rules: Iterable[Rule]) -> dict[str, Judgement]:
    """Of the plan's subject and set alone."""
    judged = ((rule.id, rule.judge(evaluation)) for rule in rules)
    return told_as_causes(evaluation, {ident: found for ident, found in judged if found is not None})


CRAFT = RuleSet(RULES)
"""What holds without knowing what somebody owns; for what they own see rules/kit_rules.py."""
