"""Stills upright, as the camera that was turned has noted (EXIF's orientation)."""

from __future__ import annotations

from typing import Any

import numpy as np

ORIENTATION = 274
TURNS = {3: 2, 4: 2, 5: 3, 6: 3, 7: 1, 8: 1}
"""Quarter turns counterclockwise by EXIF's orientation; 2, 4, 5 and 7 are mirrored beside."""
MIRRORED = (2, 4, 5, 7)


def upright_as_noted(pixels: Any, orientation: int) -> Any:
    """Turned and mirrored back as the camera's orientation tag says."""
    found = np.rot90(pixels, TURNS.get(orientation, 0))
    return found[:, ::-1] if orientation in MIRRORED else found
