"""Array types used throughout the core, and the few vector operations that everything shares."""

from __future__ import annotations

from typing import TypeVar

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float64]
Floats32 = npt.NDArray[np.float32]
Reals = npt.NDArray[np.float32] | npt.NDArray[np.float64]
"""Of either precision."""
AsGiven = TypeVar("AsGiven", Floats, Floats32)
"""As closely as it is given."""
Bools = npt.NDArray[np.bool_]
Ints = npt.NDArray[np.intp]
Ints32 = npt.NDArray[np.int32]
Bytes = npt.NDArray[np.uint8]


def dot(a: AsGiven, b: AsGiven) -> AsGiven:
    """Scalar product over the last axis (..., 3); several times faster than a product and a sum."""
    return np.asarray(np.einsum("...i,...i->...", a, b))


def pairs_in(table: Bools) -> tuple[Ints, Ints]:
    """Rows and columns (K,) of what is true in a table (R, C), as NumPy's `nonzero` tells them, but sooner."""
    flat = np.flatnonzero(table)
    rows = flat // max(table.shape[1], 1)
    return rows, flat - rows * table.shape[1]


def put_rows(into: AsGiven, rows: Ints | Ints32, values: AsGiven) -> None:
    """`into[rows] = values` of a table (N, C) of few columns, several times faster: NumPy moves short rows one by
    one, and long columns in one go. To read rows, `take` does the same."""
    for column in range(into.shape[1]):
        into[rows, column] = values[:, column]


def ways_between(starts: AsGiven, ends: AsGiven) -> AsGiven:
    """Every way (3, E, S) from starts (S, 3) to ends (E, 3): axis first and in that order in memory, so that array
    operations run over the ways."""
    to, of = np.ascontiguousarray(ends.T)[:, :, None], np.ascontiguousarray(starts.T)[:, None, :]
    return np.asarray(np.subtract(to, of, order="C"))


def over(ways: Floats, n: Floats) -> Floats:
    """How far (N, K) ways (N, 3, K) reach along n (3, K)."""
    return np.asarray(ways[:, 0] * n[0] + ways[:, 1] * n[1] + ways[:, 2] * n[2])


def unit(vector: Floats) -> Floats:
    """The vector(s) (..., 3) scaled to length 1. A zero vector is the caller's error."""
    return np.asarray(vector / np.sqrt(dot(vector, vector))[..., None])


def evenly_round(count: int) -> Floats:
    """Directions (count, 3) of unit length, evenly over the sphere: a Fibonacci lattice."""
    i = np.arange(count) + 0.5
    up, turn = 1.0 - 2.0 * i / count, np.pi * (1.0 + np.sqrt(5.0)) * i
    level = np.sqrt(1.0 - up * up)
    return np.stack([level * np.cos(turn), up, level * np.sin(turn)], axis=1)


def cross(a: Floats, b: Floats) -> Floats:
    """Vector product over the last axis (..., 3); several times faster than NumPy's on short arrays."""
    x = a[..., 1] * b[..., 2] - a[..., 2] * b[..., 1]
    y = a[..., 2] * b[..., 0] - a[..., 0] * b[..., 2]
    z = a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0]
    return np.stack([x, y, z], axis=-1)


def crossed(a: AsGiven, b: AsGiven) -> tuple[AsGiven, AsGiven, AsGiven]:
    """Vector product over the first axis (3, K): x, y and z (K,) of it."""
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
