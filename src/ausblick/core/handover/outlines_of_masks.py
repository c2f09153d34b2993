"""Polygons of a mask, as people edit them: few corners, in parts of the frame."""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.vectors import Bools

CLOSE = 0.0015
"""How far a polygon may leave the mask's border, in parts of the width."""
FramePolygon = tuple[tuple[float, float], ...]
"""Closed, y down."""


def polygons_of(mask: Bools) -> tuple[FramePolygon, ...]:
    """The borders of a mask (h, w), the largest first; what is too small for three corners is left out."""
    height, width = mask.shape
    contours, _ = cv2.findContours(mask.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    found = []
    for contour in sorted(contours, key=cv2.contourArea, reverse=True):
        corners = cv2.approxPolyDP(contour, CLOSE * width, True)[:, 0, :]
        if len(corners) >= 3:
            found.append(tuple((float((x + 0.5) / width), float((y + 0.5) / height)) for x, y in corners))
    return tuple(found)
