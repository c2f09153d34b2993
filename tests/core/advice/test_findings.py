from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import RANK
from ausblick.core.advice.rule_table import RULES
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.sentences import say
from ausblick.demo.fern_house import scree, seed_vault
from tests.conftest import MakePlan
from tests.demo_findings import STORE, found, judged

EVEN = [
    {"name": "left", "position": [-2.2, 1.3, 2.2], "aim": [0.5, 1.3, 0], "dimmer": 0.9},
    {"name": "right", "position": [2.2, 1.3, 2.2], "aim": [-0.5, 1.3, 0], "dimmer": 0.9},
]


def test_ids_differ_and_every_rule_gives_reason_and_source() -> None:
    assert len({rule.id for rule in RULES}) == len(RULES)
    for rule in RULES:
        assert rule.why.endswith(".")
        assert rule.source


def test_worst_first() -> None:
    _, findings = find(seed_vault(), STORE, with_remedies=False)
    ranks = [RANK[f.judgement.severity] for f in findings]
    assert ranks == sorted(ranks)
    assert findings[0].judgement.severity == "stop"


def test_the_demo_has_its_three_faults_each() -> None:
    def open_ids(plan: Plan) -> set[str]:
        return {f.rule.id for f in find(plan, STORE, with_remedies=False)[1] if f.judgement.severity != "fine"}

    assert {"light.evenness", "light.level", "camera.iso"} <= open_ids(seed_vault())
    assert {"screen.covered", "camera.flicker", "subject.exposure"} <= open_ids(scree())


def test_the_vault_can_be_mended_by_its_own_remedies() -> None:
    plan = seed_vault()
    for rule in ("light.evenness", "camera.iso", "subject.exposure", "light.level"):
        remedies = found(plan, rule).remedies
        if remedies:
            plan = apply_changes(plan, remedies[0].changes)
    assert all(f.judgement.severity != "stop" for f in find(plan, STORE, with_remedies=False)[1])
    # What is left is the faint shade of a stand that another panel throws.
    assert found(plan, "light.evenness").judgement.severity in ("fine", "consider")
    assert found(plan, "light.level").judgement.severity == "fine"


def test_a_dark_set_says_so_and_invents_no_remedy(make: MakePlan) -> None:
    level = found(make(), "light.level")
    assert level.judgement.severity == "stop"
    assert "No light on the screen" in say(level.judgement.says)
    assert level.remedies == ()
    assert found(make(), "subject.exposure").judgement.severity == "stop"


def test_evenness_names_the_spread_and_can_be_dimmed_away(make: MakePlan) -> None:
    assert found(make(lights=EVEN), "light.evenness").judgement.severity in ("fine", "consider")
    uneven = [EVEN[0] | {"dimmer": 0.2}, EVEN[1]]
    finding = found(make(lights=uneven), "light.evenness")
    assert finding.judgement.severity in ("fix", "stop")
    assert any("Dim" in say(remedy.text) for remedy in finding.remedies)


def test_level_by_school_and_trace(make: MakePlan) -> None:
    plan = make(lights=EVEN, camera={"iso": 3200})
    assert found(plan, "light.level").judgement.severity in ("fix", "stop")
    reading = evaluate(plan, STORE).screen
    assert reading is not None
    own = {"level_school": "custom", "screen_level": round(reading.level_key_channel), "level_trace": "key-channel"}
    assert found(make(lights=EVEN, camera={"iso": 3200}, targets=own), "light.level").judgement.severity == "fine"


def test_clipping_is_a_stop(make: MakePlan) -> None:
    judgement = found(make(lights=EVEN, camera={"iso": 25600}), "light.level").judgement
    assert judgement.severity == "stop"
    assert "clips" in say(judgement.says)


@pytest.mark.parametrize(
    ("rule", "parts", "severity"),
    [
        ("space.order", {"subject": {"z": 8.0}}, "stop"),
        ("space.order", {"subject": {"z": -1.0}}, "stop"),
        ("space.walls", {"camera": {"z": 12.0}}, "stop"),
        ("space.gap", {"targets": {"distance_school": "3m"}}, "consider"),
        ("space.gap", {"subject": {"z": 0.4}}, "fix"),
        ("screen.covered", {"screen": {"width": 1.2}}, "stop"),
        ("screen.margin", {"screen": {"width": 2.2}}, "consider"),
        ("camera.smear", {"camera": {"shutter_s": 0.04}, "subject": {"speed": 3}}, "fix"),
        ("camera.shutter-angle", {"camera": {"shutter_s": 0.001}}, "consider"),
        ("camera.flicker", {"camera": {"shutter_s": 1 / 80}, "lights": EVEN}, "consider"),
        ("camera.iso", {"camera": {"iso": 3200}}, "fix"),
        ("camera.depth", {"camera": {"focal_mm": 85, "f_number": 2.8}}, "fix"),
        ("camera.melt", {"camera": {"focal_mm": 18, "f_number": 11}}, "consider"),
        ("camera.sharpening", {"camera": {"sharpening": True}}, "fix"),
    ],
)
def test_each_fault_is_found_and_has_a_remedy(
    make: MakePlan, rule: str, parts: dict[str, Any], severity: str
) -> None:
    finding = found(make(**parts), rule)
    assert finding.judgement.severity == severity
    assert finding.remedies
    assert found(make(lights=EVEN, camera={"iso": 400}), rule).judgement.severity in ("fine", "consider")


def test_a_remedy_says_what_it_worsens(make: MakePlan) -> None:
    plan = make(lights=EVEN, camera={"shutter_s": 0.02}, subject={"speed": 4})
    faster = next(r for r in found(plan, "camera.smear").remedies if "and f/" not in say(r.text))
    assert "camera.shutter-angle" in faster.worsens


def test_no_figure_no_face(make: MakePlan) -> None:
    evaluation, findings = find(make(subject=None, lights=EVEN), STORE, with_remedies=False)
    assert evaluation.exposure.subject_lux is None
    assert {"subject.exposure", "camera.smear", "space.gap"}.isdisjoint(f.rule.id for f in findings)
    assert evaluation.coverage.needed is not None


def test_a_lamp_in_the_picture_is_found_and_moved_out(make: MakePlan) -> None:
    lights = [EVEN[0] | {"position": [-0.3, 1.6, 1.2], "aim": [0, 1.3, 0]}]
    finding = found(make(lights=lights), "space.in-picture")
    assert finding.judgement.severity == "fix"
    assert "where the action goes" in say(finding.judgement.says)
    changed = apply_changes(make(lights=lights), finding.remedies[0].changes)
    assert found(changed, "space.in-picture").judgement.severity == "fine"


def test_a_wide_lens_near_the_face_is_found(make: MakePlan) -> None:
    near = make(camera={"z": 3.2, "focal_mm": 16}, subject={"framing": "chest"})
    finding = found(near, "space.distortion")
    assert finding.judgement.severity == "consider"
    changed = apply_changes(near, finding.remedies[0].changes)
    assert changed.camera.focal_mm > 16
    assert found(changed, "space.distortion").judgement.severity == "fine"


def test_a_window_behind_the_cloth_is_found(make: MakePlan) -> None:
    finding = found(make(lights=EVEN, screen={"behind_lux": 900}), "light.behind")
    assert finding.judgement.severity in ("consider", "fix")
    assert judged(make(lights=EVEN), "light.behind") is None
