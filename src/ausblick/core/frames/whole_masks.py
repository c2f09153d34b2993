"""Masks made whole, wider and narrower."""

from __future__ import annotations

import cv2
import numpy as np

from ..geometry.vectors import Bools


def filled(mask: Bools) -> Bools:
    """The mask (h, w) without holes."""
    contours, _ = cv2.findContours(mask.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    whole = np.zeros(mask.shape, np.uint8)
    cv2.drawContours(whole, contours, -1, 1, cv2.FILLED)
    return whole.astype(bool)


def eroded(mask: Bools) -> Bools:
    """The mask (h, w) without its rim."""
    return np.asarray(cv2.erode(mask.astype(np.uint8), np.ones((3, 3), np.uint8)) > 0)


def dilated(mask: Bools, by: int) -> Bools:
    """The mask (h, w) with a square of so many px round each place."""
    return np.asarray(cv2.dilate(mask.astype(np.uint8), np.ones((by, by), np.uint8)) > 0)


def closed(mask: Bools, by: int) -> Bools:
    """The mask (h, w) without holes and gaps narrower than this, px."""
    shape = np.ones((by, by), np.uint8)
    return np.asarray(cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_CLOSE, shape) > 0)
