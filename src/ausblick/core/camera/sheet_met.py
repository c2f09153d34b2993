"""Where rays from the lens meet the screen's surfaces."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats
from .screen_grid import Sheet


def met(sheet: Sheet, radius: float, lens: Floats, rays: Floats) -> tuple[Floats, Floats, Floats]:
    """How far along each ray (H, W, 3) the front of a surface is met (inf: nowhere), and where on it (x, y)."""
    (x0, x1), (y0, y1) = sheet.width, sheet.height
    if sheet.radius > 0.0:
        reach, x, y = _met_curve(sheet.radius, lens, rays)
        on = np.isfinite(reach)
    else:
        front, origin = np.array(sheet.front), np.array(sheet.origin)
        toward = rays @ front
        reach = ((origin - lens) @ front) / np.minimum(toward, -1e-9)
        x, y = ((lens - origin) @ way + reach * (rays @ way) for way in map(np.array, (sheet.across, sheet.up)))
        on = (toward < 0.0) & (reach > 0.0)
        if sheet.name == "wall":
            y0 += radius
    on &= (x > x0) & (x < x1) & (y > y0) & (y < y1)
    return np.where(on, reach, np.inf), x, y


def _met_curve(radius: float, lens: Floats, rays: Floats) -> tuple[Floats, Floats, Floats]:
    """The hollow side of a quarter of a cylinder along x, its axis at y = z = radius: the farther of two places."""
    y, z = lens[1] - radius, lens[2] - radius
    across, up, ahead = (rays[..., i].copy() for i in range(3))
    flat = np.maximum(up * up + ahead * ahead, 1e-12)
    along = (y * up + z * ahead) / flat
    root = along * along - (y * y + z * z - radius * radius) / flat
    reach = -along + np.sqrt(np.maximum(root, 0.0))
    down, out = -(y + reach * up) / radius, -(z + reach * ahead) / radius
    on = (root > 0.0) & (reach > 0.0) & (down >= 0.0) & (out >= 0.0)
    turn = np.arctan2(np.clip(down, 0.0, 1.0), np.clip(out, 0.0, 1.0))
    return np.where(on, reach, np.inf), lens[0] + reach * across, radius * turn
