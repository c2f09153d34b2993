"""The room beside the screen in the picture: its light is the evaluation's, and what stands before what."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.exposure import grey_lux
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.figure_shadow import SKY_FAR, figures_of, left_of_round
from ausblick.core.light.lamp_bodies import BEHIND
from ausblick.core.light.mix import probes_light
from ausblick.core.light.past_cards import left_by_cards, returned_past_cards
from ausblick.core.light.past_people import beside_even_light
from ausblick.core.light.past_what_stands import past_what_stands
from ausblick.core.light.returned import probe_all
from ausblick.core.matte.background import background_of
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.plan import Plan
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

LAMPS = [
    lamp(position=[-2.0, 1.8, 2.0], aim=[0.0, 1.4, 0.0]),
    lamp(role="key", position=[1.2, 2.2, 4.4], aim=[0.0, 1.5, 2.4]),
]
INKS = {"walls": [0.5, 0.45, 0.4], "ceiling": [0.6, 0.6, 0.6], "floor": [0.2, 0.2, 0.25]}
ROOM = {"x_min": -2.6, "x_max": 2.6, "z_max": 8.0, "height": 3.2, "reflectance": INKS}
WIDE = {"focal_mm": 16.0, "z": 7.9, "y": 1.6, "iso": 200, "sensor": {"px_w": 960, "px_h": 540}}


def pictured(plan: Plan) -> tuple[Capture, Floats, Floats]:
    capture = capture_of(evaluate(plan, STORE), STORE)
    image, on_screen = background_of(capture, PixelWindow(0, 0, 960, 540, 1.0))
    return capture, image, on_screen


def at(capture: Capture, picture: Floats, place: tuple[float, float, float]) -> Floats:
    (u, v), _ = (part[0] for part in capture.view.project(np.array([place])))
    return np.asarray(picture[int(v * 540), int(u * 960)])


@pytest.mark.parametrize(
    ("place", "normal", "part"),
    [
        ((-2.6, 1.2, 2.2), (1.0, 0.0, 0.0), "walls"),
        ((2.6, 2.0, 1.4), (-1.0, 0.0, 0.0), "walls"),
        ((1.6, 0.0, 3.0), (0.0, 1.0, 0.0), "floor"),
        ((0.5, 3.2, 2.5), (0.0, -1.0, 0.0), "ceiling"),
        # In corners, where the next side is as near as it can be.
        ((-2.6, 1.2, 0.1), (1.0, 0.0, 0.0), "walls"),
        ((-2.6, 0.06, 2.2), (1.0, 0.0, 0.0), "walls"),
        ((2.54, 3.2, 2.5), (0.0, -1.0, 0.0), "ceiling"),
    ],
)
def test_a_place_of_the_room_looks_as_it_is_lit(
    make: MakePlan, place: tuple[float, float, float], normal: tuple[float, float, float], part: str
) -> None:
    """Within three hundredths of what the probe reads there among the lamps' heads: lamps and all that comes back, in
    the part's own ink."""
    plan = make(lights=LAMPS, room=ROOM, camera=WIDE, subject=None, screen={"width": 3.0})
    capture, image, on_screen = pictured(plan)
    evaluation = evaluate(plan, STORE)
    light = past_what_stands(plan, evaluation.scene_light, STORE)
    at_place = np.array([place]), np.array([normal])
    factors = light.scene.factors(*at_place)
    back = returned_past_cards(plan, light, factors, *at_place, STORE)[0]
    lux = probes_light(plan, *at_place, STORE)[0] + back
    ink = np.array(getattr(plan.room.reflectance, part))
    assert at(capture, on_screen, place) == 0.0
    assert at(capture, image, place) == pytest.approx(ink * lux / grey_lux(plan.camera), rel=0.03)


PANEL = {"shape": "rect", "width": 1.2, "height": 0.9}


def test_a_panel_over_the_floor_hides_as_much_of_what_comes_from_all_round_as_it_looks(make: MakePlan) -> None:
    """Corner by corner by the closed form of a rectangle parallel to a small surface (Howell, C-11); it is off."""
    over = lamp(position=[0.5, 0.9, 3.0], aim=[0.5, 0.0, 3.0], dimmer=0.0, emitter=PANEL)
    place, up = np.array([0.65, 0.0, 3.1]), np.array([0.0, 1.0, 0.0])
    hidden, height = 0.0, 0.9 + BEHIND
    for a in (0.6 - 0.15, 0.6 + 0.15):
        for b in (0.45 - 0.1, 0.45 + 0.1):
            x, y = a / height, b / height
            part = x / np.hypot(1, x) * np.arctan(y / np.hypot(1, x)) + y / np.hypot(1, y) * np.arctan(
                x / np.hypot(1, y)
            )
            hidden += part / (2.0 * np.pi)
    bare, with_panel = (
        make(lights=[*LAMPS, *more], room=ROOM, camera=WIDE, subject=None, screen={"width": 3.0})
        for more in ((), (over,))
    )
    assert float(left_by_cards(with_panel, place[None], up[None], STORE)[0]) == pytest.approx(
        (1.0 - hidden) * float(left_by_cards(bare, place[None], up[None], STORE)[0]), abs=2e-3
    )
    light = evaluate(bare, STORE).scene_light
    lux = probe_all(bare, place, up, light, STORE)
    kept = lux.total - hidden * (lux.total - lux.direct)
    seen = [at(capture, image, (0.65, 0.0, 3.1)) for capture, image, _ in map(pictured, (bare, with_panel))]
    assert hidden > 0.15
    assert seen[1] / seen[0] == pytest.approx(kept / lux.total, abs=0.03)


