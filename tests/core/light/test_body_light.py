"""Light on the figure's body: what a probe reads there, less what the body itself hides."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.figure.solid_body import PARTS, SolidBody, solid_body
from ausblick.core.geometry.vectors import Bools, Floats
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.body_light import BodyLight, body_light, looked_from_lamps, shadow_on
from ausblick.core.light.body_overhead import hidden_from_above
from ausblick.core.light.direct import direct_lux_on
from ausblick.core.light.emission import emission_of
from ausblick.core.light.mix import ambient_rgb
from ausblick.core.light.occlusion import set_triangles
from ausblick.core.light.returned import probe_factors
from ausblick.core.plan import Plan
from tests.conftest import MakePlan, lamp

DARK = {"reflectance": {"walls": [0, 0, 0], "floor": [0, 0, 0], "ceiling": [0, 0, 0]}}
SUBJECT = {"height": 1.72, "z": 2.4, "hair_kind": "none"}
CAMERA = {"z": 6.4, "y": 1.4, "focal_mm": 18.0}


def lit(plan: Plan) -> tuple[BodyLight, SolidBody]:
    store = BasisStore()
    evaluation = evaluate(plan, store)
    assert plan.subject is not None
    body = solid_body(plan.subject, plan.camera)
    return body_light(plan, body, evaluation.view, evaluation.scene_light, store), body


def places(body: SolidBody, part: str, x: tuple[float, float], y: tuple[float, float]) -> Bools:
    """Front places of a part, x and y in shares of stature."""
    own = body.shape.own
    inside = (own[:, 0] > x[0]) & (own[:, 0] < x[1]) & (own[:, 1] > y[0]) & (own[:, 1] < y[1])
    return np.asarray(inside & (body.shape.part == PARTS.index(part)) & (body.shape.facing[:, 2] > 0.6))


def forehead(body: SolidBody) -> Bools:
    return places(body, "head", (-0.02, 0.02), (0.955, 0.975))


def alone(make: MakePlan, **one: Any) -> Plan:
    return make(room=DARK, screen={"reflectance": [0, 0, 0]}, subject=SUBJECT, camera=CAMERA,
                lights=[lamp(**{"flux_lm": 9000.0, "aim": [0, 1.5, 2.4], "role": "key", **one})])  # fmt: skip


EMITTERS: list[dict[str, Any]] = [
    {"emitter": {"shape": "rect", "width": 0.9, "height": 0.9}, "position": [-1.2, 2.2, 4.0]},
    {"emitter": {"shape": "disc", "diameter": 0.6}, "position": [0.8, 1.9, 4.4]},
    {"emitter": {"shape": "point"}, "position": [0.4, 2.4, 5.0], "beam": {"kind": "beam", "deg": 50}},
    {"emitter": {"shape": "rect", "width": 0.5, "height": 0.4}, "position": [-0.5, 2.0, 4.6],
     "modifiers": [{"kind": "grid", "deg": 60}]},
]  # fmt: skip


@pytest.mark.parametrize("one", EMITTERS)
def test_where_nothing_of_it_is_in_the_way_a_lamp_gives_what_a_probe_reads(
    make: MakePlan, one: dict[str, Any]
) -> None:
    plan = alone(make, **one)
    light, body = lit(plan)
    here = forehead(body)
    at, facing = body.places[here].astype(float), body.facing[here].astype(float)
    facing /= np.linalg.norm(facing, axis=1, keepdims=True)
    wanted = direct_lux_on(emission_of(plan.lights[0], plan), at, facing, set_triangles(plan))
    assert here.sum() > 20
    assert wanted.min() > 100.0
    assert light.lux[here].mean(axis=1) == pytest.approx(wanted * light.lux[here].mean() / wanted.mean(), rel=0.03)
    assert light.lux[here].mean() == pytest.approx(wanted.mean() * colour_of(plan), rel=0.015)


def colour_of(plan: Plan) -> float:
    """What the lamp's colour makes of its lux in the mean of three channels."""
    from ausblick.core.light.mix import lamp_rgb

    return float(lamp_rgb(plan, plan.lights[0]).mean() * plan.lights[0].dimmer)


