"""Lamps in the frame are lit as everything else is: by the probe's light on each of their faces."""

from __future__ import annotations

from functools import cache

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.camera.exposure import grey_lux
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.returned import probe_all
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.lit_lamps import BLACK, DEEP
from ausblick.core.matte.render import draw
from ausblick.core.plan import Plan, plan_from
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

AT = np.array([-1.2, 1.4, 1.6])


@cache
def plan(bright: float, x: float = 0.0) -> Plan:
    """A panel that lights the screen, its back to the camera, and a lamp beside the camera at x on it."""
    panel = {"position": AT.tolist(), "aim": [-1.2, 1.4, 0.0],
             "fixture": {"flux_lm": 3000.0, "emitter": {"shape": "rect", "width": 0.8, "height": 0.6}}}  # fmt: skip
    floods = {"position": [x, 2.6, 5.8], "aim": AT.tolist(), "dimmer": bright, "fixture": {"flux_lm": 60000.0}}
    return plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [panel, {**floods, "role": "key"}],
        "subject": {"x": 0.8, "z": 2.4}, "camera": {"z": 6.4, "y": 1.4, "focal_mm": 24.0},
    })  # fmt: skip


def captured(of: Plan) -> Capture:
    return capture_of(evaluate(of, STORE), STORE)


def seen(of: Plan, place: Floats) -> Floats:
    """Linear light (3,) at a place (3,) of the set in the drawn frame."""
    capture, window = captured(of), overview_window(of, 960)
    (at,), _ = capture.view.project(place[None, :])
    drawn = draw(capture, window)
    return np.asarray(drawn.frame[int(at[1] * window.height), int(at[0] * window.width)])


@pytest.mark.parametrize("bright", [0.2, 1.0])
def test_the_back_of_a_panel_has_the_light_that_falls_on_it(bright: float) -> None:
    of = plan(bright)
    back = AT + np.array([0.0, 0.0, DEEP])
    probe = probe_all(of, back, np.array([0.0, 0.0, 1.0]), evaluate(of, STORE).scene_light, STORE)
    wanted = BLACK * probe.total / grey_lux(of.camera)
    # Beside the veil of the lens, which is the mean of the picture.
    assert np.allclose(seen(of, back), wanted, rtol=0.06, atol=0.006)


def test_a_pole_is_brighter_on_the_side_of_the_light() -> None:
    """The same pole with the lamp to its left and to its right."""
    sides = []
    for x in (-3.0, 1.2):
        (lamp, *_) = [one for one in captured(plan(1.0, x)).lamps if one.lamp.position[2] < 2.0]
        poles = [face.look[:, 1] for face in lamp.faces if np.ptp(face.corners[:, 1]) > 0.1 and len(face.look) == 4]
        pole = poles[4]
        sides.append(float(np.log(pole[[0, 3]].mean() / pole[[1, 2]].mean())))
    assert abs(sides[0] - sides[1]) > 0.3


def test_its_front_is_white_while_it_burns_and_a_stand_has_legs() -> None:
    (lamp,) = [one for one in captured(plan(1.0)).lamps if one.lamp.position[2] < 2.0]
    feet = np.concatenate([face.corners for face in lamp.faces])
    assert len({tuple(np.round(p, 1)) for p in feet[feet[:, 1] < 0.02]}) >= 4
    turned = plan(1.0).model_copy(update={"lights": tuple(
        one.model_copy(update={"aim": (-1.2, 1.4, 6.4)}) if one.role == "screen" else one for one in plan(1.0).lights
    )})  # fmt: skip
    assert float(seen(turned, AT).min()) > 0.95


@pytest.mark.parametrize(("ahead", "aside", "through"), [(0.05, 0.0, True), (0.05, 0.3, False), (0.6, 0.0, False)])
def test_the_camera_looks_through_a_ring_and_not_through_a_lamp_before_it(
    make: MakePlan, ahead: float, aside: float, through: bool
) -> None:
    """A disc of 45 cm round the lens, beside it, and well before it: told, and drawn, as it is seen."""
    disc = {"shape": "disc", "diameter": 0.45}
    ring = lamp(position=[aside, 1.5, 5.0 - ahead], aim=[aside, 1.5, 0.0], emitter=disc, flux_lm=4000.0)
    of = make(lights=[ring], subject={"z": 2.0, "speed": 0.0}, camera={"z": 5.0, "y": 1.5})
    hidden = not through and aside == 0.0
    assert bool(captured(of).lamps) == hidden
    told = {f.rule.id: f.judgement.severity for f in find(of, STORE, with_remedies=False)[1]}
    assert (told["space.in-picture"] != "fine") == hidden
    if not hidden:
        forehead = np.array([0.0, 0.955 * 1.72, 2.09])
        assert seen(of, forehead)[0] > 0.05, "the face, not the back of the lamp"
