"""Shapes of things held and worn: their outline is where their distance is nought, and they face from their axis."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.figure.held_props import HELD, SPECTACLES, shown_props
from ausblick.core.figure.prop_shapes import Club, Jar, Pane, Scoop, Shape, Sphere, bounds
from ausblick.core.geometry.polygon import dense
from ausblick.core.plan import Prop, Subject
from ausblick.core.plan.people import Framing, PropShape

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


SHAPES: tuple[PropShape, ...] = ("cylinder", "sphere", "pane", "bat", "scoop")


@pytest.mark.parametrize("first", SHAPES)
@pytest.mark.parametrize("framing", ["waist", "hands"])
def test_a_second_thing_touches_the_first_or_the_hand_that_has_it(first: PropShape, framing: Framing) -> None:
    """None floats: it is in or on the first, or behind it in the same grip."""
    for second in SHAPES:
        things = tuple(Prop(name=name, kind="matt", shape=shape) for name, shape in (("a", first), ("b", second)))
        one, other = shown_props(Subject(framing=framing, props=things))
        places = np.concatenate([dense(outline, 40) for outline in other.shape.outlines()])
        assert float(one.shape.distance(places[:, 0], places[:, 1]).min()) < 0.001, (first, second)


def test_a_scoop_stands_in_a_jar_and_its_handle_comes_out_of_it() -> None:
    things = Prop(name="a", kind="glass", shape="cylinder"), Prop(name="b", kind="matt", shape="scoop")
    jar, scoop = shown_props(Subject(framing="hands", props=things))
    assert isinstance(jar.shape, Jar)
    assert isinstance(scoop.shape, Scoop)
    bowl = scoop.shape.bowl
    assert float(jar.shape.distance(np.array(bowl.x), np.array(bowl.y))) < -0.9 * bowl.half
    x0, _, x1, top = bounds(scoop.shape)
    assert top > jar.shape.y + jar.shape.tall + 0.01
    assert jar.shape.x - jar.shape.half < x0 < x1 < jar.shape.x + 1.3 * jar.shape.half
