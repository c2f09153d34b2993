"""What moves while the shutter is open, spread over its way."""

from __future__ import annotations

import math
from functools import lru_cache

import cv2
import numpy as np

from ..geometry.vectors import Floats32

SMEAR_WAY = (0.78, -0.62)
"""Direction of the hand's movement in the picture: outward and up."""


def smeared(picture: Floats32, smear: float) -> Floats32:
    """A premultiplied picture (H, W, C), its cover in the fourth channel, moved evenly over `smear` px while the
    shutter was open."""
    if smear < 0.5:
        return picture
    rows, columns = np.nonzero(picture[..., 3].any(axis=1))[0], np.nonzero(picture[..., 3].any(axis=0))[0]
    if not len(rows):
        return picture
    more = _reach(smear) + 1
    box = (
        slice(max(0, rows[0] - more), rows[-1] + 1 + more), slice(max(0, columns[0] - more), columns[-1] + 1 + more)
    )  # fmt: skip
    found = np.zeros_like(picture)
    for i in range(picture.shape[2]):
        found[box][..., i] = spread(picture[box][..., i], smear)
    return found


def spread(values: Floats32, smear: float, way: tuple[float, float] = SMEAR_WAY) -> Floats32:
    """One channel (H, W), nothing beyond its borders, moved evenly over `smear` px in the direction `way`, right and
    down."""
    line = _line(smear, way)
    return np.asarray(cv2.filter2D(np.ascontiguousarray(values), -1, line, borderType=cv2.BORDER_CONSTANT))


def _reach(long: float) -> int:
    return math.ceil(0.5 * long) + 1


@lru_cache(maxsize=16)
def _line(long: float, way: tuple[float, float]) -> Floats32:
    """A kernel that averages along a line of `long` px in the direction of the movement."""
    reach = _reach(long)
    kernel = np.zeros((2 * reach + 1, 2 * reach + 1), dtype=np.float32)
    for t in np.linspace(-0.5, 0.5, 4 * math.ceil(long) + 1):
        x, y = reach + t * long * way[0], reach + t * long * way[1]
        column, row = int(x), int(y)
        fx, fy = x - column, y - row
        kernel[row : row + 2, column : column + 2] += np.outer((1.0 - fy, fy), (1.0 - fx, fx))
    kernel /= kernel.sum()
    kernel.flags.writeable = False
    return kernel
