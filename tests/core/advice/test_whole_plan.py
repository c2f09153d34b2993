"""What open findings weigh: by severity, and of the key by what it loses."""

from __future__ import annotations

import math

import pytest

from ausblick.core.advice.rule import Judgement, Outcome, Remedy
from ausblick.core.advice.whole_plan import MOST, weight_of, weight_of_one
from ausblick.core.damage.scale import PARTS, parts_of, quality_of
from ausblick.core.sentences import tell
from ausblick.core.standards.limits import LIMITS

IDEAL = {part.name: part.ideal for part in PARTS}


def lost(hand: float) -> Judgement:
    limit = LIMITS["key.motion"]
    over = hand - limit.at
    return Judgement(limit.grade(over), hand, limit.at, limit.unit, tell("key.motion", area=hand), max(0.0, over))


def test_what_the_key_loses_weighs_by_how_much_of_the_quality_that_is() -> None:
    """A hand that alone halves the quality weighs what stops the day; the scale ends, and so does the weight."""
    weights = [weight_of_one("key.motion", lost(hand)) for hand in (2.4, 2.6, 5.9, 13.0, 20.0, 60.0, 900.0)]
    assert weights[0] == 0.0
    for hand, weight in ((5.9, weights[2]), (13.0, weights[3])):
        alone = quality_of(parts_of({**IDEAL, "motion_error": hand}))
        assert weight == pytest.approx(-9.0 * math.log2(alone / 100.0), abs=1e-6)
    assert weights[3] == pytest.approx(9.0, abs=0.3)
    assert weights[-1] == weights[-2]
    assert weights[:-1] == sorted(set(weights))


def test_keys_of_one_quality_weigh_alike_whatever_costs_it() -> None:
    """Half the matte needed, or a hand of which most of a finger is lost."""
    clip, limit = 0.526, LIMITS["key.clip"]
    lost_clip = Judgement("stop", clip, limit.at, "", tell("key.clip", clip=clip), clip - limit.at)
    hand = 11.05
    qualities = [
        quality_of(parts_of({**IDEAL, **worse})) for worse in ({"needed_clip": clip}, {"motion_error": hand})
    ]
    assert qualities[0] == pytest.approx(qualities[1], abs=0.5)
    assert weight_of_one("key.clip", lost_clip) == pytest.approx(weight_of_one("key.motion", lost(hand)), abs=0.1)


def test_a_screen_that_burns_weighs_by_how_much_and_the_worst_has_an_end() -> None:
    limit = LIMITS["key.clipping"]

    def burnt(share: float) -> float:
        over = share - limit.at
        says = tell("key.clipping", lost=share)
        return weight_of_one("key.clipping", Judgement(limit.grade(over), share, limit.at, "%", says, max(0.0, over)))

    assert [burnt(share) for share in (4.0, 5.001, 33.0, 60.0)] == pytest.approx([0.0, 1.0, 3.0, 9.0], abs=0.01)
    assert burnt(900.0) == MOST


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
