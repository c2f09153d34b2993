"""Somebody takes the first remedy that is offered, and the next one: that ends, nothing stops the plan any more, and
the key is no worse for it."""

from __future__ import annotations

import pytest

from ausblick.core.advice.findings import find, predicted_quality
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.simulation import simulate
from ausblick.core.plan import Plan, apply_changes, plan_from
from ausblick.formats.recording import through
from tests.dice_plans import built

MOST_STEPS = 12


def followed(plan: Plan, store: BasisStore) -> tuple[Plan, int, list[str]]:
    """The plan at the end, steps taken, and ids of what still stops it."""
    for step in range(MOST_STEPS + 1):
        _, findings = find(plan, store)
        offered = next((remedy for f in findings for remedy in f.remedies if remedy.gives), None)
        if offered is None:
            return plan, step, [f.rule.id for f in findings if f.judgement.severity == "stop"]
        plan = apply_changes(plan, offered.changes)
    raise AssertionError("it never ends")


@pytest.mark.parametrize("seed", [304, *(pytest.param(seed, marks=pytest.mark.torture) for seed in (301, 310))])
def test_the_first_remedy_again_and_again_leads_to_a_set_that_nothing_stops(seed: int) -> None:
    plan, store = plan_from(built(seed)), BasisStore()
    then, steps, stops = followed(plan, store)
    assert 1 <= steps <= MOST_STEPS
    assert stops == []
    assert predicted_quality(evaluate(then, store)) > predicted_quality(evaluate(plan, store)) + 5.0


@pytest.mark.torture
@pytest.mark.parametrize("seed", range(300, 340))
def test_forty_plans_are_mended_and_the_key_that_is_drawn_is_no_worse(seed: int) -> None:
    plan, store = plan_from(built(seed)), BasisStore()
    then, _, stops = followed(plan, store)
    assert stops == []
    assert simulate(then, store, through).quality > simulate(plan, store, through).quality - 3.0
