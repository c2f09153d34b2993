"""The face beside the screen: a finding says what is lacking, not two numbers that read as if all held."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.sentences import say
from tests.conftest import MakePlan
from tests.stores import STORE


@pytest.mark.parametrize(
    ("screen", "framing", "words"),
    [
        (24.0, "waist", "Face at 37 %, above the screen's 24 %, but under 42 %"),
        (24.0, "hands", "Hands at 37 %, above the screen's 24 %, but under 42 %"),
        (40.0, "waist", "Face at 37 %, screen at 40 %"),
    ],
)
def test_a_face_above_the_screen_is_told_what_it_lacks(
    make: MakePlan, screen: float, framing: str, words: str
) -> None:
    found = evaluate(make(subject={"framing": framing}, targets={"level_school": "below-face"}), STORE)
    assert found.screen is not None
    levels = replace(found.exposure, subject_level=37.0, stops_over=0.0)
    found = replace(found, screen=replace(found.screen, level_luma=screen), exposure=levels)
    [rule] = CRAFT.only(["subject.above-screen"])
    judged = rule.judge(found)
    assert judged is not None
    assert judged.severity == "consider"
    assert say(judged.says) == words
