"""Meshes drawn by a library: the depth of what is seen, and which triangle is.

Places are in the eye's own axes: x right, y up, z toward it, so that what is seen lies at z < 0. A picture is as wide
as its shape says; at a distance d its upper border is `half` x d above the middle.
"""

from __future__ import annotations

import math

import cv2
import numpy as np

from .vectors import Floats32, Ints32

NOT_TURNED = np.eye(4, dtype=np.float32)


def in_window(
    local: Floats32, focal: tuple[float, float], middle: tuple[float, float], shape: tuple[int, int]
) -> Floats32:
    """Places (V, 3) right, up and ahead of a lens in the axes of an eye of its own, which looks at the middle of a
    window `shape` (H, W) in px: x and y sheared and stretched, depth as it is. `focal`: px right and up at a distance
    of one; `middle`: where in the window the lens's own axis is met, px."""
    height, width = shape
    x = (2.0 / height) * (focal[0] * local[:, 0] + (middle[0] - width / 2.0) * local[:, 2])
    y = (2.0 / height) * (focal[1] * local[:, 1] - (middle[1] - height / 2.0) * local[:, 2])
    return np.stack([x, y, -local[:, 2]], axis=1).astype(np.float32)


def depth_picture(
    local: Floats32, triangles: Ints32, shape: tuple[int, int], half: float, near: float, far: float
) -> Floats32:
    """Distance (H, W) along the eye's axis of the nearest triangle (T, 3) of places (V, 3); `far` where none is."""
    depth = np.full(shape, far, dtype=np.float32)
    if len(triangles):
        cv2.triangleRasterizeDepth(
            np.ascontiguousarray(local), triangles, depth, NOT_TURNED, 2.0 * math.atan(half), near, far, _settings()
        )
    return depth


def triangle_picture(
    local: Floats32, triangles: Ints32, shape: tuple[int, int], half: float, near: float, far: float
) -> Ints32:
    """Number (H, W) of the nearest triangle; -1 where none is."""
    if not len(triangles):
        return np.full(shape, -1, dtype=np.int32)
    # Each triangle gets corners of its own, so that they can bear its number.
    corners = np.ascontiguousarray(local[triangles.ravel()])
    numbers = np.repeat(np.arange(len(triangles), dtype=np.float32), 3)
    inks = np.ascontiguousarray(np.broadcast_to(numbers[:, None], (len(numbers), 3)))
    picture, depth = np.full((*shape, 3), -1.0, dtype=np.float32), np.full(shape, far, dtype=np.float32)
    own = np.arange(len(numbers), dtype=np.int32).reshape(-1, 3)
    settings = _settings()
    settings.setShadingType(cv2.RASTERIZE_SHADING_FLAT)
    cv2.triangleRasterize(corners, own, inks, picture, depth, NOT_TURNED, 2.0 * math.atan(half), near, far, settings)
    return np.asarray(np.rint(picture[..., 0]), dtype=np.int32)


def _settings() -> cv2.TriangleRasterizeSettings:
    found = cv2.TriangleRasterizeSettings()
    found.setCullingMode(cv2.RASTERIZE_CULLING_NONE)
    return found
