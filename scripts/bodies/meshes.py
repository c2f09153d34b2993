"""From fields to meshes: marching cubes, normals from the field, and what of its surroundings each place sees."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from skimage.measure import marching_cubes

from .fields import Field, Floats

Box = tuple[tuple[float, float, float], tuple[float, float, float]]


@dataclass(frozen=True, eq=False)
class Mesh:
    """Places (V, 3) and what they face (V, 3), triangles (T, 3)."""

    places: Floats
    facing: Floats
    triangles: np.ndarray


def meshed(field: Field, box: Box, cell: float) -> Mesh:
    low, high = np.array(box[0]), np.array(box[1])
    counts = np.ceil((high - low) / cell).astype(int) + 1
    x, y, z = (low[i] + cell * np.arange(counts[i]) for i in range(3))
    slabs = (np.stack(np.meshgrid(some, y, z, indexing="ij"), axis=-1) for some in np.array_split(x, 8))
    values = np.concatenate([field(slab) for slab in slabs])
    places, triangles, _, _ = marching_cubes(values, 0.0, spacing=(cell,) * 3)
    places = places.astype(float) + low
    for _ in range(2):
        slope = gradient(field, places, 0.2 * cell)
        step = field(places) / np.maximum((slope**2).sum(axis=-1), 0.1)
        places -= np.clip(step, -0.5 * cell, 0.5 * cell)[:, None] * slope
    slope = gradient(field, places, 0.4 * cell)
    facing = slope / np.maximum(np.linalg.norm(slope, axis=-1, keepdims=True), 1e-9)
    return Mesh(places, facing, triangles.astype(np.int32))


def gradient(field: Field, places: Floats, step: float) -> Floats:
    found = np.empty_like(places)
    for i in range(3):
        away = step * np.eye(3)[i]
        found[:, i] = (field(places + away) - field(places - away)) / (2.0 * step)
    return found
