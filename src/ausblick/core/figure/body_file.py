"""Reads the meshes of a build, which `scripts/make_bodies.py` made from their fields."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import as_file, files

import numpy as np

from ..geometry.vectors import Floats, Floats32, Ints32

PLACE_STEP, FACING_STEP, SIGHT_STEP = 0.004, 1.0 / 127.0, 1.0 / 100.0
"""One step of what is kept: places in hundredths of stature, parts of a unit vector, what a place sees."""

HEADS = {"man": 1.0, "woman": 1.0, "child": 1.22}
"""How large the head is beside stature, next to an adult's."""


@dataclass(frozen=True, eq=False)
class BodyPiece:
    """A part of a body: places (V, 3) in shares of stature, what they face (V, 3), what they see past the body (V, 9;
    see `scripts/bodies/sight.py`), triangles (T, 3)."""

    places: Floats32
    facing: Floats32
    sight: Floats32
    triangles: Ints32


@lru_cache(maxsize=3)
def outlines_of(build: str) -> dict[str, tuple[Floats, ...]]:
    """What is seen from straight ahead of each piece, by its name: polygons (N, 2) in shares of stature."""
    found: dict[str, tuple[Floats, ...]] = {}
    with as_file(files(__package__) / "bodies" / f"{build}_outlines.npz") as path, np.load(path) as kept:
        for key in kept:
            name = key.rpartition("/")[0]
            found[name] = (*found.get(name, ()), 0.01 * PLACE_STEP * kept[key])
    return found


@lru_cache(maxsize=3)
def pieces_of(build: str) -> dict[str, BodyPiece]:
    """All pieces of man, woman or child, by their names."""
    with as_file(files(__package__) / "bodies" / f"{build}.npz") as path, np.load(path) as kept:
        names = sorted({key.rpartition("/")[0] for key in kept})
        return {
            name: BodyPiece(
                places=(0.01 * PLACE_STEP * kept[f"{name}/places"]).astype(np.float32),
                facing=(FACING_STEP * kept[f"{name}/facing"]).astype(np.float32),
                sight=(SIGHT_STEP * kept[f"{name}/sight"]).astype(np.float32),
                triangles=np.cumsum(kept[f"{name}/triangles"], dtype=np.int64).reshape(-1, 3).astype(np.int32),
            )
            for name in names
        }
