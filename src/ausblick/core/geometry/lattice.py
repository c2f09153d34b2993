"""Values over a lattice of even steps, read between its places."""

from __future__ import annotations

import cv2
import numpy as np

from .vectors import Floats, Floats32, Reals


def at_places(values: Floats, xs: Floats, ys: Floats, x: Reals, y: Reals) -> Floats:
    """Values (H, W, ...) over xs (W,) and ys (H,) at places x, y (...), linear between them; beyond the outermost as
    there."""
    return np.asarray(read_at(values, xs, ys, x, y), dtype=np.float64)


def read_at(values: Floats | Floats32, xs: Floats, ys: Floats, x: Reals, y: Reals) -> Floats32:
    """The same as closely as a picture needs it."""
    return _between(values, _steps(x, xs), _steps(y, ys))


def at_lattice(values: Floats, xs: Floats, ys: Floats, finer_xs: Floats, finer_ys: Floats) -> Floats:
    """The same at every place of another lattice."""
    column, row = np.meshgrid(_steps(finer_xs, xs), _steps(finer_ys, ys))
    return np.asarray(_between(values, column, row), dtype=np.float64)


def _steps(at: Reals, own: Floats) -> Floats32:
    """How many steps of a lattice places are from its first."""
    return np.asarray((at - own[0]) / (own[1] - own[0]), dtype=np.float32)


def _between(values: Floats | Floats32, column: Floats32, row: Floats32) -> Floats32:
    values = np.ascontiguousarray(values, dtype=np.float32)
    found = cv2.remap(values, column, row, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(found, dtype=np.float32)
