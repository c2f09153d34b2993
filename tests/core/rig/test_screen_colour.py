from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.rig.screen_colour import advice, evidence
from ausblick.core.sentences import say
from tests.conftest import MakePlan

FERN = {"wardrobe": [{"name": "fern costume", "reflectance": [0.10, 0.28, 0.08]}]}
GREY = {"wardrobe": [{"name": "grey coat", "reflectance": [0.2, 0.2, 0.2]}]}


def finding(plan: Plan, rule: str) -> Finding:
    (found,) = find(plan, BasisStore(), only={rule})[1]
    return found


def test_the_fern_costume_wants_blue_and_the_same_person_in_grey_green(make: MakePlan) -> None:
    fern, grey = advice(make(subject=FERN)), advice(make(subject=GREY))
    assert fern.colour == "blue"
    assert "fern costume before green" in fern.reasons[0]
    assert "stops more light" in fern.costs[0]
    assert grey.colour == "green"
    assert grey.costs == ()


def test_each_distance_stands_for_something(make: MakePlan) -> None:
    rows = {(r.surface, r.screen): r for r in evidence(make(subject=FERN))}
    assert rows["fern costume", "green"].matte == pytest.approx(1 - (0.28 - 0.09) / 0.26)
    assert rows["fern costume", "blue"].matte == 1.0
    assert rows["fern costume", "green"].chroma_distance < 0.3 * rows["fern costume", "blue"].chroma_distance
    assert rows["skin", "green"].matte == 1.0
    own = make(screen={"hue": "other", "reflectance": [0.4, 0.05, 0.3]})
    assert {r.screen for r in evidence(own)} == {"green", "blue", "own"}


def test_green_before_green_stops_and_the_blue_screen_is_its_remedy(make: MakePlan) -> None:
    """Under one light on cloth and screen, as the evidence has it."""
    fern = make(subject=FERN, room={"ambient_lux": 900})
    found = finding(fern, "screen.hue")
    assert found.judgement.severity == "stop"
    blue = next(remedy for remedy in found.remedies if say(remedy.text) == "A blue screen")
    assert finding(apply_changes(fern, blue.changes), "screen.hue").judgement.severity == "fine"
    grey = next(remedy for remedy in found.remedies if "dark grey" in say(remedy.text))
    changed = apply_changes(fern, grey.changes)
    assert finding(changed, "screen.hue").judgement.severity == "fine"
    assert changed.subject is not None
    assert changed.subject.wardrobe[0].name == "fern costume"


def test_canary_yellow_is_no_stop_where_dark_green_is_one(make: MakePlan) -> None:
    """Both are lost by the usual colour difference; only the one that shares both channels is kept by the other."""
    said = {}
    for name, ink in {"canary": [0.6, 0.5, 0.05], "dark green": [0.04, 0.2, 0.06], "white": [0.7, 0.7, 0.7]}.items():
        worn: dict[str, Any] = {"wardrobe": [{"name": name, "reflectance": ink}]}
        found = finding(make(subject=worn, room={"ambient_lux": 900}), "screen.hue")
        said[name] = found.judgement.severity, "larger channel" in say(found.judgement.says)
    assert said == {"canary": ("consider", True), "dark green": ("stop", False), "white": ("fine", False)}


def test_hair_and_props_that_want_a_test(make: MakePlan) -> None:
    fair = make(subject={"hair": [0.42, 0.32, 0.17], "hair_kind": "fine"})
    assert "fair and fine" in say(finding(fair, "subject.hair").judgement.says)
    assert finding(make(), "subject.hair").judgement.severity == "fine"
    jar = make(subject={"props": [{"name": "seed jar", "kind": "glass"}, {"name": "book", "kind": "matt"}]})
    assert say(finding(jar, "subject.props").judgement.says) == "Test before the day: seed jar (glass)"
    shiny = make(subject={"wardrobe": [{"name": "latex gloves", "gloss": 0.5}]})
    assert finding(shiny, "subject.props").judgement.severity == "consider"
