"""More than one person: who is looked at, and what a change for one of them is called in the document."""

from __future__ import annotations

import pytest

from ausblick.core.plan import Change, PlanError, apply_changes, as_said, people_of, plan_from, seen_as
from tests.conftest import MakePlan

TWO = [{"name": "gardener", "x": -0.8, "z": 2.0, "framing": "face"}, {"name": "visitor", "x": 0.9, "z": 2.2}]


def test_companions_are_named_framed_as_the_subject_and_nobody_without_one(make: MakePlan) -> None:
    plan = make(companions=TWO, subject={"x": 0.1, "framing": "waist"})
    assert [one.id for one in plan.companions] == ["p1", "p2"]
    assert [(one.x, one.framing) for one in people_of(plan)] == [(0.1, "waist"), (-0.8, "waist"), (0.9, "waist")]
    assert people_of(plan_from({**plan.model_dump(mode="json"), "subject": None})) == ()


@pytest.mark.parametrize("index", [0, 1])
def test_a_change_for_whoever_is_looked_at_is_the_same_change_in_the_document(make: MakePlan, index: int) -> None:
    """Moving the person looked at, and each of the others, in the plan that looks at a companion."""
    plan = make(companions=TWO, subject={"x": 0.1})
    seen = seen_as(plan, index)
    moved = [Change("subject.x", 0.5), Change("companions[0].x", 0.6), Change("companions[1].x", 0.7)]
    document = apply_changes(plan, as_said(moved, index))
    assert [one.x for one in people_of(seen_as(document, index))] == [0.5, 0.6, 0.7]
    assert [one.x for one in people_of(seen)] == [plan.companions[index].x, 0.1, plan.companions[1 - index].x]
    assert as_said([Change("lights[0].dimmer", 0.5)], index) == (Change("lights[0].dimmer", 0.5),)


def test_more_people_than_may_be_and_two_of_one_id_are_refused_by_name(make: MakePlan) -> None:
    with pytest.raises(PlanError, match="companions"):
        make(companions=TWO * 3)
    with pytest.raises(PlanError, match="share the id 'p7'"):
        make(companions=[{"id": "p7"}, {"id": "p7", "x": 1.0}])
