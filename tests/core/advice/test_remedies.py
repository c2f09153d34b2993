"""A remedy is a promise: applied for real, a fresh look at the changed plan says what was said."""

from __future__ import annotations

import pytest

from ausblick.core.advice.causes import CAUSES
from ausblick.core.advice.check_report import check_report
from ausblick.core.advice.findings import find
from ausblick.core.advice.moves.lamps_moved import gridded, softened
from ausblick.core.advice.rule import RANK, Finding, Judgement, Remedy
from ausblick.core.advice.rule_set import CRAFT, RuleSet
from ausblick.core.advice.rules.kit_rules import rules_with
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.kit import kit_from
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.lamp_bodies import through_walls
from ausblick.core.plan import Plan, apply_changes, plan_from
from ausblick.core.sentences import digits, say
from tests.conftest import MakePlan, lamp
from tests.core.advice.limit_plans import DOCUMENT, plan_with
from tests.demo_findings import DEMO, SMALL_KIT, demo_findings, found
from tests.dice_plans import built
from tests.stores import STORE

Judged = dict[str, Judgement]


def judgements(plan: Plan, rules: RuleSet, store: BasisStore = STORE) -> Judged:
    return {f.rule.id: f.judgement for f in find(plan, store, rules, with_remedies=False)[1]}


def keeps_its_promise(
    finding: Finding, remedy: Remedy, before: dict[str, Judgement], after: dict[str, Judgement]
) -> None:
    new = after.get(finding.rule.id)
    assert remedy.outcome == ("does-not-apply" if new is None else "cured" if new.severity == "fine" else "better")
    assert remedy.after == (None if new is None else pytest.approx(new.value, rel=1e-6, abs=1e-9))
    assert new is None or new.excess <= 0.98 * finding.judgement.excess
    if new is not None and new.severity == finding.judgement.severity:
        told = [digits(value or 0.0, finding.rule.digits) for value in (remedy.before, remedy.after)]
        assert told[0] != told[1], f"{finding.rule.id}: {say(remedy.text)} changes nothing that is read"
    worse = {
        rule
        for rule, judgement in after.items()
        if RANK[judgement.severity] < RANK[before[rule].severity if rule in before else "fine"]
    }
    # What clipping hid is there before and after: to show it is not told as making it worse.
    hidden = {rule for rule in worse if rule == "key.clip" or any(by == "key.clip" for by, _ in CAUSES.get(rule, ()))}
    shown = hidden if "key.clip" in before and before["key.clip"].hidden > 0.0 else set()
    assert worse - shown <= set(remedy.worsens) <= worse


@pytest.mark.parametrize("title", DEMO)
def test_every_remedy_does_what_it_says(title: str) -> None:
    plan, tried = DEMO[title], 0
    before = judgements(plan, SMALL_KIT)
    for finding in demo_findings(title).values():
        for remedy in finding.remedies:
            keeps_its_promise(finding, remedy, before, judgements(apply_changes(plan, remedy.changes), SMALL_KIT))
            tried += 1
    assert tried >= 2


def test_a_remedy_holds_in_a_fresh_store_too() -> None:
    finding = demo_findings("Fern dancer")["key.clip"]
    remedy = finding.remedies[0]
    after = judgements(apply_changes(DEMO["Fern dancer"], remedy.changes), SMALL_KIT, BasisStore())["key.clip"]
    assert after.value == pytest.approx(remedy.after, rel=1e-6)


KIT = rules_with(
    kit_from(
        {
            "format": "ausblick-kit", "version": 1, "lamps": [], "cameras": [], "stands": [],
            "lenses": [{"name": "50 mm", "focal_mm": 50.0}],
            "screens": [{"name": "small", "width": 2.0, "height": 2.0}],
        }
    )
)  # fmt: skip


def test_a_kit_remedy_is_judged_by_the_kit(make: MakePlan) -> None:
    """Judged without the kit's rules it counted as cured unseen."""
    plan = make(camera={"focal_mm": 40})
    before = judgements(plan, KIT)
    finding = find(plan, STORE, KIT, only=("kit.lens",))[1][0]
    assert finding.judgement.severity == "consider"
    assert finding.remedies[0].outcome == "cured"
    keeps_its_promise(
        finding, finding.remedies[0], before, judgements(apply_changes(plan, finding.remedies[0].changes), KIT)
    )


