"""What is proposed for somebody who moves."""

from __future__ import annotations

import pytest

from ausblick.core.advice.search.exposure_settings import quicker_for
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.kit.catalogue import full_kit
from ausblick.core.plan import apply_changes, dump_plan, edit, plan_from
from ausblick.core.sentences import say

from .test_propose import STORE, briefs, proposed


def test_a_hand_that_the_schools_shutter_loses_gets_a_quicker_one_and_it_is_said() -> None:
    framing, quick = next(one for one in briefs() if one[1].title == "Fern dancer")
    slow = plan_from(dump_plan(quick) | {"subject": dump_plan(quick)["subject"] | {"speed": 0.3}})
    for standing, dancing in zip(
        proposed(slow, full_kit(), framing).alternatives,
        proposed(quick, full_kit(), framing).alternatives,
        strict=True,
    ):
        assert standing.plan.camera.shutter_s == pytest.approx(1.0 / 100.0)
        assert not any("of the school" in say(cost) for cost in standing.costs)
        shutter = dancing.plan.camera.shutter_s
        assert shutter < 0.6 / 100.0
        assert dancing.stops == ()
        assert dancing.plan.targets == quick.targets
        assert any(say(cost).startswith(f"Shutter 1/{1 / shutter:.0f} s, not 1/100 s") for cost in dancing.costs)
        # The light that it costs is won back.
        screen, target = dancing.evaluation.screen, dancing.evaluation.target
        assert screen is not None
        assert 0.8 * target.lux_low <= screen.lux_mean <= 1.25 * target.lux_high
        # With the school's, the same set would lose the hand.
        schools = apply_changes(dancing.plan, [edit.camera.shutter_s(1.0 / 100.0)])
        wanted = quicker_for(evaluate(schools, STORE))
        assert wanted is not None
        assert wanted < 0.01