def test_the_sun_gives_its_cosine(make: MakePlan) -> None:
    plan = alone(make, emitter={"shape": "sun"}, flux_lm=None, normal_lux=50_000.0, position=[0, 3.4, 6.4],
                 aim=[0, 1.4, 2.4])  # fmt: skip
    light, body = lit(plan)
    here = forehead(body)
    toward = np.array([0.0, 2.0, 4.0]) / np.sqrt(20.0)
    wanted = 50_000.0 * np.clip(body.facing[here] @ toward, 0.0, None) * colour_of(plan)
    assert light.lux[here].mean(axis=1) == pytest.approx(wanted, rel=0.01)


def test_the_raised_hand_throws_its_shadow_and_a_broad_lamp_softens_it(make: MakePlan) -> None:
    """A lamp beyond the hand: some of the cheek goes dark, and more of it half so under a broad one."""
    shares = {}
    for name, width in (("small", 0.02), ("broad", 1.4)):
        plan = alone(make, emitter={"shape": "rect", "width": width, "height": width}, position=[1.7, 1.0, 2.65],
                     aim=[0.0, 1.6, 2.4])  # fmt: skip
        light, body = lit(plan)
        cheek = (body.shape.part == PARTS.index("head")) & (body.shape.facing[:, 0] > 0.4)
        cheek &= (body.shape.own[:, 1] > 0.88) & (body.shape.facing[:, 2] > -0.3)
        at, facing = body.places[cheek].astype(float), body.facing[cheek].astype(float)
        facing /= np.linalg.norm(facing, axis=1, keepdims=True)
        bare = direct_lux_on(emission_of(plan.lights[0], plan), at, facing, set_triangles(plan)) * colour_of(plan)
        lit_well = bare > 0.2 * bare.max()
        shares[name] = light.lux[cheek].mean(axis=1)[lit_well] / bare[lit_well]
    assert (shares["small"] < 0.05).mean() > 0.03, "in the arm's shadow"
    assert (shares["small"] > 0.95).mean() > 0.4
    between = {name: float(((share > 0.1) & (share < 0.9)).mean()) for name, share in shares.items()}
    assert between["broad"] > 2.0 * between["small"]


def test_a_flag_keeps_its_lamp_off(make: MakePlan) -> None:
    flag = {"id": "f1", "corners": [[-1.2, 1.0, 3.2], [1.2, 1.0, 3.2], [1.2, 3.0, 3.2], [-1.2, 3.0, 3.2]],
            "reflectance": [0, 0, 0]}  # fmt: skip
    one = {"emitter": {"shape": "rect", "width": 0.3, "height": 0.3}, "position": [0.0, 1.9, 4.4]}
    plan = alone(make, **one)
    without, body = lit(plan)
    behind, _ = lit(plan.model_copy(update={"flags": make(flags=[flag]).flags}))
    here = forehead(body)
    assert without.lux[here].min() > 50.0
    assert behind.lux[here].max() == 0.0


def test_even_surroundings_reach_all_of_what_is_open_and_less_of_what_is_not(make: MakePlan) -> None:
    plan = make(room={**DARK, "ambient_lux": 400.0}, screen={"reflectance": [0, 0, 0]}, subject=SUBJECT,
                camera=CAMERA, lights=[])  # fmt: skip
    light, body = lit(plan)
    whole = float(ambient_rgb(plan, np.array([0.0, 0.0, 1.0])).mean())
    open_, chin = forehead(body), places(body, "head", (-0.012, 0.012), (0.84, 0.858))
    assert light.lux[open_].mean() == pytest.approx(whole, rel=0.03)
    assert light.lux.max() < 1.1 * whole
    assert chin.sum() > 5
    assert 0.5 * whole < light.lux[chin].mean() < 0.9 * whole, "the throat sees chin and chest"


