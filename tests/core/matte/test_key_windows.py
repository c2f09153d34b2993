"""Where a test key looks pixel for pixel: past the hair there is screen, however large the head is in the picture."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.both_formulas import keyed
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.render import draw
from ausblick.core.plan import plan_from
from ausblick.formats.recording import through
from tests.stores import STORE


def captured(
    framing: str, roll: float, focal: float, hair: str = "smooth", px: tuple[int, int] = (3840, 2160)
) -> Capture:
    panel = {"fixture": {"flux_lm": 16000.0, "emitter": {"shape": "rect", "width": 0.9, "height": 0.6}}}
    lamps = [{**panel, "position": [x, 1.5, 2.2], "aim": [-0.3 * x, 1.5, 0.0]} for x in (-2.6, 2.6)]
    key = {**panel, "role": "key", "position": [-1.4, 2.3, 4.4], "aim": [0.0, 1.5, 2.4]}
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*lamps, key],
        "screen": {"width": 5.0, "height": 3.4, "wrinkle_slope": 0.0},
        "subject": {"z": 2.4, "framing": framing, "hair_kind": hair, "speed": 0.0},
        "camera": {"z": 6.0, "y": 1.6, "focal_mm": focal, "roll": roll, "iso": 400.0, "f_number": 4.0,
                   "sensor": {"px_w": px[0], "px_h": px[1], "width_mm": 23.5, "height_mm": 13.2},
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


def test_windows_that_show_no_screen_are_joined_by_the_edge() -> None:
    """A window on the chest has nothing to key in it; the figure's edge elsewhere has."""
    capture = captured("chest", 0.0, 85.0)
    kinder, _ = keyed(capture, {"hair": PixelWindow(1700.0, 1500.0, 400, 300, 1.0)}, through)
    assert set(kinder.shots) == {"hair", "edge"}
    assert kinder.measures.edge_error is not None
    assert kinder.measures.hair_error is None


def test_curls_that_fill_their_window_are_keyed_by_the_whole_picture() -> None:
    """A portrait at 24 megapixels: pixel for pixel the curls leave next to no flat screen, and no outline is seen
    anywhere. What is lost round the head is lost nevertheless, and the outline is looked for elsewhere."""
    capture = captured("chest", 0.0, 120.0, "curly", (6000, 3370))
    kinder, _ = keyed(capture, crop_windows(capture), through)
    assert {"hair", "edge"} <= set(kinder.shots)
    told = evaluate(capture.plan, STORE).damage
    assert told is not None
    assert kinder.measures.hair_error is not None
    assert 0.5 < kinder.measures.hair_error / told.kinder.hair_error < 3.0
    assert kinder.measures.edge_error == pytest.approx(told.kinder.edge_error, abs=0.03)


def test_a_window_reads_what_a_coarser_picture_shows_of_it() -> None:
    whole, part = PixelWindow(0.0, 0.0, 60, 40, 8.0), PixelWindow(100.0, 60.0, 50, 30, 2.0)
    x, y = (8.0 * (np.arange(count) + 0.5) for count in (60, 40))
    picture = np.stack(np.broadcast_arrays(x, y[:, None], 1.0), axis=-1).astype(np.float32)
    read = part.read(picture, whole)
    assert read.shape == (30, 50, 3)
    assert read[..., 0] == pytest.approx(np.broadcast_to(100.0 + 2.0 * (np.arange(50) + 0.5), (30, 50)), abs=0.3)
    rows = read[..., 1].T
    assert rows == pytest.approx(np.broadcast_to(60.0 + 2.0 * (np.arange(30) + 0.5), (50, 30)), abs=0.3)


def test_the_window_round_a_hand_has_it_in_its_middle_from_near_and_aside_too() -> None:
    plan = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [{"position": [-1.5, 1.8, 1.4]}],
        "subject": {"x": -0.2, "z": 1.7, "height": 1.75, "posture": "seated", "framing": "chest", "speed": 0.0},
        "camera": {"x": 0.2, "y": 1.25, "z": 3.6, "focal_mm": 24.0},
    })  # fmt: skip
    capture = capture_of(evaluate(plan, STORE), STORE)
    hand = draw(capture, crop_windows(capture)["hand"]).hand > 0.5
    middle = np.argwhere(hand).mean(axis=0) / hand.shape
    assert middle == pytest.approx([0.5, 0.5], abs=0.12)
