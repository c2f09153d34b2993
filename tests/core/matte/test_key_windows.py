"""Where a test key looks pixel for pixel: past the hair there is screen, however large the head is in the picture."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.render import draw
from ausblick.core.matte.simulation import keyed
from ausblick.core.plan import plan_from
from ausblick.formats.recording import through
from tests.stores import STORE


def captured(framing: str, roll: float, focal: float, hair: str = "smooth") -> Capture:
    panel = {"fixture": {"flux_lm": 16000.0, "emitter": {"shape": "rect", "width": 0.9, "height": 0.6}}}
    lamps = [{**panel, "position": [x, 1.5, 2.2], "aim": [-0.3 * x, 1.5, 0.0]} for x in (-2.6, 2.6)]
    key = {**panel, "role": "key", "position": [-1.4, 2.3, 4.4], "aim": [0.0, 1.5, 2.4]}
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*lamps, key],
        "screen": {"width": 5.0, "height": 3.4, "wrinkle_slope": 0.0},
        "subject": {"z": 2.4, "framing": framing, "hair_kind": hair, "speed": 0.0},
        "camera": {"z": 6.0, "y": 1.6, "focal_mm": focal, "roll": roll, "iso": 400.0, "f_number": 4.0,
                   "sensor": {"px_w": 3840, "px_h": 2160, "width_mm": 23.5, "height_mm": 13.2},
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 900}},
    })  # fmt: skip
    return capture_of(evaluate(plan, STORE), STORE)


@pytest.mark.parametrize(
    ("framing", "roll", "focal"),
    [("waist", 90.0, 50.0), pytest.param("chest", 0.0, 70.0, marks=pytest.mark.torture), ("face", 90.0, 100.0)],
)
def test_past_the_crown_there_is_screen(framing: str, roll: float, focal: float) -> None:
    capture = captured(framing, roll, focal)
    drawn = draw(capture, crop_windows(capture)["hair"])
    free = float(((drawn.alpha < 0.01) & (drawn.screen > 0.99)).mean())
    assert 0.06 < free < 0.75
    assert float((drawn.alpha > 0.99).mean()) > 0.2, "and head"


def test_a_portrait_in_a_camera_on_its_side_has_a_test_key() -> None:
    """Hair and hand of a bust fill their windows: what is keyed is found all the same."""
    capture = captured("chest", 90.0, 85.0, hair="none")
    kinder, _ = keyed(capture, crop_windows(capture), through)
    assert kinder.measures.edge_error is not None
    assert kinder.quality > 60.0


def test_windows_that_show_no_screen_give_way_to_the_edge() -> None:
    """A window on the chest has nothing to key in it; the figure's edge elsewhere has."""
    capture = captured("chest", 0.0, 85.0)
    kinder, _ = keyed(capture, {"hair": PixelWindow(1700.0, 1500.0, 400, 300, 1.0)}, through)
    assert set(kinder.shots) == {"edge"}
    assert np.isfinite(kinder.quality)
