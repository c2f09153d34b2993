"""What another lamp's head and pole keep off the screen, against a great many plain rays."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.screen_grid import sheets_of, usual_grid
from ausblick.core.geometry.vectors import Bools, Floats
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.body_shade import body_maps
from ausblick.core.light.emission import emission_of
from ausblick.core.light.lamp_bodies import BEHIND, POLE
from tests.conftest import MakePlan, lamp

PANEL = {"shape": "rect", "width": 0.6, "height": 0.4}
FAR = lamp(position=[0.9, 1.7, 3.2], aim=[0.0, 1.4, 0.0], flux_lm=6000, emitter=PANEL)
RAYS = 4000


def met_by_card(points: Floats, places: Floats, body: Any) -> Bools:
    face = body.face
    back = face.centre - BEHIND * face.axis
    share = ((points - back) @ face.axis) / ((points - places) @ face.axis)
    at = points + share[:, None] * (places - points) - back
    across, up = np.abs(at @ face.right), np.abs(at @ face.up)
    w, h = np.abs((face.outline - face.centre) @ np.stack([face.right, face.up]).T).max(axis=0)
    return np.asarray((share > 0.0) & (share < 1.0) & (across < w) & (up < h))


def met_by_pole(points: Floats, places: Floats, body: Any) -> Bools:
    """By the nearest place of each ray to the axis, seen from above; a pole as thin is met along a few mm only."""
    x, top, z = body.face.centre
    begin, way = points[:, [0, 2]] - (x, z), (places - points)[:, [0, 2]]
    share = np.clip(-(begin * way).sum(axis=1) / (way * way).sum(axis=1), 0.0, 1.0)
    away = np.linalg.norm(begin + share[:, None] * way, axis=1)
    height = points[:, 1] + share * (places - points)[:, 1]
    return np.asarray((away < POLE) & (height > 0.0) & (height < top))


@pytest.mark.parametrize(
    "near",
    [
        lamp(position=[0.5, 1.6, 1.7], aim=[0.0, 1.4, 0.0], emitter={"shape": "rect", "width": 0.4, "height": 0.3}),
        lamp(position=[0.2, 2.3, 1.2], aim=[-0.6, 1.0, 0.0], emitter={"shape": "rect", "width": 0.3, "height": 0.9}),
        lamp(position=[0.6, 2.4, 2.2], aim=[0.8, 2.2, 0.0], emitter={"shape": "rect", "width": 0.2, "height": 0.2}),
    ],
)
def test_head_and_pole_before_a_panel_against_plain_rays(make: MakePlan, near: dict[str, Any]) -> None:
    plan = make(lights=[FAR, near], subject=None)
    grid = usual_grid(sheets_of(plan.screen)[0])
    shade = body_maps(plan, [grid], BasisStore())[0][0].ravel()
    lit, body = emission_of(plan.lights[0]).face, type("Body", (), {"face": emission_of(plan.lights[1]).face})
    rng = np.random.default_rng(8)
    cell = np.array([grid.x[1] - grid.x[0], grid.y[1] - grid.y[0], 0.0])
    chosen = rng.choice(np.flatnonzero(shade > 0.02), 60, replace=False)
    off = []
    for place in grid.points()[chosen]:
        # The shade of a cell is its mean: a pole's is narrower than one.
        points = place + rng.uniform(-1.0, 1.0, (RAYS, 3)) * cell
        s, t = rng.random((2, RAYS))[:, :, None]
        places = lit.outline[0] + s * (lit.outline[1] - lit.outline[0]) + t * (lit.outline[3] - lit.outline[0])
        away = places - points
        gives = np.clip(away[:, 2], 0.0, None) * np.clip(-away @ lit.axis, 0.0, None) / (away**2).sum(axis=1) ** 2
        hid = met_by_card(points, places, body) | met_by_pole(points, places, body)
        off.append(float((gives * hid).sum() / gives.sum()))
    assert np.ptp(off) > 0.05, "part of it is dark, part is not"
    apart = shade[chosen] - np.array(off)
    assert np.sqrt(np.mean(apart**2)) < 0.02
    assert np.abs(apart).max() < 0.06
