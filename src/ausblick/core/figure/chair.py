"""A plain chair of usual size, whatever the height of who sits on it: a seat, four legs, two posts, two rails."""

from __future__ import annotations

from itertools import product

import numpy as np

from ..geometry.harmonics import COSINE, harmonics
from ..geometry.vectors import Floats, Ints
from ..plan.people import SEAT
from ..remembered.shelf import remembered
from .body_file import BodyPiece
from .body_zones import ZONES

BOXES = (
    # middle and half sizes: across, up, toward the camera, m from the floor under the hips
    ((0.0, SEAT - 0.02, 0.06), (0.21, 0.018, 0.21)),
    *(((side * 0.19, 0.5 * SEAT - 0.02, 0.06 + toward * 0.19), (0.018, 0.5 * SEAT - 0.02, 0.018))
      for side, toward in product((-1, 1), (-1, 1))),
    *(((side * 0.19, SEAT + 0.2, -0.15), (0.016, 0.22, 0.016)) for side in (-1, 1)),
    ((0.0, SEAT + 0.39, -0.15), (0.19, 0.035, 0.012)),
    ((0.0, SEAT + 0.20, -0.15), (0.18, 0.016, 0.010)),
)  # fmt: skip
CUTS = 4
"""Parts along each side of a face: light is linear between their corners."""


@remembered(8)
def chair_piece(height: float, lowered: float) -> BodyPiece:
    """The chair in shares of the height of who sits on it, whose floor is `lowered` m above its own zero."""
    places: list[Floats] = []
    facing: list[Floats] = []
    triangles: list[Ints] = []
    for middle, half in BOXES:
        for axis, way in product(range(3), (-1, 1)):
            face, cut = _face(axis, way)
            triangles.append(cut + sum(map(len, places)))
            places.append((np.array(middle) + face * half + (0.0, lowered, 0.0)) / height)
            facing.append(np.broadcast_to(way * np.eye(3)[axis], face.shape))
    normals = np.concatenate(facing)
    return BodyPiece(
        places=np.concatenate(places).astype(np.float32),
        facing=normals.astype(np.float32),
        sight=(COSINE * harmonics(normals)).astype(np.float32),
        itself=np.zeros((len(normals), ZONES), dtype=np.uint8),
        triangles=np.concatenate(triangles).astype(np.int32),
    )


def chair_outlines(height: float, lowered: float) -> list[Floats]:
    """The chair from straight ahead: polygons (4, 2) in shares of the height of who sits on it."""
    corners = np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]])
    return [(np.array(middle[:2]) + corners * half[:2] + (0.0, lowered)) / height for middle, half in BOXES]


def _face(axis: int, way: int) -> tuple[Floats, Ints]:
    """Places of a cube's face, -1..1, and their triangles, counter-clockwise seen from outside."""
    steps = np.linspace(-1.0, 1.0, CUTS + 1)
    u, v = (grid.ravel() for grid in np.meshgrid(steps, steps))
    places = np.insert(np.stack([u, v], axis=1), axis, way, axis=1)
    first = np.array([row * (CUTS + 1) + column for row in range(CUTS) for column in range(CUTS)])
    square = np.stack([first, first + 1, first + CUTS + 2, first, first + CUTS + 2, first + CUTS + 1], axis=1)
    cut = square.reshape(-1, 3)
    # From the first free axis to the second is a turn about the face's own axis, about y the other way round.
    return places, cut if (way > 0) == (axis != 1) else cut[:, ::-1]