@pytest.mark.parametrize(
    ("part", "x", "y"), [("head", (-0.02, 0.02), (0.955, 0.975)), ("coat", (-0.05, 0.05), (0.5, 0.6))]
)
def test_what_returns_is_what_a_probe_reads(make: MakePlan, part: str, x: Any, y: Any) -> None:
    """Light that comes back of a lit green wall and a white room, on open places of the front."""
    back = lamp(flux_lm=20_000.0, position=[0.0, 3.0, 1.4], aim=[0, 1.0, 0.0], role="screen",
                emitter={"shape": "rect", "width": 0.6, "height": 0.3})  # fmt: skip
    plan = make(subject=SUBJECT, camera=CAMERA, lights=[back])
    light, body = lit(plan)
    here = places(body, part, x, y)
    scene = evaluate(plan, BasisStore()).scene_light
    at, facing = body.places[here].astype(float), body.facing[here].astype(float)
    facing /= np.linalg.norm(facing, axis=1, keepdims=True)
    wanted: Floats = probe_factors(scene.scene, at, facing, BasisStore()) @ scene.leaving
    found = light.lux[here].mean(axis=0)
    # Asked for at the body's middle: its front is some hundredths farther from the wall, and hides a little itself.
    assert found == pytest.approx(wanted.mean(axis=0), rel=0.09)


def test_half_the_dimmer_is_half_the_light_and_nothing_is_asked_anew(make: MakePlan) -> None:
    plan = alone(make, **EMITTERS[0])
    half = plan.model_copy(update={"lights": (plan.lights[0].model_copy(update={"dimmer": 0.5}),)})
    (full, body), (dim, _) = lit(plan), lit(half)
    here = forehead(body)
    assert dim.lux[here] == pytest.approx(0.5 * full.lux[here], rel=1e-5)
    assert dim.gloss[here] == pytest.approx(0.5 * full.gloss[here], rel=1e-5)


def test_the_floor_is_dark_where_the_body_stands_between_it_and_the_lamp(make: MakePlan) -> None:
    """A small lamp before the figure: behind it the shadow of a trunk, a lit gap between the shins, no end of light
    beside it and beyond the head's shadow."""
    plan = alone(make, emitter={"shape": "rect", "width": 0.02, "height": 0.02}, position=[0.0, 3.4, 5.4])
    assert plan.subject is not None
    body, emission = solid_body(plan.subject, plan.camera), emission_of(plan.lights[0], plan)

    def lost(x: float, share: float) -> float:
        """Where the ray over a place of the body at a share of stature meets the floor, so far aside there."""
        up = 1.72 * share
        away = 3.4 / (3.4 - up)
        return float(shadow_on(body, emission, np.array([[x * away, 0.0, 5.4 - 3.0 * away]]))[0])

    assert lost(0.0, 0.65) > 0.95, "trunk"
    assert lost(0.096, 0.2) > 0.95, "a shin"
    assert lost(0.0, 0.2) < 0.05, "between the shins"
    assert lost(0.5, 0.65) == 0.0
    assert lost(0.0, 1.06) == 0.0
    assert float(shadow_on(body, emission, np.array([[0.0, 0.0, 4.4], [30.0, 0.0, -40.0]])).max()) == 0.0


def test_light_from_above_fails_at_the_feet_and_nowhere_far(make: MakePlan) -> None:
    plan = alone(make)
    assert plan.subject is not None
    body = solid_body(plan.subject, plan.camera)
    at = np.array([[0.11, 0.0, 2.46], [0.0, 0.0, 2.75], [0.0, 0.0, 3.6], [0.0, 0.0, 6.0], [40.0, 0.0, 2.4]])
    shoe, before, near, off, far = hidden_from_above(body, at)
    assert shoe > 0.8
    assert 0.05 < before < 0.4
    # An upright half plane 0.28 m wide and 1.7 m high, 1.2 m away: some 3 % of a cosine-weighted half space.
    assert 0.01 < near < 0.07
    assert off < 0.03
    assert far == 0.0


