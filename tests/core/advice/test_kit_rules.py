from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rules.kit_rules import rules_with, stands_needed
from ausblick.core.kit import Kit
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.core.plan import apply_changes
from tests.conftest import MakePlan
from tests.stores import STORE


def findings(make: MakePlan, kit: Kit, **parts: Any) -> dict[str, Finding]:
    rules = rules_with(kit)
    only = [rule.id for rule in rules if rule.id.startswith("kit.")]
    return {f.rule.id: f for f in find(make(**parts), STORE, rules, only=only)[1]}


def test_what_is_owned_holds(make: MakePlan) -> None:
    found = findings(make, full_kit(), lights=[{}, {}])
    assert {f.judgement.severity for f in found.values()} == {"fine"}
    assert len(found) == 5


def test_an_empty_kit_judges_nothing(make: MakePlan) -> None:
    assert findings(make, Kit()) == {}


@pytest.mark.parametrize(
    ("rule", "parts"),
    [
        ("kit.screen", {"screen": {"width": 6.0}}),
        ("kit.screen", {"screen": {"hue": "blue"}}),
        ("kit.lens", {"camera": {"focal_mm": 40}}),
        ("kit.lamps", {"lights": [{}] * 4}),
        ("kit.stands", {"lights": [{}] * 4}),
        ("kit.sandbags", {"lights": [{}] * 4}),
    ],
)
def test_what_goes_beyond_the_kit_is_a_finding(make: MakePlan, rule: str, parts: dict[str, Any]) -> None:
    assert findings(make, small_kit(), **parts)[rule].judgement.severity == "consider"


def test_the_nearest_lens_owned_frames_the_same(make: MakePlan) -> None:
    plan = make(camera={"focal_mm": 40})
    remedy = findings(make, full_kit(), camera={"focal_mm": 40})["kit.lens"].remedies[0]
    changed = apply_changes(plan, remedy.changes)
    assert changed.subject is not None
    assert plan.subject is not None
    assert changed.camera.focal_mm == 35
    assert (remedy.before, remedy.after) == (0.0, 1.0), "lenses of this length that are owned"
    now, then = plan.camera.z - plan.subject.z, changed.camera.z - changed.subject.z
    assert then / now == pytest.approx(35 / 40, rel=0.01)


def test_every_lamp_and_a_hanging_screen_need_stands(make: MakePlan) -> None:
    lights = [{}, {"fixture": {"emitter": {"shape": "sun"}}}]
    assert stands_needed(make(lights=lights)) == (1, 2)
    assert stands_needed(make(lights=lights, screen={"material": "paint"})) == (1, 0)
