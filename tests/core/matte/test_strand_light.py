"""Loose hair is lit from where the hair under it is."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.figure.loose_strands import light_on_strands
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.drawn_place import place_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.render import draw
from ausblick.core.matte.strand_light import strand_light
from tests.conftest import MakePlan, lamp
from tests.stores import STORE


@pytest.mark.parametrize("side", [-1.0, 1.0])
def test_strands_are_bright_on_the_side_that_the_key_is_on(make: MakePlan, side: float) -> None:
    """One key from aside: the strands there have twice the light of the others, all of them in the mean as much as is
    told of hair."""
    plan = make(
        subject={"z": 2.4, "framing": "chest", "hair_kind": "fine"},
        lights=[lamp(role="key", position=[2.2 * side, 1.8, 3.0], aim=[0.0, 1.6, 2.4])],
        room={"reflectance": {"walls": [0.05] * 3, "ceiling": [0.05] * 3, "floor": [0.05] * 3}},
    )
    assert plan.subject is not None
    capture = capture_of(evaluate(plan, STORE), STORE)
    window = crop_windows(capture)["hair"]
    place = place_of(capture, plan.subject, window)
    box = slice(0, window.height), slice(0, window.width)
    found, (x, y) = strand_light(capture, plan.subject, place, box), place.shares(box)
    beside = (np.abs(y - 0.952) < 0.02) & (np.abs(np.abs(x) - 0.06) < 0.01)
    lit, dark = (found[beside & (x * way > 0.0)].mean() for way in (side, -side))
    assert lit > 2.0 * dark
    told = light_on_strands(capture.light)
    round_it = (np.abs(np.hypot(x, (y - 0.952) / 1.08) - 0.06) < 0.01) & (y > 0.93)
    assert found[round_it].mean() == pytest.approx(told.mean(), rel=0.15)


def test_soft_hair_that_reaches_the_edge_of_its_window_is_drawn(make: MakePlan) -> None:
    """Somebody beside the subject, out of focus: the disc of a strand would reach beyond the window."""
    plan = make(
        subject={"z": 2.4, "framing": "face", "hair_kind": "curly"},
        companions=[{"x": 0.35, "z": 1.6, "hair_kind": "curly"}],
        camera={"f_number": 1.4, "z": 4.4, "focal_mm": 50.0},
        lights=[lamp(role="key", position=[1.5, 1.8, 3.6], aim=[0.0, 1.6, 2.4])],
    )
    capture = capture_of(evaluate(plan, STORE), STORE)
    assert capture.others[0].unsharp_px > 3.0
    for window in crop_windows(capture).values():
        drawn = draw(capture, window)
        assert np.isfinite(drawn.frame).all()
