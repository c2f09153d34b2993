"""What each pixel of a window gets of the light on each place of a body: for pictures of which only the light is new.

Through samples every picture takes as long as the first; what they do is the same each time, and linear in the light.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.sparse import csr_matrix

from ..geometry.vectors import Floats32
from .traced import Traced


@dataclass(frozen=True, eq=False)
class PlacesInPixels:
    """Of the pixels of a box (h * w, V): what comes of the light on each place, by channel, and of its gloss."""

    inks: Sequence[csr_matrix]
    gloss: csr_matrix

    def seen(self, both: Floats32) -> Floats32:
        """Of light and gloss (V, 6) the pixels (h * w, 3), where samples that miss the body count as nothing."""
        lit = np.stack([ink @ both[:, i] for i, ink in enumerate(self.inks)], axis=1)
        return np.asarray(lit + self.gloss @ both[:, 3:], dtype=np.float32)


def places_in_pixels(found: Traced, reflectance: Floats32, gloss: Floats32, places: int) -> PlacesInPixels:
    """Of samples that reflect (N, 3) and mirror (N,), on a body of so many places."""
    pixels, each = np.repeat(found.pixel, 3), found.weights / np.float32(found.seen**2)
    size = found.cover.size, places

    def by(share: Floats32) -> csr_matrix:
        return csr_matrix(((each * share[:, None]).ravel(), (pixels, found.corners.ravel())), shape=size)

    return PlacesInPixels([by(channel) for channel in reflectance.T], by(gloss))
