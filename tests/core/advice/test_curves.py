"""The same light gets the same verdict whatever curve it is recorded in."""

from __future__ import annotations

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Judgement
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.screen_reading import levels_as_rec709
from ausblick.core.plan import Change, Plan, apply_changes
from tests.demo_findings import DEMO
from tests.stores import STORE

CURVES = ("hlg", "acescct", "linear")
OF_LEVEL = ("light.level", "subject.exposure", "subject.above-screen", "subject.edge-gap", "light.evenness")


def judged(plan: Plan, curve: str) -> dict[str, Judgement]:
    found = find(apply_changes(plan, [Change("camera.curve", curve)]), STORE, with_remedies=False)[1]
    return {f.rule.id: f.judgement for f in found if f.rule.id in OF_LEVEL}


@pytest.mark.parametrize("title", ["Seed vault, night round", "Scree, noon"])
@pytest.mark.parametrize("school", ["below-face", "away-from-edge"])
@pytest.mark.parametrize("iso", [160.0, 500.0])
def test_level_is_judged_by_light(title: str, school: str, iso: float) -> None:
    plan = apply_changes(DEMO[title], [Change("targets.level_school", school), Change("camera.iso", iso)])
    plain = judged(plan, "rec709")
    assert len(plain) >= 3
    for curve in CURVES:
        other = judged(plan, curve)
        assert {rule: j.severity for rule, j in other.items()} == {rule: j.severity for rule, j in plain.items()}
        for rule in ("subject.above-screen", "subject.edge-gap"):
            if rule in plain:
                # A tenth of a stop is some two points there.
                assert other[rule].value == pytest.approx(plain[rule].value, abs=2.0)


def test_levels_of_a_linear_recording_are_told_as_rec709_has_them() -> None:
    plain = evaluate(DEMO["Seed vault, night round"], STORE)
    linear = evaluate(apply_changes(plain.plan, [Change("camera.curve", "linear")]), STORE)
    assert plain.screen is not None
    assert linear.screen is not None
    assert linear.screen.level_luma < 0.9 * plain.screen.level_luma
    assert levels_as_rec709(plain) == (plain.screen.level_luma, plain.screen.level_key_channel)
    assert levels_as_rec709(linear) == pytest.approx(levels_as_rec709(plain), abs=0.5)


@pytest.mark.parametrize("title", ["Seed vault, night round", "Potting-shed window", "Seed jar"])
def test_a_curve_does_not_change_how_much_the_lights_colour_varies(title: str) -> None:
    """As an instrument shows it, it does, by two to five degrees in these: a curve bends hue with level."""
    plan = apply_changes(DEMO[title], [Change("lights[0].dimmer", 0.05), Change("camera.iso", 160.0)])
    spread = {
        curve: evaluate(apply_changes(plan, [Change("camera.curve", curve)]), STORE).hue_spread_deg
        for curve in ("rec709", *CURVES)
    }
    assert spread["rec709"] is not None
    assert spread["rec709"] > 2.0
    assert spread == {curve: pytest.approx(spread["rec709"], abs=0.1) for curve in spread}
