"""What stands in the way: the quick ways of asking give what asking for every stretch by itself gives."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.light.figure_shadow import Figure, _meets, hidden_by
from ausblick.core.light.occlusion import NONE, between_any, blocked_among, blocked_grid, blocked_pairs, quad

RNG = np.random.default_rng(11)
PLACES, SAMPLES = RNG.uniform(-2, 2, (90, 3)), RNG.uniform(-0.3, 0.3, (25, 3)) + np.array([1.5, 1.0, 3.0])


def cloths(count: int) -> np.ndarray:
    """Parallelograms and lone triangles, at random."""
    found = [NONE]
    for corner, u, v in RNG.uniform(-2, 2, (count, 3, 3)):
        whole = quad([corner, corner + u, corner + u + v, corner + v])
        found.append(whole if RNG.random() < 0.6 else whole[:1])
    return np.concatenate(found)


@pytest.mark.parametrize("count", [0, 1, 12])
def test_a_grid_of_stretches_is_each_of_them(count: int) -> None:
    occluders = cloths(count)
    p, s = (index.ravel() for index in np.indices((len(PLACES), len(SAMPLES))))
    each = blocked_pairs(PLACES[p], SAMPLES[s], occluders)
    assert np.array_equal(blocked_grid(PLACES, SAMPLES, occluders).ravel(), each)
    assert np.array_equal(blocked_among(PLACES, SAMPLES, p, s, occluders), each)
    assert each.any() == (count > 1)
    # A place that something is blocked from has a plane between; not the other way round.
    blocked = each.reshape(len(PLACES), -1).any(axis=1)
    assert between_any(PLACES, SAMPLES, occluders)[blocked].all()


def test_the_figure_in_a_grid_of_stretches_is_in_each_of_them() -> None:
    figure = Figure(0.4, 1.2, 1.5, 1.65)
    p, s = (index.ravel() for index in np.indices((len(PLACES), len(SAMPLES))))
    each = hidden_by(figure, PLACES[p], SAMPLES[s])
    way = SAMPLES.T[:, None, :] - PLACES.T[:, :, None]
    assert np.array_equal(_meets(figure, PLACES, way).ravel(), each)
    assert 0.01 < each.mean() < 0.6
