"""Spill, shadow, zones, cloth, mirrors and safety as a user meets them: what is said and what helps."""

from __future__ import annotations

import math
import re
from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.rules import mixed_colour
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Change, Plan, apply_changes, plan_from
from ausblick.core.sentences import say
from ausblick.demo import fern_house_2
from tests.conftest import MakePlan, lamp
from tests.demo_findings import DEMO, demo_findings, found, judged
from tests.stores import STORE


@pytest.mark.parametrize(
    ("title", "rule", "words"),
    [
        ("Potting-shed window", "light.pane", "shed fill seen"),
        ("Potting-shed window", "light.mixed-colour", "hue varies"),
        ("Fern dancer", "key.motion", "smear"),
        ("Fern dancer", "key.clipping", "colour is lost"),
        ("Seed jar", "key.clip", "unevenness"),
        ("Seed jar", "light.gloss", "shines in the cloth"),
        ("Portraits of the gardeners", "light.power", "17.4 of 16 A"),
        ("Portraits of the gardeners", "light.heat", "right flood"),
    ],
)
def test_each_fault_of_the_demo_is_found_and_has_a_cure(title: str, rule: str, words: str) -> None:
    finding = demo_findings(title)[rule]
    assert finding.judgement.severity != "fine"
    assert words in say(finding.judgement.says)
    assert finding.remedies


def after(title: str, rule: str, remedy: str) -> Finding:
    chosen = next(r for r in demo_findings(title)[rule].remedies if remedy in say(r.text))
    return found(apply_changes(DEMO[title], chosen.changes), rule)


def test_black_cloth_beside_the_mark_lowers_the_edge() -> None:
    # Without the window's wall, which keeps the screen's light off the mark.
    plan = apply_changes(DEMO["Potting-shed window"], [Change("window.in_wall", False)])
    before = found(plan, "subject.spill-edge")
    assert "left wall" in say(before.judgement.says)
    [rule] = CRAFT.only(["subject.spill-edge"])
    proposed = rule.propose(evaluate(plan, STORE), STORE)
    cloth = next(each for each in proposed if "Black cloth on the left" in say(each.text))
    then = found(apply_changes(plan, cloth.changes), "subject.spill-edge")
    assert (then.judgement.value or 9) < 0.9 * (before.judgement.value or 0)


def test_a_key_too_bright_for_the_screen_is_kept_off_it_before_its_lamps_go_down() -> None:
    """No dimmer of the screen's own lamps reaches what is wanted: the lantern alone gives that much."""
    title, rule = "Seed vault, night round", "light.level"
    (remedy,) = demo_findings(title)[rule].remedies
    assert re.fullmatch(r"A 40° grid on lantern key, screen lamps down 2.2 stops, to 12 %", say(remedy.text))
    assert not remedy.gives, "in so little light the key loses more than the match to the plate gives"
    then = found(apply_changes(DEMO[title], remedy.changes), rule)
    assert then.judgement.severity == "fine"
    assert then.judgement.value == pytest.approx(32.9, abs=2.0)


def test_the_proposed_place_clears_the_pane() -> None:
    then = after("Potting-shed window", "light.pane", "shed fill to")
    assert then.judgement.severity == "fine"


def test_a_lamp_on_another_circuit_unloads_the_full_one() -> None:
    then = after("Portraits of the gardeners", "light.power", "right flood on circuit B")
    assert then.judgement.severity == "fine"


def verdict_of(plan: Plan, rule: str) -> Any:
    finding = judged(plan, rule)
    return finding and finding.judgement


PAIR = [{"position": [x, 1.3, 2.0], "aim": [-0.2 * x, 1.3, 0], "dimmer": 0.5} for x in (-2.2, 2.2)]


def test_folds_that_grazing_light_draws(make: MakePlan) -> None:
    def folds(**screen: Any) -> float:
        grazing = {"position": [-2.2, 1.3, 0.35], "aim": [1.0, 1.3, 0.0], "dimmer": 0.4}
        lights = [grazing] if screen.pop("grazing", False) else PAIR
        return float(
            verdict_of(
                make(lights=lights, screen=screen, camera={"iso": 1600, "f_number": 11}), "light.wrinkles"
            ).value
        )

    assert folds(wrinkle_slope=0.06, grazing=True) > 2.0 * folds(wrinkle_slope=0.06)
    assert folds(wrinkle_slope=0.0) == pytest.approx(0.0, abs=1e-9)
    assert folds(wrinkle_slope=0.06) == pytest.approx(2.0 * folds(wrinkle_slope=0.03), rel=0.02)


