"""Lamps mirrored in a window pane, laid over the picture as light that nothing keys away."""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.channels import in_colour
from ..geometry.vectors import Floats32
from .capture import Capture
from .defocus import out_of_focus
from .pixel_window import PixelWindow

FINE = 4
"""Binary digits of a pixel to which outlines are drawn."""


def lamps_in_glass(capture: Capture, window: PixelWindow) -> Floats32 | None:
    """Linear light (H, W, 3) that the pane adds to the picture; None where it mirrors no lamp."""
    if not capture.in_pane:
        return None
    sensor = capture.plan.camera.sensor
    added = np.zeros((window.height, window.width, 3), dtype=np.float32)
    for image in capture.in_pane:
        frame, depth = capture.view.project(image.outline)
        if np.any(depth <= 1e-3):
            continue
        px = (frame * (sensor.px_w, sensor.px_h) - (window.x, window.y)) / window.scale - 0.5
        cover = np.zeros((window.height, window.width), dtype=np.uint8)
        # Outlines that reach far out of a crop stay within what the drawing can count.
        corners = np.clip(np.round(px * 2**FINE), -(2**28), 2**28).astype(np.int32)
        cv2.fillConvexPoly(cover, cv2.convexHull(corners), 255, cv2.LINE_AA, FINE)
        added += in_colour(cover / np.float32(255.0), image.lux)
    return out_of_focus(added, capture.defocus_px / window.scale)


def before_figure(capture: Capture) -> bool:
    """Does the camera look at the figure through the glass?"""
    pane, subject = capture.plan.window, capture.plan.subject
    return pane is not None and subject is not None and pane.z > subject.z
