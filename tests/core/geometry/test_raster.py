"""Meshes as the library draws them: depths and numbers of triangles where a pinhole has them."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.geometry.harmonics import COSINE, harmonics
from ausblick.core.geometry.raster import depth_picture, triangle_picture


def test_a_slanted_plane_is_as_far_as_its_rays_say() -> None:
    """z = -2 + x: the ray (x, y, -1) t meets it at t = 2 / (1 + x)."""
    corners = np.array([[-1.5, -9, -3.5], [1.9, -9, -0.1], [1.9, 9, -0.1], [-1.5, 9, -3.5]], dtype=np.float32)
    triangles = np.array([[0, 1, 2], [0, 2, 3]], dtype=np.int32)
    depth = depth_picture(corners, triangles, (60, 80), 0.5, 0.05, 10.0)
    x = (np.arange(80) + 0.5 - 40.0) / 30.0 * 0.5
    wanted = np.broadcast_to(2.0 / (1.0 + x), (60, 80))
    inside = (wanted * x > -1.4) & (wanted * x < 1.8)
    assert depth[inside] == pytest.approx(wanted[inside], rel=2e-3)


def test_the_nearest_triangle_is_seen_with_its_number() -> None:
    far = [[-5, -5, -4], [5, -5, -4], [0, 5, -4]]
    near = [[0, -1, -2], [1, -1, -2], [0, 0.5, -2]]
    corners = np.array(far + near, dtype=np.float32)
    found = triangle_picture(corners, np.array([[0, 1, 2], [3, 4, 5]], dtype=np.int32), (90, 90), 1.0, 0.5, 9.0)
    assert found[0, 0] == -1, "beside both"
    assert found[60, 50] == 1
    assert found[60, 40] == 0


def test_harmonics_are_at_right_angles_and_a_cosine_keeps_what_it_is_said_to() -> None:
    rng = np.random.default_rng(1)
    ways = rng.normal(size=(400_000, 3))
    ways /= np.linalg.norm(ways, axis=1, keepdims=True)
    values = harmonics(ways)
    assert 4.0 * np.pi * values.T @ values / len(ways) == pytest.approx(np.eye(9), abs=0.012)
    normal = np.array([0.48, 0.6, 0.64])
    cosine = np.clip(ways @ normal, 0.0, None)
    kept = 4.0 * np.pi * (cosine[:, None] * values).mean(axis=0)
    assert kept == pytest.approx(COSINE * harmonics(normal), abs=0.012)