def test_one_colour_of_light_makes_one_green(make: MakePlan) -> None:
    mixed = [PAIR[0], {**PAIR[1], "fixture": {"cct": 3200}}]
    assert verdict_of(make(lights=PAIR), "light.mixed-colour").value < 2.0
    judgement = verdict_of(make(lights=mixed), "light.mixed-colour")
    assert judgement.value > 7.0
    assert "two colours" in say(judgement.says)


def test_a_lamp_that_can_be_turned_is_turned_as_far_as_it_goes(make: MakePlan) -> None:
    warm = {**PAIR[1], "name": "old panel", "fixture": {"cct": 3200, "cct_range": [3000, 5000]}}
    plan = make(lights=[PAIR[0], warm])
    [rule] = CRAFT.only(["light.mixed-colour"])
    first = rule.propose(evaluate(plan, STORE), STORE)[0]
    assert say(first.text) == "Turn old panel to 5600 K"
    assert [(change.path, change.value) for change in first.changes] == [("lights[1].fixture.cct", 5000.0)]


def test_a_lamp_that_cannot_be_turned_is_gelled_and_loses_the_light_that_a_gel_takes(make: MakePlan) -> None:
    """Or the others are, and the camera goes with them: that takes less."""
    tin = {**PAIR[1], "name": "old tin", "fixture": {"cct": 3200}}
    plan = make(lights=[PAIR[0], tin])
    [rule] = CRAFT.only(["light.mixed-colour"])
    before = evaluate(plan, STORE)
    by_words = {say(each.text): each for each in rule.propose(before, STORE)}
    cold, warm = by_words["Every lamp at 5600 K"], by_words["Every lamp and the camera at 3200 K"]
    assert cold.cost is not None
    assert re.fullmatch(r"heat-proof gels on old tin, up to 1\.4 stops of their light", say(cold.cost))
    assert {change.path for change in cold.changes} == {"lights[1].gel"}
    after = evaluate(apply_changes(plan, cold.changes), STORE)
    tins = plan.lights[1].id
    lost = math.log2(before.screen_by_lamp[tins] / after.screen_by_lamp[tins])
    # Makers of full blue and full orange give 1.5 and two thirds of a stop.
    assert lost == pytest.approx(1.5, abs=0.15)
    assert verdict_of(apply_changes(plan, cold.changes), "light.mixed-colour").value < 2.0
    assert warm.cost is not None
    assert say(warm.cost).endswith("up to 0.8 stops of their light")
    warmer = apply_changes(plan, warm.changes)
    assert (warmer.camera.white_balance_k, warmer.lights[1].gel) == (3200.0, (1.0, 1.0, 1.0))
    assert verdict_of(warmer, "light.mixed-colour").value < 2.0


def test_a_coloured_accent_is_told_and_can_be_off(make: MakePlan) -> None:
    """Two lamps of one colour temperature, one of them behind a gel."""
    pink = lamp(emitter={"shape": "point"}, flux_lm=4000, name="pink bulb", role="other",
                position=[1.2, 1.9, 0.7], aim=[0, 1.5, 0])  # fmt: skip
    plan = make(room={"ambient_lux": 0}, lights=[*PAIR, {**pink, "gel": [1.0, 0.3, 0.6]}])
    judgement = verdict_of(plan, "light.mixed-colour")
    assert "two colours" in say(judgement.says)
    [rule] = CRAFT.only(["light.mixed-colour"])
    by_words = {say(each.text): each for each in rule.propose(evaluate(plan, STORE), STORE)}
    without = {words: verdict_of(apply_changes(plan, by_words[words].changes), "light.mixed-colour").value
               for words in ("pink bulb off", "Every lamp at 5600 K")}  # fmt: skip
    assert judgement.value > 5.0
    assert max(without.values()) < 3.0


