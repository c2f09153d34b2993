"""What open findings weigh: by severity, and of the key by what it loses."""

from __future__ import annotations

import pytest

from ausblick.core.advice.rule import Judgement, Outcome, Remedy
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


@pytest.mark.parametrize(
    ("outcome", "open_after", "quality_after", "gives"),
    [
        ("better", 4.8, 60.0, True),
        ("better", 4.9, 60.2, False),
        ("cured", 4.9, 60.2, True),
        ("better", 5.0, 65.0, True),
        ("cured", 5.1, 70.0, False),
        ("cured", 4.0, 58.0, False),
    ],
    ids=[
        "less is open",
        "hardly less, and the key the same",
        "hardly less, but this is cured",
        "as much, and the key better",
        "more is open",
        "the key worse",
    ],
)
def test_a_remedy_gives_where_less_is_open_or_the_key_is_better(
    outcome: Outcome, open_after: float, quality_after: float, gives: bool
) -> None:
    remedy = Remedy(
        text=tell("do/hold-out", thing="jacket"),
        cost=None,
        outcome=outcome,
        before=80.0,
        after=90.0,
        worsens=(),
        open_before=5.0,
        open_after=open_after,
        quality_before=60.0,
        quality_after=quality_after,
        changes=(),
    )
    assert remedy.gives is gives
