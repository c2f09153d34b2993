"""The figure's shadow against a plain ray reference, and its closed forms."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.emission import emission_of
from ausblick.core.light.face_samples import face_cells
from ausblick.core.light.figure_shadow import SKY_FAR, Figure, figure_of, hidden_by, left_of_round, lost_share
from ausblick.core.light.floor_shadow import floor_shadow
from ausblick.core.light.occlusion import NONE
from ausblick.core.light.solids import Solid
from ausblick.core.plan import Plan
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

FRONT = np.array([0.0, 0.0, 1.0])


def ray_meets(figure: Figure, start: Floats, end: Floats) -> bool:
    """Walk along the ray in small steps and ask at each whether it is inside a body."""
    body, head = figure
    steps = start + np.linspace(0.0, 1.0, 1500)[:, None] * (end - start)
    across = np.hypot(steps[:, 0] - body.x, steps[:, 2] - body.z)
    in_body = (across < 0.22) & (steps[:, 1] > 0.0) & (steps[:, 1] < body.top)
    in_head = across**2 + (steps[:, 1] - head.y) ** 2 < 0.12**2
    return bool((in_body | in_head).any())


def reference(plan: Plan, points: Floats, rng: np.random.Generator) -> Floats:
    """Lost share by random rays to the lamp's face."""
    assert plan.subject is not None
    emission, figure = emission_of(plan.lights[0]), figure_of(plan.subject)
    lost = []
    for point in points:
        if emission.face.area:
            corners = emission.face.outline
            s, t = rng.random((2, 250))
            places = corners[0] + s[:, None] * (corners[1] - corners[0]) + t[:, None] * (corners[3] - corners[0])
        else:
            places = emission.face.centre[None, :]
        away = point - places
        r = np.linalg.norm(away, axis=1)
        light = np.clip(away @ emission.face.axis, 0, None) * np.clip(-away @ FRONT, 0, None) / r**4
        hit = np.array([ray_meets(figure, point, place) for place in places])
        lost.append((light * hit).sum() / light.sum())
    return np.array(lost)


@pytest.mark.parametrize(
    ("away", "size"),
    [pytest.param(away, size, marks=[] if size == 0.0 or (away, size) == (1.2, 0.3) else pytest.mark.torture)
     for away in (0.5, 1.2, 3.0) for size in (0.0, 0.3, 1.2)],
)  # fmt: skip
def test_shadow_against_plain_rays(make: MakePlan, size: float, away: float) -> None:
    shape = {"shape": "rect", "width": size, "height": size} if size else {"shape": "point"}
    plan = make(
        subject={"z": away},
        lights=[lamp(emitter=shape, flux_lm=9000, role="key", position=[-1.0, 2.4, away + 2], aim=[0, 1.4, away])],
    )
    assert plan.subject is not None
    xs, ys = np.meshgrid(np.linspace(-0.7, 1.4, 9), np.linspace(0.2, 1.9, 6))
    points = np.stack([xs.ravel(), ys.ravel(), np.zeros(xs.size)], axis=1)
    found = lost_share(emission_of(plan.lights[0]), figure_of(plan.subject), points, FRONT, NONE)
    expected = reference(plan, points, np.random.default_rng(7))
    if size:
        # The reference itself is good to about 0.03 at each place: 250 rays.
        assert np.abs(found - expected).mean() < 0.012
        assert np.abs(found - expected).max() < 0.09
    else:
        assert found == pytest.approx(expected, abs=1e-5)
    assert abs(found.mean() - expected.mean()) < 0.01