def test_open_ground_is_lit_round_the_set_as_closely_as_a_floor(make: MakePlan) -> None:
    """Ground reaches the horizon; what the lamps light of it is no wider a lattice for that."""
    level = {**WIDE, "tilt": 0.0}
    outside = {**ROOM, "kind": "exterior", "ambient_lux": 60.0}
    plan = make(lights=LAMPS, room=outside, camera=level, subject=None, screen={"width": 3.0})
    capture, image, _ = pictured(plan)
    evaluation = evaluate(plan, STORE)
    for place in ((0.4, 0.0, 3.2), (-1.8, 0.0, 1.2), (1.9, 0.0, 1.5)):
        up = np.array([0.0, 1.0, 0.0])
        lux = probe_all(plan, np.array(place), up, evaluation.scene_light, STORE).total
        ink = np.array(plan.room.reflectance.floor)
        assert at(capture, image, place) == pytest.approx(ink * lux / grey_lux(plan.camera), rel=0.05), place


def test_the_wall_round_a_window_stands_before_the_screen(make: MakePlan) -> None:
    window = {"x": 0.2, "y": 1.5, "z": 1.2, "width": 1.0, "height": 1.2}
    plan = make(lights=LAMPS, room=ROOM, camera=WIDE, subject=None, screen={"width": 3.0}, window=window)
    capture, _, on_screen = pictured(plan)
    for x, y, seen in ((-0.28, 0.92, 1), (-0.32, 0.92, 0), (0.68, 2.08, 1), (0.72, 2.08, 0), (0.2, 2.13, 0)):
        assert at(capture, on_screen, (x, y, 1.2)) == seen, (x, y)


def test_the_floor_is_dark_at_the_feet(make: MakePlan) -> None:
    """Bare floor before the cloth: the figure keeps lamps and the room's own light off it."""
    plan = make(lights=LAMPS, room=ROOM, camera=WIDE, subject={"z": 2.4, "feet_seen": True}, screen={"width": 3.0})
    alone = plan.model_copy(update={"subject": None})
    with_figure, without = pictured(plan), pictured(alone)

    def left(x: float, z: float) -> float:
        lit, bare = (at(capture, image, (x, 0.0, z)).mean() for capture, image, _ in (with_figure, without))
        return float(lit / bare)

    # Away from the key lies its shadow; before the figure only what comes from all round is kept off.
    assert left(-0.25, 1.9) < 0.8
    assert left(0.0, 2.7) < 0.98
    assert left(0.0, 2.7) < left(0.0, 3.2) < left(0.0, 4.0)
    assert left(0.0, 4.0) > 0.95


def test_who_stands_before_the_screen_takes_the_floor_s_light_of_it(make: MakePlan) -> None:
    """All light that comes back is the screen's: before her legs the floor sees less of it by what rays say that her
    body and head hide of the screen; a metre and a half aside, nearly nothing."""
    dark = {name: [0.0, 0.0, 0.0] for name in INKS}
    plan = make(lights=LAMPS[:1], room={**ROOM, "reflectance": {**dark, "floor": [0.2, 0.2, 0.25]}},
                camera=WIDE, subject={"z": 2.0}, screen={"width": 3.0, "reflectance": [0.1, 0.6, 0.2]})  # fmt: skip
    evaluation = evaluate(plan, STORE)
    places = np.array([[0.0, 0.0, 3.4], [1.8, 0.0, 2.2]])
    facing = np.array([[0.0, 1.0, 0.0]] * 2)
    even = left_of_round(figures_of(plan), places, facing, SKY_FAR)
    found = even * beside_even_light(plan, places, facing, evaluation.scene_light, STORE)[:, 1]
    rng, subject = np.random.default_rng(1), plan.subject
    assert subject is not None
    on_screen = np.column_stack([rng.uniform(-1.5, 1.5, 4000), rng.uniform(0.0, plan.screen.height, 4000),
                                 np.zeros(4000)])  # fmt: skip
    way = on_screen - places[0]
    # From the floor to the screen, by what each place of it gives: cosine at both ends over the distance squared.
    gives = way[:, 1] * -way[:, 2] / (way**2).sum(axis=1) ** 2
    t = (subject.z - places[0, 2]) / way[:, 2]
    x, y = t * way[:, 0], t * way[:, 1]
    hidden = ((np.abs(x) < 0.22) & (y < 0.87 * subject.height)) | (np.hypot(x, y - 0.965 * subject.height) < 0.12)
    assert found[0] < 0.93
    assert found[0] == pytest.approx(1.0 - np.average(hidden, weights=gives), abs=0.04)
    assert found[1] == pytest.approx(1.0, abs=0.03)


def test_floor_that_lies_under_the_run_is_not_worked_out(make: MakePlan) -> None:
    """What is seen of the floor is a strip before the run: the lattice is as fine as that strip is narrow."""
    run = {"width": 5.2, "floor_run": 3.0}
    plan = make(lights=LAMPS, room=ROOM, camera=WIDE, subject=None, screen=run)
    floors = [part for part in pictured(plan)[0].room if part.side.is_floor]
    assert floors
    assert min(float(part.v[0]) for part in floors) > 2.5
