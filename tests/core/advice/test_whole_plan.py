"""What open findings weigh: by severity, and of the key by what it loses."""

from __future__ import annotations

import pytest

from ausblick.core.advice.rule import Judgement
from ausblick.core.advice.whole_plan import MOST, weight_of, weight_of_one
from ausblick.core.sentences import tell
from ausblick.core.standards.limits import LIMITS


def lost(hand: float) -> Judgement:
    limit = LIMITS["key.motion"]
    over = hand - limit.at
    return Judgement(limit.grade(over), hand, limit.at, limit.unit, tell("key.motion", area=hand), max(0.0, over))


def test_what_the_key_loses_weighs_by_how_much_it_is() -> None:
    """3 where it is to be mended, 9 where it stops the day, and between them on the way; the worst has an end."""
    weights = [
        weight_of_one("key.motion", lost(hand)) for hand in (2.4, 2.6, 5.9, 6.1, 20.0, 34.9, 35.2, 60.0, 900.0)
    ]
    assert weights[0] == 0.0
    assert weights[1] == pytest.approx(1.0, abs=0.1)
    assert weights[2] == pytest.approx(3.0, abs=0.1)
    assert weights[5] == pytest.approx(9.0, abs=0.1)
    assert weights[-1] == MOST
    assert weights == sorted(weights)
    assert len(set(weights)) == len(weights)


def test_taste_weighs_a_quarter_and_the_rest_by_its_severity() -> None:
    def says(severity: str) -> Judgement:
        return Judgement(severity, 1.0, 0.5, "", tell("key.clipping/holds"), 0.5)  # type: ignore[arg-type]

    assert weight_of({"light.level": says("consider")}) == 0.25
    assert weight_of({"screen.covered": says("stop"), "space.gap": says("fix")}) == 12.0
    assert weight_of({"screen.covered": says("fine")}) == 0.0
