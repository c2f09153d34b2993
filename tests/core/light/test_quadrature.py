"""Points that stand for a face: their areas are the face's, and they find what a face's moments are."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.quadrature import polygon_points


def even_sided(sides: int, radius: float = 0.5) -> Floats:
    turn = 2.0 * np.pi * np.arange(sides) / sides
    return np.stack([radius * np.cos(turn), radius * np.sin(turn), np.full(sides, 2.0)], axis=1)


SQUARE = np.array([[0, 0, 0], [2, 0, 0], [2, 1, 0], [0, 1, 0]], dtype=float)
KITE = np.array([[0, 0, 0], [2, 0, 0], [3, 3, 0], [0, 1, 0]], dtype=float)


@pytest.mark.parametrize(
    ("face", "area"),
    [(SQUARE, 2.0), (KITE, 4.5), (SQUARE[:3], 1.0), (even_sided(32), 4.0 * np.sin(np.pi / 16.0))],
)
def test_areas_sum_to_the_face(face: Floats, area: float) -> None:
    assert polygon_points(face, 6)[1].sum() == pytest.approx(area, rel=1e-12)


@pytest.mark.parametrize("sides", [16, 32, 64])
def test_a_disc_turns_as_a_disc_does(sides: int) -> None:
    """Second moment about the axis: area * radius^2 / 2, with the radius of the circle of that area."""
    places, areas = polygon_points(even_sided(sides), 6)
    r2 = areas.sum() / np.pi
    assert (areas * (places[:, 0] ** 2 + places[:, 1] ** 2)).sum() == pytest.approx(areas.sum() * r2 / 2.0, rel=1e-9)
