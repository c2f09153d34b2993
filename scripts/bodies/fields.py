"""Distance fields of simple solids and how they are joined; places (..., 3), distances (...), inside < 0.

Units are hundredths of stature: x to the right as the camera sees it, y up from the floor, z toward the camera.
Smooth union: polynomial minimum; the round cone and the ellipsoid's bound are the usual closed forms.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float64]
Field = Callable[[Floats], Floats]
Point = tuple[float, float, float]


def round_cone(p: Floats, a: Point, ra: float, b: Point, rb: float) -> Floats:
    """A limb from `a` to `b`, its radius going evenly from one to the other."""
    start, way = np.array(a), np.array(b) - np.array(a)
    along = np.clip((p - start) @ way / max(float(way @ way), 1e-12), 0.0, 1.0)
    away = np.linalg.norm(p - start - along[..., None] * way, axis=-1)
    return np.asarray(away - (ra + along * (rb - ra)))


def ellipsoid(p: Floats, centre: Point, radii: Point) -> Floats:
    q = p - np.array(centre)
    k = np.linalg.norm(q / np.array(radii), axis=-1)
    slope = np.linalg.norm(q / np.array(radii) ** 2, axis=-1)
    return np.asarray(k * (k - 1.0) / np.maximum(slope, 1e-9))


def blunt(p: Floats, centre: Point, radii: Point, exponent: float = 2.4) -> Floats:
    """Like an ellipsoid, flatter on top and in front."""
    share = (np.abs((p - np.array(centre)) / np.array(radii)) ** exponent).sum(axis=-1) ** (1.0 / exponent)
    return np.asarray((share - 1.0) * min(radii))


def ball(p: Floats, centre: Point, radius: float) -> Floats:
    return np.asarray(np.linalg.norm(p - np.array(centre), axis=-1) - radius)


def box(p: Floats, centre: Point, half: Point, rounded: float) -> Floats:
    q = np.abs(p - np.array(centre)) - (np.array(half) - rounded)
    outside = np.linalg.norm(np.maximum(q, 0.0), axis=-1)
    return np.asarray(outside + np.minimum(q.max(axis=-1), 0.0) - rounded)


def ring(p: Floats, centre: Point, radii: tuple[float, float], thick: float, tilt: float) -> Floats:
    """An oval ring that lies level, tilted down toward the front by `tilt` (rise per length)."""
    q = p - np.array(centre)
    q = np.stack([q[..., 0] / radii[0], q[..., 1] + tilt * q[..., 2], q[..., 2] / radii[1]], axis=-1)
    across = (np.hypot(q[..., 0], q[..., 2]) - 1.0) * min(radii)
    return np.asarray(np.hypot(across, q[..., 1]) - thick)


def loft(
    p: Floats, heights: Floats, halves: Floats, depths: Floats, forward: Floats, exponent: float = 2.35
) -> Floats:
    """A stack of super-ellipses: half widths, half depths and middles over heights, smoothly between them."""
    from scipy.interpolate import PchipInterpolator

    y = np.clip(p[..., 1], heights[0], heights[-1])
    a, b, z = (PchipInterpolator(heights, v)(y) for v in (halves, depths, forward))
    share = (np.abs(p[..., 0] / a) ** exponent + np.abs((p[..., 2] - z) / b) ** exponent) ** (1.0 / exponent)
    side = (share - 1.0) * np.minimum(a, b)
    end = np.abs(p[..., 1] - 0.5 * (heights[0] + heights[-1])) - 0.5 * (heights[-1] - heights[0])
    return np.asarray(np.maximum(side, end))


def joined(k: float, *parts: Floats) -> Floats:
    """Union, smooth over `k`."""
    found = parts[0]
    for part in parts[1:]:
        h = np.clip(0.5 + 0.5 * (part - found) / k, 0.0, 1.0)
        found = part + (found - part) * h - k * h * (1.0 - h)
    return np.asarray(found)


def without(k: float, whole: Floats, part: Floats) -> Floats:
    """What is left of `whole`, the edge smooth over `k`."""
    return -joined(k, -whole, part)


def within(k: float, whole: Floats, part: Floats) -> Floats:
    """What both share."""
    return -joined(k, -whole, -part)


def both(one: Field) -> Field:
    """The field of a solid on the right and its mirror image."""

    def mirrored(p: Floats) -> Floats:
        q = p.copy()
        q[..., 0] = np.abs(q[..., 0])
        return one(q)

    return mirrored