def meets(starts: Floats, toward: Floats, corners: Floats) -> Bools:
    """Which rays (R, 3) meet any triangle (T, 3, 3) on their way to a place (3,) (Moeller and Trumbore, 1997)."""
    a, ab, ac = corners[:, 0], corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    found = np.zeros(len(starts), dtype=bool)
    with np.errstate(divide="ignore", invalid="ignore"):
        for i, start in enumerate(starts):
            way = toward - start
            p, s = np.cross(way, ac), start - a
            det = (ab * p).sum(axis=1)
            u, q = (s * p).sum(axis=1) / det, np.cross(s, ab)
            v, t = q @ way / det, (ac * q).sum(axis=1) / det
            found[i] = bool(np.any((u >= 0.0) & (v >= 0.0) & (u + v <= 1.0) & (t > 0.0) & (t < 1.0)))
    return found


@pytest.mark.torture
def test_nose_jaw_and_brow_keep_light_off_the_face_as_every_triangle_of_it_does(make: MakePlan) -> None:
    """A small lamp from either side, every eighth place of face and neck: 97 of 100 are lit or in the shade as rays
    say, and the mean light is theirs within 3 %."""
    wrong, light = [], np.zeros(2)
    for x in (-2.0, 2.2):
        plan = alone(make, emitter={"shape": "point"}, position=[x, 1.5, 2.7])
        found, body = lit(plan)
        asked = np.flatnonzero((body.shape.part == PARTS.index("head")) & (body.shape.facing[:, 2] > -0.2))[::8]
        at, facing = body.places[asked].astype(float), body.facing[asked].astype(float)
        from_lamp = np.array(plan.lights[0].position)
        turned = ((from_lamp - at) * facing).sum(axis=1) > 0.0
        asked, at, facing = asked[turned], at[turned], facing[turned]
        triangles = body.places[body.shape.triangles].astype(float)
        shaded = meets(at + 0.0005 * facing, from_lamp, triangles[triangles[:, 0, 1] > 1.42])
        open_ = direct_lux_on(emission_of(plan.lights[0], plan), at, facing, set_triangles(plan))
        ours = found.lux[asked, 1]
        assert 0.03 < shaded.mean() < 0.5
        wrong.append(np.mean((ours < 0.5 * open_) != shaded))
        light += ours.sum(), open_[~shaded].sum()
    assert np.mean(wrong) < 0.03
    assert light[0] == pytest.approx(light[1], rel=0.03)


def test_the_back_of_a_panel_beside_the_face_keeps_off_what_returns(make: MakePlan) -> None:
    """A panel that is off, a metre from the cheek, takes as much of the room's light as it looks there; the only lamp
    shines at the wall opposite."""
    key = lamp(role="key", position=[2.0, 1.6, 2.4], aim=[-3.0, 1.6, 2.4], emitter={"shape": "point"},
               beam={"kind": "beam", "deg": 60}, flux_lm=20000.0)  # fmt: skip

    def cheek(x: float) -> float:
        off = lamp(on=False, position=[x, 1.58, 2.45], aim=[3.0 * x, 1.58, 2.45],
                   emitter={"shape": "rect", "width": 1.2, "height": 1.2})  # fmt: skip
        found, body = lit(make(subject=SUBJECT, camera={"z": 6.4, "y": 1.4, "focal_mm": 18.0}, lights=[key, off]))
        facing = body.facing[:, 0] < -0.85
        side = facing & (body.shape.part == PARTS.index("head")) & (np.abs(body.shape.own[:, 1] - 0.92) < 0.03)
        return float(found.lux[side & (found.lux[:, 1] > 0.0), 1].mean())

    # Of a square of 1.2 m a metre away, straight on: 4/pi * a/sqrt(1+a*a) * atan(a/sqrt(1+a*a)), a = 0.6.
    a = 0.6 / np.sqrt(1.0 + 0.6**2)
    looks = 4.0 / np.pi * a * np.arctan(a)
    assert cheek(-1.08) / cheek(-3.0) == pytest.approx(1.0 - looks, abs=0.08)


