"""What has the screen's colour on purpose is keyed away and costs nothing; what must stay is held out."""

from __future__ import annotations

import io
import json
import zipfile

import pytest

from ausblick.app.bundle import HandedOver, bundle_zip
from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.matte.simulation import SimulatedKey, simulate
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.rig.wardrobe_check import hue_checks
from ausblick.core.sentences import say
from ausblick.demo.fern_house_2 import gardeners
from ausblick.formats.recording import through
from tests.stores import STORE

KEYING = ("kept", "away", "held-out")


def in_moss(keying: str) -> Plan:
    """A suit of the screen's own colour."""
    plan = gardeners()
    suit = {"name": "moss suit", "reflectance": list(plan.screen.reflectance), "keying": keying}
    return apply_changes(plan, [Change("subject.wardrobe", [suit])])


def judged(plan: Plan, remedies: bool = False) -> tuple[Evaluation, Finding]:
    evaluation, (finding,) = find(plan, STORE, with_remedies=remedies, only={"screen.hue"})
    return evaluation, finding


@pytest.fixture(scope="module")
def keys() -> dict[str, SimulatedKey]:
    return {keying: simulate(in_moss(keying), STORE, through, 4) for keying in KEYING}


def test_a_suit_that_is_to_vanish_is_no_finding_and_one_that_must_stay_is_held_out() -> None:
    worn, purpose, held = (judged(in_moss(keying))[1].judgement for keying in KEYING)
    assert worn.severity == "stop"
    assert purpose.severity == "fine"
    assert held.severity == "consider"
    assert say(held.says) == "moss suit must stay though it shares the screen's colour: held out at the edit"
    assert [len(hue_checks(in_moss(keying))) for keying in KEYING] == [1, 0, 0]


def test_holding_out_is_a_remedy_with_what_it_costs() -> None:
    _, finding = judged(in_moss("kept"), remedies=True)
    remedy = next(one for one in finding.remedies if "hold-out" in say(one.text))
    assert say(remedy.text) == "moss suit must stay: draw a hold-out round it"
    after = apply_changes(in_moss("kept"), list(remedy.changes))
    assert after.subject is not None
    assert after.subject.wardrobe[0].keying == "held-out"
    assert judged(after)[1].judgement.severity == "consider"


@pytest.mark.torture
def test_the_test_key_takes_it_away_or_keeps_it(keys: dict[str, SimulatedKey]) -> None:
    loss = {keying: key.measures.matte_loss or 0.0 for keying, key in keys.items()}
    assert loss["kept"] > 50.0
    assert loss["away"] < 2.0
    assert loss["held-out"] < 6.0
    drawn = {keying: key.overview.drawn for keying, key in keys.items()}
    # Of the figure only what is bare is left; the suit is screen.
    assert drawn["away"].alpha.sum() < 0.5 * drawn["kept"].alpha.sum()
    pulled = {keying: key.overview.pulled for keying, key in keys.items()}
    suit = drawn["held-out"].held > 0.999
    means = {}
    for keying, found in pulled.items():
        assert found is not None
        means[keying] = float(found.matte[suit[: found.matte.shape[0], : found.matte.shape[1]]].mean())
    assert means["held-out"] > 0.95
    assert means["away"] < 0.35
    assert keys["kept"].quality < 20.0 < 55.0 < min(keys["away"].quality, keys["held-out"].quality)


@pytest.mark.torture
def test_what_is_predicted_follows(keys: dict[str, SimulatedKey]) -> None:
    for keying in KEYING:
        damage = judged(in_moss(keying))[0].damage
        assert damage is not None
        assert damage.kinder.quality == pytest.approx(keys[keying].quality, abs=15.0)


def test_the_hand_over_names_both() -> None:
    for keying, field, words in (
        ("away", "keyed_away", "to be keyed away: moss suit."),
        ("held-out", "planned_hold_outs", "Hold out, they must stay: moss suit."),
    ):
        archive = zipfile.ZipFile(io.BytesIO(bundle_zip([HandedOver(in_moss(keying))], basis=STORE)))
        assert json.loads(archive.read("keying.json"))[field] == ["moss suit"]
        assert words in archive.read("begin-here.txt").decode()
