"""Shapes of things held and worn: their outline is where their distance is nought, and they face from their axis."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.figure.held_props import HELD, SPECTACLES
from ausblick.core.figure.prop_shapes import Club, Pane, Shape, Sphere

BAT = Club(0.1, 0.5, 0.3, 0.7, 0.01, 0.03)


@pytest.mark.parametrize("shape", [Sphere(0.1, 0.2, 0.05), BAT, SPECTACLES])
def test_outlines_lie_where_the_distance_is_nought(shape: Shape) -> None:
    for outline in shape.outlines():
        off = np.abs(shape.distance(outline[:, 0], outline[:, 1]))
        # Where a bridge runs into a rim its outline is within.
        assert off.max() < 6e-4
        assert float(np.median(off)) < 1e-5


def test_a_bat_is_as_thick_as_it_should_be_at_grip_and_tip() -> None:
    for along, radius in ((0.0, 0.01), (0.15, 0.02), (0.3, 0.03)):
        x, y = 0.1 + along * math.sin(0.7), 0.5 + along * math.cos(0.7)
        aside = np.array([math.cos(0.7), -math.sin(0.7)]) * radius
        assert float(BAT.distance(np.array(x + aside[0]), np.array(y + aside[1]))) == pytest.approx(0.0, abs=1e-9)
        assert BAT.normals(np.array(x), np.array(y)) == pytest.approx([0.0, 0.0, 1.0])
        rim = BAT.normals(np.array(x + 0.9 * aside[0]), np.array(y + 0.9 * aside[1]))
        assert rim[:2] == pytest.approx(0.9 * aside / radius, abs=1e-6)


def test_a_scoop_is_a_bowl_at_the_end_of_its_handle() -> None:
    scoop = HELD[0].formed("scoop")
    x, y = scoop.middle
    grip = HELD[0].y - 0.9 * HELD[0].tall
    assert math.hypot(x - HELD[0].x, y - grip) > 3.4 * HELD[0].half
    assert float(scoop.distance(np.array(x), np.array(y))) == pytest.approx(-0.95 * HELD[0].half)
    assert float(scoop.distance(np.array(HELD[0].x), np.array(grip))) < 0.0


def test_a_pane_faces_ahead_everywhere_and_lenses_look_a_little_down() -> None:
    pane = Pane(0.0, 0.5, 0.1, 0.2)
    assert pane.normals(np.array([0.08]), np.array([0.6]))[0] == pytest.approx([0.0, 0.0, 1.0])
    middle = SPECTACLES.normals(np.array([SPECTACLES.apart]), np.array([SPECTACLES.y]))[0]
    assert middle == pytest.approx([0.0, -0.1, math.sqrt(0.99)])
