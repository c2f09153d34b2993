from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.advice.check_report import check_report
from ausblick.core.advice.findings import find
from ausblick.core.advice.search.framing import FILLS, framing_changes
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.frame_outlines import field_on_screen, picture_of
from ausblick.core.evaluation.numbers import numbers
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.sentences import say
from ausblick.core.standards.plain import plain
from ausblick.demo.fern_house import scree, seed_vault
from tests.conftest import MakePlan, lamp

SUN = lamp(emitter={"shape": "sun"}, normal_lux=1000, position=[0, 1, 1], aim=[0, 1, 0])


BLACK = {"reflectance": {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}}


def test_even_light_gives_exact_levels(make: MakePlan) -> None:
    """A sun straight on: 1000 lx everywhere, the grey exposure, so the published screen levels."""
    evaluation = evaluate(make(lights=[SUN], room=BLACK, subject=None), BasisStore())
    screen = evaluation.screen
    assert screen is not None
    assert (screen.lux_min, screen.lux_mean, screen.lux_max) == pytest.approx((1000, 1000, 1000))
    assert (screen.uniformity, screen.spread_stops, screen.band_percent) == pytest.approx((1, 0, 0), abs=1e-9)
    assert screen.level_key_channel == pytest.approx(57.7, abs=0.3)
    assert evaluation.exposure.grey_lux == pytest.approx(1000)


def test_face_meter_is_held_to_the_camera(make: MakePlan) -> None:
    key = lamp(
        emitter={"shape": "point"}, peak_cd=900, beam={"kind": "cosine", "n": 0}, role="key", position=[0, 1.6, 5.4]
    )
    plan = make(lights=[key], room=BLACK, screen={"reflectance": [0, 0, 0]})
    exposure = evaluate(plan, BasisStore()).exposure
    assert exposure.subject_lux == pytest.approx(900 / 3.0**2, rel=1e-3)
    assert exposure.stops_over == pytest.approx(math.log2(100 / 1000), rel=1e-3)


def test_of_hands_alone_the_light_on_hands_is_measured_and_told(make: MakePlan) -> None:
    """A bare lamp 1 m before them, and far below the face: 400 lx by the square of the distance."""
    own = {"framing": "hands", "height": 1.7, "z": 1.2}
    place = [0, 0.6 * 1.7, 2.2]
    key = lamp(emitter={"shape": "point"}, peak_cd=400, beam={"kind": "cosine", "n": 0}, role="key", position=place)
    plan = make(lights=[key], room=BLACK, screen={"reflectance": [0, 0, 0]}, subject=own,
                camera={"y": 0.6 * 1.7, "z": 3.2})  # fmt: skip
    evaluation, findings = find(plan, BasisStore(), with_remedies=False, only=("subject.exposure",))
    assert evaluation.exposure.subject_lux == pytest.approx(400.0, rel=1e-3)
    assert say(findings[0].judgement.says).startswith("Hands 1.3 stops under grey")


def test_judged_cells_are_those_the_camera_needs(make: MakePlan) -> None:
    evaluation = evaluate(make(subject={"framing": "face"}), BasisStore())
    needed, grid = evaluation.coverage.needed, evaluation.screen_map.grid
    assert needed is not None
    xs, ys = np.meshgrid(grid.x, grid.y)
    inside = (xs > needed[0]) & (xs < needed[2]) & (ys > needed[1]) & (ys < needed[3])
    judged = evaluation.screen_map.judged
    assert not (judged & ~inside).any()
    # The head hides the middle from the lens; beside it everything needed is judged.
    beside = inside & (np.abs(xs) > 0.4)
    assert np.array_equal(judged & beside, beside)
    assert not judged[np.abs(ys - 1.66).argmin(axis=0)[0], np.abs(grid.x).argmin()]


def test_of_hands_alone_no_body_hides_the_brightest_part_of_the_screen(make: MakePlan) -> None:
    """A lamp that lights its middle only; in the middle nobody stands, hands reach in from both sides."""
    spot = lamp(emitter={"shape": "point"}, peak_cd=900, beam={"kind": "cosine", "n": 40}, position=[0, 1.1, 0.8],
                aim=[0, 1.1, 0])  # fmt: skip
    own = {"framing": "hands", "height": 1.7, "z": 1.2}
    plan = make(lights=[spot], room=BLACK, subject=own, camera={"y": 1.1, "z": 3.2, "focal_mm": 35.0})
    evaluation = evaluate(plan, BasisStore())
    middle = evaluation.screen_map.lux[np.abs(evaluation.screen_map.grid.y - 1.1).argmin()].max()
    assert evaluation.screen is not None
    assert evaluation.screen.lux_max == pytest.approx(middle)
    standing = evaluate(apply_changes(plan, [Change("subject.framing", "waist")]), BasisStore())
    assert standing.screen is not None
    assert standing.screen.lux_max < 0.9 * middle


