"""The colour difference that a key is cut from, against the mean of the other channels or against the larger one."""

from __future__ import annotations

from typing import Any, Literal, TypeVar

import numpy as np
import numpy.typing as npt

Formula = Literal["mean", "larger"]
FORMULAS: tuple[Formula, ...] = ("mean", "larger")
F = TypeVar("F", bound=np.floating[Any])


def colour_difference(linear: npt.NDArray[F], channel: int, formula: Formula = "mean") -> npt.NDArray[F]:
    """d (...) of linear light (..., 3), whose key channel has that index."""
    a, b = (linear[..., c] for c in range(3) if c != channel)
    others = np.maximum(a, b) if formula == "larger" else (a + b) / 2
    return np.asarray(linear[..., channel] - others)
