"""A lamp's face as a few small sources: the light they give is the face's, and a shadow's border has even steps."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.emitters import Face, face_at
from ausblick.core.light.few_sources import few_sources
from ausblick.core.light.quadrature import polygon_points
from ausblick.core.plan.lamps import DiscEmitter, RectEmitter

SIDE = float(np.sqrt(2.0))
"""Of a square whose corners are a metre from its middle."""
EYE, TOWARD = np.zeros(3), np.array([0.0, 0.0, 1.0])


def square(away: float, aside: float = 0.0) -> Face:
    return face_at(np.array([aside, 0.0, -away]), TOWARD, RectEmitter(width=SIDE, height=SIDE))


def lit_by(sources: Floats, shares: Floats, facing: Floats) -> float:
    """What reaches a small surface of a Lambertian face of a luminous area of one."""
    way = sources - EYE
    r = np.linalg.norm(way, axis=1)
    return float(shares @ (np.clip(way @ facing, 0.0, None) * np.clip(-way[:, 2], 0.0, None) / r**4))


@pytest.mark.parametrize(("away", "count", "off"), [(6.0, 4, 0.002), (3.0, 5, 0.005), (2.0, 9, 0.005)])
def test_few_sources_give_what_the_whole_face_gives(away: float, count: int, off: float) -> None:
    face = square(away, aside=0.4 * away)
    places, areas = polygon_points(face.outline, 24)
    sources, shares = few_sources(face, EYE)
    assert len(sources) == count
    for facing in np.array([[0.0, 0.0, -1.0], [0.6, 0.0, -0.8], [-0.4, 0.3, -0.866]]):
        whole = lit_by(places, areas / face.area, facing)
        assert lit_by(sources, shares, facing) == pytest.approx(whole, rel=off)


@pytest.mark.parametrize(("away", "steps"), [(6.0, 4), (3.0, 5)])
def test_a_shadows_border_has_even_steps_across_and_up(away: float, steps: int) -> None:
    sources, shares = few_sources(square(away), EYE)
    for axis in (0, 1):
        at = np.sort(sources[:, axis])
        assert len(np.unique(at.round(9))) == steps
        assert np.diff(at) == pytest.approx(np.full(steps - 1, at[1] - at[0]))
    assert shares == pytest.approx(np.full(steps, 1.0 / steps))


def test_small_round_and_bare_lamps_have_few_sources_on_their_faces() -> None:
    sources, shares = few_sources(square(60.0), EYE)
    assert sources == pytest.approx(np.array([[0.0, 0.0, -60.0]]))
    assert shares == pytest.approx([1.0])
    face = face_at(np.array([0.0, 0.0, -3.0]), TOWARD, DiscEmitter(diameter=2.0))
    sources, shares = few_sources(face, EYE)
    assert len(sources) == 5
    assert shares.sum() == pytest.approx(1.0)
    assert np.linalg.norm(sources - face.centre, axis=1).max() < 1.0