def test_what_the_kit_does_not_have_is_not_offered(make: MakePlan) -> None:
    """The cure for a distorted face asks for a longer lens, that of folds for a wider aperture."""
    near = make(camera={"z": 3.0, "focal_mm": 50}, subject={"framing": "chest"})
    assert find(near, STORE, only=("space.distortion",))[1][0].remedies
    assert find(near, STORE, KIT, only=("space.distortion",))[1][0].remedies == ()
    dark = make(
        camera={"focal_mm": 50, "f_number": 2.8}, lights=[lamp(role="key", position=[0, 1.8, 5.0], flux_lm=500)]
    )
    for rules, offered in ((CRAFT, True), (KIT, False)):
        remedies = find(dark, STORE, rules, only=("subject.exposure",))[1][0].remedies
        wider = [r for r in remedies if any(c.path == "camera.f_number" and c.value < 2.8 for c in r.changes)]
        assert bool(wider) == offered


def test_a_rule_that_no_longer_applies_is_not_told_as_cured(make: MakePlan) -> None:
    """Without its light from behind the cloth is not asked for any more; that is no value of nought."""
    plan = make(screen={"behind_lux": 900}, lights=[lamp(position=[-2, 1.3, 2], aim=[0, 1.3, 0])])
    report = check_report(*find(plan, STORE, only=("light.behind",)))
    curtains = next(remedy for remedy in report.findings[0].remedies if "curtains" in remedy.text)
    assert curtains.outcome == "does-not-apply"
    assert curtains.after is None
    assert curtains.effect.endswith("no longer a question")
    cloth = next(remedy for remedy in report.findings[0].remedies if "opaque" in remedy.text)
    assert cloth.outcome == "cured"
    assert cloth.after == pytest.approx(0.0)


def test_the_mark_takes_its_lamps_along(make: MakePlan) -> None:
    """A face left behind by its key lost half its light: 599 lx became 224."""
    key = lamp(role="key", position=[-1.2, 2.0, 2.2], aim=[0.0, 1.55, 0.8])
    plan = make(subject={"z": 0.8}, lights=[key])
    evaluation, findings = find(plan, STORE, only=("space.gap",))
    lux = evaluation.exposure.subject_lux
    assert lux is not None
    for remedy in findings[0].remedies:
        changed = apply_changes(plan, remedy.changes)
        moved = changed.subject.z - 0.8 if changed.subject else 0.0
        assert changed.lights[0].position[2] == pytest.approx(2.2 + moved)
        after = find(changed, STORE, with_remedies=False)[0].exposure.subject_lux
        assert after == pytest.approx(lux, rel=0.1)


def test_a_grid_goes_before_what_is_on_a_lamp_and_stays_there(make: MakePlan) -> None:
    box = {"kind": "softbox", "width": 0.8, "height": 0.8}
    plan = make(lights=[lamp(flux_lm=3000, position=[0, 2, 4], aim=[0, 1, 0]) | {"modifier": box}])
    (with_grid,) = gridded(0, plan.lights[0])
    after = apply_changes(plan, with_grid.changes)
    assert [one.kind for one in after.lights[0].modifiers] == ["softbox", "grid"]
    assert gridded(0, after.lights[0]) == []
    grid = make(lights=[lamp(flux_lm=3000, position=[0, 2, 4], aim=[0, 1, 0]) | {"modifier": {"kind": "grid"}}])
    (soft,) = softened(grid, 0, grid.lights[0])
    assert [one.kind for one in apply_changes(grid, soft.changes).lights[0].modifiers] == ["softbox", "grid"]


def test_a_panel_that_reaches_through_the_wall_is_moved_off_it_and_aimed_as_before(make: MakePlan) -> None:
    """A panel of 1.2 m turned across, 0.3 m from a garage's wall, and a low one whose edge is in the floor."""
    square = {"shape": "rect", "width": 1.2, "height": 1.2}
    plan = make(
        room={"x_min": -1.5, "x_max": 1.5, "height": 2.4},
        lights=[
            lamp(name="left", position=[-1.2, 1.4, 2.2], aim=[-0.4, 1.3, 0.0], emitter=square),
            lamp(name="right", position=[1.0, 0.5, 2.2], aim=[0.4, 1.3, 0.0], emitter={**square, "width": 0.4}),
        ],
    )
    (finding,) = find(plan, STORE, only=("space.through-wall",))[1]
    assert finding.judgement.severity == "consider"
    assert finding.judgement.value == pytest.approx(1.2 * 0.5 * 2.2 / (0.8**2 + 2.2**2) ** 0.5 - 0.3, abs=0.01)
    moved = apply_changes(plan, finding.remedies[0].changes)
    assert [after.aim for after in moved.lights] == [before.aim for before in plan.lights]
    assert all(not through_walls(moved, one).any() for one in moved.lights)
    assert max(abs(a - b) for a, b in zip(moved.lights[0].position, plan.lights[0].position, strict=True)) < 0.35
    assert find(moved, STORE, only=("space.through-wall",))[1][0].judgement.severity == "fine"


