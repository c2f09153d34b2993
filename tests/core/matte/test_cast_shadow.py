"""Shadows in the picture are those of the body that is drawn: against geometry, and between the feet."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import Capture, LitSheet, capture_of
from ausblick.core.plan import plan_from

HEIGHT, MARK = 1.75, 2.0


def capture(lamp: list[float], **subject: Any) -> Capture:
    """One small lamp in a black room."""
    plan = plan_from({
        "format": "ausblick-plan", "version": 1,
        "room": {"reflectance": {"walls": [0.0] * 3, "ceiling": [0.0] * 3, "floor": [0.0] * 3}},
        "screen": {"width": 5.0, "height": 3.0, "bottom": 0.0, "floor_run": 3.0, "wrinkle_slope": 0.0, "gloss": 0.0},
        "subject": {"z": MARK, "height": HEIGHT, "framing": "full", "feet_seen": True, **subject},
        "camera": {"z": 7.0, "y": 1.2},
        "lights": [{"position": lamp, "aim": [0.0, 1.0, 1.0],
                    "fixture": {"flux_lm": 9000.0, "emitter": {"shape": "disc", "width": 0.02, "height": 0.02}}}],
    })  # fmt: skip
    store = BasisStore()
    return capture_of(evaluate(plan, store), store)


def column(sheet: LitSheet, x: float) -> np.ndarray[Any, np.dtype[np.float64]]:
    return np.asarray(sheet.look[:, int(np.argmin(np.abs(sheet.xs - x))), 1])


def test_the_shadow_of_the_crown_falls_where_the_ray_past_it_does() -> None:
    """From a lamp 1.5 m high and 6 m out past a crown at 1.75 m, 2 m out: at 1.875 m on the wall, within 5 cm."""
    wall = capture([0.0, 1.5, 6.0]).sheets[0]
    lit = column(wall, 0.0)
    dark = lit < 0.5 * column(wall, 2.2)
    assert float(wall.ys[dark].max()) == pytest.approx(1.5 + (HEIGHT - 1.5) * 6.0 / 4.0, abs=0.05)


@pytest.mark.parametrize("out", [6.0, MARK + 0.8])
def test_light_comes_through_between_the_legs(out: float) -> None:
    """The numbers' cylinder would shut it out; the drawn legs let it by on to the run behind them."""
    shown = capture([0.0, 0.9, out])
    run = next(sheet for sheet in shown.sheets if sheet.sheet.name == "floor run")
    row = run.look[int(np.argmin(np.abs(run.ys - (MARK - 0.35)))), :, 1]
    near = np.abs(run.xs) < 0.35
    middle = np.abs(run.xs) < 0.02
    beside = float(np.median(row[np.abs(np.abs(run.xs) - 0.9) < 0.1]))
    assert float(row[near].min()) < 0.25 * beside, "a leg's shadow"
    assert float(row[middle].max()) > 0.6 * beside, "the gap between them"


def test_hands_alone_keep_the_shadow_that_the_numbers_know() -> None:
    """No body is drawn for them: the wall is as coarse and as dark as it is judged."""
    found = capture([0.0, 1.5, 6.0], framing="hands", feet_seen=False)
    assert found.sheets[0].look.shape[0] < 60


@pytest.mark.parametrize("height", [1.5, 2.1])
def test_from_close_by_a_lamp_sees_the_body_all_round(height: float) -> None:
    """0.5 m before the mark: what the crown, above the lamp or below, hides of the wall ends five times as far from
    the lamp's height."""
    wall = capture([0.0, height, MARK + 0.5]).sheets[0]
    dark = column(wall, 0.0) < 0.2 * column(wall, 1.5)
    assert float(wall.ys[dark].max()) == pytest.approx(height + (HEIGHT - height) * (MARK + 0.5) / 0.5, abs=0.25)
