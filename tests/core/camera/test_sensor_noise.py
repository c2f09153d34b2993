"""Noise of a pixel against counting electrons by hand."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ausblick.core.camera.sensor_noise import full_well, noise_linear
from tests.conftest import MakePlan


def test_a_dark_pixel_has_read_noise_only(make: MakePlan) -> None:
    """Green of a 10 um pixel holds 250,000 electrons: 3 of them read in error are 3 / 250,000 of white."""
    camera = make(camera={"iso": 400, "sensor": {"width_mm": 40.0, "px_w": 4000, "base_iso": 400}}).camera
    assert full_well(camera) == pytest.approx(250_000)
    assert noise_linear(np.zeros(3), camera) == pytest.approx(np.array([1.9, 1.0, 1.5]) * 3.0 / 250_000)


def test_a_white_pixel_counts_its_electrons(make: MakePlan) -> None:
    camera = make(camera={"iso": 1600, "sensor": {"width_mm": 40.0, "px_w": 4000, "base_iso": 400}}).camera
    electrons = 250_000 / 4
    assert noise_linear(np.ones(3), camera)[1] == pytest.approx(math.sqrt(electrons + 9.0) / electrons)