@pytest.mark.parametrize(
    ("shape", "position"),
    [
        ({"shape": "disc", "diameter": 1.02}, [0.31, 1.13, 2.85]),
        ({"shape": "disc", "diameter": 0.53}, [-0.3, 1.47, 3.38]),
        ({"shape": "rect", "width": 1.0, "height": 0.7}, [0.46, 1.37, 4.04]),
    ],
)
def test_soft_shadows_within_a_hundredth_of_the_light(
    make: MakePlan, shape: dict[str, Any], position: list[float]
) -> None:
    """Against 10,000 rays to each face, at every place of the half shade."""
    plan = make(lights=[lamp(emitter=shape, flux_lm=3000, position=position, aim=[0, 1.2, 0])])
    assert plan.subject is not None
    xs, ys = np.meshgrid(np.linspace(-1.5, 1.5, 16), np.linspace(0.1, 2.7, 14))
    points = np.stack([xs.ravel(), ys.ravel(), np.zeros(xs.size)], axis=1)
    emission, figure = emission_of(plan.lights[0]), figure_of(plan.subject)
    found = lost_share(emission, figure, points, FRONT, NONE)
    places, _ = face_cells(emission.face, 10_000)
    half = (found > 0.0) & (found < 1.0)
    assert half.sum() > 20
    for point, share in zip(points[half], found[half], strict=True):
        away = point - places
        light = np.clip(away @ emission.face.axis, 0, None) * np.clip(-away @ FRONT, 0, None)
        light /= (away * away).sum(axis=1) ** 2
        hit = hidden_by(figure, np.broadcast_to(point, places.shape), places)
        assert share == pytest.approx((light * hit).sum() / light.sum(), abs=0.01)


@pytest.mark.parametrize("away", [0.3, 0.55, 1.0, 2.2])
def test_what_a_standing_figure_hides_of_light_from_all_round_against_rays(make: MakePlan, away: float) -> None:
    """Forty thousand ways to the sky, spread by the cosine over them, from three sides of it on the ground."""
    subject = make(subject={"x": 0.3, "z": 2.0, "height": 1.76}).subject
    assert subject is not None
    figure, i = figure_of(subject), np.arange(40_000) + 0.5
    level, turn = np.sqrt(i / len(i)), np.pi * (1.0 + np.sqrt(5.0)) * i
    ways = np.stack([level * np.cos(turn), np.sqrt(1.0 - level * level), level * np.sin(turn)], axis=1)
    for side in (0.2, 1.9, 4.0):
        place = np.array([0.3 + away * np.cos(side), 0.0, 2.0 + away * np.sin(side)])
        starts = np.broadcast_to(place, ways.shape)
        met = float(np.mean(hidden_by(figure, starts, starts + SKY_FAR * ways)))
        left = left_of_round([figure], place[None, :], np.array([[0.0, 1.0, 0.0]]), SKY_FAR)
        assert 1.0 - left[0] == pytest.approx(met, abs=0.004)


def test_a_sun_throws_a_shadow_of_the_bodys_width(make: MakePlan) -> None:
    sun = lamp(emitter={"shape": "sun"}, normal_lux=5000, role="key", position=[2.0, 1.2, 4.4], aim=[0, 1.2, 2.4])
    plan = make(subject={"z": 2.4}, lights=[sun])
    assert plan.subject is not None
    xs = np.linspace(-4, 0, 4001)
    points = np.stack([xs, np.full_like(xs, 1.0), np.zeros_like(xs)], axis=1)
    lost = lost_share(emission_of(plan.lights[0]), figure_of(plan.subject), points, FRONT, NONE)
    dark = xs[lost > 0.5]
    # At 45 degrees it falls 2.4 m aside and is the diameter / cos 45 wide.
    assert dark.mean() == pytest.approx(-2.4, abs=0.005)
    assert np.ptp(dark) == pytest.approx(0.44 / np.cos(np.pi / 4), abs=0.005)


def test_a_low_sun_draws_head_and_shoulders(make: MakePlan) -> None:
    """Straight from the front, parallel light: the shadow is the body's outline, read off the screen."""
    tall = 2.0
    sun = lamp(emitter={"shape": "sun"}, normal_lux=5000, role="key", position=[0, 1.2, 5], aim=[0, 1.2, 0])
    plan = make(subject={"x": 0.0, "z": 1.0, "height": tall}, lights=[sun])
    assert plan.subject is not None

    def dark(points: Floats) -> Floats:
        return lost_share(emission_of(plan.lights[0]), figure_of(plan.subject), points, FRONT, NONE) > 0.5

    up = np.linspace(1.6, 2.3, 1401)
    across = np.linspace(-0.4, 0.4, 1601)
    beside_the_neck = up[dark(np.stack([np.full_like(up, 0.18), up, np.zeros_like(up)], axis=1))]
    assert beside_the_neck.max() == pytest.approx(0.87 * tall, abs=0.002)
    over_the_head = up[dark(np.stack([np.zeros_like(up), up, np.zeros_like(up)], axis=1))]
    assert over_the_head.max() == pytest.approx(0.965 * tall + 0.12, abs=0.002)
    through_the_head = across[
        dark(np.stack([across, np.full_like(across, 0.965 * tall), np.zeros_like(across)], axis=1))
    ]
    assert np.ptp(through_the_head) == pytest.approx(2 * 0.12, abs=0.002)


