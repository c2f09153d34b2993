"""A camera on its side: pixels and places turn alike, there and back."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.turned import recorded_places, turns_taken, turns_to_upright, upright, upright_places
from ausblick.core.plan import Camera


@pytest.mark.parametrize("turns", [0, 1, 2, 3])
def test_a_marked_pixel_goes_where_its_place_goes(turns: int) -> None:
    pixels = np.zeros((90, 160))
    pixels[20, 130] = 1.0
    turned = upright(pixels, turns)
    row, column = np.argwhere(turned == 1.0)[0]
    place = np.array([(130 + 0.5) / 160, (20 + 0.5) / 90])
    assert upright_places(place, turns) == pytest.approx(
        [(column + 0.5) / turned.shape[1], (row + 0.5) / turned.shape[0]]
    )
    assert recorded_places(upright_places(place, turns), turns) == pytest.approx(place)


@pytest.mark.parametrize(
    ("roll", "size", "needed", "taken"),
    [
        (0, (1920, 1080), 0, 0), (0, (1080, 1920), 0, 0),
        (90, (1920, 1080), 1, 0), (90, (1080, 1920), 0, 1),
        (-90, (1920, 1080), 3, 0), (88, (3000, 2000), 1, 0), (180, (1920, 1080), 0, 0),
    ],
)  # fmt: skip
def test_who_has_turned_it(roll: float, size: tuple[int, int], needed: int, taken: int) -> None:
    camera = Camera(roll=roll)
    assert turns_to_upright(camera, *size) == needed
    assert turns_taken(camera, *size) == taken
