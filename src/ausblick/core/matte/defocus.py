"""What is out of focus: a Gaussian for the lens's disc, however large."""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.vectors import AsGiven

FINE = 12.0
"""Spread in px up to which a blur is worked out pixel by pixel; a larger one on a reduced picture."""


def out_of_focus(image: AsGiven, disc_px: float) -> AsGiven:
    """A picture (H, W, C) seen through a disc of this diameter in its own px; a disc's spread is a quarter of it."""
    if disc_px <= 1.0:
        return image
    height, width = image.shape[:2]
    sigma = min(disc_px / 4.0, float(max(height, width)))
    if sigma <= FINE:
        return np.asarray(cv2.GaussianBlur(image, (0, 0), sigma))
    step = sigma / FINE
    size = max(1, round(width / step)), max(1, round(height / step))
    small = cv2.GaussianBlur(cv2.resize(image, size, interpolation=cv2.INTER_AREA), (0, 0), sigma * size[0] / width)
    large = cv2.resize(small, (width, height), interpolation=cv2.INTER_LINEAR)
    return np.asarray(large, dtype=image.dtype).reshape(image.shape)
