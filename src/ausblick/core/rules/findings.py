"""From an evaluation to findings, worst first, each with remedies that were tried on the plan."""

from __future__ import annotations

from ..evaluate import evaluate
from ..light.basis import BasisStore
from ..plan import Plan, PlanError, apply_changes
from ..results import Evaluation
from .model import RANK, Finding, Judgement, Proposal, Remedy, Rule
from .table import RULES

MOST_REMEDIES = 4


def judge_all(evaluation: Evaluation, rules: tuple[Rule, ...] = RULES) -> dict[str, Judgement]:
    """Judgement by rule id, for every rule that applies."""
    judged = ((rule.id, rule.judge(evaluation)) for rule in rules)
    return {rule_id: judgement for rule_id, judgement in judged if judgement is not None}


def find(
    plan: Plan, store: BasisStore, with_remedies: bool = True, also: tuple[Rule, ...] = ()
) -> tuple[Evaluation, list[Finding]]:
    """The evaluation and its findings, worst first; of equal severity, the order of the work.

    `also`: rules that depend on more than the plan, such as the kit's.
    """
    evaluation = evaluate(plan, store)
    rules = (*RULES, *also)
    judgements = judge_all(evaluation, rules)
    found: list[Finding] = []
    trials = Trials(plan, store)
    for rule in rules:
        judgement = judgements.get(rule.id)
        if judgement is None:
            continue
        wanted = with_remedies and judgement.severity != "fine"
        remedies = _remedies(evaluation, rule, judgements, trials, store) if wanted else ()
        found.append(Finding(rule, judgement, remedies))
    return evaluation, sorted(found, key=lambda finding: RANK[finding.judgement.severity])


class Trials:
    """Changed plans evaluated once each: several rules propose the same cure."""

    def __init__(self, plan: Plan, store: BasisStore) -> None:
        self._plan, self._store = plan, store
        self._judged: dict[str, dict[str, Judgement] | None] = {}

    def judged(self, proposal: Proposal) -> dict[str, Judgement] | None:
        """Judgements of the changed plan; None where the change can't be made."""
        key = repr(proposal.changes)
        if key not in self._judged:
            try:
                changed = apply_changes(self._plan, proposal.changes)
                self._judged[key] = judge_all(evaluate(changed, self._store))
            except PlanError:
                self._judged[key] = None
        return self._judged[key]


def _remedies(
    evaluation: Evaluation, rule: Rule, before: dict[str, Judgement], trials: Trials, store: BasisStore
) -> tuple[Remedy, ...]:
    """Proposals that make the value better, best first. Each was evaluated on the changed plan."""
    tried = [_try(rule, proposal, before, trials) for proposal in rule.propose(evaluation, store)]
    helping = [result for result in tried if result is not None]
    helping.sort(key=lambda result: (result[0], len(result[1].worsens)))
    return tuple(remedy for _, remedy in helping[:MOST_REMEDIES])


def _try(rule: Rule, proposal: Proposal, before: dict[str, Judgement], trials: Trials) -> tuple[float, Remedy] | None:
    """What is left of the excess, and the remedy; None where the proposal doesn't help."""
    after = trials.judged(proposal)
    if after is None:
        return None
    old, new = before[rule.id], after.get(rule.id)
    left = 0.0 if new is None else new.excess
    if left > 0.98 * old.excess:
        return None
    worse = tuple(
        rule_id
        for rule_id, judgement in after.items()
        if rule_id in before and RANK[judgement.severity] < RANK[before[rule_id].severity]
    )
    value = None if new is None else new.value
    remedy = Remedy(
        proposal.text, _effect(rule, old, value), proposal.cost, old.value, value, worse, proposal.changes
    )
    return left, remedy


def _effect(rule: Rule, old: Judgement, value: float | None) -> str:
    def shown(number: float | None) -> str:
        if number is None:
            return "none"
        text = f"{number:.{rule.digits}f}"
        return text.lstrip("-") if float(text) == 0.0 else text

    return f"{rule.measure} {shown(old.value)} → {shown(value)} {old.unit}".rstrip()
