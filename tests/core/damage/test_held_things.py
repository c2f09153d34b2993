"""What is held before the screen: metal shows the screen at its outline, glass is no outline, arms hide a shadow."""

from __future__ import annotations

from functools import cache
from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.damage.held_things import mirrored_at_edge
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.both_formulas import measure_all
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.quality import Measures
from ausblick.core.plan import Plan, Subject, apply_changes, plan_from
from ausblick.core.sentences import say
from ausblick.formats.recording import through
from tests.stores import STORE

PANEL = {"fixture": {"flux_lm": 16000.0, "emitter": {"shape": "rect", "width": 0.9, "height": 0.6}}}


def plan_with(props: tuple[str, ...], framing: str = "hands", focal: float = 85.0, key: float = 1.6) -> Plan:
    lamps: list[dict[str, Any]] = [
        {**PANEL, "position": [x, 1.3, 2.2], "aim": [-0.3 * x, 1.2, 0.0]} for x in (-2.4, 2.4)
    ]
    face = {**PANEL, "role": "key", "position": [-key, 2.0, 4.2], "aim": [0.0, 1.3, 2.4]}
    return plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*lamps, face],
        "screen": {"width": 4.4, "height": 3.0, "wrinkle_slope": 0.0, "gloss": 0.0},
        "subject": {"z": 2.4, "framing": framing, "speed": 0.2,
                    "props": [{"name": kind, "kind": kind, "reflectance": [0.3, 0.3, 0.3]} for kind in props]},
        "camera": {"z": 6.0, "y": 1.2, "focal_mm": focal, "sensor": {"px_w": 3840, "px_h": 2160}, "iso": 400.0,
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 900}},
    })  # fmt: skip


@cache
def both(props: tuple[str, ...]) -> tuple[float, float]:
    """The edge's error as it is drawn, and as it is predicted."""
    evaluation = evaluate(plan_with(props), STORE)
    found = measures_of(plan_with(props))
    assert evaluation.damage is not None
    told = evaluation.damage.kinder.edge_error
    assert found.edge_error is not None
    assert told is not None
    return found.edge_error, told


def measures_of(plan: Plan) -> Measures:
    capture = capture_of(evaluate(plan, STORE), STORE)
    return measure_all(capture, crop_windows(capture), through)[0]


@pytest.mark.parametrize(
    "props",
    [*(pytest.param((one,), marks=pytest.mark.torture) for one in ("matt", "metal")), ("glass",), ("matt", "metal")],
)
def test_the_edge_of_held_things_is_predicted(props: tuple[str, ...]) -> None:
    drawn, told = both(props)
    assert abs(drawn - told) < 0.045


def test_metal_costs_the_edge_and_what_is_seen_through_glass_does_not() -> None:
    """A jar fills the window and is keyed away with the screen behind it: that is no error of an outline."""
    dull, metal, glass = (both((kind,))[0] for kind in ("matt", "metal", "glass"))
    assert metal > dull + 0.05
    assert glass < 0.09, "of the light behind it a jar takes 0.15"


def test_metal_held_before_a_dull_thing_mirrors_no_screen_there() -> None:
    subject = plan_with(("metal",)).subject
    behind = plan_with(("matt", "metal")).subject
    assert subject is not None
    assert behind is not None
    assert mirrored_at_edge(behind, 0.03) < 0.5 * mirrored_at_edge(subject, 0.03)
    assert mirrored_at_edge(Subject(), 0.03) == 0.0


def test_dulling_it_is_the_first_remedy_and_the_drawn_key_agrees() -> None:
    plan = plan_with(("metal",))
    (finding,) = find(plan, STORE, only={"key.edge"})[1]
    assert "mirrored screen" in say(finding.judgement.says)
    first = finding.remedies[0]
    assert say(first.text) == "Dull metal with spray"
    after = measures_of(apply_changes(plan, first.changes)).edge_error
    assert after is not None
    assert after < both(("metal",))[0] - 0.05


def test_a_shadow_right_behind_the_shoulders_costs_no_clip() -> None:
    """A key beside the camera throws it there; one far round throws it into the open."""
    near, far = (plan_with((), framing="chest", focal=60.0, key=key) for key in (0.5, 2.0))
    for plan in (near, far):
        found = evaluate(plan, STORE).damage
        drawn = measures_of(plan).needed_clip
        assert found is not None
        assert drawn is not None
        assert abs(found.kinder.needed_clip - drawn) < 0.04
