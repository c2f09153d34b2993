from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.findings import find, predicted_quality
from ausblick.core.advice.rule import RANK
from ausblick.core.advice.rule_table import RULES
from ausblick.core.advice.whole_plan import weight_of
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Plan, apply_changes, edit
from ausblick.core.sentences import say
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import seed_jar, welcome
from tests.conftest import MakePlan, lamp
from tests.demo_findings import found, judged
from tests.stores import STORE

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
    assert findings[-1].judgement.severity == "fine"


def test_the_demo_has_its_three_faults_each() -> None:
    def open_ids(plan: Plan) -> set[str]:
        return {f.rule.id for f in find(plan, STORE, with_remedies=False)[1] if f.judgement.severity != "fine"}

    assert {"light.level", "camera.white-balance", "subject.rim"} <= open_ids(seed_vault())
    assert {"screen.covered", "camera.flicker", "key.clip", "light.evenness"} <= open_ids(scree())


@pytest.mark.parametrize("plan", [welcome(), seed_jar(), seed_vault()], ids=lambda plan: plan.title)
def test_the_calm_ones_have_nothing_above_consider(plan: Plan) -> None:
    evaluation, findings = find(plan, STORE, with_remedies=False)
    assert {f.judgement.severity for f in findings} <= {"fine", "consider"}
    assert predicted_quality(evaluation) > 60.0


def test_nothing_at_all_is_wrong_with_the_welcome() -> None:
    evaluation, findings = find(welcome(), STORE, with_remedies=False)
    assert [f.rule.id for f in findings if f.judgement.severity != "fine"] == []
    assert predicted_quality(evaluation) > 85.0


def test_a_vault_that_smears_is_better_for_its_remedies() -> None:
    plan, weight = apply_changes(seed_vault(), [edit.camera.shutter_s(1.0 / 25.0)]), []
    for _ in range(4):
        _, findings = find(plan, STORE)
        weight.append(weight_of({f.rule.id: f.judgement for f in findings}))
        offered = [remedy for f in findings for remedy in f.remedies if remedy.gives]
        if not offered:
            break
        assert offered[0].open_before == pytest.approx(weight[-1])
        plan = apply_changes(plan, offered[0].changes)
    assert weight == sorted(weight, reverse=True)
    assert weight[-1] < weight[0]


def test_a_dark_set_says_so_and_invents_no_remedy(make: MakePlan) -> None:
    level = found(make(), "light.level")
    assert level.judgement.severity == "stop"
    assert "No light on the screen" in say(level.judgement.says)
    assert level.remedies == ()
    assert found(make(), "subject.exposure").judgement.severity == "fix"
    assert level.no_remedy is not None
    assert "put one there" in say(level.no_remedy)


def test_evenness_names_the_spread_and_can_be_dimmed_away(make: MakePlan) -> None:
    assert found(make(lights=EVEN), "light.evenness").judgement.severity in ("fine", "consider")
    uneven = [EVEN[0] | {"dimmer": 0.1}, EVEN[1]]
    clip, cause = found(make(lights=uneven), "key.clip"), found(make(lights=uneven), "light.evenness")
    assert clip.judgement.severity in ("fix", "stop")
    assert "unevenness" in say(clip.judgement.says)
    assert cause.judgement.severity == "consider", "the cause of a damage, told with its number"
    assert any("Dim" in say(remedy.text) for remedy in (*clip.remedies, *cause.remedies))


def test_level_by_school_and_trace(make: MakePlan) -> None:
    plan = make(lights=EVEN, camera={"iso": 3200})
    assert found(plan, "light.level").judgement.severity == "consider"
    reading = evaluate(plan, STORE).screen
    assert reading is not None
    own = {"level_school": "custom", "screen_level": round(reading.level_key_channel), "level_trace": "key-channel"}
    assert found(make(lights=EVEN, camera={"iso": 3200}, targets=own), "light.level").judgement.severity == "fine"


def test_clipping_is_a_stop(make: MakePlan) -> None:
    finding = found(make(lights=EVEN, camera={"iso": 25600}), "key.clipping")
    assert finding.judgement.severity == "stop"
    assert "clips" in say(finding.judgement.says)
    changed = apply_changes(make(lights=EVEN, camera={"iso": 25600}), finding.remedies[0].changes)
    assert found(changed, "key.clipping").judgement.severity != "stop"
    assert finding.judgement.value is not None
    assert 60.0 < finding.judgement.value <= 100.0, "of its colour, in %"


