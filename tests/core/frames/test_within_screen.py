"""A frame is looked at anew only where something changed that may touch what it did not."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.frames.find_screen import FoundScreen, find_screen
from ausblick.core.frames.within_screen import LookedAt, looked_at, still_clear
from ausblick.core.geometry.vectors import Floats32

GREEN, SKIN = (0.21, 0.58, 0.29), (0.59, 0.43, 0.35)


def picture(left: int, top: int = 60, width: int = 40) -> Floats32:
    """A screen with a grey wall round it, and a figure that the lower edge cuts."""
    found = np.full((135, 240, 3), 0.4, dtype=np.float32)
    found[8:, 20:220] = GREEN
    found[top:, left : left + width] = SKIN
    return found


def seen(signal: Floats32) -> FoundScreen:
    found = find_screen(signal)
    assert found is not None
    return found


@pytest.fixture
def before() -> LookedAt:
    signal = picture(100)
    return looked_at(signal, seen(signal))


@pytest.mark.parametrize("left", [100, 96, 110, 140, 60])
def test_who_moves_within_the_screen_leaves_of_it_what_a_new_look_finds(before: LookedAt, left: int) -> None:
    now = picture(left)
    kept = still_clear(now, before)
    assert kept is not None
    anew = seen(now)
    # Nothing is kept that is no screen any more; what was uncovered since is left out.
    assert not (kept.core & ~anew.mask).any()
    assert np.count_nonzero(anew.core & ~kept.core) < 1.5 * 75 * 50


@pytest.mark.parametrize("now", [picture(16), picture(190), picture(100, top=6), picture(100) * np.float32(0.9)])
def test_who_comes_to_an_edge_and_light_that_changes_are_looked_at(before: LookedAt, now: Floats32) -> None:
    assert still_clear(now, before) is None


def test_a_camera_s_noise_is_no_change(before: LookedAt) -> None:
    noise = np.random.default_rng(3).normal(0.0, 0.006, (135, 240, 3)).astype(np.float32)
    kept = still_clear(picture(100) + noise, before)
    assert kept is not None
    assert np.array_equal(kept.core, before.found.core)
