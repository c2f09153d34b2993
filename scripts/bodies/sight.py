"""What each place of a body sees of its surroundings past the body itself, as nine numbers.

They are the cosine-weighted, masked integrals of the real spherical harmonics up to order two; with the harmonics of
the light around (radiance) they give the light that arrives (Sloan, Kautz and Snyder, SIGGRAPH 2002).
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ausblick.core.geometry.harmonics import harmonics
from ausblick.core.geometry.raster import depth_picture
from ausblick.core.geometry.vectors import evenly_round

from .fields import Floats
from .meshes import Mesh

WAYS = 160
FAR = 1500.0
REACH = 120.0
PICTURE = 640
LIFT = 0.45
"""Places are asked from a little above the surface, in hundredths of stature."""


def sight(meshes: Sequence[Mesh], around: Sequence[Mesh]) -> list[Floats]:
    """(V, 9) of each mesh, with all of them and what is `around` in the way."""
    everything = [*meshes, *around]
    places = np.concatenate([m.places for m in everything])
    starts = np.cumsum([0, *(len(m.places) for m in everything)])
    triangles = np.concatenate([m.triangles + s for m, s in zip(everything, starts[:-1], strict=True)])
    own, facing = places[: starts[len(meshes)]], np.concatenate([m.facing for m in meshes])
    found = np.zeros((len(own), 9))
    for way in evenly_round(WAYS):
        cosine = np.clip(facing @ way, 0.0, None)
        seen = cosine * _seen(places, triangles, own + LIFT * facing, way)
        found += (4.0 * math.pi / WAYS) * seen[:, None] * harmonics(way[None, :])
    return np.split(found, starts[1 : len(meshes)])


def _seen(places: Floats, triangles: np.ndarray, asked: Floats, way: Floats) -> Floats:
    """1 where nothing lies along `way` from the places asked, else 0."""
    side = np.cross(way, [0.0, 1.0, 0.0] if abs(way[1]) < 0.9 else [1.0, 0.0, 0.0])
    side /= np.linalg.norm(side)
    axes = np.stack([side, np.cross(way, side), way])
    middle = 0.5 * (places.min(axis=0) + places.max(axis=0))
    local, at = (places - middle) @ axes.T, (asked - middle) @ axes.T
    half = 1.02 * np.abs(local[:, :2]).max() + 1.0
    moved = local.astype(np.float32)
    # Seen from far along the way: nearly parallel rays.
    moved[:, 2] -= FAR
    depth = depth_picture(moved, triangles.astype(np.int32), (PICTURE, PICTURE), half / FAR, FAR - REACH, FAR + REACH)
    scale = PICTURE / 2.0 / half
    # The rasteriser looks along -z; a picture's rows run downwards.
    near = FAR / (FAR - at[:, 2])
    column, row = (np.rint(v * scale * near + PICTURE / 2.0 - 0.5).astype(int) for v in (at[:, 0], -at[:, 1]))
    inside = (column >= 0) & (row >= 0) & (column < PICTURE) & (row < PICTURE)
    nearest = np.where(inside, depth[np.clip(row, 0, PICTURE - 1), np.clip(column, 0, PICTURE - 1)], 2.0 * FAR)
    return (FAR - at[:, 2] <= nearest + 0.3).astype(float)