def test_warm_light_of_the_room_makes_another_green_where_lamps_fall_off(make: MakePlan) -> None:
    warm = make(room={"ambient_lux": 50.0, "ambient_cct": 2800.0}, lights=PAIR[:1])
    judgement = verdict_of(warm, "light.mixed-colour")
    assert judgement.severity == "consider"
    assert "the room's own light" in say(judgement.says)
    outdoors = make(room={"kind": "exterior", "ambient_lux": 50.0, "ambient_cct": 2800.0}, lights=PAIR[:1])
    assert "the sky's light" in say(verdict_of(outdoors, "light.mixed-colour").says)
    [rule] = CRAFT.only(["light.mixed-colour"])
    dark = next(each for each in rule.propose(evaluate(warm, STORE), STORE) if "Room lights off" in say(each.text))
    assert verdict_of(apply_changes(warm, dark.changes), "light.mixed-colour").severity == "fine"


def test_what_clips_is_told_once(make: MakePlan) -> None:
    """A channel at white turns the hue; opening and dimmers are told with the clipping."""
    plan = make(lights=PAIR, camera={"f_number": 1.4, "iso": 1600})
    assert verdict_of(plan, "key.clipping").severity != "fine"
    judgement = verdict_of(plan, "light.mixed-colour")
    assert judgement.value > 3.0
    assert judgement.severity == "fine"
    assert "clips" in say(judgement.says)


def test_poor_rendering_is_an_uncertainty(make: MakePlan) -> None:
    poor = make(lights=[PAIR[0], {**PAIR[1], "name": "shop lamp", "fixture": {"cri": 72}}])
    judgement = verdict_of(poor, "light.rendering")
    assert "shop lamp" in say(judgement.says)
    assert "may be off" in say(judgement.says)


def test_zones_that_mix(make: MakePlan) -> None:
    key = lamp(emitter={"shape": "rect"}, flux_lm=9000, role="key", position=[-0.6, 1.8, 4.6], aim=[0, 1.5, 2.4])
    near = make(subject={"z": 0.9}, lights=[*PAIR, {**key, "position": [-0.6, 1.8, 2.6], "aim": [0, 1.5, 0.9]}])
    far = make(subject={"z": 2.6}, lights=[*PAIR, key])
    assert verdict_of(near, "light.two-zones").value > verdict_of(far, "light.two-zones").value > 0


def test_grids_are_for_lamps_that_can_make_up_for_them() -> None:
    """A grid of 60° leaves a screen a third of its light: without some to spare it would go dark."""
    [rule] = CRAFT.only(["subject.two-zones"])

    def turned_up(dimmer: float) -> set[float]:
        plan = apply_changes(DEMO["Scree, noon"], [Change(f"lights[{i}].dimmer", dimmer) for i in range(2)])
        offered = [one for one in rule.propose(evaluate(plan, STORE), STORE) if one.text.id == "do/grids"]
        return {change.value for one in offered for change in one.changes if change.path.endswith("dimmer")}

    assert turned_up(0.6) == set()
    assert turned_up(0.5) == {1.0}
    assert turned_up(0.14) == {0.4}
    has_one = apply_changes(
        DEMO["Scree, noon"],
        [
            *(Change(f"lights[{i}].dimmer", 0.14) for i in range(2)),
            Change("lights[0].modifier", {"kind": "grid", "deg": 40.0}),
        ],
    )
    [offer] = [one for one in rule.propose(evaluate(has_one, STORE), STORE) if one.text.id == "do/grids"]
    assert {change.path.partition(".")[0] for change in offer.changes} == {"lights[1]"}
    plan = DEMO["Scree, noon"]
    gridded = apply_changes(plan, [Change("lights[0].modifier", {"kind": "grid", "deg": 60.0})])
    bare, left = (evaluate(one, STORE).screen_by_lamp["l1"] for one in (plan, gridded))
    assert left / bare == pytest.approx(0.35, abs=0.01)


@pytest.mark.parametrize(("dimmer", "limit"), [(0.02, 0.25), (1.0, 2.0)])
def test_a_back_light_neither_lost_nor_glaring(make: MakePlan, dimmer: float, limit: float) -> None:
    key = lamp(emitter={"shape": "rect"}, flux_lm=9000, role="key", position=[-0.6, 1.8, 4.6], aim=[0, 1.5, 2.4])
    back = lamp(emitter={"shape": "rect", "width": 0.3, "height": 0.3}, flux_lm=20000, role="back",
                position=[0.8, 2.7, 1.2], aim=[0, 1.6, 2.4])  # fmt: skip
    judgement = verdict_of(make(lights=[*PAIR, key, {**back, "dimmer": dimmer}]), "subject.rim")
    assert judgement.severity != "fine"
    assert judgement.limit == limit


