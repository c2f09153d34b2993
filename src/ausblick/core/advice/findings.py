"""From an evaluation to findings, worst first, each with remedies that were tried on the plan."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from ..evaluation.evaluate import evaluate, evaluation_of
from ..evaluation.results import Evaluation
from ..evaluation.seen_screen import SeenScreen, seen_screen
from ..light.basis import BasisStore
from ..plan import Plan, PlanError, apply_changes
from ..sentences import digits
from ..standards.limit import Severity
from ..standards.limits import HELPS, MOST_REMEDIES
from .causes import CAUSES
from .companions import said_of
from .forbidden import never_changed, never_made_worse
from .no_remedy import no_remedy
from .rule import RANK, Finding, Judgement, Outcome, Proposal, Remedy, Rule
from .rule_set import CRAFT, RuleSet
from .whole_plan import severity_unhidden, weight_of


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
    return evaluation, findings_of(evaluation, store, rules, with_remedies=with_remedies, only=only)


def findings_of(
    evaluation: Evaluation,
    store: BasisStore,
    rules: RuleSet = CRAFT,
    *,
    with_remedies: bool = True,
    only: Collection[str] | None = None,
) -> list[Finding]:
    """The same of a plan whose evaluation is known."""
    plan = evaluation.plan
    trials = Trials(plan, store, rules, rules.judge(evaluation), predicted_quality(evaluation))
    asked = rules if only is None else rules.only(only)
    found = []
    for rule in asked:
        judgement = trials.before.get(rule.id)
        if judgement is not None:
            remedies = trials.remedies(rule, evaluation) if with_remedies else ()
            none = no_remedy(rule.id, judgement) if with_remedies and not remedies else None
            found.append(Finding(rule, judgement, remedies, none))
    return sorted(found, key=lambda finding: RANK[finding.judgement.severity])


@dataclass(frozen=True)
class Tried:
    plan: Plan
    judged: dict[str, Judgement]
    quality: float


def predicted_quality(evaluation: Evaluation) -> float:
    """Of the key, by whom it costs most; 0 without a lit screen."""
    damage = evaluation.worst_damage
    return 0.0 if damage is None else damage.kinder.quality


class Trials:
    """Changed plans judged once each by the same rules: several rules propose the same cure."""

    def __init__(
        self, plan: Plan, store: BasisStore, rules: RuleSet, before: dict[str, Judgement], quality: float
    ) -> None:
        self.before = before
        self._plan, self._store, self._rules = plan, store, rules
        self._changed: dict[str, Plan | None] = {}
        self._seen: dict[str, SeenScreen | None] = {}
        self._judged: dict[str, Tried | None] = {}
        self._weight = weight_of(before)
        self._severity = {rule_id: self._shown(rule_id, judgement) for rule_id, judgement in before.items()}
        self._quality = quality

    def after(self, proposal: Proposal) -> Tried | None:
        """The changed plan, judged; None where the change can't be made, or is none: as it says, so it stands."""
        key = repr(proposal.changes)
        if key not in self._judged:
            self._judged[key] = self._judge(self.screen_after(proposal))
        return self._judged[key]

    def changed(self, proposal: Proposal) -> Plan | None:
        """The changed plan, not yet looked at."""
        key = repr(proposal.changes)
        if key not in self._changed:
            self._changed[key] = self._change(proposal)
        return self._changed[key]

    def screen_after(self, proposal: Proposal) -> SeenScreen | None:
        """Of the changed plan, the screen alone."""
        key = repr(proposal.changes)
        if key not in self._seen:
            plan = self.changed(proposal)
            self._seen[key] = None if plan is None else seen_screen(plan, self._store)
        return self._seen[key]

    def _change(self, proposal: Proposal) -> Plan | None:
        try:
            changed = apply_changes(self._plan, proposal.changes)
        except PlanError:
            return None
        return None if changed == self._plan else changed

    def _judge(self, seen: SeenScreen | None) -> Tried | None:
        if seen is None:
            return None
        evaluation = evaluation_of(seen, self._store)
        return Tried(seen.plan, self._rules.judge(evaluation), predicted_quality(evaluation))

    def remedies(self, rule: Rule, evaluation: Evaluation) -> tuple[Remedy, ...]:
        """Proposals that make the rule's value better, the one that the whole plan gains most by first; what costs
        more than it gives stands last. Each was evaluated on the changed plan."""
        if self.before[rule.id].severity == "fine":
            return ()
        person = self.before[rule.id].person
        proposed = [said_of(each, self._plan, person) for each in rule.propose(evaluation.of(person), self._store)]
        proposals = {repr(each.changes): each for each in reversed(proposed)}
        tried = [self._try(rule, proposal) for proposal in reversed(proposals.values())]
        helping = [result for result in tried if result is not None]
        helping.sort(key=lambda result: (not result[1].gives, round(result[1].open_after, 2), result[0]))
        return tuple(remedy for _, remedy in helping[:MOST_REMEDIES])

    def _try(self, rule: Rule, proposal: Proposal) -> tuple[float, Remedy] | None:
        """What is left of the excess, and the remedy; None where the proposal doesn't help."""
        plan = self.changed(proposal)
        if plan is None or never_changed(rule.id, self._plan, plan) or self._leaves_too_much(rule, proposal, plan):
            return None
        trial = self.after(proposal)
        if trial is None or never_made_worse(rule.id, self.before, trial.judged):
            return None
        after = trial.judged
        old, new = self.before[rule.id], after.get(rule.id)
        left = 0.0 if new is None else new.excess
        if left > _enough(old) or _reads_the_same(rule, old, new):
            return None
        return left, Remedy(
            text=proposal.text,
            cost=proposal.cost,
            outcome=_outcome(new),
            before=old.value,
            after=None if new is None else new.value,
            worsens=self._worsened(after),
            open_before=self._weight,
            open_after=weight_of(after),
            quality_before=self._quality,
            quality_after=trial.quality,
            changes=proposal.changes,
            frees=old.severity == "stop" and _severity(new) != "stop" and not rule.id.startswith("key."),
            breaks=any(j.severity == "stop" and self._severity_before(other) != "stop" for other, j in after.items()),
        )

    def _leaves_too_much(self, rule: Rule, proposal: Proposal, changed: Plan) -> bool:
        """Is that told by the plan without its light, or by the screen alone, which is half of the work?"""
        if rule.unlit is not None:
            return rule.unlit(changed) > _enough(self.before[rule.id])
        if rule.at_least is None:
            return False
        seen = self.screen_after(proposal)
        return seen is not None and rule.at_least(seen) > _enough(self.before[rule.id])

    def _worsened(self, after: dict[str, Judgement]) -> tuple[str, ...]:
        """Rules that judge the changed plan more severely. One that begins to apply and finds fault is worse, too."""
        return tuple(
            rule_id
            for rule_id, judgement in after.items()
            if RANK[judgement.severity] < RANK[self._severity_before(rule_id)]
        )

    def _severity_before(self, rule_id: str) -> Severity:
        return self._severity.get(rule_id, "fine")

    def _shown(self, rule_id: str, judgement: Judgement) -> Severity:
        """As severe as it is with nothing hidden: to show it, or its causes, is not told as making it worse."""
        hides = (other for other, _ in CAUSES.get(rule_id, ()) if other in self.before)
        if judgement.severity == "fine" and any(self.before[other].hidden > 0.0 for other in hides):
            return "consider"
        return severity_unhidden(rule_id, judgement)


def _enough(old: Judgement) -> float:
    """The excess that a proposal may leave and be told to help."""
    return (1.0 - HELPS) * old.excess


def _reads_the_same(rule: Rule, old: Judgement, new: Judgement | None) -> bool:
    """Is what is left told in the same digits, and as severely?"""
    if new is None or new.severity != old.severity or old.value is None or new.value is None:
        return False
    return digits(old.value, rule.digits) == digits(new.value, rule.digits)


def _outcome(new: Judgement | None) -> Outcome:
    if new is None:
        return "does-not-apply"
    return "cured" if new.severity == "fine" else "better"


def _severity(judgement: Judgement | None) -> Severity:
    return "fine" if judgement is None else judgement.severity
