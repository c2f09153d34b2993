"""From an evaluation to findings, worst first, each with remedies that were tried on the plan."""

from __future__ import annotations

from collections.abc import Collection

from ..evaluation.evaluate import evaluate
from ..evaluation.results import Evaluation
from ..light.basis import BasisStore
from ..plan import Plan, PlanError, apply_changes
from ..standards.limit import Severity
from ..standards.limits import HELPS, MOST_REMEDIES
from .rule import RANK, Finding, Judgement, Outcome, Proposal, Remedy, Rule
from .rule_set import CRAFT, RuleSet


def find(
    plan: Plan,
    store: BasisStore,
    rules: RuleSet = CRAFT,
    *,
    with_remedies: bool = True,
    only: Collection[str] | None = None,
) -> tuple[Evaluation, list[Finding]]:
    """The evaluation and its findings, worst first; of equal severity, the order of the work.

    `only`: ids of the rules that are asked for; what their remedies worsen is still told by all of `rules`.
    """
    evaluation = evaluate(plan, store)
    trials = Trials(plan, store, rules, rules.judge(evaluation))
    asked = rules if only is None else rules.only(only)
    found = [
        Finding(rule, judgement, trials.remedies(rule, evaluation) if with_remedies else ())
        for rule in asked
        if (judgement := trials.before.get(rule.id)) is not None
    ]
    return evaluation, sorted(found, key=lambda finding: RANK[finding.judgement.severity])


class Trials:
    """Changed plans judged once each by the same rules: several rules propose the same cure."""

    def __init__(self, plan: Plan, store: BasisStore, rules: RuleSet, before: dict[str, Judgement]) -> None:
        self.before = before
        self._plan, self._store, self._rules = plan, store, rules
        self._judged: dict[str, dict[str, Judgement] | None] = {}

    def after(self, proposal: Proposal) -> dict[str, Judgement] | None:
        """Judgements of the changed plan; None where the change can't be made."""
        key = repr(proposal.changes)
        if key not in self._judged:
            try:
                changed = apply_changes(self._plan, proposal.changes)
                self._judged[key] = self._rules.judge(evaluate(changed, self._store))
            except PlanError:
                self._judged[key] = None
        return self._judged[key]

    def remedies(self, rule: Rule, evaluation: Evaluation) -> tuple[Remedy, ...]:
        """Proposals that make the rule's value better, best first. Each was evaluated on the changed plan."""
        if self.before[rule.id].severity == "fine":
            return ()
        tried = [self._try(rule, proposal) for proposal in rule.propose(evaluation, self._store)]
        helping = [result for result in tried if result is not None]
        helping.sort(key=lambda result: (result[0], len(result[1].worsens)))
        return tuple(remedy for _, remedy in helping[:MOST_REMEDIES])

    def _try(self, rule: Rule, proposal: Proposal) -> tuple[float, Remedy] | None:
        """What is left of the excess, and the remedy; None where the proposal doesn't help."""
        after = self.after(proposal)
        if after is None:
            return None
        old, new = self.before[rule.id], after.get(rule.id)
        left = 0.0 if new is None else new.excess
        if left > (1.0 - HELPS) * old.excess:
            return None
        return left, Remedy(
            text=proposal.text,
            cost=proposal.cost,
            outcome=_outcome(new),
            before=old.value,
            after=None if new is None else new.value,
            worsens=self._worsened(after),
            changes=proposal.changes,
        )

    def _worsened(self, after: dict[str, Judgement]) -> tuple[str, ...]:
        """Rules that judge the changed plan more severely. One that begins to apply and finds fault is worse, too."""
        return tuple(
            rule_id
            for rule_id, judgement in after.items()
            if RANK[judgement.severity] < RANK[self._severity_before(rule_id)]
        )

    def _severity_before(self, rule_id: str) -> Severity:
        judgement = self.before.get(rule_id)
        return "fine" if judgement is None else judgement.severity


def _outcome(new: Judgement | None) -> Outcome:
    if new is None:
        return "does-not-apply"
    return "cured" if new.severity == "fine" else "better"
