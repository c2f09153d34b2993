"""Clothes for top and legs: each is drawn, judged and keyed where it is worn."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.damage.damage import KeyDamage
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import Drawn, draw
from ausblick.core.matte.simulation import simulate
from ausblick.core.plan import Plan, plan_from
from ausblick.formats.recording import through
from tests.stores import STORE

BLOUSE = {"name": "blouse", "reflectance": [0.5, 0.05, 0.05]}
JEANS = {"name": "jeans", "reflectance": [0.05, 0.09, 0.30], "covers": "legs"}
LAMPS = [
    {"id": f"l{x}", "position": [x, 2.4, 1.6], "aim": [0.2 * x, 1.2, 0], "fixture": {"flux_lm": 12000.0}}
    for x in (-2.0, 2.0)
]
KEY = {"id": "key", "role": "key", "position": [-1.5, 2.4, 5.0], "aim": [0, 1.2, 2], "fixture": {"flux_lm": 12000.0}}


def dressed(*wardrobe: dict[str, Any], framing: str = "full") -> Plan:
    """Before a blue screen."""
    return plan_from(
        {
            "format": "ausblick-plan",
            "version": 1,
            "screen": {"hue": "blue", "reflectance": [0.05, 0.1, 0.42], "width": 3.6, "height": 3.0},
            "subject": {"z": 2.0, "framing": framing, "hair_kind": "none", "wardrobe": list(wardrobe)},
            "camera": {"z": 6.4, "y": 1.0, "focal_mm": 24.0, "f_number": 4.0, "iso": 800, "shutter_s": 0.02},
            "lights": [*LAMPS, KEY],
        }
    )


def picture(plan: Plan) -> Drawn:
    return draw(capture_of(evaluate(plan, STORE), STORE), overview_window(plan, 480))


def damage(plan: Plan) -> KeyDamage:
    found = evaluate(plan, STORE).damage
    assert found is not None
    return found.kinder


def led_by(drawn: Drawn, channel: int) -> tuple[float, float]:
    """How much of the figure is led by a channel: of its upper half, and of what is below."""
    there = drawn.alpha > 0.95
    rows = np.flatnonzero(there.any(axis=1))
    middle = int(0.5 * (rows[0] + rows[-1]))
    light = drawn.foreground / np.maximum(drawn.alpha, 1e-6)[..., None]
    leads = there & (light[..., channel] > 1.5 * np.delete(light, channel, axis=-1).max(axis=-1))
    return tuple(float(leads[part].sum() / there[part].sum()) for part in (np.s_[:middle], np.s_[middle:]))  # type: ignore[return-value]


def test_the_figure_wears_each_garment_where_it_belongs() -> None:
    drawn = picture(dressed(BLOUSE, JEANS))
    red_above, red_below = led_by(drawn, 0)
    blue_above, blue_below = led_by(drawn, 2)
    assert red_above > 0.4
    assert blue_above < 0.03
    assert blue_below > 0.5
    assert red_below < red_above


def test_what_covers_no_place_of_its_own_is_judged_and_not_drawn() -> None:
    tie = {"name": "tie", "reflectance": [0.05, 0.1, 0.42], "covers": "detail"}
    alone, tied = dressed(BLOUSE), dressed(BLOUSE, tie)
    assert np.array_equal(picture(alone).foreground, picture(tied).foreground)
    assert damage(tied).lost["tie"] > 40.0


def test_trousers_are_judged_where_they_are_in_the_picture() -> None:
    assert damage(dressed(BLOUSE, JEANS)).lost["jeans"] > 10.0
    assert "jeans" not in damage(dressed(BLOUSE, JEANS, framing="waist")).lost
    assert damage(dressed(BLOUSE, JEANS, framing="waist")).matte_loss == damage(dressed(BLOUSE)).matte_loss == 0.0


@pytest.mark.parametrize(("keying", "least"), [("kept", 4.0), pytest.param("away", 0.0, marks=pytest.mark.torture)])
def test_what_the_key_loses_of_trousers_is_drawn_as_it_is_told(keying: str, least: float) -> None:
    plan = dressed(BLOUSE, {**JEANS, "reflectance": [0.05, 0.1, 0.42], "keying": keying})
    told, drawn = damage(plan), simulate(plan, STORE, through)
    assert told.matte_loss is not None
    assert told.matte_loss >= least
    assert drawn.measures.matte_loss == pytest.approx(told.matte_loss, abs=3.0)
    assert drawn.quality == pytest.approx(told.quality, abs=8.0)
