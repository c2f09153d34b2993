"""Native planes Y, Cb, Cr as signal, by matrix, range and bits: for clips that come in and frames coded here."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np

from ausblick.core.geometry.vectors import Floats32

KR_KB = {"709": (0.2126, 0.0722), "601": (0.299, 0.114), "2020": (0.2627, 0.0593)}
"""Luma coefficients of red and blue: ITU-R BT.709, BT.601, BT.2020."""


@dataclass(frozen=True)
class Coding:
    """How a picture's planes are written."""

    bits: int
    matrix: str = "709"
    full_range: bool = False

    @property
    def unit(self) -> float:
        """Code values of one 8 bit step."""
        return float(2.0 ** (self.bits - 8))

    @property
    def top(self) -> float:
        return float(2.0**self.bits - 1.0)


def plane_values(plane: Any, bits: int) -> np.ndarray[Any, Any]:
    """Code values (h, w) of a decoded plane, its padding left out."""
    kind = np.dtype("<u2") if bits > 8 else np.dtype(np.uint8)
    return np.frombuffer(plane, dtype=kind).reshape(plane.height, -1)[:, : plane.width]


def area_mean(values: np.ndarray[Any, Any], size: tuple[int, int]) -> Floats32:
    """Code values (h, w) averaged to a size (width, height). Where that takes whole numbers of places, as it does of
    1080 and 2160 lines, their sums are four times faster than a resampling."""
    (width, height), (rows, columns) = size, values.shape
    if rows % height or columns % width:
        return np.asarray(cv2.resize(values, size, interpolation=cv2.INTER_AREA), dtype=np.float32)
    down, across = rows // height, columns // width
    wide = np.uint16 if values.dtype == np.uint8 and down < 256 else np.uint32
    summed = np.add.reduce(values.reshape(height, down, columns), axis=1, dtype=wide)
    each = np.full(across, 1.0 / (down * across), dtype=np.float32)
    return np.asarray(summed.astype(np.float32).reshape(height, width, across) @ each)


def luma_signal(values: Floats32, coding: Coding) -> Floats32:
    """Luma 0..1 of code values."""
    if coding.full_range:
        return np.asarray(values / np.float32(coding.top), dtype=np.float32)
    return np.asarray((values / np.float32(coding.unit) - 16.0) / 219.0, dtype=np.float32)


def rgb_signal(luma: Floats32, cb: Floats32, cr: Floats32, coding: Coding) -> Floats32:
    """Signal (h, w, 3) 0..1 of luma 0..1 and chroma in code values of the same size."""
    middle, reach = 128.0 * coding.unit, coding.top if coding.full_range else 224.0 * coding.unit
    kr, kb = KR_KB[coding.matrix]
    # Written where it belongs: of a whole frame every copy more is eight megabytes.
    found = np.empty((*luma.shape, 3), dtype=np.float32)
    red, green, blue = found[..., 0], found[..., 1], found[..., 2]
    red[...] = luma + np.float32(2.0 * (1.0 - kr)) * (cr - np.float32(middle)) / np.float32(reach)
    blue[...] = luma + np.float32(2.0 * (1.0 - kb)) * (cb - np.float32(middle)) / np.float32(reach)
    green[...] = (luma - np.float32(kr) * red - np.float32(kb) * blue) / np.float32(1.0 - kr - kb)
    return np.clip(found, 0.0, 1.0, out=found)


def frame_signal(frame: Any, coding: Coding) -> Floats32:
    """Signal (h, w, 3) 0..1 of a decoded frame's own planes, chroma drawn to the size of luma."""
    y, *chroma = (np.asarray(plane_values(plane, coding.bits), dtype=np.float32) for plane in frame.planes[:3])
    luma = luma_signal(y, coding)
    size = (luma.shape[1], luma.shape[0])
    cb, cr = ((c if c.shape == luma.shape else cv2.resize(c, size, interpolation=cv2.INTER_LINEAR)) for c in chroma)
    return rgb_signal(luma, np.asarray(cb, dtype=np.float32), np.asarray(cr, dtype=np.float32), coding)
