"""Curve, floor run and wings: lit as a probe in their place is, judged where the frame needs them, and drawn so."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.camera.screen_grid import curve_radius, sheets_of, usual_grid
from ausblick.core.camera.view import view_of
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.light.body_shade import body_maps
from ausblick.core.light.figure_shadow import hidden_round
from ausblick.core.light.mix import scalar_lux
from ausblick.core.light.returned import probe_all, scene_light
from ausblick.core.light.total import total_maps
from ausblick.core.plan import Change, apply_changes
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_picture
from ausblick.demo.fern_house import scree
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

PANEL = {"shape": "rect", "width": 0.6, "height": 0.6}
TWO = [lamp(id="a", emitter=PANEL, flux_lm=6000, position=[-2.2, 1.6, 2.4], aim=[0.4, 1.0, 0.0]),
       lamp(id="b", emitter=PANEL, flux_lm=6000, position=[2.2, 1.6, 2.4], aim=[-0.4, 1.0, 0.0])]  # fmt: skip


def test_every_surface_is_lit_as_a_probe_in_its_place_is(make: MakePlan) -> None:
    screen = {"floor_run": 2.5, "curve_radius": 0.6, "wing_left": 1.0, "wing_right": 0.8}
    plan = make(screen=screen, lights=TWO, subject=None)
    scene = scene_light(plan, STORE)
    for sheet in sheets_of(plan.screen):
        grid = usual_grid(sheet)
        lux = total_maps(plan, grid, STORE).sum(axis=0).ravel()
        points, facing = grid.points(), grid.axes()[2]
        for k in range(0, len(points), max(1, len(points) // 7)):
            if sheet.name == "wall" and points[k, 1] < curve_radius(plan.screen):
                continue
            probe = float(scalar_lux(probe_all(plan, points[k], facing[k], scene, STORE).total))
            assert lux[k] == pytest.approx(probe, rel=0.03), (sheet.name, points[k])


def test_a_curve_bends_from_the_wall_to_the_floor(make: MakePlan) -> None:
    screen = make(screen={"floor_run": 2.0, "curve_radius": 0.5}).screen
    wall, curve, run = sheets_of(screen)
    assert [sheet.name for sheet in (wall, curve, run)] == ["wall", "curve", "floor run"]
    assert curve.height[1] == pytest.approx(0.5 * math.pi / 2.0)
    ends = curve.places(np.zeros(2), np.array(curve.height))
    assert ends == pytest.approx(np.array([[0.0, 0.5, 0.0], [0.0, 0.0, 0.5]]))
    assert curve.normals(np.array(curve.height)) == pytest.approx(
        np.array([[0.0, 0.0, 1.0], [0.0, 1.0, 0.0]]), abs=1e-9
    )
    assert run.height == (0.5, 2.0)
    # One that hangs above the floor has none.
    assert curve_radius(screen.model_copy(update={"bottom": 0.3})) == 0.0


def test_the_run_counts_where_feet_are_seen_and_is_named() -> None:
    plan = scree()
    seen = evaluate(plan, STORE).screen
    assert seen is not None
    run = next(one for one in seen.surfaces if one.name == "floor run")
    assert run.spread_stops == pytest.approx(0.77, abs=0.03)
    assert seen.spread_stops > 0.8
    assert (seen.darkest, seen.brightest) == ("floor run", "wall")
    assert sum(one.share_percent for one in seen.surfaces) == pytest.approx(100.0)
    above = evaluate(apply_changes(plan, [Change("subject.feet_seen", False)]), STORE).screen
    assert above is not None
    assert [one.name for one in above.surfaces] == ["wall"]
    assert above.spread_stops < 0.35


def test_a_set_built_to_plan_passes_its_own_check() -> None:
    plan = scree()
    evaluation = evaluate(plan, STORE)
    expected = expected_reading(evaluation, STORE)
    picture = standin_picture(standin_capture(AsBuilt(plan), STORE), 960, 3)
    read = read_frame(Frame(picture, 255.0), plan.targets.level_trace)
    assert expected.even_percent is not None
    assert read.even_percent == pytest.approx(expected.even_percent, abs=0.6)
    # What is told of the plan before there is a picture agrees with what the picture then shows.
    assert evaluation.screen is not None
    assert read.level_luma is not None
    assert evaluation.screen.level_luma == pytest.approx(read.level_luma.mean, abs=2.0)


def test_the_ground_is_dark_round_the_feet(make: MakePlan) -> None:
    """Light from all round, hidden by an upright cylinder that stands there: close to it a little under half."""
    plan = make(screen={"floor_run": 4.0, "width": 4.0}, subject={"z": 2.0, "feet_seen": True})
    run = next(sheet for sheet in sheets_of(plan.screen) if sheet.name == "floor run")
    grid = usual_grid(run)
    hidden, points = hidden_round(plan, grid, STORE).ravel(), grid.points()
    away = np.hypot(points[:, 0], points[:, 2] - 2.0)
    near, far = hidden[(away > 0.24) & (away < 0.32)], hidden[(away > 1.2) & (away < 1.4)]
    assert 0.25 < near.mean() < 0.5
    assert far.mean() < 0.08
    assert near.min() > far.max()


def test_a_stand_throws_a_thin_shadow_and_a_panel_a_wide_one(make: MakePlan) -> None:
    """A point lamp behind another one's pole: as wide on the wall as the lens of similar triangles makes it."""
    near = lamp(id="near", emitter=PANEL, flux_lm=1000, position=[0.0, 2.0, 1.0], aim=[0.0, 2.0, 5.0])
    point = lamp(id="point", emitter={"shape": "point"}, flux_lm=4000, position=[0.0, 1.0, 3.0], aim=[0.0, 1.0, 0.0])
    plan = make(screen={"width": 3.0, "height": 2.6}, lights=[near, point], subject=None)
    grid = usual_grid(sheets_of(plan.screen)[0])
    lost = body_maps(plan, [grid], STORE)[0][1]
    # The pole: 35 mm at 2 m from the point is 53 mm on the wall, 3 m away; the map keeps its mean over the row.
    row = lost[int(np.argmin(np.abs(grid.y - 1.0)))]
    width = float(row.sum()) * (grid.x[1] - grid.x[0])
    assert width == pytest.approx(0.0525, rel=0.12)
    # The panel, 0.6 m, is 0.9 m wide on the wall, and as high: from 1 m + 1.5 x 0.7 m up.
    high = lost[int(np.argmin(np.abs(grid.y - 2.4)))]
    assert float(high.sum()) * (grid.x[1] - grid.x[0]) == pytest.approx(0.9, rel=0.06)
    # Nothing shades the light of the one in front.
    assert body_maps(plan, [grid], STORE)[0][0].max() == 0.0


