"""Simple solids in the light's way, and how much of a cell of a lamp's face each hides from a place.

    place o - - - - - -|body|- - - - [cell of the lamp's face]
                       <-w->          the cell as wide as it is at the body: w = its width x share of the way

A cell is hidden by the share of it that lies behind the body, not wholly or not at all: that is what makes a shadow's
soft edge smooth with few cells.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Bools, Floats, Ints, Reals


@dataclass(frozen=True)
class Pillar:
    """An upright capped cylinder at x, z from the floor to `top`, m."""

    x: float
    z: float
    radius: float
    top: float


@dataclass(frozen=True)
class Ball:
    """A sphere round (x, y, z), m."""

    x: float
    y: float
    z: float
    radius: float


Solid = Pillar | Ball


@dataclass(frozen=True, eq=False)
class Ways:
    """Straight ways from places (P, 3) to cells (S, 3) of a lamp: begin (3, P, 1), way (3, P, S), width of a cell of
    the lamp, or of each (S,), and, where places stand for spots and not for points, (P, 1) of those; m."""

    begin: Reals
    way: Reals
    width: Reals | float
    spot: Reals | float = 0.0

    def width_at(self, share: Reals) -> Reals:
        """Width (P, S) of the bundle of light at a share of the way."""
        return np.asarray(self.width * share + self.spot * (1.0 - share))

    def of(self, rows: Ints) -> Ways:
        """Those of some places only."""
        spot = self.spot if isinstance(self.spot, float) else self.spot[rows]
        return Ways(self.begin[:, rows], self.way[:, rows], self.width, spot)


def ways(places: Floats, cells: Floats, width: float, spot: Floats | float = 0.0) -> Ways:
    """In single precision: a set is some ten metres large, and a share of light is wanted to a thousandth."""
    begin, end = (np.ascontiguousarray(of.T, dtype=np.float32) for of in (places, cells))
    begin = begin[:, :, None]
    spot = spot if isinstance(spot, float) else spot.astype(np.float32)
    return Ways(begin, np.subtract(end[:, None, :], begin, order="C"), width, spot)


def paired(starts: Floats, ends: Floats) -> Ways:
    """One way from each place (K, 3) to its own end (K, 3), as thin as a ray."""
    begin = np.ascontiguousarray(starts.T)[:, :, None]
    return Ways(begin, ends.T[:, :, None] - begin, 0.0)


def hidden(solid: Solid, on: Ways) -> Floats:
    """Share (P, S) of each cell that a solid hides."""
    if isinstance(solid, Ball):
        return _behind_ball(solid, on)
    return _behind_pillar((solid.x, solid.z, solid.radius, solid.top), on)


def hidden_by_each(pillars: Sequence[Pillar], on: Ways, rows: Sequence[Ints]) -> list[Floats]:
    """Share (R, S) of each cell that each pillar hides from places (rows) of its own: all of them in one sweep."""
    if not pillars:
        return []
    counts = [len(own) for own in rows]
    numbers = np.array([(one.x, one.z, one.radius, one.top) for one in pillars], dtype=on.way.dtype)
    x, z, radius, top = np.repeat(numbers, counts, axis=0).T[:, :, None]
    behind = _behind_pillar((x, z, radius, top), on.of(np.concatenate(rows)))
    return np.split(behind, np.cumsum(counts)[:-1])


def _overlap(middle: Reals, width: Reals, low: Reals | float, high: Reals | float) -> Floats:
    """Share of an interval of a width round its middle that lies between low and high."""
    half = np.maximum(0.5 * width, 1e-9)
    return np.asarray(
        np.clip((np.minimum(half, high - middle) + np.minimum(half, middle - low)) / (2.0 * half), 0.0, 1.0)
    )


Sizes = tuple[Reals | float, Reals | float, Reals | float, Reals | float]
"""Of a pillar its x, z, radius and top, or of each place's own pillar (P, 1); m."""


def _behind_pillar(sizes: Sizes, on: Ways) -> Floats:
    """Across: what of the cell lies between the pillar's sides; up: what lies below the edge the way passes over."""
    (x, y, z), (wx, wy, wz) = on.begin, on.way
    at_x, at_z, radius, top = sizes
    fx, fz = x - at_x, z - at_z
    flat = np.maximum(wx * wx + wz * wz, 1e-12)
    along = (fx * wx + fz * wz) / flat
    nearest = np.clip(-along, 0.0, 1.0)
    from_axis = np.sqrt((fx + nearest * wx) ** 2 + (fz + nearest * wz) ** 2)
    width = on.width_at(nearest)
    across = _overlap(from_axis, width, -radius, radius)
    # Half of the way's stretch inside the pillar, as a share of the way; none where it passes beside.
    half = np.sqrt(np.maximum(radius * radius - from_axis * from_axis, 0.0) / flat)
    enter, leave = (np.clip(-along + side * half, 0.0, 1.0) for side in (-1.0, 1.0))
    at_enter, at_leave = y + enter * wy, y + leave * wy
    low, high = np.minimum(at_enter, at_leave), np.maximum(at_enter, at_leave)
    below = np.clip((top - low) / np.maximum(width, 2e-9) + 0.5, 0.0, 1.0)
    return np.asarray(across * below * (high >= -1e-9))


def _behind_ball(b: Ball, on: Ways) -> Floats:
    (x, y, z), (wx, wy, wz) = on.begin, on.way
    fx, fy, fz = x - b.x, y - b.y, z - b.z
    length2 = np.maximum(wx * wx + wy * wy + wz * wz, 1e-12)
    nearest = np.clip(-(fx * wx + fy * wy + fz * wz) / length2, 0.0, 1.0)
    away = np.sqrt((fx + nearest * wx) ** 2 + (fy + nearest * wy) ** 2 + (fz + nearest * wz) ** 2)
    return _overlap(away, on.width_at(nearest), -b.radius, b.radius)


SLACK = 1.1
"""Ways to the edge of a face lie no further apart than this many times what ways to its middle tell."""


def near_enough(
    solids: Sequence[Solid], places: Floats, middle: Floats, reach: float, spot: Floats | float = 0.0
) -> Bools:
    """Of each solid the places (N, P), or spots of that width (P,), whose bundle of ways to a lamp of that half size
    round `middle` (3,) it may touch."""
    centres = np.array(
        [(solid.x, solid.y if isinstance(solid, Ball) else 0.0, solid.z) for solid in solids], np.float32
    )
    radius = np.array([solid.radius for solid in solids], np.float32)
    # A pillar is as high as it likes: only what is seen from above counts.
    ball = np.array([float(isinstance(solid, Ball)) for solid in solids], np.float32)
    begin = np.ascontiguousarray(places.T, dtype=np.float32)
    x, y, z = (centres[:, i, None] - begin[i] for i in range(3))
    wx, wy, wz = middle.astype(np.float32)[:, None] - begin
    spot = spot if isinstance(spot, float) else spot.astype(np.float32)
    y = ball[:, None] * y
    length2 = np.maximum(wx * wx + wz * wz + np.multiply.outer(ball, wy * wy), 1e-12)
    share = np.clip((x * wx + y * wy + z * wz) / length2, 0.0, 1.0)
    off_x, off_y, off_z = x - share * wx, y - ball[:, None] * share * wy, z - share * wz
    bundle = radius[:, None] + SLACK * (reach * share + spot * (1.0 - share))
    return np.asarray(off_x * off_x + off_y * off_y + off_z * off_z < bundle * bundle)
