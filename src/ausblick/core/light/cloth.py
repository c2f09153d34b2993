"""The cloth's own surface: wrinkles that grazing light draws, and gloss that shows a lamp.

A slope s in the cloth turns its normal. For one lamp at angle of incidence a that changes its light by
s * tan(a); lamps from opposite sides cancel, so the sum is taken as a vector:
contrast = s * |sum(E * tangent)| / sum(E).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..camera.screen_grid import Grid, SurfaceName
from ..geometry.vectors import Bools, Floats, dot, unit
from ..plan import Light, Plan
from .basis import BasisStore, weight
from .emission import emission_of
from .keys import place_key, together
from .mix import scalar_lux, summed

FOLD = 0.08
"""Typical distance from fold to fold of hanging cloth, m."""
VANISHED = 3.83
"""First zero of J1: discs so large leave nothing of a fold."""
GLOSS_EXPONENT = 10.0
"""Breadth of a cloth's sheen: half its peak at about 21 degrees."""

STRAIGHT_ON = 0.04
"""What a smooth dielectric of index 1.5 mirrors of light along its normal."""


@dataclass(frozen=True)
class Highlight:
    """The brightest mirror-like spot of a lamp on the screen: lamp's id, place (x, y) in m along the surface, and
    what it adds as a share of the screen's own luminance there."""

    light: str
    x: float
    y: float
    added: float
    surface: SurfaceName = "wall"


def wrinkle_contrast(plan: Plan, maps: Floats, total: Floats, grid: Grid, melt_m: float, store: BasisStore) -> Floats:
    """Contrast (H, W) of the cloth's folds as a share of the light there.

    maps (L, H, W): each lamp's lux with its dimmer; total (H, W): all light; `melt_m`: diameter in m on
    the screen of the lens's blur disc, which softens them.
    """
    if not len(maps):
        return np.zeros(grid.shape)
    ground = together("slant", grid.key)
    slants = np.stack(store.each_lamp(plan, ground, lambda lamp: _slant(plan, lamp, grid)))
    slant = np.hypot(*np.einsum("lhw,lkhw->khw", maps, slants)) / np.maximum(total, 1e-9)
    return np.asarray(plan.screen.wrinkle_slope * slant * softened(melt_m))


def _slant(plan: Plan, lamp: Light, grid: Grid) -> Floats:
    """Tangent of a lamp's angle of incidence across and up, (2, H, W)."""
    toward = _toward(lamp, plan, grid.points())
    across, up, out = (dot(toward, axis) for axis in grid.axes())
    return np.asarray((np.stack([across, up]) / np.maximum(out, 0.05)).reshape(2, *grid.shape))


def softened(melt_m: float) -> float:
    """What a blur disc of this diameter leaves of a fold's contrast: 2 J1(v) / v, v = pi d / fold."""
    v = math.pi * melt_m / FOLD
    if v < 1e-6:
        return 1.0
    if v > VANISHED:
        return 0.0
    # Bessel's own integral: the mean over a turn of a periodic function, exact to the last digits by few places.
    turn = 2.0 * np.pi * np.arange(32) / 32
    return abs(2.0 * float(np.cos(turn - v * np.sin(turn)).mean()) / v)


def _toward(lamp: Light, plan: Plan, points: Floats) -> Floats:
    """Unit vectors (P, 3) from points toward a lamp."""
    emission = emission_of(lamp, plan)
    if emission.normal_lux is not None:
        return np.broadcast_to(-emission.face.axis, points.shape)
    return unit(emission.face.centre - points)


def highlights(
    plan: Plan, maps: Floats, total: Floats, grid: Grid, seen: Bools, lens: Floats, store: BasisStore
) -> list[Highlight]:
    """Where each lamp shines in the cloth as the camera sees it, brightest first.

    `gloss` of the light the cloth sends back goes into a normalised lobe of exponent 10 (Lewis, Eurographics
    workshop on rendering 1993), more of it at grazing angles (Schlick, Computer Graphics Forum 1994, for a surface
    that mirrors 4 % straight on); it is compared with the rest, which goes everywhere alike.
    """
    if plan.screen.gloss <= 0.0 or not seen.any() or not len(maps):
        return []
    lobes = _sheens(plan, grid, lens, store)
    added = plan.screen.gloss * lobes * maps * (seen / np.maximum(total, 1e-9))
    found = []
    for lamp, each, lux in zip(plan.lights, added, maps, strict=True):
        if weight(lamp, plan.camera) <= 0.0 or not lux.any():
            continue
        row, column = divmod(int(each.argmax()), each.shape[1])
        place = float(grid.x[column]), float(grid.y[row])
        found.append(Highlight(lamp.id, *place, float(each[row, column]), grid.sheet.name))
    return sorted(found, key=lambda spot: -spot.added)


def sheen_shares(plan: Plan, grid: Grid, lens: Floats, store: BasisStore) -> Floats:
    """What each lamp's sheen adds to a surface's look, (L, H, W), over its lux there: as a matt white surface would
    look under that much of its light. It is a share of what the cloth sends back."""
    mean = float(scalar_lux(np.array(plan.screen.reflectance)))
    return plan.screen.gloss * mean * _sheens(plan, grid, lens, store)


def sheen_light(plan: Plan, maps: Floats, grid: Grid, lens: Floats, store: BasisStore) -> Floats:
    """The sheen of all lamps (H, W, 3) in lux; maps (L, H, W): each one's lux at full power where it arrives. Sheen
    has the lamp's colour, not the cloth's."""
    return summed(plan, maps * sheen_shares(plan, grid, lens, store))


def _sheens(plan: Plan, grid: Grid, lens: Floats, store: BasisStore) -> Floats:
    """Each lamp's lobe (L, H, W) mirrored in the cloth, toward the lens (3,), with its rise at grazing angles."""
    ground = together("sheen", grid.key, place_key(lens))
    lobes = store.each_lamp(plan, ground, lambda lamp: _sheen(plan, lamp, grid, lens))
    return np.stack(lobes) if lobes else np.zeros((0, *grid.shape))


def _sheen(plan: Plan, lamp: Light, grid: Grid, lens: Floats) -> Floats:
    points, out = grid.points(), grid.axes()[2]
    look, toward = unit(lens - points), _toward(lamp, plan, points)
    mirrored = 2.0 * dot(look, out)[:, None] * out - look
    cosine = np.clip(dot(mirrored, toward), 0.0, 1.0)
    half = np.sqrt(np.clip(0.5 + 0.5 * dot(look, toward), 0.0, 1.0))
    left = (1.0 - half) * (1.0 - half)
    rise = 1.0 + (1.0 / STRAIGHT_ON - 1.0) * left * left * (1.0 - half)
    return np.asarray((rise * (GLOSS_EXPONENT + 2.0) / 2.0 * cosine**GLOSS_EXPONENT).reshape(grid.shape))
