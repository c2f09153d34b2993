"""The figure in a window: each sample lies where it is said to, and edges are covered by what lies behind them."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.smear import smeared
from ausblick.core.camera.view import view_of
from ausblick.core.figure.body_ink import ink_of
from ausblick.core.figure.solid_body import PARTS, SolidBody, solid_body
from ausblick.core.matte.pixel_window import SEEN, PixelWindow
from ausblick.core.matte.traced import Traced, traced
from ausblick.core.plan import Plan
from tests.conftest import MakePlan


def seen(plan: Plan, window: PixelWindow, moving: bool = False) -> tuple[Traced, SolidBody]:
    assert plan.subject is not None
    body = solid_body(plan.subject, plan.camera)
    found = traced(body, moving, view_of(plan.camera, plan.subject), plan.camera.sensor, window)
    assert found is not None
    return found, body


def standing(make: MakePlan, **camera: object) -> Plan:
    return make(subject={"z": 2.4, "x": 0.4, "height": 1.72},
                camera={"x": -0.6, "z": 6.8, "y": 1.6, "pan": 6.0, "tilt": -8.0, "roll": 4.0, **camera})  # fmt: skip


@pytest.mark.parametrize("samples", [SEEN, 1])
@pytest.mark.parametrize("window", [(0.0, 0.0, 480, 270, 8.0), (1950.0, 700.0, 300, 200, 2.0)])
def test_a_sample_shows_the_place_that_its_pixel_looks_at(
    make: MakePlan, window: tuple[float, float, int, int, float], samples: int
) -> None:
    plan = standing(make)
    view, sensor = view_of(plan.camera, plan.subject), plan.camera.sensor
    where = PixelWindow(*window, seen=samples)
    found, body = seen(plan, where)
    frame, _ = view.project(found.at(body.places).astype(float))
    px = (frame * (sensor.px_w, sensor.px_h) - (where.x, where.y)) / where.scale
    rows, columns = found.box
    width = samples * (columns.stop - columns.start)
    row = rows.start + found.sample // width // samples
    column = columns.start + found.sample % width // samples
    # Samples lie a quarter of a pixel from its middle, either way.
    assert np.abs(px[:, 0] - column - 0.5).max() < 0.27
    assert np.abs(px[:, 1] - row - 0.5).max() < 0.27
    assert found.weights.min() > -0.02


def test_what_is_seen_is_the_side_toward_the_lens(make: MakePlan) -> None:
    """And nothing that lies behind it: the face, not the back of the head."""
    plan = standing(make)
    found, body = seen(plan, PixelWindow(0.0, 0.0, 960, 540, 4.0))
    toward = view_of(plan.camera, plan.subject).lens - found.at(body.places)
    assert np.mean(np.einsum("ij,ij->i", toward, found.at(body.facing)) > 0.0) > 0.995
    on_head = found.part == PARTS.index("head")
    ahead = (body.places[body.shape.part == PARTS.index("head")] - body.mark.at(np.zeros(3))) @ body.mark.turn[:, 2]
    assert (found.at(body.places)[on_head] - body.mark.at(np.zeros(3))).dot(body.mark.turn[:, 2]).max() > (
        ahead.max() - 0.01
    ), "the tip of the nose"


def test_cover_is_the_same_whatever_the_pixels_are(make: MakePlan) -> None:
    """Its area, and what eight by eight samples of a finer picture say of every pixel."""
    plan = standing(make)
    fine, _ = seen(plan, PixelWindow(0.0, 0.0, 1920, 1080, 2.0))
    coarse, _ = seen(plan, PixelWindow(0.0, 0.0, 480, 270, 8.0))
    whole = np.zeros((1080, 1920))
    whole[fine.box] = fine.cover
    mean = whole.reshape(270, 4, 480, 4).mean(axis=(1, 3))
    found = np.zeros((270, 480))
    found[coarse.box] = coarse.cover
    assert found.sum() == pytest.approx(mean.sum(), rel=2e-3)
    assert np.abs(found - mean).max() < 0.2
    assert np.abs(found - mean).mean() < 0.002


def test_a_movement_spreads_cover_and_loses_none(make: MakePlan) -> None:
    whole = np.zeros((200, 200, 3), dtype=np.float32)
    whole[90:110, 95:105] = 1.0, 0.5, 0.2
    spread = smeared(whole, 40.0, (slice(90, 110), slice(95, 105)))
    assert spread.sum(axis=(0, 1)) == pytest.approx(whole.sum(axis=(0, 1)), rel=1e-4)
    assert spread[..., 0].max() < 0.75
    rows, columns = np.nonzero(spread[..., 0] > 0.02)
    # Outward and up: 40 px long at 0.78 across and 0.62 up.
    assert np.ptp(columns) == pytest.approx(0.78 * 40.0 + 10.0, abs=3.0)
    assert np.ptp(rows) == pytest.approx(0.62 * 40.0 + 20.0, abs=3.0)


def test_eyes_lips_and_brows_are_painted_where_a_face_has_them(make: MakePlan) -> None:
    plan = make(subject={"z": 2.4, "skin": [0.45, 0.3, 0.22], "hair_kind": "none"})
    assert plan.subject is not None
    head = np.array([PARTS.index("head")] * 5, dtype=np.uint8)
    at = np.array(
        [[0.0185, 0.9338, 0.04], [0.0, 0.97, 0.04], [0.0, 0.8915, 0.045], [0.019, 0.9446, 0.045], [0.0, 0.94, -0.05]],
        dtype=np.float32,
    )
    pupil, brow_free, lip, brow, nape = ink_of(plan.subject, head, at).reflectance
    skin = np.array(plan.subject.skin)
    assert pupil.max() < 0.03
    assert brow_free == pytest.approx(skin, rel=0.02)
    assert lip[1] / lip[0] < 0.85 * skin[1] / skin[0], "redder"
    assert brow.mean() < 0.6 * skin.mean()
    assert nape == pytest.approx(skin, rel=0.02)


def test_what_lies_behind_the_lens_is_not_drawn(make: MakePlan) -> None:
    plan = make(subject={"z": 6.0}, camera={"z": 6.2, "y": 1.5})
    assert plan.subject is not None
    body = solid_body(plan.subject, plan.camera)
    view = view_of(plan.camera, plan.subject)
    found = traced(body, False, view, plan.camera.sensor, PixelWindow(0.0, 0.0, 192, 108, 20.0))
    if found is not None:
        frame, depth = view.project(found.at(body.places).astype(float))
        assert depth.min() > 0.1
        assert len(frame) <= 192 * 108 * SEEN * SEEN


def test_a_thing_larger_than_the_window_fills_it(make: MakePlan) -> None:
    """A front leg of the chair, so close that no corner of its triangles is in the picture."""
    plan = make(subject={"z": 2.4, "posture": "seated"}, camera={"z": 6.4, "y": 1.0, "focal_mm": 35.0})
    view, sensor = view_of(plan.camera, plan.subject), plan.camera.sensor
    u, v = view.project(np.array([0.19, 0.165, 2.4 + 0.06 + 0.19 + 0.018]))[0]
    window = PixelWindow(u * sensor.px_w - 4.0, v * sensor.px_h - 4.0, 80, 80, 0.1)
    found, _ = seen(plan, window)
    assert found.cover.shape == (80, 80)
    assert found.cover.min() == 1.0
    assert {PARTS[i] for i in np.unique(found.part)} == {"chair"}
