"""Sheen of a glossy cloth, and folds out of focus, against their closed forms."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.special import j1

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.cloth import FOLD, softened
from tests.conftest import MakePlan, lamp


def brightest(make: MakePlan, gloss: float, aside: float) -> float:
    """A sun from `aside` degrees off the lens's axis, far off: every place mirrors it by the same angle."""
    turn = np.radians(aside)
    sun = lamp(
        emitter={"shape": "sun"}, normal_lux=1000, position=[100 * np.sin(turn), 1.3, 100 * np.cos(turn)],
        aim=[0, 1.3, 0],
    )  # fmt: skip
    room = {"ambient_lux": 0, "reflectance": {part: [0.0] * 3 for part in ("walls", "ceiling", "floor")}}
    plan = make(room=room, subject=None, screen={"gloss": gloss}, lights=[sun], camera={"z": 8.0, "y": 1.3})
    texture = evaluate(plan, BasisStore()).texture
    assert texture is not None
    return texture.highlights[0].added if texture.highlights else 0.0


def test_a_lamp_behind_the_lens_shines_by_half_the_exponent_and_one(make: MakePlan) -> None:
    """Mirrored straight into the lens the lobe (n + 2) / 2 * cos^n stands at its peak: 6 for n = 10."""
    assert brightest(make, 0.05, 0.0) == pytest.approx(6.0 * 0.05, rel=0.02)
    assert brightest(make, 0.10, 0.0) == pytest.approx(6.0 * 0.10, rel=0.02)
    assert brightest(make, 0.0, 0.0) == 0.0


def test_a_blur_disc_takes_folds_as_its_transfer_says() -> None:
    """2 J1(v) / v: SciPy's Bessel function, up to the disc that a fold vanishes in."""
    for share in (0.01, 0.4, 0.8, 1.2):
        v = np.pi * share
        assert softened(share * FOLD) == pytest.approx(abs(2.0 * j1(v) / v), abs=1e-9)
    assert softened(0.0) == 1.0
    assert softened(1.3 * FOLD) == 0.0
