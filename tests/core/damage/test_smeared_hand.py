"""How far a moving hand covers what is behind it: nothing of it is lost, and the drawn one covers as much."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.view import view_of
from ausblick.core.damage.smeared_hand import COVERS, SmearedHand, smeared_hand
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.render import draw
from ausblick.core.plan import Plan, plan_from
from tests.stores import STORE


def plan(shutter: float = 0.02, roll: float = 0.0, screen: dict[str, Any] | None = None, **subject: Any) -> Plan:
    return plan_from({
        "format": "ausblick-plan", "version": 1,
        "lights": [{"position": [-2.2, 1.6, 3.0]},
                   {"role": "key", "position": [1.2, 2.2, 5.0], "aim": [0, 1.4, 2.4]}],
        "screen": {"width": 4.0, "height": 3.0, "wrinkle_slope": 0.0, **(screen or {})},
        "subject": {"framing": "waist", "hair_kind": "none", **subject},
        "camera": {"focal_mm": 35.0, "z": 6.0, "y": 1.5, "shutter_s": shutter, "roll": roll},
    })  # fmt: skip


def seen(smear_px: float, **subject: Any) -> SmearedHand:
    own = plan(**subject)
    assert own.subject is not None
    return smeared_hand(own, own.subject, view_of(own.camera, own.subject), smear_px)


def covered(found: SmearedHand) -> float:
    return float((found.hand + found.sleeve) @ COVERS)


def test_however_far_it_is_smeared_a_hand_covers_as_much_in_sum() -> None:
    """A hand is some 18 cm long and 9 cm wide: of 60 to 200 cm2 with fingers apart and what the crop has of the
    sleeve."""
    short, long = seen(9.0), seen(60.0)
    assert covered(short) == pytest.approx(covered(long), rel=0.08)
    assert 60.0 < float(short.hand @ COVERS) < 200.0
    assert 40.0 < short.hand_edge < 120.0


def test_a_smear_too_short_for_the_cells_melts_in_proportion() -> None:
    melts = [float((found.hand + found.sleeve)[:-1].sum()) for found in map(seen, (0.5, 1.0, 2.0))]
    assert melts[1] == pytest.approx(2.0 * melts[0], rel=0.1)
    assert melts[2] == pytest.approx(4.0 * melts[0], rel=0.1)


@pytest.mark.parametrize(("body", "roll"), [("man", 0.0), ("child", 0.0), ("man", 90.0)])
def test_the_drawn_hand_melts_as_far(body: str, roll: float) -> None:
    own = plan(roll=roll, body=body, height=1.2 if body == "child" else 1.75)
    evaluation = evaluate(own, STORE)
    capture = capture_of(evaluation, STORE)
    drawn = draw(capture, crop_windows(capture)["hand"])
    part = float(((drawn.hand > 0.02) & (drawn.alpha < 0.99)).sum()) * drawn.cm2
    assert own.subject is not None
    assert evaluation.blur.motion_px is not None
    told = smeared_hand(own, own.subject, capture.view, evaluation.blur.motion_px)
    assert float((told.hand + told.sleeve)[1:-1].sum()) == pytest.approx(part, rel=0.15)


def test_a_hand_that_reaches_past_the_screen_melts_into_what_there_is_of_it() -> None:
    """The screen ends on the right behind the middle of the hand, 1.4 m short of where it did."""
    own = plan(screen={"x_centre": -1.4})
    evaluation = evaluate(own, STORE)
    capture = capture_of(evaluation, STORE)
    drawn = draw(capture, crop_windows(capture)["hand"])
    melts = (drawn.hand > 0.02) & (drawn.alpha < 0.99)
    part, whole = (float(one.sum()) * drawn.cm2 for one in (melts & (drawn.screen > 0.5), melts))
    assert own.subject is not None
    assert evaluation.blur.motion_px is not None
    smear = evaluation.blur.motion_px
    told = smeared_hand(own, own.subject, capture.view, smear)
    assert 0.3 * whole < part < 0.7 * whole
    assert float((told.hand + told.sleeve)[1:-1].sum()) == pytest.approx(part, rel=0.2)
    winged = plan(screen={"x_centre": -1.4, "wing_right": 2.0})
    assert winged.subject is not None
    again = smeared_hand(winged, winged.subject, capture.view, smear)
    assert float((again.hand + again.sleeve)[1:-1].sum()) == pytest.approx(whole, rel=0.15)


@pytest.mark.parametrize(("run", "is_told"), [(4.0, True), (1.5, False)])
def test_from_above_it_is_the_floor_run_that_a_hand_melts_into(run: float, is_told: bool) -> None:
    """A lens 3.9 m high, 1.2 m before the mark, sees the hand before the floor some 1.7 m from the wall."""
    own = plan(screen={"floor_run": run, "width": 3.2}).model_dump(mode="json")
    own["camera"].update(y=3.9, z=3.6, tilt=-70.0, focal_mm=20.0)
    evaluation = evaluate(
        plan_from({**own, "subject": {**own["subject"], "x": 0.4, "framing": "full", "feet_seen": True}}), STORE
    )
    assert evaluation.damage is not None
    assert (evaluation.damage.kinder.motion_error is not None) is is_told


def test_a_hand_beyond_the_screen_loses_nothing_and_is_no_finding() -> None:
    own = plan(screen={"x_centre": -2.0})
    evaluation = evaluate(own, STORE)
    assert evaluation.damage is not None
    assert evaluation.damage.kinder.motion_error is None


def test_a_border_through_a_moving_hand_takes_nothing_of_it() -> None:
    """It moves in from beyond the border, too: there is as much of it as in a picture that goes on there."""
    capture = capture_of(evaluate(plan(), STORE), STORE)
    whole = crop_windows(capture)["hand"]
    half = replace(whole, width=whole.width // 2, height=whole.height // 2)
    wide, cut = draw(capture, whole), draw(capture, half)
    here = wide.alpha[: half.height, : half.width]
    assert 0.2 < here[-1].mean() < 0.9
    assert np.abs(cut.alpha - here).max() < 1e-3
