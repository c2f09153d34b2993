"""Flash: energy instead of power, the shutter no longer decides, and what steady light beside it does."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import Plan, PlanError, plan_from
from tests.stores import STORE

DARK = {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}


def plan(flash: dict[str, Any] | None = None, **more: Any) -> Plan:
    bare = {"emitter": {"shape": "point"}, "flash_lms": 1000.0, "beam": {"kind": "cosine", "n": 0}}
    fixture = {**bare, **(flash or {})}
    key = {"role": "key", "fixture": fixture, "position": [0, 1.6, 4.4], "aim": [0, 1.6, 2.4]}
    return plan_from({
        "format": "ausblick-plan", "version": 1, "medium": "stills", "room": {"reflectance": DARK},
        "screen": {"reflectance": [0, 0, 0]}, "subject": {"z": 2.4, "height": 1.6 / 0.93},
        "lights": [key, *more.pop("lights", [])], "camera": {"shutter_s": 0.008, **more},
    })  # fmt: skip


def severity(own: Plan, rule: str) -> str | None:
    return next((f.judgement.severity for f in find(own, STORE, with_remedies=False)[1] if f.rule.id == rule), None)


def test_lux_seconds_of_a_bare_flash() -> None:
    """A point that sends Q lm s all round gives Q / (4 pi d^2) lx s at d, whatever the shutter."""
    for shutter in (0.004, 0.008, 0.5):
        found = evaluate(plan(shutter_s=shutter), STORE)
        assert found.flash is not None
        assert found.flash.lux_s == pytest.approx(1000.0 / (4.0 * np.pi * 4.0), rel=0.01)
        assert found.flash.ambient_percent == pytest.approx(0.0, abs=0.1)
        exposed = (found.exposure.subject_lux or 0.0) * shutter
        assert exposed == pytest.approx(found.flash.lux_s, rel=1e-6)


def test_the_flash_freezes_what_the_shutter_would_smear() -> None:
    alone = evaluate(plan(), STORE)
    lamp = {"role": "fill", "fixture": {"flux_lm": 400_000.0}, "position": [1, 1.6, 4.4], "aim": [0, 1.6, 2.4]}
    both = evaluate(plan(lights=[lamp]), STORE)
    assert both.flash is not None
    assert both.flash.ambient_percent > 50.0
    assert (both.blur.motion_px or 0) == pytest.approx(8.0 * (alone.blur.motion_px or 0), rel=1e-6)
    assert severity(plan(lights=[lamp]), "camera.flash-ghost") in ("consider", "fix")
    assert severity(plan(), "camera.flash-ghost") == "fine"


def test_a_shutter_beyond_sync_and_a_flash_for_a_take_are_stopped() -> None:
    assert severity(plan(shutter_s=0.001), "camera.sync") == "stop"
    assert severity(plan(), "camera.sync") == "fine"
    moving = plan().model_copy(update={"medium": "video"})
    assert severity(moving, "camera.flash-video") == "stop"
    assert severity(moving, "camera.flashing") == "consider"


def test_recycling_goes_with_the_power_that_is_set() -> None:
    half = plan({"recycle_s": 3.0})
    half = half.model_copy(update={"lights": (half.lights[0].model_copy(update={"dimmer": 0.5}),)})
    found = evaluate(half, STORE).flash
    assert found is not None
    assert found.recycle_s == pytest.approx(1.5)


def test_a_lamp_has_one_power() -> None:
    with pytest.raises(PlanError, match="exactly one of flux_lm, peak_cd and flash_lms"):
        plan({"flux_lm": 500.0})
