"""Lamps in the pane and screen colour in shiny things, by mirror geometry."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.view import view_of
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.mirror import mirror_share, pane_reflections
from ausblick.core.plan import Change, Plan, apply_changes
from tests.conftest import MakePlan, lamp

PANE = {"x": 0.3, "y": 1.6, "z": 1.0, "width": 1.2, "height": 1.3}
LENS = (0.0, 1.5, 6.4)


def bulb(x: float, y: float, z: float, **more: Any) -> dict[str, Any]:
    return lamp(
        emitter={"shape": "point"}, peak_cd=500, beam={"kind": "cosine", "n": 0}, position=[x, y, z],
        aim=[x, y, z - 1], role="other", **more,
    )  # fmt: skip


def hit(x: float, y: float, z: float) -> tuple[float, float]:
    """Where the lens sees a point mirrored in z = 1: its image lies at z' = 2 - z."""
    share = (LENS[2] - 1.0) / (LENS[2] - (2.0 - z))
    return LENS[0] + share * (x - LENS[0]), LENS[1] + share * (y - LENS[1])


EIGHT = [
    (bulb(0.6, 1.7, 4.0), True),
    (bulb(-1.2, 1.6, 3.0), False),
    (bulb(0.3, 2.9, 3.0), False),
    (bulb(1.4, 1.3, 5.0), True),
    (bulb(0.4, 1.6, 0.5), False),
    (bulb(0.5, 1.5, 9.0), True),
    (bulb(0.6, 1.7, 4.1, on=False), False),
    (
        lamp(emitter={"shape": "rect"}, flux_lm=900, position=[0.6, 1.7, 4.0], aim=[0.6, 1.7, 6.0], role="other"),
        False,
    ),
]


def test_eight_lamps_in_the_pane(make: MakePlan) -> None:
    plan = make(window=PANE, lights=[light for light, _ in EIGHT])
    found = pane_reflections(plan, view_of(plan.camera, plan.subject), BasisStore())
    assert [r.visible for r in found] == [seen for _, seen in EIGHT]
    for reflection, (light, _) in zip(found, EIGHT, strict=True):
        if light["position"][2] < 1.0:
            assert reflection.at is None
        else:
            assert reflection.at == pytest.approx(hit(*light["position"]), abs=1e-3)


def test_a_flag_between_lamp_and_pane_hides_it(make: MakePlan) -> None:
    plan = make(window=PANE, lights=[bulb(0.6, 1.7, 4.0)])
    card = {"corners": [[0, 1, 3.5], [1.2, 1, 3.5], [1.2, 2.4, 3.5], [0, 2.4, 3.5]]}
    covered, store = apply_changes(plan, [Change("flags", [card])]), BasisStore()
    seen = [pane_reflections(p, view_of(p.camera, p.subject), store)[0].visible for p in (plan, covered)]
    assert seen == [True, False]


def test_no_pane_no_reflection(make: MakePlan) -> None:
    assert evaluate(make(lights=[bulb(0, 1, 3)]), BasisStore()).reflections == ()


def shares(plan: Plan) -> dict[str, float]:
    return {thing.name: thing.share for thing in evaluate(plan, BasisStore()).mirrored}


def test_a_ball_shows_the_screen_as_a_ring_along_its_rim(make: MakePlan) -> None:
    """An endless screen behind a ball seen from far: rays turned by more than 90 degrees, half of its outline."""
    plan = make(screen={"width": 50, "height": 50, "bottom": 0})
    ball = mirror_share(plan.screen, None, "sphere", np.array([0.0, 25.0, 2.0]), np.array([0.0, 25.0, 90.0]))
    assert ball == pytest.approx(0.5, abs=0.05)
    rod = mirror_share(plan.screen, None, "cylinder", np.array([0.0, 25.0, 2.0]), np.array([0.0, 25.0, 90.0]))
    assert rod == pytest.approx(1 - np.sqrt(0.5), abs=0.03)


def test_a_smaller_screen_leaves_the_mirror(make: MakePlan) -> None:
    subject = {"props": [{"name": "scoop", "kind": "metal"}, {"name": "book", "kind": "matt"}],
               "wardrobe": [{"name": "rubber glove", "gloss": 0.6}]}  # fmt: skip
    large, small = (shares(make(subject=subject, screen={"width": w, "wing_left": w / 3})) for w in (3.0, 0.8))
    assert set(large) == {"scoop", "rubber glove"}
    assert small["scoop"] < large["scoop"]


def test_glasses_mirror_what_the_nose_faces_and_a_bat_what_a_rod_does(make: MakePlan) -> None:
    things = [
        {"name": name, "kind": "metal", "shape": name} for name in ("glasses", "pane", "bat", "cylinder", "scoop")
    ]
    plan = make(
        subject={"z": 1.2, "height": 1.72, "props": things}, camera={"z": 5.4, "y": 1.5}, screen={"width": 6.0}
    )
    found = {one.name: one for one in evaluate(plan, BasisStore()).mirrored}
    assert plan.subject is not None
    x, y, z = plan.subject.eyes
    view = view_of(plan.camera, plan.subject)
    on_nose = mirror_share(plan.screen, plan.subject, "pane", np.array([x, y, z + 0.07 * 1.72]), view.lens)
    assert found["glasses"].share == pytest.approx(100.0 * on_nose)
    assert found["glasses"].share != pytest.approx(found["pane"].share, abs=1.0)
    assert found["bat"].share == pytest.approx(found["cylinder"].share)
    assert found["scoop"].shape == "sphere"
