"""What moves while the shutter is open, spread over its way."""

from __future__ import annotations

import math
from functools import lru_cache

import cv2
import numpy as np

from ..geometry.vectors import Floats32

SMEAR_WAY = (0.78, -0.62)
"""Direction of the hand's movement in the picture: outward and up."""


def smeared(picture: Floats32, smear: float, box: tuple[slice, slice]) -> Floats32:
    """A premultiplied picture (H, W, ...) with nothing outside a box, moved evenly over `smear` px while the shutter
    was open."""
    if smear < 0.5:
        return picture
    rows, columns = box
    more = _reach(smear) + 1
    reached = (
        slice(max(0, rows.start - more), rows.stop + more), slice(max(0, columns.start - more), columns.stop + more)
    )  # fmt: skip
    found = np.zeros_like(picture)
    # A long way is worked out by frequencies, which leaves traces below nothing.
    found[reached] = np.maximum(spread(picture[reached], smear), np.float32(0.0))
    return found


def spread(values: Floats32, smear: float, way: tuple[float, float] = SMEAR_WAY) -> Floats32:
    """A picture (H, W, ...), nothing beyond its borders, moved evenly over `smear` px in the direction `way`, right
    and down."""
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