def test_a_panel_that_the_room_is_too_small_for_is_not_said_to_be_moved(make: MakePlan) -> None:
    def wall(width: float, position: list[float], name: str) -> dict[str, object]:
        emitter = {"shape": "rect", "width": width, "height": width}
        return lamp(name=name, position=position, aim=[position[0], 1.3, 0.0], emitter=emitter)

    lights = [wall(1.0, [-1.2, 1.3, 2.2], "panel"), wall(3.5, [0.0, 1.2, 3.0], "wall of light")]
    plan = make(room={"x_min": -1.5, "x_max": 1.5, "height": 2.4}, lights=lights)
    (finding,) = find(plan, STORE, only=("space.through-wall",))[1]
    assert say(finding.judgement.says).startswith("wall of light")
    (proposal,) = finding.rule.propose(evaluate(plan, STORE), STORE)
    assert say(proposal.text) == "Move panel back inside the room"
    assert [change.path for change in proposal.changes] == ["lights[0].position"]
    assert find(make(room={"x_min": -1.5, "x_max": 1.5, "height": 2.4}, lights=lights[1:]), STORE,
                only=("space.through-wall",))[1][0].remedies == ()  # fmt: skip


def test_a_hand_that_is_lost_though_its_smear_is_short_is_offered_a_quicker_shutter() -> None:
    """It was offered slower ones, and "no shutter the light allows is fast enough"."""
    plan = plan_from(built(929))
    assert judgements(plan, CRAFT)["camera.smear"].severity == "fine"
    finding = found(plan, "key.motion")
    shutters = [apply_changes(plan, one.changes).camera.shutter_s for one in finding.remedies]
    assert min(shutters) == pytest.approx(0.5 * plan.camera.shutter_s)
    assert max(shutters) <= plan.camera.shutter_s


def test_noise_of_a_screen_that_is_too_dark_is_cured_by_the_lens() -> None:
    """At base ISO nothing was offered, with three stops left in the lens."""
    plan = plan_from(built(903))
    assert plan.camera.iso == plan.camera.sensor.base_iso
    finding = found(plan, "key.motion")
    assert finding.judgement.says.parameters["causes"][0].id == "key.motion/noise"  # type: ignore[index, union-attr]
    best = apply_changes(plan, finding.remedies[0].changes)
    assert best.camera.f_number < plan.camera.f_number
    assert judgements(best, CRAFT)["key.motion"].excess < 0.3 * finding.judgement.excess


def test_a_bright_screen_is_dimmed_though_the_face_loses_what_it_returned() -> None:
    """Nothing was offered where the face is dark: some hundredths of a stop on it come back from the screen."""
    screen_lamp, key, _ = DOCUMENT["lights"]
    strong = {"flux_lm": 22_500.0}
    lights = [
        *(
            {**screen_lamp, "id": name, "position": [x, 1.3, 1.3], "aim": [-0.5 * x, 1.3, 0.0], "fixture": strong}
            for name, x in (("l1", -2.2), ("l2", 2.2))
        ),
        {**key, "fixture": {"flux_lm": 5000.0}, "modifier": {"kind": "grid"}},
    ]
    black = [0.05, 0.05, 0.05]
    plan = plan_with(lights=lights, room={"reflectance": {"walls": black, "ceiling": black, "floor": black}})
    dimmed = [one for one in found(plan, "light.level").remedies if say(one.text).startswith("Screen lamps down")]
    face = [
        judgements(one, CRAFT)["subject.exposure"].excess for one in (plan, apply_changes(plan, dimmed[0].changes))
    ]
    assert 0.0 < face[1] - face[0] < 0.1


def test_the_only_key_is_not_taken_away_for_what_it_does_to_the_screen() -> None:
    """A window that lights face and cloth was to be blacked out, and the room's own light would have been left."""
    pane = {"emitter": {"shape": "window", "width": 1.2, "height": 1.4}, "luminance": 4000.0}
    window = {"id": "w", "name": "left window", "role": "key", "position": [-2.0, 1.5, 2.2], "aim": [0.0, 1.5, 1.5]}
    lit = {
        "room": {"x_min": -2.0, "x_max": 2.0, "height": 2.5, "ambient_lux": 60.0},
        "subject": {"z": 1.5, "framing": "chest"},
        "camera": {"z": 3.6, "focal_mm": 28.0, "f_number": 2.8, "shutter_s": 0.02, "iso": 800.0},
    }

    def offered(*lights: dict[str, object]) -> list[str]:
        _, findings = find(plan_with(**lit, lights=list(lights)), STORE)
        return [say(one.text) for finding in findings for one in finding.remedies]

    alone = {**window, "fixture": pane}
    assert not any("Black out" in one for one in offered(alone))
    assert any("Black out" in one for one in offered(alone, DOCUMENT["lights"][1]))
