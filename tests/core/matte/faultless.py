"""A capture with its faults taken out, to put one of them back in."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ausblick.core.colour.rec709 import LUMA
from ausblick.core.matte.capture import Capture


def ideal_of(capture: Capture) -> Capture:
    """The same scene without a fault: even, no spill, no smear, no noise, nothing lost in recording."""
    mean = capture.screen.mean(axis=(0, 1))
    toned = tuple(
        replace(sheet, look=np.broadcast_to(mean, sheet.look.shape), folds=np.zeros_like(sheet.folds))
        for sheet in capture.beside
    )
    return replace(
        capture,
        screen=np.broadcast_to(mean, capture.screen.shape),
        folds=np.zeros_like(capture.folds),
        beside=toned,
        in_pane=(),
        light={name: np.full(3, float(rgb @ LUMA)) for name, rgb in capture.light.items()},
        smear_px=0.0,
        defocus_px=0.0,
        noise=0.0,
        recording=None,
        sharpening=False,
    )
