"""Where one surface borders on another: a pixel that both share shows both, by their shares."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.matte.background import background_of
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.plan import Plan
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

CLOSER = 8
"""Times as fine is the picture that is taken for what is there."""


def in_pixels(capture: Capture, px: int) -> tuple[Floats, Floats]:
    """The background at so many px across, and where it is screen."""
    sensor = capture.plan.camera.sensor
    return background_of(capture, PixelWindow(0, 0, px, px * 9 // 16, sensor.px_w / px))


def evened(picture: Floats) -> Floats:
    rows, columns, *rest = picture.shape
    means = picture.reshape(rows // CLOSER, CLOSER, columns // CLOSER, CLOSER, *rest).mean(axis=(1, 3))
    return np.asarray(means)


@pytest.fixture(name="slanting")
def _slanting(make: MakePlan) -> Plan:
    """A board seen from aside, by a camera that is not level: no edge of it is along the pixels."""
    return make(
        subject=None,
        screen={"width": 1.3, "height": 0.8, "bottom": 1.1, "wrinkle_slope": 0.0},
        camera={"x": 0.9, "z": 3.6, "pan": -12.0, "roll": 4.0, "sensor": {"px_w": 3840, "px_h": 2160}},
        lights=[lamp(position=[-1.4, 2.2, 2.0], aim=[0.0, 1.5, 0.0])],
    )


def test_an_edge_that_slants_through_pixels_has_no_steps(slanting: Plan) -> None:
    """Each pixel is the mean of what a picture eight times as fine shows in it: by its share of screen
    within a sixth, where the middle of the pixel alone is wrong by half, and as bright."""
    capture = capture_of(evaluate(slanting, STORE), STORE)
    (image, on_screen), (fine, fine_screen) = in_pixels(capture, 240), in_pixels(capture, 240 * CLOSER)
    wrong = np.abs(on_screen - evened(fine_screen))
    assert wrong.max() < 1.0 / 6.0
    shared = (evened(fine_screen) > 0.05) & (evened(fine_screen) < 0.95)
    assert shared.sum() > 100
    there = evened(fine)
    spread = np.sqrt(np.maximum(evened(fine**2) - there**2, 0.0))
    wrong_by, of = (picture[shared].mean(axis=0) for picture in (np.abs(image - there), spread))
    assert np.all(wrong_by < of / 5.0), wrong_by / of
