"""The key's softness and the rim, beside what the plate asks."""

from __future__ import annotations

import math
from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rules.softness_rules import width_at
from ausblick.core.plan import apply_changes
from ausblick.core.sentences import say
from tests.stores import STORE

from .limit_plans import EYES, plan_with


def key(**fixture: Any) -> dict[str, Any]:
    return {"id": "k1", "name": "bench key", "role": "key", "position": [0.0, EYES, 4.4], "aim": [0.0, EYES, 2.4],
            "fixture": {"flux_lm": 6000.0, **fixture}}  # fmt: skip


def told(rule: str, **parts: Any) -> Finding | None:
    return next((one for one in find(plan_with(**parts), STORE, only=(rule,))[1]), None)


def width(lamp: dict[str, Any]) -> float:
    plan = plan_with(lights=[lamp])
    return width_at(plan, plan.lights[0])


def test_a_disc_is_as_wide_as_it_is_and_a_square_as_a_disc_of_its_area() -> None:
    away = 2.0
    disc = width(key(emitter={"shape": "disc", "diameter": 0.5}))
    assert disc == pytest.approx(math.degrees(2.0 * math.atan(0.25 / away)), abs=0.05)
    side = 0.5 * math.sqrt(math.pi) / 2.0
    assert width(key(emitter={"shape": "rect", "width": side, "height": side})) == pytest.approx(disc, abs=0.01)
    assert width(key(emitter={"shape": "point"})) == 0.0
    boxed = key(emitter={"shape": "point"}) | {"modifier": {"kind": "softbox", "width": side, "height": side}}
    assert width(boxed) == pytest.approx(disc, rel=0.05)


def test_a_face_that_is_turned_away_is_narrower() -> None:
    panel = key(emitter={"shape": "rect", "width": 0.6, "height": 0.6})
    turned = panel | {"aim": [2.0, EYES, 2.4]}
    # The mark is 45 degrees off its axis: half a square root of the area's cosine.
    assert width(turned) == pytest.approx(width(panel) * math.sqrt(math.cos(math.pi / 4.0)), rel=0.01)


@pytest.mark.parametrize(
    ("softness", "size", "severity", "word"),
    [("soft", 0.3, "consider", "harder"), ("soft", 1.2, "fine", "as soft"), ("hard", 1.2, "consider", "softer"),
     ("hard", 0.3, "fine", "as soft")],
)  # fmt: skip
def test_hard_and_soft_are_told_beside_the_plate(softness: str, size: float, severity: str, word: str) -> None:
    lamp = key(emitter={"shape": "rect", "width": size, "height": size})
    found = told("plate.softness", lights=[lamp], plate={"softness": softness})
    assert found is not None
    assert found.judgement.severity == severity
    assert word in say(found.judgement.says)


def test_a_soft_box_or_a_nearer_stand_softens_and_a_longer_throw_hardens() -> None:
    lamp = key(emitter={"shape": "rect", "width": 0.3, "height": 0.3})
    hard = told("plate.softness", lights=[lamp], plate={"softness": "soft"})
    wide = key(emitter={"shape": "rect", "width": 0.8, "height": 0.8})
    soft = told("plate.softness", lights=[wide], plate={"softness": "hard"}, camera={"z": 6.4})
    assert hard is not None
    assert soft is not None
    assert [say(one.text) for one in hard.remedies] == ["bench key through a 1.2 m soft box"]
    boxed = lamp | {"modifier": {"kind": "softbox", "width": 0.4, "height": 0.4}}
    near = told("plate.softness", lights=[boxed], plate={"softness": "soft"})
    assert near is not None
    assert [say(one.text) for one in near.remedies] == ["bench key at 0.92 m from the face instead of 2.00 m"]
    assert all(
        one.after is not None and one.after < one.before for one in (*hard.remedies, *near.remedies, *soft.remedies)
    )
    away = apply_changes(plan_with(lights=[wide]), soft.remedies[0].changes).lights[0].position
    assert away[2] - 2.4 > 2.2


def test_nothing_is_compared_with_a_softness_that_nobody_gave() -> None:
    assert told("plate.softness", lights=[key()]) is None
    assert told("plate.softness", lights=[key()], plate={"softness": "soft", "known": False}) is None


@pytest.mark.parametrize(
    ("plate", "missing"),
    [
        ({"key_azimuth": 150.0}, "The plate's light comes from behind, and no lamp does: no rim"),
        ({"key_azimuth": 210.0}, "The plate's light comes from behind, and no lamp does: no rim"),
        ({"light": "two", "key_azimuth": -40.0, "second_azimuth": 160.0},
         "The plate's light comes from behind, and no lamp does: no rim"),
        ({"mean_level": 12.0}, "The plate is dark behind the edge, and no lamp draws a rim"),
        ({"key_azimuth": -40.0}, None),
        ({"light": "flat", "key_azimuth": 150.0}, None),
    ],
)  # fmt: skip
def test_a_rim_that_the_plate_would_make_is_missed(plate: dict[str, Any], missing: str | None) -> None:
    """No other plate asks for one; a lamp behind makes it."""
    facts = {"mean_level": 60.0, **plate}
    found = told("subject.rim", lights=[key()], plate=facts)
    assert (say(found.judgement.says) if found else None) == missing
    assert found is None or found.judgement.severity == "consider"
    behind = key() | {"id": "b", "role": "other", "position": [0.6, 2.2, 0.8]}
    assert told("subject.rim", lights=[key(), behind], plate=facts) is None
