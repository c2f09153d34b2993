"""What stands in the way: the quick ways of asking give what asking for every stretch by itself gives."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.light.blocked import blocked_grid
from ausblick.core.light.figure_shadow import hidden_by
from ausblick.core.light.occlusion import NONE, blocked_pairs, quad, touching
from ausblick.core.light.solids import Ball, Pillar, hidden, ways

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
    assert each.any() == (count > 1)
    # A place that something is blocked from may be blocked, and one that is surely hidden is;
    # not the other way round.
    blocked = each.reshape(len(PLACES), -1)
    may, surely = np.zeros(len(PLACES), dtype=bool), np.zeros(len(PLACES), dtype=bool)
    for one in touching(PLACES, SAMPLES, occluders):
        may[one.rows] = True
        surely[one.rows[one.wholly]] = True
    assert may[blocked.any(axis=1)].all()
    assert blocked[surely].all()
    assert surely.any() == (count > 1)


def test_pieces_of_one_plane_are_met_at_one_place() -> None:
    """A wall round an opening, a slanting strip and a lone corner in the same plane: as each by itself."""
    across, up, at = np.array([1.6, 0.3, 0.2]), np.array([-0.1, 1.1, 0.4]), np.array([-0.8, -0.6, 0.1])

    def place(u: float, v: float) -> np.ndarray:
        return at + u * across + v * up

    wall = [(-9, -9, 0.2, 9), (0.8, -9, 9, 9), (0.2, -9, 0.8, 0.2), (0.2, 0.8, 0.8, 9)]
    parts = [quad([place(a, b), place(c, b), place(c, d), place(a, d)]) for a, b, c, d in wall]
    parts.append(quad([place(0.2, 0.3), place(0.7, 0.6), place(0.7, 0.7), place(0.2, 0.4)]))
    parts.append(np.array([[place(0.4, 0.2), place(0.8, 0.25), place(0.5, 0.4)]]))
    occluders = np.concatenate(parts)
    starts, ends = RNG.uniform(-2, 2, (70, 3)), RNG.uniform(-2, 2, (80, 3))
    p, s = (index.ravel() for index in np.indices((70, 80)))
    each = blocked_pairs(starts[p], ends[s], occluders)
    assert np.array_equal(blocked_grid(starts, ends, occluders).ravel(), each)
    assert 0.3 < each.mean() < 0.55


def test_a_solid_hides_of_cells_what_single_rays_say() -> None:
    """Cells of no width are rays; wide ones are hidden by the share of the rays in them that are."""
    solids = (Pillar(0.4, 1.2, 0.22, 1.5), Ball(0.4, 1.65, 1.2, 0.12))
    p, s = (index.ravel() for index in np.indices((len(PLACES), len(SAMPLES))))
    each = hidden_by(solids, PLACES[p], SAMPLES[s]).reshape(len(PLACES), -1)
    thin = np.max([hidden(solid, ways(PLACES, SAMPLES, 0.0)) for solid in solids], axis=0)
    assert np.array_equal(thin > 0.5, each)
    assert 0.01 < each.mean() < 0.6
    side = (np.arange(21) - 10) / 21 * 0.3
    within = SAMPLES[:1] + np.array([[x, y, 0.0] for x in side for y in side])
    front = PLACES[np.abs(PLACES[:, 2]) < 1.0]
    for solid in solids:
        rays = np.array([hidden_by((solid,), np.tile(at, (len(within), 1)), within).mean() for at in front])
        found = hidden(solid, ways(front, SAMPLES[:1], 0.3))[:, 0]
        assert np.abs(found - rays).max() < 0.12
        assert np.abs(found - rays).mean() < 0.02
