"""Where rays from the lens meet the screen's surfaces."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import AsGiven, Floats
from .screen_grid import Sheet


def met(sheet: Sheet, radius: float, lens: Floats, rays: AsGiven) -> tuple[AsGiven, AsGiven, AsGiven]:
    """How far along each ray (H, W, 3) the front of a surface is met (inf: nowhere), and where on it (x, y); as
    closely as the rays are given."""
    (x0, x1), (y0, y1) = sheet.width, sheet.height
    if sheet.radius > 0.0:
        reach, x, y = _met_curve(sheet.radius, lens, rays)
        on = np.isfinite(reach)
    else:
        away = lens - np.array(sheet.origin)
        toward = _along(rays, sheet.front)
        reach = np.asarray(-float(away @ np.array(sheet.front)) / np.minimum(toward, -1e-9), dtype=rays.dtype)
        x, y = (float(away @ np.array(way)) + reach * _along(rays, way) for way in (sheet.across, sheet.up))
        on = (toward < 0.0) & (reach > 0.0)
        if sheet.name == "wall":
            y0 += radius
    on &= (x > x0) & (x < x1) & (y > y0) & (y < y1)
    return np.where(on, reach, np.inf), x, y


def _along(rays: AsGiven, way: tuple[float, float, float]) -> AsGiven:
    """How far (H, W) rays (H, W, 3) go along a way; most surfaces lie along the room's own axes."""
    parts = [rays[..., i] if share == 1.0 else share * rays[..., i] for i, share in enumerate(way) if share != 0.0]
    return np.asarray(sum(parts[1:], start=parts[0]))


def _met_curve(radius: float, lens: Floats, rays: AsGiven) -> tuple[AsGiven, AsGiven, AsGiven]:
    """The hollow side of a quarter of a cylinder along x, its axis at y = z = radius: the farther of two places."""
    x, y, z = float(lens[0]), float(lens[1]) - radius, float(lens[2]) - radius
    across, up, ahead = (rays[..., i].copy() for i in range(3))
    flat = np.maximum(up * up + ahead * ahead, 1e-12)
    along = (y * up + z * ahead) / flat
    root = along * along - (y * y + z * z - radius * radius) / flat
    reach = -along + np.sqrt(np.maximum(root, 0.0))
    down, out = -(y + reach * up) / radius, -(z + reach * ahead) / radius
    on = (root > 0.0) & (reach > 0.0) & (down >= 0.0) & (out >= 0.0)
    turn = np.arctan2(np.clip(down, 0.0, 1.0), np.clip(out, 0.0, 1.0))
    along_x = np.asarray(x + reach * across, dtype=rays.dtype)
    return np.where(on, reach, np.inf), along_x, np.asarray(radius * turn, dtype=rays.dtype)
