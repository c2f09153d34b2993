"""How a piece is kept: whole numbers that pack well. `core/figure/solid_body.py` reads them."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ausblick.core.figure.body_file import FACING_STEP, PLACE_STEP, SIGHT_STEP

from .fields import Floats
from .meshes import Mesh


def kept(name: str, mesh: Mesh, seen: Floats) -> dict[str, npt.NDArray[np.generic]]:
    triangles = mesh.triangles.ravel().astype(np.int32)
    return {
        f"{name}/places": np.round(mesh.places / PLACE_STEP).astype(np.int16),
        f"{name}/facing": np.round(mesh.facing / FACING_STEP).astype(np.int8),
        f"{name}/sight": np.round(seen / SIGHT_STEP).astype(np.int8),
        # Neighbours have numbers near each other: their differences pack well.
        f"{name}/triangles": np.diff(triangles, prepend=0).astype(np.int32),
    }
