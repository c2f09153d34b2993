"""Configuration factors against closed forms, and the patches they are made for."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.light.factors import contour_factors, patch_factors
from ausblick.core.light.patches import patches_of
from tests.conftest import MakePlan


def parallel(a: float, b: float, c: float) -> float:
    """Element to a parallel rectangle a x b at distance c, the element under its corner."""
    x, y = a / c, b / c
    p, q = math.sqrt(1 + x * x), math.sqrt(1 + y * y)
    return (x / p * math.atan(y / p) + y / q * math.atan(x / q)) / (2 * math.pi)


def perpendicular(a: float, b: float, c: float) -> float:
    """Element to a rectangle at right angles, a wide along the edge it stands over, b high, at distance c."""
    x, y = b / a, c / a
    root = math.sqrt(x * x + y * y)
    return (math.atan(1 / y) - y / root * math.atan(1 / root)) / (2 * math.pi)


@pytest.mark.parametrize(("a", "b", "c"), [(1.0, 1.0, 1.0), (2.0, 0.5, 0.7), (3.0, 2.6, 0.2), (0.3, 0.3, 4.0)])
def test_parallel_rectangle(a: float, b: float, c: float) -> None:
    corners = np.array([[[0, 0, 0], [a, 0, 0], [a, b, 0], [0, b, 0]]], dtype=float)
    found = contour_factors(np.array([[0.0, 0.0, c]]), np.array([[0.0, 0.0, -1.0]]), corners)
    assert found[0] == pytest.approx(parallel(a, b, c), rel=1e-9)


@pytest.mark.parametrize(("a", "b", "c"), [(1.0, 1.0, 1.0), (2.0, 0.5, 0.7), (0.4, 2.0, 0.3)])
def test_rectangle_at_right_angles(a: float, b: float, c: float) -> None:
    """The element lies in the floor facing up, the rectangle stands on it: the horizon touches its lower edge."""
    corners = np.array([[[0, 0, 0], [a, 0, 0], [a, b, 0], [0, b, 0]]], dtype=float)
    found = contour_factors(np.array([[0.0, 0.0, c]]), np.array([[0.0, 1.0, 0.0]]), corners)
    assert found[0] == pytest.approx(perpendicular(a, b, c), rel=1e-9)


def test_what_is_below_the_horizon_is_cut_away() -> None:
    half = np.array([[[-1, 0, 0], [1, 0, 0], [1, 1, 0], [-1, 1, 0]]], dtype=float)
    whole = np.array([[[-1, -1, 0], [1, -1, 0], [1, 1, 0], [-1, 1, 0]]], dtype=float)
    at, up = np.array([[0.2, 0.0, 0.8]]), np.array([[0.0, 1.0, 0.0]])
    assert contour_factors(at, up, whole) == pytest.approx(contour_factors(at, up, half), rel=1e-12)
    below = np.array([[[-1, -2, 0], [1, -2, 0], [1, -1, 0], [-1, -1, 0]]], dtype=float)
    assert contour_factors(at, up, below)[0] == 0.0


def test_far_patches_count_as_points() -> None:
    corners = np.array([[[0, 0, 0], [0.2, 0, 0], [0.2, 0.2, 0], [0, 0.2, 0]]], dtype=float)
    out, area = np.array([[0.0, 0.0, 1.0]]), np.array([0.04])
    for away in (0.4, 1.0, 5.0):
        at, facing = np.array([[0.3, 0.1, away]]), np.array([[0.0, 0.0, -1.0]])
        exact = contour_factors(at, facing, corners)
        assert patch_factors(at, facing, corners, out, area)[0] == pytest.approx(exact, rel=0.015)
    behind = patch_factors(np.array([[0.1, 0.1, -1.0]]), np.array([[0.0, 0.0, 1.0]]), corners, out, area)
    assert behind[0, 0] == 0.0


def test_patches_cover_the_set_once(make: MakePlan) -> None:
    room = {"x_min": -3, "x_max": 3, "z_min": -0.3, "z_max": 6, "height": 3}
    found = patches_of(make(room=room, screen={"width": 3.0, "height": 2.6, "floor_run": 2.0, "wing_left": 1.0}))
    area = {name: float(found.areas[found.of(name)].sum()) for name in found.names}
    assert area["screen"] == pytest.approx(3.0 * 2.6)
    assert area["floor run"] == pytest.approx(3.0 * 2.0)
    assert area["left wing"] == pytest.approx(1.0 * 2.6)
    assert area["floor"] == pytest.approx(6.0 * 6.3 - 6.0)
    assert area["ceiling"] == pytest.approx(6.0 * 6.3)
    assert area["left wall"] == area["right wall"] == pytest.approx(6.3 * 3.0)
    assert np.linalg.norm(found.outward, axis=1) == pytest.approx(np.ones(len(found.areas)))


def test_a_screen_on_the_wall_takes_its_place(make: MakePlan) -> None:
    free, on_wall = (patches_of(make(room={"z_min": z})) for z in (-0.3, 0.0))
    walls = [float(p.areas[p.of("back wall")].sum()) for p in (free, on_wall)]
    assert walls[0] - walls[1] == pytest.approx(3.0 * 2.6)


@pytest.mark.parametrize("scale", [1.0, 4.0, 12.0])
def test_the_number_of_patches_is_bounded(make: MakePlan, scale: float) -> None:
    room = {"x_min": -4 * scale, "x_max": 4 * scale, "z_min": -0.3, "z_max": 8 * scale, "height": 3 * scale}
    screen = {"width": 4 * scale, "height": 3 * scale, "floor_run": min(20.0, 2 * scale)}
    assert 200 < len(patches_of(make(room=room, screen=screen)).areas) < 1500


def test_black_surfaces_need_none(make: MakePlan) -> None:
    dark = {"walls": [0, 0, 0], "ceiling": [0, 0, 0], "floor": [0, 0, 0]}
    assert patches_of(make(room={"reflectance": dark})).names == ("screen", "back of the screen")
    nothing = patches_of(make(room={"reflectance": dark}, screen={"reflectance": [0, 0, 0]}))
    assert len(nothing.areas) == 0


def test_flags_have_two_sides(make: MakePlan) -> None:
    flag = {"id": "f1", "corners": [[-1, 0, 2], [-1, 2, 2], [-1, 2, 4], [-1, 0, 4]], "reflectance": [0.8, 0.8, 0.8]}
    found = patches_of(make(flags=[flag]))
    own = found.of("flag f1")
    assert float(found.areas[own].sum()) == pytest.approx(2 * 4.0)
    assert sorted(set(np.round(found.outward[own, 0]))) == [-1.0, 1.0]
