"""A camera frame as the core sees it: pixels as they came, and cheap ways to look at them.

Signal levels are full range here: 0 is black and 1 is white of the recorded signal. Readers bring
limited-range and linear material to this form before it gets here.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

from ..colour.curves import rec709_linear
from ..colour.rec709 import CB_SCALE, CR_SCALE, LUMA_SINGLE
from ..geometry.vectors import Bools, Floats32
from .file_colour import RECORDED, FileColour


@dataclass(frozen=True)
class Frame:
    """Pixels (H, W, 3) as uint8, uint16 or float32 RGB; `white` is the value of 100 % signal; `colour`: how its file
    was understood."""

    pixels: npt.NDArray[Any]
    white: float
    colour: FileColour = RECORDED

    @property
    def height(self) -> int:
        return int(self.pixels.shape[0])

    @property
    def width(self) -> int:
        return int(self.pixels.shape[1])

    def signal(self, pixels: npt.NDArray[Any]) -> Floats32:
        """Some of the frame's pixels as signal, float32."""
        return np.asarray(pixels, dtype=np.float32) / np.float32(self.white)

    def reduced(self, longest: int) -> Floats32:
        """The whole frame as signal, area-averaged so that its longer side is at most `longest`."""
        scale = longest / max(self.width, self.height)
        if scale >= 1.0:
            return self.signal(self.pixels)
        size = (max(1, round(self.width * scale)), max(1, round(self.height * scale)))
        return self.signal(cv2.resize(self.pixels, size, interpolation=cv2.INTER_AREA))

    def sampled(self, most: int) -> tuple[Floats32, int]:
        """Every n-th pixel of every n-th row, untouched, at most about `most`; and n."""
        step = max(1, int(np.ceil(np.sqrt(self.width * self.height / most))))
        return self.signal(self.pixels[step // 2 :: step, step // 2 :: step]), step


STEPS = 65_535
TABLE = rec709_linear(np.arange(STEPS + 1) / STEPS).astype(np.float32)


def linear_of(signal: Floats32) -> Floats32:
    """Rec.709 undone by a table of every 16 bit code: exact for 8 and 16 bit material, elsewhere to 2e-5."""
    codes = np.clip(signal, np.float32(0.0), np.float32(1.0))
    codes *= np.float32(STEPS)
    # No code lies outside of the table: told so, NumPy need not ask each and takes half the time.
    return np.asarray(TABLE.take(np.rint(codes, out=codes).astype(np.uint16), mode="clip"))


def picked(picture: Floats32, mask: Bools) -> Floats32:
    """The pixels (N, 3) of a picture (h, w, 3) where a mask (h, w) holds; `picture[mask]`, several times faster."""
    return picture.reshape(-1, picture.shape[-1]).take(np.flatnonzero(mask), axis=0)


def luma_of(signal: Floats32) -> Floats32:
    """Luma (...) of RGB signal (..., 3), BT.709."""
    return np.asarray(signal @ LUMA_SINGLE)


def chroma_of(signal: Floats32, luma: Floats32) -> tuple[Floats32, Floats32]:
    """Cb and Cr (...), -0.5..0.5, of RGB signal: ITU-R BT.709-6, 3.3."""
    return (signal[..., 2] - luma) / CB_SCALE, (signal[..., 0] - luma) / CR_SCALE


def trace_signal(signal: Floats32, trace: str, channel: int) -> Floats32:
    """The one trace that levels are judged on: luma, or the key channel."""
    return luma_of(signal) if trace == "luma" else np.asarray(signal[..., channel])
