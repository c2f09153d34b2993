"""Which cells of the screen are seen beside everybody's body as it is drawn, well away from its outline.

Ball and cylinder stand for a figure in every other number. They hide less of the screen than arms and shoulders do:
a shadow that falls right behind those is no part of what a key has to clip.
"""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

from ..camera.screen_grid import Grid
from ..camera.view import NEAREST, View
from ..figure.outline import figure_parts
from ..geometry.vectors import Bools
from ..light.basis import BasisStore
from ..light.keys import framing_key
from ..plan import Plan, people_of

ACROSS = 480
"""Px of the picture in which bodies are laid over the screen."""
AWAY = 0.02
"""Of the picture's height: so near a figure a key takes nothing for flat screen."""


def beside_body(plan: Plan, view: View, grids: Sequence[Grid], store: BasisStore) -> tuple[Bools, ...]:
    """Of each grid the cells (H, W) that no body hides."""
    known = ("beside body", framing_key(plan), *(grid.key for grid in grids))
    return store.record(known, lambda: _beside_body(plan, view, grids))


def _beside_body(plan: Plan, view: View, grids: Sequence[Grid]) -> tuple[Bools, ...]:
    sensor = plan.camera.sensor
    size = ACROSS, max(1, round(ACROSS * sensor.px_h / sensor.px_w))
    bodies = np.zeros((size[1], size[0]), dtype=np.uint8)
    for person in people_of(plan):
        for _, outline in figure_parts(person, plan.camera):
            px = np.clip(view.shown(outline) * size, -(2**14), 2**14)
            if len(px):
                cv2.fillPoly(bodies, [np.round(px).astype(np.int32)], 1)
    reach = 2 * max(2, round(AWAY * size[1])) + 1
    free = cv2.dilate(bodies, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (reach, reach))) == 0
    return tuple(_at(free, view, grid, size) for grid in grids)


def _at(free: Bools, view: View, grid: Grid, size: tuple[int, int]) -> Bools:
    frame, depth = view.project(grid.points())
    with np.errstate(invalid="ignore"):
        column, row = (np.clip(np.nan_to_num(frame[:, i]) * size[i], 0, size[i] - 1).astype(int) for i in (0, 1))
    return np.asarray((free[row, column] & (depth > NEAREST)).reshape(grid.shape))