def test_shadow_leaves_the_needed_screen_with_distance(make: MakePlan) -> None:
    """A key high at the side: near the screen the shadow is in the picture, further off it is not."""
    deep = []
    for away in (0.5, 1.0, 3.0):
        key = lamp(
            emitter={"shape": "rect", "width": 0.4, "height": 0.4}, flux_lm=20000, role="key",
            position=[-1.8, 2.6, away + 2.0], aim=[0, 1.4, away],
        )  # fmt: skip
        plan = make(subject={"z": away, "framing": "waist"}, camera={"z": away + 4}, lights=[key])
        shadow = evaluate(plan, BasisStore()).shadow
        assert shadow is not None
        deep.append((shadow.deepest_percent, shadow.area_visible_percent))
    assert deep[0][0] > 60
    assert deep[0][1] > 5
    assert deep[2][1] < deep[1][1] < deep[0][1]
    assert deep[2][1] == 0


def test_shadow_says_where_and_of_which_lamp(make: MakePlan) -> None:
    key = lamp(emitter={"shape": "point"}, peak_cd=3000, role="key", position=[-1.5, 1.6, 2.0], aim=[0, 1.4, 0.8])
    plan = make(subject={"z": 0.8}, lights=[{"id": "s", "position": [2.4, 1.4, 2.2]}, {**key, "id": "k"}])
    shadow = evaluate(plan, BasisStore()).shadow
    assert shadow is not None
    assert shadow.at is not None
    assert shadow.lamp == "k"
    assert shadow.at[0] > 0.3


def test_knees_and_chair_of_somebody_seated_shade_the_floor_before_the_mark(make: MakePlan) -> None:
    """Light that passes close over the body, down to the floor: at 2.87 m, where the knees end, it is 0.55 m high."""
    start, floor = np.array([0.0, 3.0, 1.928]), np.array([[0.0, 0.0, 3.0815]])
    small = lamp(position=start.tolist(), aim=floor[0].tolist(), emitter={"shape": "point"}, flux_lm=1000.0)
    plan = make(lights=[small], subject={"z": 2.4, "height": 1.7, "posture": "seated"})
    assert plan.subject is not None
    figure = figure_of(plan.subject)

    def lost(solids: tuple[Solid, ...]) -> float:
        return float(lost_share(emission_of(plan.lights[0]), solids, floor, np.array([0.0, 1.0, 0.0]), NONE)[0])

    assert lost(figure[:2]) == 0.0
    assert lost(figure) == 1.0
    assert len(figure_of(plan.subject.model_copy(update={"posture": "standing"}))) == 2


def test_the_floors_shadow_ends_where_the_floor_does(make: MakePlan) -> None:
    """A narrow room; behind the screen there is none, and outdoors the ground goes on."""
    key = lamp(emitter={"shape": "point"}, flux_lm=2000, position=[-0.7, 2.1, 2.6], aim=[0, 1, 0.8])
    narrow = {"x_min": -1.3, "x_max": 1.1, "z_max": 2.4}
    for room, ends in ((narrow, (-1.3, 1.1, 2.4)), ({**narrow, "kind": "exterior"}, (-2.0, 2.0, 2.8))):
        found = floor_shadow(make(room=room, subject={"z": 0.8}, lights=[key]), STORE)
        assert found is not None
        half_x, half_z = (0.5 * (cells[1] - cells[0]) for cells in (found.x, found.z))
        assert (found.x[0] - half_x, found.x[-1] + half_x, found.z[-1] + half_z) == pytest.approx(ends)
        assert found.z[0] - half_z == pytest.approx(0.0)
        assert found.lost.max() > 0.9
    assert floor_shadow(make(room=narrow, subject={"z": 4.0}, lights=[key]), STORE) is None
