"""Conversion gels: what makes a lamp white, what it takes, and what the lamp burns at behind it."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.light.gels import burning, converted_to, taken_stops, whitening
from ausblick.core.plan import Fixture, Light


def bare(kelvin: float, duv: float = 0.0, gel: tuple[float, float, float] = (1.0, 1.0, 1.0)) -> Light:
    return Light(id="a", fixture=Fixture(flux_lm=1000.0, cct=kelvin, duv=duv), gel=gel)


@pytest.mark.parametrize(
    ("kelvin", "to", "published"), [(3200.0, 5600.0, 1.5), (5600.0, 3200.0, 0.67), (4300.0, 5600.0, 0.6)]
)
def test_a_gel_takes_about_what_makers_publish(kelvin: float, to: float, published: float) -> None:
    """Full blue, full orange, and between quarter and half blue."""
    light = burning(bare(kelvin), kelvin, to, 0.0)
    gel = whitening(light)
    assert max(gel) == 1.0
    through = light * np.array(gel)
    assert np.ptp(through) < 0.01
    assert taken_stops(light, gel) == pytest.approx(published, abs=0.15)


def test_what_is_white_enough_gets_no_gel() -> None:
    assert whitening(burning(bare(5600.0), 5600.0, 5500.0, 0.0)) == (1.0, 1.0, 1.0)


def test_a_green_lamp_gets_a_gel_that_takes_green() -> None:
    red, green, blue = whitening(burning(bare(5600.0, 0.02), 5600.0, 5600.0, 0.0))
    assert green < 0.95 < max(red, blue)


@pytest.mark.parametrize("to", [3200.0, 4300.0, 5600.0])
def test_a_lamp_behind_a_conversion_gel_burns_at_what_it_was_made_for(to: float) -> None:
    gel = whitening(burning(bare(6500.0), 6500.0, to, 0.0))
    assert converted_to(bare(6500.0, gel=gel)) == pytest.approx(to, rel=0.03)
    assert converted_to(bare(6500.0, gel=(1.0, 0.3, 0.6))) is None