def test_sheen_grows_toward_grazing_angles(make: MakePlan) -> None:
    back = lamp(id="back", role="back", emitter=PANEL, flux_lm=4000, position=[0.0, 2.4, 0.4], aim=[0.0, 0.0, 2.0])
    low = {"y": 0.9, "z": 6.0, "tilt": -4.0, "focal_mm": 24.0}
    plan = make(screen={"floor_run": 4.0, "gloss": 0.05}, lights=[back], subject={"feet_seen": True}, camera=low)
    matt = apply_changes(plan, [Change("screen.gloss", 0.0)])
    shining, dull = (evaluate(one, STORE) for one in (plan, matt))
    runs = [next(m for m in e.screen_maps if m.grid.sheet.name == "floor run") for e in (shining, dull)]
    more = runs[0].luma - runs[1].luma
    seen = runs[0].judged
    assert more[seen].max() > 0.3
    assert np.array_equal(shining.screen_map.luma, dull.screen_map.luma)
    spot = shining.texture.highlights[0] if shining.texture else None
    assert spot is not None
    assert spot.surface == "floor run"


def test_the_picture_shows_each_surface_where_the_lens_sees_it(make: MakePlan) -> None:
    """The fold, the run's near edge and a wing's edge are drawn where the projection says."""
    from ausblick.core.matte.background import background_of
    from ausblick.core.matte.capture import capture_of
    from ausblick.core.matte.key_windows import overview_window

    plan = make(screen={"floor_run": 1.5, "wing_left": 1.0, "curve_radius": 0.4}, lights=TWO, subject=None,
                camera={"z": 6.0, "y": 2.0, "tilt": -12.0, "focal_mm": 22.0})  # fmt: skip
    capture = capture_of(evaluate(plan, STORE), STORE)
    window = overview_window(plan, 480)
    _, on_screen = background_of(capture, window)
    view = view_of(plan.camera, None)
    inside = [(0.0, 1.5, 0.0), (0.0, 0.1, 0.1), (0.0, 0.0, 1.4), (-1.5, 1.5, 0.9)]
    outside = [(0.0, 0.0, 1.6), (-1.5, 1.5, 1.1), (1.7, 1.5, 0.0), (0.0, 2.75, 0.0)]
    for places, wanted in ((inside, 1.0), (outside, 0.0)):
        frame = view.project(np.array(places))[0]
        for u, v in frame:
            assert on_screen[int(v * window.height), int(u * window.width)] == wanted
