"""Quantiles as the library has them, without what it loads for its own on the way to a command's first answer."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .vectors import Floats, Floats32


def quantiles(values: Floats | Floats32, shares: Sequence[float]) -> Floats:
    """Values (S,) below which such shares (S,) of some (N,) lie, linear between neighbours (Hyndman and Fan's
    seventh)."""
    ordered = np.sort(np.ravel(values))
    return np.asarray(np.interp(np.asarray(shares) * (len(ordered) - 1), np.arange(len(ordered)), ordered))
