"""A clean plate where none was filmed: the screen's own light laid smoothly through where the figure stood."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..frames.spots import fit_surface
from ..geometry.vectors import Bools, Floats32

RIM = 0.025
"""Of the width, round the figure: loose hair goes with it."""


@dataclass(frozen=True)
class SyntheticPlate:
    """`signal` (h, w, 3) 0..1; `error_percent`: how far the smooth screen is, in the mean, from what was recorded
    where no figure stands. What it is inside of the figure nobody saw."""

    signal: Floats32
    error_percent: float


def synthetic_plate(signal: Floats32, figure: Bools, core: Bools) -> SyntheticPlate:
    """Of a reduced picture (h, w, 3); `figure` (h, w) is replaced with a rim, all else stays as it was recorded."""
    rim = max(2, round(RIM * signal.shape[1]))
    gone = cv2.dilate(figure.astype(np.uint8), np.ones((2 * rim + 1, 2 * rim + 1), np.uint8)).astype(bool)
    seen = core & ~gone
    made = signal.copy()
    errors = []
    for channel in range(3):
        percent = np.asarray(100.0 * signal[..., channel], dtype=np.float32)
        smooth = fit_surface(percent, seen).smooth
        errors.append(float(np.abs(smooth - percent)[seen].mean()) if seen.any() else 0.0)
        made[..., channel][gone] = (_through(smooth, seen) / 100.0)[gone]
    return SyntheticPlate(np.clip(made, 0.0, 1.0), float(np.mean(errors)))


def _through(smooth: Floats32, seen: Bools) -> Floats32:
    """The smooth screen, carried on into what is not seen by ever wider means of what is."""
    value, share = np.where(seen, smooth, 0.0).astype(np.float32), seen.astype(np.float32)
    found, known = value.copy(), seen.copy()
    sigma = 4.0
    while not known.all() and sigma < 4.0 * max(seen.shape):
        top, bottom = (cv2.GaussianBlur(part, (0, 0), sigma) for part in (value, share))
        fill = ~known & (bottom > 0.02)
        found[fill] = (top[fill] / bottom[fill]).astype(np.float32)
        known |= fill
        sigma *= 2.0
    return found
