"""The numbers of ITU-R BT.709-6 that a signal is counted with: luma, and the two colour differences."""

from __future__ import annotations

from typing import TypeVar

import numpy as np

from ..geometry.vectors import Floats, Floats32

Picture = TypeVar("Picture", Floats, Floats32)

LUMA = np.array([0.2126, 0.7152, 0.0722])
"""Weights of R, G, B in luma and in luminance: BT.709-6, 3.2."""
LUMA_SINGLE = LUMA.astype(np.float32)
"""The same for pictures, which are counted in single precision."""
CB_SCALE, CR_SCALE = 1.8556, 1.5748
"""2(1 - K) of blue and of red: what B - Y and R - Y are divided by. BT.709-6, 3.3."""


def luma_of(rgb: Floats) -> Floats:
    """Luma (...) of a signal, or luminance of light, (..., 3)."""
    return np.asarray(rgb @ LUMA)


def colour_differences(signal: Floats) -> tuple[Floats, Floats]:
    """Cb and Cr (...) of a signal (..., 3), in the signal's own unit."""
    luma = luma_of(signal)
    return np.asarray((signal[..., 2] - luma) / CB_SCALE), np.asarray((signal[..., 0] - luma) / CR_SCALE)