def under_the_chin(make: MakePlan, ink: list[float]) -> Floats:
    """Light (3,) there in a dark set, a lamp high before the figure, whose coat reflects so much."""
    coat = {"wardrobe": [{"name": "coat", "reflectance": ink}]}
    plan = make(room=DARK, screen={"reflectance": [0, 0, 0]}, subject={**SUBJECT, **coat}, camera=CAMERA,
                lights=[lamp(flux_lm=9000.0, role="key", emitter={"shape": "point"}, position=[0.0, 2.6, 4.6],
                             aim=[0.0, 1.4, 2.4])])  # fmt: skip
    found, body = lit(plan)
    own, facing = body.shape.own, body.shape.facing
    below = (np.abs(own[:, 0]) < 0.02) & (own[:, 1] > 0.84) & (own[:, 1] < 0.9) & (facing[:, 1] < -0.7)
    asked = below & (own[:, 2] > 0.01) & (body.shape.part == PARTS.index("head"))
    assert asked.sum() > 20
    return np.asarray(found.lux[asked].mean(axis=0))


def test_a_lit_coat_lights_the_chin_over_it_and_colours_it(make: MakePlan) -> None:
    """As much the more as it reflects; a red one by red only. The neck's own share stays."""
    black, half, white, red = (under_the_chin(make, ink) for ink in ([0.0] * 3, [0.4] * 3, [0.8] * 3, [0.8, 0, 0]))
    assert white[1] > black[1] + 5.0
    assert white[1] - black[1] == pytest.approx(2.0 * (half[1] - black[1]), rel=0.12)
    assert red[0] == pytest.approx(white[0], rel=0.02)
    assert red[1:] == pytest.approx(black[1:], rel=0.02)


def test_what_a_place_sees_is_its_surroundings_and_the_body_and_nothing_else(make: MakePlan) -> None:
    """Shares of all it sees add up to one; the crown of a head under hair sees nothing but hair."""
    for subject in (SUBJECT, {**SUBJECT, "hair_kind": "smooth"}):
        _, body = lit(make(room=DARK, screen={"reflectance": [0, 0, 0]}, subject=subject, camera=CAMERA,
                           lights=[lamp(emitter={"shape": "point"}, position=[0.0, 2.0, 4.0])]))  # fmt: skip
        shape = body.shape
        open_ = shape.sight[:, 0] / (0.5 / np.sqrt(np.pi)) / np.pi
        whole = open_ + shape.itself.sum(axis=1) / 255.0
        standing = shape.part != PARTS.index("chair")
        assert np.quantile(whole[standing], [0.02, 0.5, 0.98]) == pytest.approx([1.0, 1.0, 1.0], abs=0.08)
        brow = forehead(body)
        assert open_[brow].mean() > (0.9 if subject is SUBJECT else 0.55)


@pytest.mark.parametrize(("lamps", "ahead"), [(4, 4), (30, 0)])
def test_only_what_is_kept_until_it_is_asked_for_is_worked_out_ahead(
    make: MakePlan, monkeypatch: pytest.MonkeyPatch, lamps: int, ahead: int
) -> None:
    """Thirty panels near by are 270 pictures of the body: the first would be forgotten before the last is made."""
    looked = []
    monkeypatch.setattr("ausblick.core.light.body_light.look", lambda body, sources: looked.append(sources))
    large = {"shape": "rect", "width": 1.2, "height": 1.2}
    panels = [lamp(position=[0.1 * i - 1.5, 1.5, 4.2], aim=[0, 1.2, 2.4], emitter=large) for i in range(lamps)]
    looked_from_lamps(make(subject=SUBJECT, camera=CAMERA, lights=panels))
    assert len(looked) == ahead
