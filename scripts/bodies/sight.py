"""What each place of a body sees of its surroundings past the body itself, as nine numbers, and what of itself.

The nine are the cosine-weighted, masked integrals of the real spherical harmonics up to order two; with the harmonics
of the light around (radiance) they give the light that arrives (Sloan, Kautz and Snyder, SIGGRAPH 2002). What is left
of the half space is the body: how much of it is which of its zones, as configuration factors.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy.spatial import cKDTree

from ausblick.core.figure.body_zones import ZONES, zones_of
from ausblick.core.geometry.harmonics import harmonics
from ausblick.core.geometry.raster import depth_picture
from ausblick.core.geometry.vectors import evenly_round

from .fields import Floats
from .meshes import Mesh

WAYS = 192
FAR = 1500.0
REACH = 120.0
PICTURE = 1600
LIFT, NEARER = 0.15, 0.12
"""Places are asked from a little above the surface, and what hides the surroundings lies so much before them, in
hundredths of stature."""
STEP, STEPS = 0.3, 60
"""Least step on the way to what hides them, in hundredths of stature."""


@dataclass(frozen=True, eq=False)
class Seen:
    """By each place of a mesh: `around` (V, 9), `itself` (V, ZONES)."""

    around: Floats
    itself: Floats


def sight(meshes: Sequence[Mesh], around: Sequence[Mesh]) -> list[Seen]:
    """Of each mesh, with all of them and what is `around` in the way."""
    everything = [*meshes, *around]
    places, normals = (np.concatenate([getattr(m, name) for m in everything]) for name in ("places", "facing"))
    starts = np.cumsum([0, *(len(m.places) for m in everything)])
    triangles = np.concatenate([m.triangles + s for m, s in zip(everything, starts[:-1], strict=True)])
    count = starts[len(meshes)]
    zone, near = zones_of(0.01 * places, normals), cKDTree(places)
    found, itself = np.zeros((count, 9)), np.zeros((count, ZONES))
    for way in evenly_round(WAYS):
        cosine = np.clip(normals[:count] @ way, 0.0, None)
        asked = places[:count] + LIFT * normals[:count]
        before = _before(places, triangles, asked, way)
        hidden = before > NEARER
        found += (4.0 * math.pi / WAYS) * (cosine * ~hidden)[:, None] * harmonics(way[None, :])
        (those,) = np.nonzero(hidden & (cosine > 0.0))
        met = _met(near, normals, asked[those], before[those], way)
        np.add.at(itself, (those, zone[met]), 4.0 / WAYS * cosine[those])
    return [Seen(found[a:b], itself[a:b]) for a, b in pairwise(starts[: len(meshes) + 1])]


def _met(near: cKDTree, normals: Floats, begin: Floats, end: Floats, way: Floats) -> np.ndarray:
    """Which place (N,) of the body is next to where a ray first enters it, from `begin` (N, 3) as far as `end` (N,)
    at most: no step is longer than the nearest of the body is away."""
    reached, met = np.full(len(begin), STEP), np.zeros(len(begin), dtype=np.int64)
    left = np.arange(len(begin))
    for _ in range(STEPS):
        at = begin[left] + reached[left, None] * way
        away, next_to = near.query(at, workers=-1)
        met[left] = next_to
        inside = np.einsum("ij,ij->i", at - near.data[next_to], normals[next_to]) < 0.0
        going = ~(inside & (normals[next_to] @ way < 0.0)) & (reached[left] < end[left] - STEP)
        reached[left] += np.minimum(np.maximum(0.7 * away, STEP), np.maximum(end[left] - reached[left], STEP))
        left = left[going]
        if not len(left):
            break
    return met


def _before(places: Floats, triangles: np.ndarray, asked: Floats, way: Floats) -> Floats:
    """How far along `way` from the places asked the outermost of the body lies; less than 0 where nothing does."""
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
    return FAR - at[:, 2] - nearest
