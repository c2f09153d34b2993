"""The cloth's own surface: wrinkles that grazing light draws, and gloss that shows a lamp.

A slope s in the cloth turns its normal. For one lamp at angle of incidence a that changes its light by
s * tan(a); lamps from opposite sides cancel, so the sum is taken as a vector:
contrast = s * |sum(E * tangent)| / sum(E).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.special import j1

from ..arrays import Bools, Floats, unit
from ..optics.grid import Grid
from ..plan import Light, Plan
from .basis import weight
from .emission import emission_of

FOLD = 0.08
"""Typical distance from fold to fold of hanging cloth, m."""
GLOSS_EXPONENT = 10.0
"""Breadth of a cloth's sheen: half its peak at about 21 degrees."""


@dataclass(frozen=True)
class Highlight:
    """The brightest mirror-like spot of a lamp on the screen: lamp's id, place (x, y) in m, and what it
    adds as a share of the screen's own luminance there."""

    light: str
    x: float
    y: float
    added: float


def wrinkle_contrast(plan: Plan, maps: Floats, total: Floats, grid: Grid, melt_m: float) -> Floats:
    """Contrast (H, W) of the cloth's folds as a share of the light there.

    maps (L, H, W): each lamp's lux with its dimmer; total (H, W): all light; `melt_m`: diameter in m on
    the screen of the lens's blur disc, which softens them.
    """
    points = grid.points()
    across, over = np.zeros(grid.shape), np.zeros(grid.shape)
    for lamp, lux in zip(plan.lights, maps, strict=True):
        toward = _toward(lamp, plan, points)
        height = np.maximum(toward[:, 2], 0.05)
        across += lux * (toward[:, 0] / height).reshape(grid.shape)
        over += lux * (toward[:, 1] / height).reshape(grid.shape)
    slant = np.hypot(across, over) / np.maximum(total, 1e-9)
    return np.asarray(plan.screen.wrinkle_slope * slant * softened(melt_m))


def softened(melt_m: float) -> float:
    """What a blur disc of this diameter leaves of a fold's contrast: 2 J1(v) / v, v = pi d / fold."""
    v = math.pi * melt_m / FOLD
    return 1.0 if v < 1e-6 else abs(2.0 * float(j1(v)) / v) if v < 3.83 else 0.0


def _toward(lamp: Light, plan: Plan, points: Floats) -> Floats:
    """Unit vectors (P, 3) from points toward a lamp."""
    emission = emission_of(lamp, plan)
    if emission.normal_lux is not None:
        return np.broadcast_to(-emission.face.axis, points.shape)
    return unit(emission.face.centre - points)


def highlights(plan: Plan, maps: Floats, total: Floats, grid: Grid, seen: Bools, lens: Floats) -> list[Highlight]:
    """Where each lamp shines in the cloth as the camera sees it, brightest first.

    `gloss` of the light the cloth sends back goes into a normalised lobe of exponent 10 (Lewis, Eurographics
    workshop on rendering 1993); it is compared with the rest, which goes everywhere alike.
    """
    if plan.screen.gloss <= 0.0 or not seen.any():
        return []
    points = grid.points()
    view = unit(lens - points)
    mirrored = view * np.array([-1.0, -1.0, 1.0])
    found = []
    for lamp, lux in zip(plan.lights, maps, strict=True):
        if weight(lamp) <= 0.0 or not lux.any():
            continue
        cosine = np.clip((mirrored * _toward(lamp, plan, points)).sum(axis=1), 0.0, 1.0)
        lobe = (GLOSS_EXPONENT + 2.0) / 2.0 * cosine**GLOSS_EXPONENT
        added = plan.screen.gloss * lobe.reshape(grid.shape) * lux / np.maximum(total, 1e-9)
        added = np.where(seen, added, 0.0)
        row, column = np.unravel_index(int(added.argmax()), added.shape)
        found.append(Highlight(lamp.id, float(grid.x[column]), float(grid.y[row]), float(added[row, column])))
    return sorted(found, key=lambda spot: -spot.added)
