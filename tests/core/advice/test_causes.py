"""Causes are told where they damage the key, and the kinder of two colour differences counts."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.causes import CAUSES, causes_of
from ausblick.core.advice.check_report import check_report
from ausblick.core.advice.findings import find
from ausblick.core.advice.forbidden import never_changed, never_made_worse
from ausblick.core.advice.rule import Judgement
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.rule_table import RULES
from ausblick.core.plan import Change, Light, apply_changes, plan_from
from ausblick.core.sentences import say, tell
from ausblick.core.standards.limits import LIMITS
from ausblick.core.standards.rule_names import NAMES
from tests.conftest import MakePlan
from tests.demo_findings import DEMO
from tests.stores import STORE

PAIR = [{"position": [x, 1.3, 2.0], "aim": [-0.2 * x, 1.3, 0], "dimmer": 0.5} for x in (-2.2, 2.2)]
FOLDED = {"wrinkle_slope": 1.2}
SHARP = {"f_number": 11.0, "iso": 3200.0}


def told(plan: Any) -> dict[str, tuple[str, tuple[str, ...]]]:
    report = check_report(*find(plan, STORE, with_remedies=False))
    return {finding.id: (finding.severity, finding.cause_of) for finding in report.findings}


def test_folds_are_told_where_the_clip_feels_them(make: MakePlan) -> None:
    smooth, folded = (told(make(lights=PAIR, camera=SHARP, screen=screen)) for screen in ({}, FOLDED))
    assert smooth["light.wrinkles"] == ("fine", ())
    assert folded["key.clip"][0] in ("fix", "stop")
    assert folded["light.wrinkles"][0] == "consider"
    assert "key.clip" in folded["light.wrinkles"][1]


def test_unevenness_that_the_key_does_not_feel_is_no_finding(make: MakePlan) -> None:
    """A hot spot in the middle: half a stop on a scope, and no clip for it."""
    spot = {"position": [0.0, 1.3, 4.0], "aim": [1.3, 2.0, 0.0], "fixture": {"flux_lm": 1500.0,
            "beam": {"kind": "beam", "deg": 12}}}  # fmt: skip
    uneven = told(make(lights=[*PAIR, spot], screen={"wrinkle_slope": 0.0}))
    assert uneven["key.clip"][0] == "fine"
    assert uneven["light.evenness"][0] == "fine"


def test_what_a_matte_does_not_feel_is_only_to_be_considered() -> None:
    taste = ("light.level", "subject.rim", "plate.", "camera.flicker", "camera.white-balance", "recording.playback",
             "camera.iso", "space.gap")  # fmt: skip
    for rule in RULES:
        if rule.id.startswith(taste) or rule.id in CAUSES:
            assert LIMITS[rule.id].fix == LIMITS[rule.id].stop == float("inf"), rule.id


def test_every_cause_is_a_part_of_the_damage_it_is_told_for() -> None:
    from ausblick.core.evaluation.evaluate import evaluate

    parts: dict[str, set[str]] = {}
    for plan in DEMO.values():
        damage = evaluate(plan, STORE).damage
        assert damage is not None
        for rule_id in ("key.clip", "key.edge", "key.hair", "key.motion"):
            parts.setdefault(rule_id, set()).update(causes_of(damage.kinder, rule_id))
    for rule_id, damages in CAUSES.items():
        assert CRAFT.only([rule_id])
        for damage_id, name in damages:
            assert name in parts[damage_id], (rule_id, damage_id, name)


@pytest.mark.parametrize(
    "title", [one if i < 2 else pytest.param(one, marks=pytest.mark.torture) for i, one in enumerate(DEMO)]
)
def test_every_stop_and_fix_has_a_remedy_or_says_why_not(title: str) -> None:
    for finding in find(DEMO[title], STORE)[1]:
        if finding.judgement.severity in ("stop", "fix"):
            assert bool(finding.remedies) != (finding.no_remedy is not None), finding.rule.id


@pytest.mark.torture
def test_no_id_of_a_rule_reaches_a_reader() -> None:
    assert {rule.id for rule in RULES} <= set(NAMES)
    for plan in DEMO.values():
        report = check_report(*find(plan, STORE))
        for finding in report.findings:
            for remedy in finding.remedies:
                assert all("." not in words for words in remedy.worsens_words)
                assert len(remedy.worsens_words) == len(remedy.worsens)


def test_what_is_never_offered(make: MakePlan) -> None:
    sun = {"role": "key", "fixture": {"emitter": {"shape": "sun"}, "normal_lux": 30000.0}}
    plan = make(lights=[*PAIR, sun])

    def refused(rule: str, *changes: Change) -> bool:
        return never_changed(rule, plan, apply_changes(plan, changes))

    assert refused("light.level", Change("lights[0].dimmer", 0.0))
    assert refused("light.level", Change("lights[0].on", False))
    assert refused("light.evenness", Change("lights[2].dimmer", 0.5))
    assert not refused("light.level", Change("lights[0].dimmer", 0.3))
    face = {"subject.exposure": Judgement("fix", 3.0, 0.5, "stops", tell("subject.exposure/dark"), 2.5)}
    assert never_made_worse("light.level", {}, face)
    assert not never_made_worse("key.clip", {}, face)
    assert say(tell("subject.exposure/dark")) == "No light on the face"


def test_the_only_light_is_never_taken_away() -> None:
    """A window that all hangs on: to black it out was offered against the clip, with a quality of 0 after."""
    glass = {"emitter": {"shape": "window", "width": 1.6, "height": 1.8}, "luminance": 4000.0}
    window = {"id": "w", "name": "north window", "role": "key", "position": [-3.6, 1.6, 3.2], "aim": [0.0, 1.5, 3.0]}
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [{**window, "fixture": glass}],
        "subject": {"x": 0.0, "z": 3.0}, "camera": {"iso": 800},
    })  # fmt: skip
    findings = find(plan, STORE)[1]
    assert next(one for one in findings if one.rule.id == "light.daylight").judgement.severity == "consider"
    assert not [one for f in findings for one in f.remedies if "Black out" in say(one.text)]
    flood = {"id": "l", "role": "screen", "position": [2.6, 1.6, 2.4], "aim": [0.2, 1.3, 0.0]}
    key = {"id": "k", "role": "key", "position": [1.5, 2.2, 5.0], "aim": [0.0, 1.6, 3.0]}
    more = (Light.model_validate(one) for one in (flood, key))
    both = plan.model_copy(update={"lights": (*plan.lights, *more)})
    assert [one for f in find(both, STORE)[1] for one in f.remedies if "Black out" in say(one.text)]
