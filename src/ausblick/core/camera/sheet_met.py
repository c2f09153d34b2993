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
        at = lens + reach[..., None] * rays - origin
        x, y = at @ np.array(sheet.across), at @ np.array(sheet.up)
        on = (toward < 0.0) & (reach > 0.0)
        if sheet.name == "wall":
            y0 += radius
    on &= (x > x0) & (x < x1) & (y > y0) & (y < y1)
    return np.where(on, reach, np.inf), x, y


def _met_curve(radius: float, lens: Floats, rays: Floats) -> tuple[Floats, Floats, Floats]:
    """The hollow side of a quarter of a cylinder along x, its axis at y = z = radius: the farther of two places."""
    y, z = lens[1] - radius, lens[2] - radius
    flat = rays[..., 1] ** 2 + rays[..., 2] ** 2
    along = (y * rays[..., 1] + z * rays[..., 2]) / np.maximum(flat, 1e-12)
    root = along * along - (y * y + z * z - radius * radius) / np.maximum(flat, 1e-12)
    reach = -along + np.sqrt(np.maximum(root, 0.0))
    at = lens + reach[..., None] * rays
    down, out = (radius - at[..., 1]) / radius, (radius - at[..., 2]) / radius
    on = (root > 0.0) & (reach > 0.0) & (down >= 0.0) & (out >= 0.0)
    turn = np.arctan2(np.clip(down, 0.0, 1.0), np.clip(out, 0.0, 1.0))
    return np.where(on, reach, np.inf), at[..., 0], radius * turn
