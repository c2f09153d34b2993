"""What the screen alone, or no light at all, tells of a rule's excess: never more than the whole evaluation says."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule_set import CRAFT, RuleSet
from ausblick.core.evaluation.evaluate import evaluate, evaluation_of
from ausblick.core.evaluation.seen_screen import seen_screen
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, apply_changes, edit
from ausblick.demo import fern_house, fern_house_2
from tests.stores import STORE

OF_THE_SCREEN = [rule for rule in CRAFT if rule.at_least is not None]
GLARING = apply_changes(fern_house_2.two_gardeners(), [edit.camera.iso(6400)])
ONE_LAMP = apply_changes(fern_house.scree(), [edit.lamp(0).dimmer(0.1)])


def test_clip_and_evenness_are_told_by_the_screen_alone() -> None:
    assert [rule.id for rule in OF_THE_SCREEN] == ["key.clip", "light.evenness"]


@pytest.mark.parametrize("plan", [fern_house.seed_vault(), ONE_LAMP, GLARING], ids=lambda plan: plan.title)
def test_it_is_no_more_than_the_judgement_says(plan: Plan) -> None:
    store = BasisStore()
    seen = seen_screen(plan, store)
    judged = CRAFT.judge(evaluation_of(seen, store))
    for rule in OF_THE_SCREEN:
        assert rule.at_least is not None
        assert rule.at_least(seen) <= judged[rule.id].excess
        assert (rule.at_least(seen) > 0.0) == (judged[rule.id].excess > 0.0)


def test_a_mirror_is_told_by_where_things_are() -> None:
    [rule] = [rule for rule in CRAFT if rule.unlit is not None]
    plan = fern_house_2.seed_jar()
    judged = CRAFT.judge(evaluate(plan, STORE))
    assert rule.id == "subject.mirrors"
    assert rule.unlit is not None
    assert rule.unlit(plan) == pytest.approx(judged[rule.id].excess) == pytest.approx(5.5, abs=0.1)


@pytest.mark.parametrize(
    ("plan", "mended"),
    [
        (apply_changes(fern_house.seed_vault(), [edit.lamp(0).dimmer(0.3)]), "light.evenness"),
        (fern_house_2.seed_jar(), "subject.mirrors"),
    ],
    ids=["uneven", "mirror"],
)
def test_what_is_ruled_out_is_no_remedy_after_the_whole_work_either(plan: Plan, mended: str) -> None:
    thorough = RuleSet(tuple(replace(rule, at_least=None, unlit=None) for rule in CRAFT))
    (_, quick), (_, slow) = (find(plan, BasisStore(), rules) for rules in (CRAFT, thorough))
    assert [(one.rule.id, one.remedies) for one in quick] == [(one.rule.id, one.remedies) for one in slow]
    assert any(one.rule.id == mended and one.remedies for one in quick)
