"""Cautions with who is on a set: said with their number, never more than to be considered."""

from __future__ import annotations

import pytest

from ausblick.core.advice.findings import findings_of
from ausblick.core.advice.rule import Finding
from ausblick.core.sentences import say
from tests.stores import STORE

from .limit_plans import of

CLOTH = {"floor_run": 2.6}


def said(*ids: str, **parts: object) -> dict[str, Finding]:
    found = findings_of(of(**parts), STORE, with_remedies=False)
    return {one.rule.id: one for one in found if one.rule.id in ids}


def test_who_moves_on_a_cloth_and_a_child_are_said_with_their_number() -> None:
    found = said("space.underfoot", "subject.minor", screen=CLOTH, subject={"speed": 1.5, "body": "child"})
    assert say(found["space.underfoot"].judgement.says) == (
        "Somebody moves on 2.6 m of cloth: tape its edges, lay mats; local rules"
    )
    assert say(found["subject.minor"].judgement.says) == "A child is filmed: hours and guardian go by local rules"
    assert {one.judgement.severity for one in found.values()} == {"consider"}


@pytest.mark.parametrize(
    ("subject", "severity"),
    [({"speed": 0.3}, "fine"), ({"speed": 3.0, "posture": "seated"}, None), ({"speed": 3.0, "z": 3.0}, None)],
    ids=["stands still on it", "sits", "stands beyond it"],
)
def test_nobody_is_warned_of_a_cloth_that_nobody_moves_on(subject: dict[str, object], severity: str | None) -> None:
    found = said("space.underfoot", screen=CLOTH, subject=subject).get("space.underfoot")
    assert (found.judgement.severity if found else None) == severity


def test_a_painted_floor_is_no_cloth() -> None:
    assert not said("space.underfoot", screen={**CLOTH, "material": "paint"}, subject={"speed": 3.0})


def test_a_companion_who_is_a_child_or_who_moves_counts_too() -> None:
    other = {"id": "p2", "name": "niece", "x": 0.7, "z": 2.2, "body": "child", "height": 1.2, "speed": 2.0}
    found = said("space.underfoot", "subject.minor", screen=CLOTH, subject={"speed": 0.2}, companions=[other])
    assert found["space.underfoot"].judgement.value == 2.0
    assert found["subject.minor"].judgement.value == 1.0
    assert found["subject.minor"].judgement.person == 0


def test_daylight_and_what_burns_no_current_need_no_cable() -> None:
    lamps = [{"id": f"l{i}"} for i in range(4)]
    sun = {"id": "s", "fixture": {"emitter": {"shape": "sun"}}, "position": [0, 9, 5], "aim": [0, 0, 0]}
    battery = {"id": "b", "fixture": {"flux_lm": 500.0, "watts": 0.0}}
    assert said("light.cables", lights=[*lamps, sun, battery])["light.cables"].judgement.severity == "fine"
    more = said("light.cables", lights=[*lamps, {"id": "l9"}])["light.cables"].judgement
    assert (more.severity, say(more.says)) == (
        "consider",
        "5 cables: along the walls, taped, off the way; local rules",
    )
