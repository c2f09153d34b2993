"""What is seen of a piece from straight ahead: polygons in hundredths of stature."""

from __future__ import annotations

import cv2
import numpy as np

from ausblick.core.geometry.raster import depth_picture

from .fields import Floats
from .meshes import Mesh

AWAY, HALF = 40_000.0, 70.0
"""Seen from so far that rays are parallel; half of what is looked at."""
PIXELS = 1400
NEAR_ENOUGH = 1.3
"""An outline keeps within so many cells of what is seen."""
LEAST = 40.0
"""Smaller specks are left out, cells."""


def outlines(mesh: Mesh) -> list[Floats]:
    local = (mesh.places - np.array([0.0, 50.0, AWAY])).astype(np.float32)
    far = AWAY + 200.0
    depth = depth_picture(local, mesh.triangles, (PIXELS, PIXELS), HALF / AWAY, AWAY - 200.0, far)
    contours, _ = cv2.findContours((depth < far - 1.0).astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    found = []
    for contour in contours:
        if cv2.contourArea(contour) >= LEAST:
            place = 2.0 * (cv2.approxPolyDP(contour, NEAR_ENOUGH, True)[:, 0, :] + 0.5) / PIXELS - 1.0
            found.append(np.stack([HALF * place[:, 0], 50.0 - HALF * place[:, 1]], axis=1))
    return found