@pytest.mark.parametrize("damage", ["key.edge", "key.hair"])
def test_what_clipping_costs_is_cured_by_less_light(make: MakePlan, damage: str) -> None:
    plan = make(lights=EVEN, camera={"iso": 25600}, subject={"hair_kind": "fine"})
    finding = found(plan, damage)
    assert "clipping" in say(finding.judgement.says)
    best = apply_changes(plan, finding.remedies[0].changes)
    assert best.camera.f_number > plan.camera.f_number or best.lights[0].dimmer < plan.lights[0].dimmer
    assert found(best, damage).judgement.excess < 0.5 * finding.judgement.excess


def test_a_part_that_burns_is_cured_though_the_median_is_below_white(make: MakePlan) -> None:
    """One lamp near the cloth: nothing was offered, "no lamp can be dimmed and no aperture closed"."""
    near = lamp(id="hot", role="screen", position=[-1.0, 1.6, 0.7], aim=[-0.2, 1.3, 0.0], flux_lm=20000.0, cct=3200)
    plan = make(lights=[near, *EVEN], camera={"iso": 640}, subject={})
    finding = found(plan, "key.clipping")
    assert finding.judgement.severity == "fix"
    judged = [one.linear[one.judged][:, 1] for one in evaluate(plan, STORE).screen_maps]
    assert float(np.median(np.concatenate(judged))) < 0.85
    assert any("Screen lamps down" in say(one.text) for one in finding.remedies)
    for one in finding.remedies:
        after = found(apply_changes(plan, one.changes), "key.clipping").judgement.excess
        assert after <= 0.5 * finding.judgement.excess
    assert found(apply_changes(plan, finding.remedies[0].changes), "key.clipping").judgement.severity == "fine"


@pytest.mark.parametrize(
    ("rule", "parts", "severity"),
    [
        ("space.order", {"subject": {"z": 8.0}}, "stop"),
        ("space.order", {"subject": {"z": -1.0}}, "stop"),
        ("space.walls", {"camera": {"z": 12.0}}, "stop"),
        ("space.gap", {"targets": {"distance_school": "3m"}}, "consider"),
        ("space.gap", {"subject": {"z": 0.4}}, "consider"),
        ("screen.covered", {"screen": {"width": 1.2}}, "stop"),
        ("screen.margin", {"screen": {"width": 2.2}}, "consider"),
        ("key.motion", {"camera": {"shutter_s": 0.04}, "subject": {"speed": 3}, "lights": EVEN}, "fix"),
        ("camera.smear", {"camera": {"shutter_s": 0.04}, "subject": {"speed": 3}, "lights": EVEN}, "consider"),
        ("camera.shutter-angle", {"camera": {"shutter_s": 0.001}}, "consider"),
        ("camera.flicker", {"camera": {"shutter_s": 1 / 80}, "lights": EVEN}, "consider"),
        ("camera.depth", {"camera": {"focal_mm": 85, "f_number": 2.8}}, "consider"),
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


@pytest.mark.parametrize(
    ("flicker", "words"), [("mains", "cuts through the flashes"), ("unknown", "test them"), ("free", "")]
)
def test_flicker_is_told_by_what_is_known_of_the_lamps(make: MakePlan, flicker: str, words: str) -> None:
    lamps = [{**lamp, "fixture": {"flicker": flicker}} for lamp in EVEN]
    finding = judged(make(camera={"shutter_s": 1 / 80}, lights=lamps), "camera.flicker")
    assert (finding is None) == (flicker == "free")
    assert finding is None or words in say(finding.judgement.says)


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


def test_a_white_face_is_to_be_mended_however_few_stops_made_it_so(make: MakePlan) -> None:
    """Fair skin is white at two stops over, where darker skin is graded back."""
    lights = [lamp(flux_lm=12000.0, position=[0.5, 2.0, 4.4], aim=[0, 1.6, 1.6])]
    over = find(make(lights=lights), STORE, with_remedies=False)[0].exposure.stops_over
    assert over is not None
    camera = {"nd_stops": 0.0, "iso": 400.0 * 2.0 ** (2.1 - over)}
    for skin, severity in (((0.75, 0.62, 0.55), "fix"), ((0.2, 0.12, 0.08), "consider")):
        judgement = found(make(lights=lights, camera=camera, subject={"skin": skin}), "subject.exposure").judgement
        assert judgement.value == pytest.approx(2.1, abs=0.02)
        assert judgement.severity == severity


def test_wind_on_a_screen_without_stands_asks_for_no_ballast_on_them(make: MakePlan) -> None:
    outdoors = {"kind": "exterior", "wind_ms": 4.0}
    words = {"muslin": "kg a stand", "pop-up": "tie it down"}
    for material, said in words.items():
        plan = make(room=outdoors, screen={"material": material})
        assert said in say(found(plan, "screen.wind").judgement.says)
    painted = make(room=outdoors, screen={"material": "paint"})
    assert "screen.wind" not in {f.rule.id for f in find(painted, STORE, with_remedies=False)[1]}


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
