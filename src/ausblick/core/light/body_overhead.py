"""What a body keeps off the ground of light from all of the upper half space: what makes it dark round the feet.

It is known round the body as that stands by itself, closely at its feet and coarser away from them, so that somebody
who walks takes it along.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from scipy.ndimage import map_coordinates

from ..figure.solid_body import SolidBody
from ..geometry.vectors import Floats
from ..remembered.shelf import Shelf
from .body_depth import COARSER, SUN_FROM, lit, look

OVERHEAD = 48
"""Directions of the upper half space, each with as much of its light on a level place."""
REACH, AT_FEET, STEP = 6.0, 0.35, 0.05
"""How far the lattice reaches, m; places x = AT_FEET sinh(STEP i) along each way: 18 mm apart at the feet, a
twentieth of the distance far from them."""
STEPS = int(np.ceil(np.arcsinh(REACH / AT_FEET) / STEP))

_KEPT: Shelf[Floats] = Shelf(8)


def hidden_from_above(body: SolidBody, places: Floats) -> Floats:
    """Share (P,) of light from above that a body keeps off level places (P, 3) of the ground; none beyond REACH."""
    mark = body.mark
    own = replace(mark, foot=(0.0, mark.foot[1], 0.0), angle=0.0)
    by_itself = SolidBody(("by itself", body.shape, own), body.shape, own)
    hidden = _KEPT.get(by_itself.key, lambda: _round_about(by_itself))
    across, _, ahead = ((places - np.array(mark.foot)) @ mark.turn).T
    at = [np.arcsinh(way / AT_FEET) / STEP + STEPS for way in (ahead, across)]
    return np.asarray(map_coordinates(hidden, at, order=1, cval=0.0))


def _round_about(body: SolidBody) -> Floats:
    """At every place of the lattice, rows ahead, columns across."""
    way = AT_FEET * np.sinh(STEP * np.arange(-STEPS, STEPS + 1))
    across, ahead = np.meshgrid(way, way)
    asked = np.stack([across.ravel(), np.zeros(across.size), ahead.ravel()]).astype(np.float32)
    suns = body.middle + SUN_FROM * _ways()
    look(body, suns, COARSER)
    left = np.mean([lit(body, asked, sun, COARSER) for sun in suns], axis=0)
    return np.asarray(1.0 - left.reshape(across.shape), dtype=np.float64)


def _ways() -> Floats:
    """Directions (OVERHEAD, 3) of equal cosine-weighted shares of the half space, along a spiral."""
    i = np.arange(OVERHEAD) + 0.5
    level, turn = np.sqrt(i / OVERHEAD), np.pi * (1.0 + np.sqrt(5.0)) * i
    return np.stack([level * np.cos(turn), np.sqrt(1.0 - level * level), level * np.sin(turn)], axis=1)
