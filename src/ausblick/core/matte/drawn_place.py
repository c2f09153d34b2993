"""Where the plane of the figure's mark lies in a window: for what is drawn flat in it."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..camera.view import View
from ..figure.on_mark import on_mark
from ..geometry.vectors import Floats
from ..plan import Camera, Subject
from .capture import Capture
from .pixel_window import PixelWindow

ASIDE = 0.25
"""How far aside, in statures, the plane's scale across is taken: as far as hands reach."""


@dataclass(frozen=True)
class DrawnPlace:
    """Where the figure's plane lies in a window: px of its foot, px per share of the height right and up.

    Hashable, so that covers are drawn once for all captures of the same geometry.
    """

    foot: tuple[float, float]
    right: tuple[float, float]
    up: tuple[float, float]
    shape: tuple[int, int]

    @property
    def matrix(self) -> Floats:
        return np.array([self.right, self.up]).T

    @property
    def px_per_height(self) -> float:
        return math.sqrt(abs(float(np.linalg.det(self.matrix))))

    def box(self, x0: float, y0: float, x1: float, y1: float, margin: float) -> tuple[slice, slice] | None:
        """Pixels that hold a box of the figure, with a margin in px; None outside the window."""
        corners = np.array([[x0, y0], [x1, y0], [x1, y1], [x0, y1]]) @ self.matrix.T + self.foot
        low = np.maximum(np.floor(corners.min(axis=0) - margin).astype(int), 0)
        high = np.minimum(np.ceil(corners.max(axis=0) + margin).astype(int), (self.shape[1], self.shape[0]))
        if np.any(high <= low):
            return None
        return slice(int(low[1]), int(high[1])), slice(int(low[0]), int(high[0]))

    def shares(self, box: tuple[slice, slice]) -> tuple[Floats, Floats]:
        """x and y in shares of the height at every pixel of a box."""
        rows, columns = np.mgrid[box]
        flat = np.stack([columns + 0.5 - self.foot[0], rows + 0.5 - self.foot[1]])
        x, y = np.tensordot(np.linalg.inv(self.matrix), flat, axes=1)
        return x, y


def place_of(capture: Capture, subject: Subject, window: PixelWindow) -> DrawnPlace:
    return place_seen(capture.plan.camera, capture.view, subject, window)


def place_seen(camera: Camera, view: View, subject: Subject, window: PixelWindow) -> DrawnPlace:
    sensor = camera.sensor
    # It is turned as the body is; what is drawn flat in it of somebody seated lies as much lower.
    ends = on_mark(subject, camera).at(np.array([[0.0, 0.0, 0.0], [0.0, 1.0, 0.0], [ASIDE, 0.0, 0.0]]))
    frame, _ = view.project(ends)
    px = (frame * (sensor.px_w, sensor.px_h) - (window.x, window.y)) / window.scale
    foot, up, right = (tuple(np.round(v, 4).tolist()) for v in (px[0], px[1] - px[0], (px[2] - px[0]) / ASIDE))
    return DrawnPlace(foot, right, up, (window.height, window.width))


def figure_place(capture: Capture, x: float, y: float) -> Floats:
    """Sensor px (2,) of a place of the figure given in shares of its height."""
    subject, camera = capture.plan.subject, capture.plan.camera
    assert subject is not None
    frame, _ = capture.view.project(on_mark(subject, camera).at(np.array([x, y, 0.0])))
    return np.asarray(frame * (camera.sensor.px_w, camera.sensor.px_h))
