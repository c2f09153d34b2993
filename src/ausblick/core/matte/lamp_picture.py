"""Lamps and stands in a window of the picture, as layers that are laid over what is behind."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np

from ..camera.view import NEAREST
from ..geometry.channels import threefold
from ..geometry.vectors import Floats, Floats32
from ..plan import Light, Plan
from .capture import Capture
from .lit_lamps import LitFace
from .pixel_window import PixelWindow

FINE = 4
"""Binary digits of a pixel to which outlines are drawn."""


@dataclass(frozen=True, eq=False)
class LampLayer:
    """Cover (h, w) and linear light (h, w, 3) in a box of the window; `behind_wall`: it is seen through the opening
    of a window's wall only."""

    box: tuple[slice, slice]
    cover: Floats32
    paint: Floats32
    behind_wall: bool


def lamp_layers(capture: Capture, window: PixelWindow, before: bool) -> Iterator[LampLayer]:
    """Of lamps that stand before the figure, or of the others, the farthest first."""
    plan = capture.plan
    mark = plan.subject.z if plan.subject is not None else -np.inf
    for lamp in capture.lamps:
        if (lamp.lamp.position[2] > mark) == before:
            for face in lamp.faces:
                layer = _layer(capture, window, face, _behind_wall(plan, lamp.lamp))
                if layer is not None:
                    yield layer


def lay_lamps(capture: Capture, window: PixelWindow, colour: Floats32, alpha: Floats32) -> None:
    """Those before the figure, over a premultiplied picture (H, W, 3) and its alpha (H, W)."""
    for one in lamp_layers(capture, window, before=True):
        colour[one.box] += threefold(one.cover) * (one.paint - colour[one.box])
        alpha[one.box] += one.cover * (1.0 - alpha[one.box])


def _behind_wall(plan: Plan, lamp: Light) -> bool:
    return plan.window is not None and plan.window.in_wall and lamp.position[2] < plan.window.z


def _layer(capture: Capture, window: PixelWindow, face: LitFace, behind_wall: bool) -> LampLayer | None:
    """None where it is not in the window."""
    sensor = capture.plan.camera.sensor
    frame, depth = capture.view.project(face.corners)
    if np.any(depth <= NEAREST):
        return None
    px = (frame * (sensor.px_w, sensor.px_h) - (window.x, window.y)) / window.scale - 0.5
    low = np.maximum(np.floor(px.min(axis=0)).astype(int) - 1, 0)
    high = np.minimum(np.ceil(px.max(axis=0)).astype(int) + 2, (window.width, window.height))
    if np.any(high <= low):
        return None
    box = slice(int(low[1]), int(high[1])), slice(int(low[0]), int(high[0]))
    cover = np.zeros(tuple(high - low)[::-1], dtype=np.uint8)
    corners = np.clip(np.round((px - low) * 2**FINE), -(2**28), 2**28).astype(np.int32)
    cv2.fillConvexPoly(cover, cv2.convexHull(corners), 255, cv2.LINE_AA, FINE)
    return LampLayer(box, cover.astype(np.float32) / np.float32(255.0), _between(px, face.look, box), behind_wall)


def _between(px: Floats, look: Floats, box: tuple[slice, slice]) -> Floats32:
    """Light (h, w, 3) that is linear over the picture and nearest to that (N, 3) at corners (N, 2)."""
    middle = px.mean(axis=0)
    slope, *_ = np.linalg.lstsq(px - middle, look - look.mean(axis=0), rcond=1e-3)
    down, across = (np.arange(part.start, part.stop) for part in box)
    channels = []
    for own, (right, low) in zip(look.T, slope.T, strict=True):
        rows, columns = (down - middle[1]) * low, (across - middle[0]) * right + own.mean()
        light = np.add.outer(rows.astype(np.float32), columns.astype(np.float32))
        channels.append(np.clip(light, float(own.min()), float(own.max())))
    return np.asarray(cv2.merge(channels), dtype=np.float32)
