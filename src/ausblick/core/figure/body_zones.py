"""The body cut into zones, so that it can be said of each place of it how much of each zone it sees.

A zone is a band of height, a strip across, and a quarter of the way round that its surface faces.
"""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats, Floats32, Ints

BANDS, STRIPS, QUARTERS = (0.25, 0.42, 0.55, 0.68, 0.78, 0.86, 0.93), (-0.105, 0.0, 0.105), 4
"""Where one ends and the next begins, in shares of stature: arms, and halves of what is between them."""
ZONES = (len(BANDS) + 1) * (len(STRIPS) + 1) * QUARTERS


def zones_of(own: Floats | Floats32, facing: Floats | Floats32) -> Ints:
    """Which zone (N,) each place is in: `own` (N, 3) on the modelled body, in shares of stature; `facing` (N, 3)."""
    band, strip = np.searchsorted(BANDS, own[:, 1]), np.searchsorted(STRIPS, own[:, 0])
    turn = np.arctan2(facing[:, 0], facing[:, 2])
    quarter = np.floor(turn / (2.0 * np.pi) * QUARTERS + 0.5).astype(np.int64) % QUARTERS
    return np.asarray((band * (len(STRIPS) + 1) + strip) * QUARTERS + quarter)
