"""Real spherical harmonics up to order two: what slowly changes over all directions, in nine numbers.

Source: Ramamoorthi and Hanrahan, An efficient representation for irradiance environment maps, SIGGRAPH 2001.
"""

from __future__ import annotations

import numpy as np

from .vectors import Floats


def harmonics(ways: Floats) -> Floats:
    """Values (..., 9) at directions (..., 3) of unit length."""
    x, y, z = ways[..., 0], ways[..., 1], ways[..., 2]
    parts = (
        np.full(x.shape, 0.282095), 0.488603 * y, 0.488603 * z, 0.488603 * x, 1.092548 * x * y, 1.092548 * y * z,
        0.315392 * (3.0 * z * z - 1.0), 1.092548 * x * z, 0.546274 * (x * x - y * y),
    )  # fmt: skip
    return np.stack(parts, axis=-1)


COSINE = np.pi * np.array([1.0, *[2.0 / 3.0] * 3, *[0.25] * 5])
"""What a clamped cosine leaves of each (equation 8 of the same): light that arrives is these times the radiance's."""
