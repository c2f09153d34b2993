from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.matte.keyer import Key, colour_difference, plain_key, raw_matte
from ausblick.core.matte.pull import pull
from tests.conftest import BLUE, GREEN, frame


def keyed(**faults: Any) -> Key:
    picture = Frame(np.round(np.clip(frame(**faults), 0, 100) / 100 * 65535).astype(np.uint16), 65535.0)
    return plain_key(picture, read_frame(picture))


def test_screen_is_black_and_grey_is_white() -> None:
    difference = float(colour_difference(np.array([0.06, 0.34, 0.10], np.float32), 1))
    assert difference == pytest.approx(0.26, abs=1e-6)
    raw = raw_matte(np.array([[21.09, 57.7, 29.06], [50, 50, 50]], np.float32) / 100, 1, difference)
    assert raw[0] == pytest.approx(0.0, abs=0.01)
    assert raw[1] == pytest.approx(1.0, abs=1e-5)


@pytest.mark.parametrize("colour", [GREEN, BLUE])
def test_clean_frame_keys_cleanly(colour: Any) -> None:
    key = keyed(colour=colour, noise=0.4, figure=True)
    assert key.residue_percent < 1.0
    assert key.holes_percent == pytest.approx(0.0, abs=0.1)
    assert key.matte[700, 640] == 1.0
    assert key.matte[100, 100] < 0.02
    assert key.sample.rgb == pytest.approx(colour, abs=0.3)


def test_the_sample_is_taken_beside_the_head() -> None:
    sample = keyed(noise=0.4, figure=True).sample
    assert 0.05 < abs(sample.x - 0.5) < 0.25
    assert sample.y == pytest.approx(0.3, abs=0.12)


def test_uneven_light_needs_a_harder_clip_and_leaves_residue() -> None:
    even, uneven = keyed(noise=0.4, figure=True), keyed(noise=0.4, figure=True, slope=20.0)
    assert uneven.needed_clip > even.needed_clip + 0.1
    assert uneven.residue_percent > even.residue_percent + 10


def test_a_green_garment_is_a_hole() -> None:
    image = frame(figure=True, noise=0.3)
    image[450:600, 560:720] = (30.0, 44.0, 33.0)
    picture = Frame(np.round(image * 2.55).astype(np.uint8), 255.0)
    assert (plain_key(picture, read_frame(picture)).holes_percent or 0.0) > 5.0


def test_without_a_screen_there_is_no_key() -> None:
    grey = Frame(np.full((200, 300, 3), 90, np.uint8), 255.0)
    with pytest.raises(ValueError, match="no green or blue screen"):
        plain_key(grey, read_frame(grey))


def test_white_that_lies_on_a_part_of_the_screen_moves_no_clip() -> None:
    """A lamp mirrored in a pane adds as much to every channel: the colour difference is as it was."""
    light = np.linspace(1.0, 0.6, 320, dtype=np.float32)[None, :, None]
    screen = np.broadcast_to(np.array([0.03, 0.17, 0.05], np.float32) * light, (180, 320, 3)).copy()
    needed, picked = np.ones((180, 320), dtype=bool), np.median(screen.reshape(-1, 3), axis=0).astype(float)
    plain = pull(screen, 1, picked, 5.0, needed=needed)
    screen[:80, 190:] += 0.2
    mirrored = pull(screen, 1, picked, 5.0, needed=needed)
    assert plain is not None
    assert mirrored is not None
    assert plain.needed_clip == pytest.approx(1.0 - 0.602 / 0.8, abs=0.01)
    assert mirrored.needed_clip == pytest.approx(plain.needed_clip, abs=0.002)
