"""Configuration factors: which share of the light leaving a flat four-cornered patch arrives at an element.

    element, normal n          E = factor * exitance of the patch
      ^        _______
      |       / patch/         Lambert's contour formula, clipped to the element's horizon:
    --o--    /______/          factor = 1/2pi * sum(angle_i * n . unit(v_i x v_i+1))

Source: Lambert (Photometria, 1760); as configuration factor in Howell, A Catalog of Radiation Heat
Transfer Configuration Factors. Clipping matters: what lies below the horizon must not be subtracted.
"""

from __future__ import annotations

import math

import numpy as np

from ..geometry.vectors import Floats

FAR = 5.0
"""Beyond this many half diagonals a patch counts as a point: at most 1.5 % off."""
CHUNK = 40_000


def patch_factors(points: Floats, normals: Floats, corners: Floats, outward: Floats, areas: Floats) -> Floats:
    """Factors (P, Q) from patches to elements.

    points, normals (P, 3), unit length; corners (Q, 4, 3) counter-clockwise seen from the front,
    outward (Q, 3) unit normals, areas (Q,) in m2. Patches light only what is in front of them.
    """
    centres = corners.mean(axis=1)
    d = points[:, None, :] - centres[None, :, :]
    r2 = np.einsum("pqi,pqi->pq", d, d)
    leaving = np.einsum("pqi,qi->pq", d, outward)
    arriving = -np.einsum("pqi,pi->pq", d, normals)
    safe = np.maximum(r2, 1e-12)
    factors = np.where((leaving > 0.0) & (arriving > 0.0), leaving * arriving * areas / (math.pi * safe * safe), 0.0)
    reach = np.linalg.norm(corners - centres[:, None, :], axis=2).max(axis=1)
    near = (r2 < (FAR * reach) ** 2) & (leaving > 1e-9) & (arriving > -reach)
    p, q = np.nonzero(near)
    for begin in range(0, len(p), CHUNK):
        a, b = p[begin : begin + CHUNK], q[begin : begin + CHUNK]
        factors[a, b] = contour_factors(points[a], normals[a], corners[b])
    return np.asarray(factors)


def contour_factors(points: Floats, normals: Floats, corners: Floats) -> Floats:
    """Factors (K,) of K elements, each with its own patch: points, normals (K, 3), corners (K, 4, 3).

    The caller sees to it that each element is in front of its patch.
    """
    # Axis first and pairs last, so that every array operation runs over the pairs.
    to = np.subtract(corners.transpose(1, 2, 0), np.ascontiguousarray(points.T), order="C")
    n = np.ascontiguousarray(normals.T)
    heights = [v[0] * n[0] + v[1] * n[1] + v[2] * n[2] for v in to]
    total = np.zeros(len(points))
    leave, enter = np.zeros((3, len(points))), np.zeros((3, len(points)))
    cut = np.zeros(len(points), dtype=bool)
    for i in range(4):
        j = (i + 1) % 4
        a, b, ha, hb = to[i], to[j], heights[i], heights[j]
        up_a, up_b = ha > 0.0, hb > 0.0
        if not (up_a.all() and up_b.all()):
            step = ha - hb
            share = np.clip(ha / np.where(np.abs(step) < 1e-15, 1.0, step), 0.0, 1.0)
            crossing = a + share * (b - a)
            goes, comes = up_a & ~up_b, ~up_a & up_b
            leave, enter = np.where(goes, crossing, leave), np.where(comes, crossing, enter)
            cut |= goes
            a, b = np.where(comes, crossing, a), np.where(goes, crossing, b)
            total += np.where(up_a | up_b, _edge(a, b, n), 0.0)
        else:
            total += _edge(a, b, n)
    if cut.any():
        # The horizon itself closes what was cut open.
        total += np.where(cut, _edge(leave, enter, n), 0.0)
    return np.asarray(np.abs(total) / (2.0 * math.pi))


def _edge(a: Floats, b: Floats, n: Floats) -> Floats:
    """Angle between a and b times the height of their unit vector product; all (3, K)."""
    x = a[1] * b[2] - a[2] * b[1]
    y = a[2] * b[0] - a[0] * b[2]
    z = a[0] * b[1] - a[1] * b[0]
    length = np.sqrt(x * x + y * y + z * z)
    angle = np.arctan2(length, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])
    return np.asarray(angle * (x * n[0] + y * n[1] + z * n[2]) / np.maximum(length, 1e-300))
