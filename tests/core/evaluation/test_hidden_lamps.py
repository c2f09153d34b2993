"""A lamp behind somebody's body is not in the picture, as the drawn picture has it."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.figure.behind_body import behind_bodies, bodies_in_frame
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import draw
from ausblick.core.plan import Plan, apply_changes, plan_from
from ausblick.core.sentences import say
from tests.conftest import lamp
from tests.stores import STORE

KEY = lamp(id="k", role="key", position=[-1.5, 2.4, 5.5], aim=[0.0, 1.5, 3.0])


def set_up(at: list[float], size: float = 0.2, **parts: Any) -> Plan:
    square = {"shape": "rect", "width": size, "height": size}
    back = lamp(id="b", name="hidden lamp", role="back", position=at, aim=[at[0], 1.5, 9.0], emitter=square)
    return plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [KEY, back],
        "subject": {"x": 0.0, "z": 3.0, "height": 1.7, "framing": "waist"}, "camera": {"z": 7.0, "y": 1.5}, **parts,
    })  # fmt: skip


def told(plan: Plan) -> tuple[str, str]:
    (found,) = [one for one in find(plan, STORE, with_remedies=False)[1] if one.rule.id == "space.in-picture"]
    return found.judgement.severity, say(found.judgement.says)


@pytest.mark.parametrize("at", [[0.0, 1.15, 2.2], [0.0, 1.05, 0.8], [0.05, 1.2, 2.6]])
def test_a_small_lamp_behind_the_chest_is_hidden_and_said_to_be(at: list[float]) -> None:
    assert told(set_up(at)) == ("fine", "Hidden behind the figure, as long as it keeps the mark: hidden lamp")


@pytest.mark.parametrize(
    ("at", "size", "parts"),
    [
        ([0.5, 1.15, 2.2], 0.2, {}),
        ([0.0, 1.75, 2.2], 0.2, {}),
        ([0.0, 1.15, 2.2], 0.9, {}),
        ([0.0, 1.15, 3.6], 0.2, {}),
        ([0.0, 1.15, 2.2], 0.2, {"camera": {"z": 7.0, "y": 1.5, "x": 1.5, "pan": -20.0}}),
        (
            [0.0, 1.15, 2.2],
            0.2,
            {"subject": {"z": 3.0, "body": "child", "height": 1.1, "framing": "waist"}},
        ),
    ],
    ids=["beside", "above the head", "wider than the body", "before it", "seen from aside", "a child before it"],
)
def test_a_lamp_that_shows_is_in_the_picture(at: list[float], size: float, parts: dict[str, Any]) -> None:
    assert told(set_up(at, size, **parts))[0] != "fine"


def test_a_companion_hides_a_lamp_too() -> None:
    other = {"id": "p2", "name": "other", "x": 0.8, "z": 3.0, "height": 1.7}
    at = [0.95, 1.15, 2.2]
    assert told(set_up(at))[0] != "fine"
    assert told(set_up(at, companions=[other]))[0] == "fine"


def test_what_is_told_to_be_hidden_is_covered_by_the_drawn_body() -> None:
    plan = set_up([0.0, 1.15, 2.2])
    capture, window = capture_of(evaluate(plan, STORE), STORE), overview_window(plan, 960)
    alpha = draw(capture, window).alpha
    x, y = np.meshgrid(np.linspace(-0.4, 0.4, 41), np.linspace(0.8, 1.8, 51))
    places = np.column_stack([x.ravel(), y.ravel(), np.full(x.size, 2.2)])
    frame, depth = capture.view.project(places)
    inside = np.all((frame > 0.0) & (frame < 1.0), axis=1)
    at = (frame[inside] * (window.width, window.height)).astype(int)
    drawn = alpha[at[:, 1], at[:, 0]] > 0.5
    hidden = behind_bodies(bodies_in_frame(plan, capture.view), frame[inside], depth[inside])
    assert 300 < hidden.sum() < 1200
    # Moving arms are drawn and hide nothing here; but for them both are the same.
    assert float((hidden & ~drawn).sum()) <= 0.02 * hidden.sum()
    assert float((drawn & ~hidden).sum()) <= 0.25 * drawn.sum()


@pytest.mark.parametrize(("wall", "word"), [(6.0, "out of the picture"), (1.2, "as far as the room goes")])
def test_a_lamp_is_sent_out_of_the_picture_only_where_the_room_has_such_a_place(wall: float, word: str) -> None:
    """A wide lens between near walls sees all of the room: "out of the picture" was said, and it stood in it."""
    room = {"x_min": -wall, "x_max": wall}
    plan = set_up([0.3, 1.9, 1.6], camera={"z": 7.0, "y": 1.5, "focal_mm": 30.0}, room=room)
    (found,) = find(plan, STORE, only=("space.in-picture",))[1]
    (sent,) = [one for one in found.remedies if "hidden lamp" in say(one.text) and "Move" in say(one.text)]
    assert word in say(sent.text)
    after = told(apply_changes(plan, sent.changes))
    assert (after[0] == "fine") == (wall > 2.0)
