"""How a piece is kept: whole numbers that pack well. `core/figure/solid_body.py` reads them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from ausblick.core.figure.body_file import FACING_STEP, ITSELF_STEP, PLACE_STEP, SIGHT_STEP

from .meshes import Mesh
from .sight import Seen


def kept(name: str, mesh: Mesh, seen: Seen) -> dict[str, npt.NDArray[np.generic]]:
    triangles = mesh.triangles.ravel().astype(np.int32)
    return {
        f"{name}/places": np.round(mesh.places / PLACE_STEP).astype(np.int16),
        f"{name}/facing": np.round(mesh.facing / FACING_STEP).astype(np.int8),
        **kept_sight(name, seen),
        # Neighbours have numbers near each other: their differences pack well.
        f"{name}/triangles": np.diff(triangles, prepend=0).astype(np.int32),
    }


def kept_sight(name: str, seen: Seen) -> dict[str, npt.NDArray[np.generic]]:
    return {
        f"{name}/sight": np.round(seen.around / SIGHT_STEP).astype(np.int8),
        f"{name}/itself": np.round(np.clip(seen.itself, 0.0, 1.0) / ITSELF_STEP).astype(np.uint8),
    }


def kept_outlines(ahead: Sequence[tuple[str, npt.NDArray[np.float64]]]) -> dict[str, npt.NDArray[np.generic]]:
    """Polygons (N, 2) by the piece they are of, all in one: every array of a file takes its time to open."""
    return {
        "pieces": np.array([name for name, _ in ahead]),
        "corners": np.array([len(outline) for _, outline in ahead]),
        "places": np.round(np.concatenate([outline for _, outline in ahead]) / PLACE_STEP).astype(np.int16),
    }
