"""Reads the meshes of a build, which `scripts/make_bodies.py` made from their fields."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import as_file, files
from typing import Any

import numpy as np

from ..geometry.vectors import Bytes, Floats, Floats32, Ints32

PLACE_STEP, FACING_STEP, SIGHT_STEP, ITSELF_STEP = 0.004, 1.0 / 127.0, 1.0 / 100.0, 1.0 / 255.0
"""One step of what is kept: places in hundredths of stature, parts of a unit vector, what a place sees past the body
and of it."""
UNDER = " under "
"""A head under hair has its own sight, and else what the bare head has."""

HEADS = {"man": 1.0, "woman": 1.0, "child": 1.22}
"""How large the head is beside stature, next to an adult's."""


@dataclass(frozen=True, eq=False)
class BodyPiece:
    """A part of a body: places (V, 3) in shares of stature, what they face (V, 3), what they see past the body (V, 9)
    and of it (V, ZONES; see `scripts/bodies/sight.py`), triangles (T, 3)."""

    places: Floats32
    facing: Floats32
    sight: Floats32
    itself: Bytes
    triangles: Ints32


@lru_cache(maxsize=3)
def outlines_of(build: str) -> dict[str, tuple[Floats, ...]]:
    """What is seen from straight ahead of each piece, by its name: polygons (N, 2) in shares of stature."""
    found: dict[str, tuple[Floats, ...]] = {}
    with as_file(files(__package__) / "bodies" / f"{build}_outlines.npz") as path, np.load(path) as kept:
        outlines = np.split(0.01 * PLACE_STEP * kept["places"], np.cumsum(kept["corners"])[:-1])
        for name, outline in zip(kept["pieces"].tolist(), outlines, strict=True):
            found[name] = (*found.get(name, ()), outline)
    return found


def pieces_of(build: str, names: Sequence[str], hair: str) -> list[BodyPiece]:
    """Pieces of man, woman or child by their names, as they are under such hair. A figure is made of a third of the
    file: the others stay there."""
    with as_file(files(__package__) / "bodies" / f"{build}.npz") as path, np.load(path) as kept:
        return [_piece(kept, name, f"{name}{UNDER}{hair}") for name in names]


def _piece(kept: Mapping[str, Any], name: str, under: str) -> BodyPiece:
    return BodyPiece(
        places=(0.01 * PLACE_STEP * kept[f"{name}/places"]).astype(np.float32),
        facing=(FACING_STEP * kept[f"{name}/facing"]).astype(np.float32),
        triangles=np.cumsum(kept[f"{name}/triangles"], dtype=np.int64).reshape(-1, 3).astype(np.int32),
        **_sees(kept, under if f"{under}/sight" in kept else name),
    )


def _sees(kept: Mapping[str, Any], name: str) -> dict[str, Any]:
    return {
        "sight": (SIGHT_STEP * kept[f"{name}/sight"]).astype(np.float32),
        "itself": kept[f"{name}/itself"],
    }
