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
    column, row = ((at - own[0]) / (own[1] - own[0]) for at, own in ((x, xs), (y, ys)))
    found = cv2.remap(
        np.ascontiguousarray(values, dtype=np.float32),
        np.asarray(column, dtype=np.float32),
        np.asarray(row, dtype=np.float32),
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return np.asarray(found, dtype=np.float32)


def at_lattice(values: Floats, xs: Floats, ys: Floats, finer_xs: Floats, finer_ys: Floats) -> Floats:
    """The same at every place of another lattice."""
    x, y = np.meshgrid(finer_xs, finer_ys)
    return at_places(values, xs, ys, x, y)
