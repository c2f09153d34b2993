"""The ledger of stops: a stop is a stop everywhere, solutions reach their targets or say what is missing."""

from __future__ import annotations

import pytest

from ausblick.core.advice.search.ledger import CLOSE, entries_of, ledger_of, standing_of
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.sentences import say
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar
from tests.stores import STORE

SIX = [seed_vault(), scree(), fern_dancer(), potting_shed(), seed_jar(), gardeners()]


def sum_of(plan: Plan) -> float:
    return sum(entry.stops for entry in entries_of(plan) if "lamps" not in entry.row)


@pytest.mark.parametrize(
    "change",
    [
        Change("camera.shutter_s", 0.04), Change("camera.f_number", 2.8284271), Change("camera.iso", 3200.0),
        Change("camera.nd_stops", 1.0),
    ],
)  # fmt: skip
def test_a_stop_is_a_stop_everywhere(change: Change) -> None:
    """What a row changes by is what screen and face change by."""
    plan = seed_vault()
    changed = apply_changes(plan, [change])
    before, after = (standing_of(evaluate(p, STORE)) for p in (plan, changed))
    assert before.screen is not None
    assert after.screen is not None
    assert before.face is not None
    assert after.face is not None
    moved = sum_of(changed) - sum_of(plan)
    assert abs(moved) == pytest.approx(1.0, abs=1e-6)
    assert after.screen - before.screen == pytest.approx(moved, abs=0.01)
    assert after.face - before.face == pytest.approx(moved, abs=0.01)


@pytest.mark.parametrize(
    "plan",
    [plan if i < 2 else pytest.param(plan, marks=pytest.mark.torture) for i, plan in enumerate(SIX)],
    ids=[p.title for p in SIX],
)
def test_each_shot_of_the_demo_has_a_solution_or_a_true_reason(plan: Plan) -> None:
    ledger = ledger_of(plan, frozenset(), STORE)
    assert ledger.solutions
    for solution in ledger.solutions:
        standing = standing_of(evaluate(apply_changes(plan, solution.changes), STORE))
        known = [v for v in (standing.screen, standing.face) if v is not None]
        if say(solution.says).startswith("Screen and face reach"):
            assert all(abs(v) <= CLOSE for v in known)
        elif solution.missing > 0.0:
            assert min(known) == pytest.approx(-solution.missing, abs=0.03)
            assert "f/" in say(solution.says) or "distance" in say(solution.says)
        else:
            assert max(known) > CLOSE


def test_locked_rows_stay() -> None:
    locked = frozenset({"iso", "screen lamps"})
    for solution in ledger_of(gardeners(), locked, STORE).solutions:
        paths = {change.path for change in solution.changes}
        assert "camera.iso" not in paths
        assert not any(path in ("lights[0].dimmer", "lights[1].dimmer") for path in paths)
        assert {e.row for e in solution.entries if e.locked} == locked


def test_solutions_say_what_they_do_to_the_rest() -> None:
    # The same portraits by a steady key: a shutter wins no light from a flash.
    steady = {"emitter": {"shape": "rect", "width": 0.6, "height": 0.6}, "flux_lm": 16000.0, "cct": 3200.0}
    plan = apply_changes(
        gardeners(),
        [
            Change("lights[2].fixture", steady),
            Change("lights[2].gel", [1.0, 1.0, 1.0]),
            Change("lights[2].dimmer", 0.55),
            Change("lights[2].modifier", {"kind": "none"}),
        ],
    )
    aperture, shutter_, iso = (
        next(s for s in ledger_of(plan, frozenset(), STORE).solutions if word in s.name)
        for word in ("Aperture", "Shutter", "ISO")
    )
    assert (aperture.outcome.depth_m or 0) < (iso.outcome.depth_m or 0)
    assert (shutter_.outcome.smear_px or 0) > (aperture.outcome.smear_px or 0)
    assert (iso.outcome.noise_percent or 0) > (aperture.outcome.noise_percent or 0)


def test_shutters_that_hold_whole_flashes() -> None:
    assert ledger_of(scree(), frozenset(), STORE).safe_shutters == pytest.approx((0.01, 0.02, 0.03, 0.04))


def test_the_opening_of_a_phone_is_locked_whoever_locks_what() -> None:
    phone = {
        "sensor.width_mm": 9.8,
        "sensor.height_mm": 5.5,
        "focal_mm": 6.9,
        "f_number": 1.8,
        "sensor.base_iso": 64.0,
    }
    plan = apply_changes(seed_vault(), [Change(f"camera.{path}", value) for path, value in phone.items()])
    ledger = ledger_of(plan, frozenset(), STORE)
    assert [entry.locked for entry in ledger.entries if entry.row == "aperture"] == [True]
    assert ledger.solutions
    assert all(apply_changes(plan, s.changes).camera.f_number == 1.8 for s in ledger.solutions)
