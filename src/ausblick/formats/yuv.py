"""Native planes Y, Cb, Cr as signal, by matrix, range and bits: for clips that come in and frames coded here."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np

from ausblick.core.geometry.vectors import Floats32

EIGHT = 8
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
    return _mean_of(values.reshape(height, rows // height, columns), width)


def _mean_of(blocks: np.ndarray[Any, Any], width: int) -> Floats32:
    """Code values (h, n, w) averaged over their n rows and to a width."""
    height, down, columns = blocks.shape
    across = columns // width
    wide = np.uint16 if blocks.dtype == np.uint8 and down < 256 else np.uint32
    # Row by row: a sum over the middle axis takes half as long again.
    summed = blocks[:, 0].astype(wide)
    for row in range(1, down):
        np.add(summed, blocks[:, row], out=summed)
    each = np.full(across, 1.0 / (down * across), dtype=np.float32)
    return np.asarray(summed.astype(np.float32).reshape(height, width, across) @ each)


def row_mean(values: np.ndarray[Any, Any], size: tuple[int, int], interlaced: bool) -> Floats32:
    """The same of few of the rows, where each of the smaller ones is made of eight, as of 1080 lines: of one at its
    middle; of an interlaced picture the second and the seventh, so that both fields are kept."""
    (width, height), (rows, columns) = size, values.shape
    if rows != EIGHT * height or columns % width:
        return area_mean(values, size)
    chosen = slice(1, None, 5) if interlaced else slice(EIGHT // 2, None, EIGHT)
    return _mean_of(values.reshape(height, EIGHT, columns)[:, chosen], width)


def luma_signal(values: Floats32, coding: Coding) -> Floats32:
    """Luma 0..1 of code values."""
    if coding.full_range:
        return np.asarray(values / np.float32(coding.top), dtype=np.float32)
    return np.asarray((values / np.float32(coding.unit) - 16.0) / 219.0, dtype=np.float32)


def rgb_signal(luma: Floats32, cb: Floats32, cr: Floats32, coding: Coding) -> Floats32:
    """Signal (h, w, 3) 0..1 of luma 0..1 and chroma in code values of the same size."""
    middle, reach = 128.0 * coding.unit, coding.top if coding.full_range else 224.0 * coding.unit
    kr, kb = KR_KB[coding.matrix]
    of_cr, of_cb, kg = 2.0 * (1.0 - kr) / reach, 2.0 * (1.0 - kb) / reach, 1.0 - kr - kb
    green = (-kb * of_cb / kg, -kr * of_cr / kg)
    turned = np.array(
        [
            [1.0, 0.0, of_cr, -middle * of_cr],
            [1.0, *green, -middle * sum(green)],
            [1.0, of_cb, 0.0, -middle * of_cb],
        ],
        dtype=np.float32,
    )
    # In its place: of a whole frame every copy more is 25 megabytes.
    found = np.asarray(cv2.merge([luma, cb, cr]), dtype=np.float32)
    cv2.transform(found, turned, found)
    cv2.threshold(found, 1.0, 1.0, cv2.THRESH_TRUNC, found)
    cv2.threshold(found, 0.0, 1.0, cv2.THRESH_TOZERO, found)
    return found


def frame_signal(frame: Any, coding: Coding) -> Floats32:
    """Signal (h, w, 3) 0..1 of a decoded frame's own planes, chroma drawn to the size of luma."""
    y, *chroma = (np.asarray(plane_values(plane, coding.bits), dtype=np.float32) for plane in frame.planes[:3])
    luma = luma_signal(y, coding)
    size = (luma.shape[1], luma.shape[0])
    cb, cr = ((c if c.shape == luma.shape else cv2.resize(c, size, interpolation=cv2.INTER_LINEAR)) for c in chroma)
    return rgb_signal(luma, np.asarray(cb, dtype=np.float32), np.asarray(cr, dtype=np.float32), coding)
