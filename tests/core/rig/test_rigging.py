"""Rigging numbers against calculation by hand."""

from __future__ import annotations

import pytest

from ausblick.core.plan import plan_from
from ausblick.core.rig.materials import FACTS, facts_of
from ausblick.core.rig.rigging_sheet import rigging_sheet, tipping_moment, wind_force
from ausblick.core.rig.wardrobe_check import checks
from tests.conftest import MakePlan


def test_wind_and_moment_by_hand() -> None:
    # 3.0 x 2.6 m at 5 m/s: 0.5 * 1.25 * 25 * 1.2 * 7.8 = 146.25 N.
    assert wind_force(7.8, 5.0) == pytest.approx(146.25)
    # Two stands: 20 N * 2.6 m + 73.125 N * 1.3 m = 147.06 N m each.
    assert tipping_moment(2.6, 7.8, 2, 5.0) == pytest.approx(52.0 + 95.0625)


def test_cloth_indoors(make: MakePlan) -> None:
    sheet = rigging_sheet(make())
    # Edges 3.0 + 2 * 2.6 = 8.2 m, a clamp every 0.3 m; 7.8 m2 of muslin at 4 minutes.
    assert (sheet.clamps, sheet.edge_weights, sheet.stands, sheet.people) == (28, 4, 2, 2)
    assert sheet.steaming_min == pytest.approx(31.2)
    # 52 N m, half as much again, on feet of 0.5 m: 78 / 4.905 = 15.9 kg, three bags of 7 kg.
    assert sheet.ballast_kg == pytest.approx(15.9, abs=0.01)
    assert sheet.bags_per_stand == 3
    assert any("16 kg on each stand" in caution.says for caution in sheet.cautions)


@pytest.mark.parametrize(("kind", "what"), [("exterior", "Wind of 5 m/s"), ("interior", "A fan of 5 m/s")])
def test_moving_air_counts_and_adds_its_caution(make: MakePlan, kind: str, what: str) -> None:
    sheet = rigging_sheet(make(room={"kind": kind, "wind_ms": 5.0}))
    assert sheet.ballast_kg == pytest.approx(1.5 * 147.0625 / (9.81 * 0.5), rel=1e-6)
    assert any(caution.says.startswith(f"{what} pushes with 146 N") for caution in sheet.cautions)
    assert any("fan, and its guard" in caution.says for caution in sheet.cautions) == (kind == "interior")
    assert rigging_sheet(make(room={"kind": kind})).ballast_kg < 17


@pytest.mark.parametrize(
    ("material", "clamps", "stands", "steam"),
    [("paint", 0, 0, 0), ("pop-up", 0, 0, 0), ("framed", 0, 2, 0), ("paper", 8, 2, 0)],
)
def test_materials_that_need_less(make: MakePlan, material: str, clamps: int, stands: int, steam: float) -> None:
    sheet = rigging_sheet(make(screen={"material": material}))
    assert (sheet.clamps, sheet.stands, sheet.steaming_min) == (clamps, stands, steam)


def test_height_and_floor_bring_their_cautions(make: MakePlan) -> None:
    words = " ".join(c.says for c in rigging_sheet(make(screen={"height": 3.4, "floor_run": 2.5})).cautions)
    assert "step ladder" in words
    assert "competent rigger" in words
    assert "people slip" in words


def test_materials_have_properties_that_feed_the_model() -> None:
    assert facts_of("muslin") is not None
    assert facts_of("other") is None
    for facts in FACTS:
        plan = plan_from({
            "format": "ausblick-plan", "version": 1,
            "screen": {"material": facts.name, "gloss": facts.gloss, "transmittance": facts.transmittance,
                       "wrinkle_slope": facts.wrinkle_slope},
        })  # fmt: skip
        assert plan.screen.material == facts.name
        assert facts.widest > 1.0


def test_wardrobe_check_says_what_to_do_and_what_to_test(make: MakePlan) -> None:
    subject = {
        "hair": [0.42, 0.32, 0.17], "hair_kind": "curly",
        "wardrobe": [{"name": "fern cape", "reflectance": [0.1, 0.28, 0.08]}, {"name": "latex glove", "gloss": 0.5}],
        "props": [{"name": "glasses", "kind": "glass"}, {"name": "book", "kind": "matt"},
                  {"name": "fog", "kind": "smoke"}],
    }  # fmt: skip
    found = {check.thing: check for check in checks(make(subject=subject))}
    assert list(found) == ["fern cape", "hair", "latex glove", "glasses", "fog"]
    assert "hold-out" in found["fern cape"].do
    assert "fair and curly" in found["hair"].matter
    assert all(check.do and check.test for check in found.values())
    assert checks(make()) == []
    assert checks(make(subject=None)) == []