def test_a_lamp_over_heads_is_said_with_its_caution(make: MakePlan) -> None:
    above = lamp(emitter={"shape": "rect"}, flux_lm=4000, role="key", position=[0.1, 3.0, 2.5], aim=[0, 1.5, 2.4])
    judgement = verdict_of(make(lights=[{**above, "name": "top light"}]), "light.overhead")
    assert "top light" in say(judgement.says)
    assert "second fixing" in say(judgement.says)


def test_a_circuit_that_the_plan_does_not_know(make: MakePlan) -> None:
    judgement = verdict_of(make(lights=[{"circuit": "Z", "fixture": {"watts": 900}}]), "light.power")
    assert say(judgement.says).startswith("Circuit Z carries 900 W")


def test_evening_out_a_screen_twice_changes_nothing_more() -> None:
    """It leads to one place, wherever the dimmers were, and does not creep there a few per cent a step."""

    def lit(left: float, right: float) -> Plan:
        panel = {"flux_lm": 24000.0, "emitter": {"shape": "rect", "width": 1.2, "height": 1.2}}
        lamps = [{"position": [x, 1.1, 2.2], "aim": [-0.3 * x, 1.1, 0.0], "dimmer": d, "fixture": panel}
                 for x, d in ((-1.2, left), (1.2, right))]  # fmt: skip
        return plan_from({"format": "ausblick-plan", "version": 1, "lights": lamps, "subject": {"z": 2.6}})

    [rule] = CRAFT.only(["light.evenness"])

    def evened(of: Plan) -> list[float]:
        proposed = rule.propose(evaluate(of, STORE), STORE)
        dim = next((each for each in proposed if say(each.text).startswith("Dim")), None)
        return [lamp.dimmer for lamp in (of if dim is None else apply_changes(of, dim.changes)).lights]

    once, from_bright = evened(lit(0.05, 0.12)), evened(lit(0.9, 0.5))
    assert abs(once[0] - once[1]) <= 0.011
    assert np.allclose(once, from_bright, atol=0.011)
    assert np.allclose(evened(lit(*once)), once, atol=0.011)


def test_a_panel_before_the_lens_is_found_though_its_middle_is_out_of_the_frame() -> None:
    """Half a metre from a long lens a panel hides all of the picture from 17 cm beside the axis."""
    panel = {"fixture": {"flux_lm": 3000.0, "emitter": {"shape": "rect", "width": 0.6, "height": 0.6}}}
    lamps = [
        {**panel, "name": "screen panel", "position": [-2.0, 1.4, 2.0], "aim": [0.0, 1.4, 0.0]},
        {**panel, "name": "fill", "role": "fill", "position": [0.17, 1.5, 5.5], "aim": [0.17, 1.5, 2.4]},
    ]
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": lamps, "subject": {"z": 2.4, "framing": "chest"},
        "camera": {"z": 6.0, "y": 1.5, "focal_mm": 85.0},
    })  # fmt: skip
    finding = found(plan, "space.in-picture")
    assert finding.judgement.severity == "fix"
    assert say(finding.judgement.says) == "Before the screen where the action goes: fill"
    then = apply_changes(plan, finding.remedies[0].changes)
    assert found(then, "space.in-picture").judgement.severity == "fine"
    assert then.lights[1].position[0] > 0.35


def test_white_light_that_hardly_reaches_the_screen_gets_no_grid() -> None:
    """The key gives the shed's screen 9 % of its light; it gets a grid where it burns in another colour."""

    def grids(plan: Plan) -> list[str]:
        found = mixed_colour.RULE.propose(evaluate(plan, STORE), STORE)
        return [say(one.text) for one in found if one.text.id == "do/grid"]

    shed = fern_house_2.potting_shed()
    key = next(i for i, lamp in enumerate(shed.lights) if lamp.role == "key")
    assert grids(shed) == []
    warm = apply_changes(shed, [Change(f"lights[{key}].fixture.cct", 3200.0)])
    assert grids(warm) == ["A 40° grid on window key"]
    brighter = apply_changes(shed, [Change(f"lights[{key}].fixture.flux_lm", 60000.0)])
    assert grids(brighter) == ["A 40° grid on window key"]
