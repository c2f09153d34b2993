"""Masks without holes: what something encloses belongs to what it spans."""

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