def test_promised_keys_are_there() -> None:
    report = plain(check_report(*find(seed_vault(), BasisStore())))
    assert set(report["coverage"]) >= {"needed", "covered", "margin_m"}
    lights = {"lux_mean", "lux_min", "lux_max", "uniformity", "spread_stops"}
    assert set(report["screen"]) >= lights | {"level_luma", "level_key_channel", "band_percent"}
    assert set(report["exposure"]) == {"subject_lux", "grey_lux", "subject_level", "stops_over"}
    assert set(report["blur"]) >= {"motion_px", "screen_defocus_px"}
    assert set(report["findings"][0]) >= {"id", "stage", "severity", "value", "limit", "unit", "why", "remedies"}
    assert set(report["shadow"]) >= {"deepest_percent", "area_visible_percent"}
    assert set(report["spill"]) >= {"front", "side", "back", "under"}
    assert report["reflections"] == []
    assert report["not_computed"]


def test_every_reading_can_be_asked_why() -> None:
    listed = numbers(evaluate(scree(), BasisStore()))
    assert len({n.id for n in listed}) == len(listed) >= 12
    smear = next(n for n in listed if n.id == "smear")
    given = {i.name: i.value for i in smear.inputs}
    recomputed = (
        given["speed"] * given["shutter"] * given["image distance"] / given["distance"] / given["pixel pitch"]
    )
    assert smear.value == pytest.approx(recomputed * 1000, rel=1e-3)


@pytest.mark.parametrize(("roll", "size"), [(0, (3840, 2160)), (90, (2160, 3840)), (-90, (2160, 3840))])
def test_the_picture_is_upright_however_the_camera_is_held(
    make: MakePlan, roll: float, size: tuple[int, int]
) -> None:
    evaluation = evaluate(make(camera={"roll": roll}), BasisStore())
    picture = picture_of(evaluation.plan, evaluation.view, evaluation.coverage, BasisStore())
    assert (picture.width, picture.height) == size
    parts = dict(picture.figure)
    assert parts["head"][:, 1].mean() < parts["torso"][:, 1].mean() < parts["legs"][:, 1].mean()
    left, right = (outline[:, 0].mean() for name, outline in picture.figure if name == "hands")
    assert left < 0.5 < right, "one hand on either side, the raised one to the right"
    # The homography agrees with the outlines.
    u, v, w = picture.plane @ np.array([-1.5, 0.0, 1.0])
    assert (u / w, v / w) == pytest.approx(tuple(picture.surfaces[0][1][0]), abs=1e-6)


def test_field_on_the_screen_grows_with_distance(make: MakePlan) -> None:
    for plan in (make(), make(camera={"roll": 90})):
        evaluation = evaluate(plan, BasisStore())
        field = field_on_screen(plan, evaluation.view)
        assert field is not None
        wide = field[2] - field[0] > field[3] - field[1]
        assert wide is (plan.camera.roll == 0)
    away = make(camera={"pan": 180})
    assert field_on_screen(away, evaluate(away, BasisStore()).view) is None


def test_a_turned_camera_puts_more_pixels_on_a_standing_figure(make: MakePlan) -> None:
    """The same filling of the picture: 16:9 turned is 1.78 times as high."""

    def pixels(plan: Plan) -> float:
        return next(n.value for n in numbers(evaluate(plan, BasisStore())) if n.id == "figure-px") or 0.0

    plan = make(room={"z_max": 20.0}, subject={"feet_seen": True})
    upright, turned = (
        apply_changes(plan, framing_changes(plan, "full", 35.0, turned=held, gap=2.0)) for held in (False, True)
    )
    assert pixels(upright) == pytest.approx(FILLS * 2160, rel=0.02)
    assert pixels(turned) / pixels(upright) == pytest.approx(16 / 9, rel=0.03)
