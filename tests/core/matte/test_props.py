"""Things in the hands: lamps and screen where mirrors have them, and as much seen through as glass lets through."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.figure.held_props import BEFORE, HELD, SPECTACLES, shown_props
from ausblick.core.geometry.vectors import Floats, unit
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.drawn_place import place_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.prop_picture import prop_layer
from ausblick.core.matte.render import Drawn, draw
from ausblick.core.plan import Prop
from tests.conftest import MakePlan, lamp

WALL = lamp(flux_lm=20_000.0, position=[0.0, 3.0, 1.4], aim=[0, 1.0, 0.0], role="screen",
            emitter={"shape": "rect", "width": 0.8, "height": 0.3})  # fmt: skip
SIDE = lamp(flux_lm=9_000.0, position=[-2.6, 2.1, 4.2], aim=[0, 1.5, 2.4], role="key",
            emitter={"shape": "rect", "width": 0.5, "height": 0.5})  # fmt: skip
WINDOW = PixelWindow(0.0, 0.0, 1920, 1080, 2.0)
FACE = PixelWindow(1520.0, 600.0, 400, 400, 2.0)


def held(make: MakePlan, **prop: Any) -> tuple[Capture, Prop, Floats, Floats]:
    """The capture, the thing, and its layer: colour (H, W, 3), cover (H, W)."""
    plan = make(lights=[WALL, SIDE], subject={"z": 2.4, "height": 1.72, "props": [{"name": "thing", **prop}]},
                camera={"z": 5.4, "y": 1.5, "focal_mm": 24.0})  # fmt: skip
    store = BasisStore()
    capture = capture_of(evaluate(plan, store), store)
    assert plan.subject is not None
    thing = plan.subject.props[0]
    (shown,) = shown_props(plan.subject)
    layer = prop_layer(capture, plan.subject, place_of(capture, plan.subject, WINDOW), shown)
    assert layer is not None
    return capture, thing, layer.colour, layer.cover


def pixel(capture: Capture, own: tuple[float, float], window: PixelWindow = WINDOW) -> tuple[int, int]:
    assert capture.plan.subject is not None
    place = place_of(capture, capture.plan.subject, window)
    x, y = np.array(place.foot) + place.matrix @ np.array(own)
    return int(y), int(x)


def test_a_metal_ball_shows_the_lamp_where_the_angles_are_alike(make: MakePlan) -> None:
    capture, _, colour, cover = held(make, kind="metal", shape="sphere")
    assert capture.body is not None
    mark, thing = capture.body.body.mark, HELD[0]
    at = mark.at(np.array([thing.x, thing.y, BEFORE]))
    toward = unit(unit(np.array(SIDE["position"]) - at) + unit(capture.view.lens - at)) @ mark.turn
    row, column = pixel(capture, (thing.x + thing.half * toward[0], thing.y + thing.half * toward[1]))
    ball = colour[cover > 0.999].max(axis=1)
    assert colour[row, column].min() > 1.0, "a lamp's face clips"
    assert np.median(ball) < 0.5
    bright = np.argwhere((colour.min(axis=2) > 1.0) & (cover > 0.999))
    assert np.abs(bright - (row, column)).max(axis=1).min() <= 2


def test_the_rim_of_a_ball_mirrors_the_screen_behind_it_and_its_middle_does_not(make: MakePlan) -> None:
    capture, _, colour, _ = held(make, kind="metal", shape="sphere")
    thing = HELD[0]
    rim = colour[pixel(capture, (thing.x - 0.985 * thing.half, thing.y))]
    middle = colour[pixel(capture, (thing.x + 0.2 * thing.half, thing.y - 0.1 * thing.half))]
    assert rim[1] > 2.0 * rim[0]
    assert middle[1] / middle[0] < 0.7 * rim[1] / rim[0]


def test_glass_looked_at_straight_keeps_back_two_walls_faces_and_what_its_walls_swallow(make: MakePlan) -> None:
    capture, _, _, cover = held(make, kind="glass", shape="cylinder")
    once = 0.04
    through = (1.0 - 2.0 * once / (1.0 + once)) * (1.0 - 0.06)
    assert cover[pixel(capture, (HELD[0].x, HELD[0].y))] == pytest.approx(1.0 - through, abs=0.01)
    rims = [cover[pixel(capture, (HELD[0].x + side * 0.96 * HELD[0].half, HELD[0].y))] for side in (-1, 1)]
    # Beside the left rim a dark wall is mirrored, beside the right one the screen: a key makes it what stands behind.
    assert rims[0] > 0.4
    assert rims[0] > 1.4 * rims[1]


def test_a_dull_thing_is_lit_as_the_hand_beside_it_is(make: MakePlan) -> None:
    capture, thing, colour, cover = held(make, kind="matt", shape="pane", reflectance=[0.3, 0.3, 0.3])
    assert capture.body is not None
    shape = capture.body.body.shape
    ahead = (shape.part == 5) & (shape.facing[:, 2] > 0.95) & (capture.body.lux.max(axis=1) > 0.0)
    wanted = np.array(thing.reflectance) * capture.body.lux[ahead].mean(axis=0)
    assert colour[cover > 0.999].mean(axis=0) == pytest.approx(wanted, rel=0.35)


def worn(make: MakePlan, *props: dict[str, Any], lights: list[dict[str, Any]]) -> tuple[Capture, Drawn]:
    plan = make(lights=lights, subject={"z": 2.4, "height": 1.72, "hair_kind": "none", "props": list(props)},
                camera={"z": 5.4, "y": 1.5, "focal_mm": 24.0})  # fmt: skip
    store = BasisStore()
    capture = capture_of(evaluate(plan, store), store)
    return capture, draw(capture, FACE)


GLASSES = {"name": "reading glasses", "kind": "glass", "shape": "glasses", "reflectance": [0.02, 0.02, 0.02]}


def test_glasses_are_on_the_nose_and_the_face_behind_them_is_kept(make: MakePlan) -> None:
    capture, bare = worn(make, lights=[WALL, SIDE])
    _, drawn = worn(make, GLASSES, lights=[WALL, SIDE])
    changed = np.abs(drawn.frame - bare.frame).max(axis=2) > 0.002
    rows, columns = np.nonzero(changed)
    right = pixel(capture, (SPECTACLES.apart + SPECTACLES.half, SPECTACLES.y), FACE)[1]
    left = pixel(capture, (-SPECTACLES.apart - SPECTACLES.half, SPECTACLES.y), FACE)[1]
    assert (columns.min(), columns.max()) == pytest.approx((left, right), abs=2)
    assert abs(float(rows.mean()) - pixel(capture, (0.0, SPECTACLES.y), FACE)[0]) < 2.0
    assert np.abs(drawn.alpha - bare.alpha).max() < 1e-6
    rim = drawn.frame[pixel(capture, (SPECTACLES.apart, SPECTACLES.y + SPECTACLES.tall + 0.5 * SPECTACLES.rim), FACE)]
    skin = bare.frame[pixel(capture, (SPECTACLES.apart, SPECTACLES.y + SPECTACLES.tall + 0.5 * SPECTACLES.rim), FACE)]
    assert rim.max() < 0.6 * skin.max()


def test_glasses_show_the_lamp_beside_the_lens(make: MakePlan) -> None:
    soft = lamp(flux_lm=3_000.0, position=[0.3, 1.75, 5.6], aim=[0, 1.6, 2.4], role="key",
                emitter={"shape": "rect", "width": 0.5, "height": 0.4})  # fmt: skip
    capture, with_lamp = worn(make, GLASSES, lights=[WALL, soft])
    _, bare = worn(make, lights=[WALL, soft])
    top, left = pixel(capture, (SPECTACLES.apart - SPECTACLES.half, SPECTACLES.y + SPECTACLES.tall), FACE)
    bottom, right = pixel(capture, (SPECTACLES.apart + SPECTACLES.half, SPECTACLES.y - SPECTACLES.tall), FACE)
    eye = slice(top, bottom), slice(left, right)
    assert with_lamp.frame[eye].max() > bare.frame[eye].max() + 0.3


RING = {"name": "ring", "kind": "metal", "shape": "worn"}


def test_what_lies_on_the_skin_is_not_drawn_and_takes_no_hand(make: MakePlan) -> None:
    (bare, _), (ring, _) = (worn(make, *props, lights=[WALL, SIDE]) for props in ((), (RING,)))
    window = PixelWindow(0.0, 0.0, 960, 540, 4.0)
    assert np.abs(draw(ring, window).frame - draw(bare, window).frame).max() < 1e-9
    things = [{"shape": "worn"}, GLASSES, {"shape": "bat"}, {"shape": "scoop"}, {"shape": "pane"}]
    plan = make(subject={"props": things})
    assert plan.subject is not None
    assert [one.prop.formed for one in shown_props(plan.subject)] == ["glasses", "bat", "scoop"]
