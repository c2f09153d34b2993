from __future__ import annotations

import cv2
import numpy as np
import pytest

from ausblick.core.matte.defocus import out_of_focus


def step_edge() -> np.ndarray[tuple[int, ...], np.dtype[np.float64]]:
    image = np.zeros((180, 320, 3))
    image[:, 160:] = 0.6
    return image


@pytest.mark.parametrize("disc", [8.0, 60.0, 200.0])
def test_a_large_disc_is_the_same_gaussian_as_pixel_by_pixel(disc: float) -> None:
    wanted = cv2.GaussianBlur(step_edge(), (0, 0), disc / 4.0)
    assert np.abs(out_of_focus(step_edge(), disc) - wanted).max() < 0.01


def test_what_is_endlessly_soft_is_one_tone_and_takes_no_memory() -> None:
    soft = out_of_focus(step_edge(), 1e9)
    assert float(np.ptp(soft)) < 0.4
    assert float(soft.mean()) == pytest.approx(0.3, abs=0.02)
    assert out_of_focus(step_edge(), 0.5) is not None
