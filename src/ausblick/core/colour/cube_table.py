"""Tables of `.cube` files, 1-D and 3-D, forward and inverse: read and applied by OpenColorIO."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats


def check_table(text: str) -> None:
    """Raises ValueError where a text is no `.cube` table, or one that can't be turned round."""
    ends = apply_table(text, np.array([[0.0, 0.0, 0.0], [1.0, 1.0, 1.0]]))
    apply_table(text, ends, inverse=True)
    if not ends[1, 1] > ends[0, 1] + 0.05:
        raise ValueError("does not rise from black to white, so that nothing can be read back through it")


def apply_table(text: str, signal: Floats, inverse: bool = False) -> Floats:
    """Signal (..., 3) through the table, or back. Other shapes are taken as neutral.

    Raises ValueError where the text is no table.
    """
    # Loaded here: few plans bring a table, and the library takes long to load.
    from .cube_processor import processor

    colour = signal.ndim > 0 and signal.shape[-1] == 3
    rgb = signal if colour else np.repeat(signal[..., None], 3, axis=-1)
    flat = np.ascontiguousarray(rgb.reshape(-1, 3), dtype=np.float32)
    processor(text, inverse).applyRGB(flat)
    found = flat.reshape(rgb.shape).astype(np.float64)
    return found if colour else found[..., 1]
