"""A clip's frames as working signal: from their own planes, in the shape that is shown, upright."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np

from ausblick.core.colour.curves import Curve
from ausblick.core.colour.gamut import Transfer, from_named, to_working
from ausblick.core.frames.clip_facts import ClipFacts
from ausblick.core.frames.frame import Frame, luma_of
from ausblick.core.geometry.vectors import Floats32
from ausblick.core.plan import Camera

from .yuv import Coding, area_mean, frame_signal, luma_signal, plane_values, rgb_signal, row_mean

SMALL = 240
FINE = 160
"""Places across that single pixels' noise is read on."""
LOOK_S = 0.2
"""How often is looked who touches what, s: a hand that goes out and comes back takes longer."""
HELD = 40_000_000
"""Bytes of whole frames that may wait until somebody asks for their colour."""
OTHER_CURVES: tuple[Transfer, ...] = ("HLG", "PQ", "linear", "log")


@dataclass(frozen=True, eq=False)
class SmallPicture:
    """A frame SMALL wide and upright, area-averaged: luma (h, w), 0..1, and its signal (h, w, 3) when asked.
    `turns`: quarter turns that set it upright."""

    luma: Floats32
    signal: Callable[[], Floats32]
    turns: int


class Way:
    """From decoded frames of a clip to signal. `camera`: the plan's, by whose curve other transfers are told."""

    def __init__(self, facts: ClipFacts, camera: Camera | None = None) -> None:
        self._facts = facts
        self._planar = facts.pix_fmt.startswith("yuv") and facts.chroma is not None
        self._coding = Coding(facts.bits, facts.matrix, facts.full_range) if self._planar else None
        told = facts.colour
        self._matrix = from_named(told.primaries)
        self._transfer: Transfer = next((one for one in OTHER_CURVES if one == told.transfer), "709")
        by_plan = camera is not None and self._transfer != "709"
        self._curve: Curve = camera.curve if camera is not None and by_plan else "rec709"
        self._table = camera.curve_table if camera is not None and by_plan else ""
        self._kept = self._matrix is None and self._transfer == "709"
        sample = 2 if facts.bits > 8 else 1
        self._interlaced: bool | None = None
        self._held = 2 * sample * facts.width * facts.height * LOOK_S * facts.fps < HELD

    def small(self, frame: Any) -> Floats32:
        """The upright frame as signal (h, w, 3), SMALL wide, area-averaged: enough for level, screen and contacts."""
        return self.small_picture(frame).signal()

    def small_picture(self, frame: Any) -> SmallPicture:
        """The same, in colour only where somebody asks."""
        turns = self.turns(frame)

        def upright(pixels: Floats32) -> Floats32:
            return np.ascontiguousarray(np.rot90(pixels, turns)) if turns else pixels

        coding = self._coding
        if coding is None:
            rgb = np.asarray(frame.to_ndarray(format="rgb24"))
            small = cv2.resize(rgb, self._size(), interpolation=cv2.INTER_AREA) / np.float32(255.0)
            signal = upright(self._working(np.asarray(small, np.float32)))
            return SmallPicture(luma_of(signal), lambda: signal, turns)

        def mean(plane: int) -> Floats32:
            return area_mean(plane_values(frame.planes[plane], self._facts.bits), self._size())

        if self._interlaced is None:
            # As the first frame is: other rows of another frame would look like a change of level.
            self._interlaced = bool(frame.interlaced_frame)
        rows = row_mean(plane_values(frame.planes[0], self._facts.bits), self._size(), self._interlaced)
        luma = luma_signal(rows, coding)
        if self._kept and coding.matrix == "709" and self._held:
            # Of most frames nobody asks for the colour: its planes are averaged when somebody does.
            return SmallPicture(upright(luma), lambda: upright(rgb_signal(luma, mean(1), mean(2), coding)), turns)
        if self._kept and coding.matrix == "709":
            cb, cr = mean(1), mean(2)
            return SmallPicture(upright(luma), lambda: upright(rgb_signal(luma, cb, cr, coding)), turns)
        led = upright(self._working(rgb_signal(luma, mean(1), mean(2), coding)))
        return SmallPicture(luma_of(led), lambda: led, turns)

    def frame(self, frame: Any) -> Frame:
        """The whole of it. Formats without Y, Cb, Cr planes go through FFmpeg's RGB."""
        if self._coding is not None:
            found = Frame(self._shown(self._working(frame_signal(frame, self._coding))), 1.0, self._facts.colour)
        else:
            deep = self._facts.bits > 8
            wide, white = frame.to_ndarray(format="rgb48le" if deep else "rgb24"), 65535.0 if deep else 255.0
            if not self._kept:
                wide, white = self._working(np.asarray(wide, dtype=np.float32) / np.float32(white)), 1.0
            found = Frame(self._shown(wide), white, self._facts.colour)
        return Frame(np.ascontiguousarray(self._upright(found.pixels, frame)), found.white, found.colour)

    def fine_luma(self, frame: Any) -> Floats32:
        """Luma 0..1 of every n-th place: single pixels, for their noise."""
        if self._coding is None:
            grey = frame.to_ndarray(format="gray")
            some, white = grey[:: max(1, grey.shape[1] // FINE), :: max(1, grey.shape[1] // FINE)], np.float32(255.0)
            luma = np.asarray(some, dtype=np.float32) / white
        else:
            plane = plane_values(frame.planes[0], self._facts.bits)
            step = max(1, plane.shape[1] // FINE)
            luma = luma_signal(np.asarray(plane[::step, ::step], dtype=np.float32), self._coding)
        if self._transfer != "709":
            luma = self._led(np.repeat(luma[..., None], 3, axis=-1), grey=True)[..., 0]
        return np.asarray(self._upright(luma, frame))

    def turns(self, frame: Any) -> int:
        """Quarter turns counterclockwise: phones record lying pictures with a flag that says so; other cameras on
        their side leave it to whoever knows how they were turned."""
        turns = round(float(frame.rotation or 0) / 90.0) % 4
        facts = self._facts
        return turns if turns % 2 or facts.width <= facts.height else turns - facts.turns

    def _upright(self, pixels: Any, frame: Any) -> Any:
        turns = self.turns(frame)
        return np.rot90(pixels, turns) if turns else pixels

    def _working(self, signal: Floats32) -> Floats32:
        return signal if self._kept else self._led(signal)

    def _led(self, signal: Floats32, grey: bool = False) -> Floats32:
        matrix = None if grey else self._matrix
        return to_working(signal, matrix, self._transfer, self._curve, self._table)

    def _shown(self, pixels: Any) -> Any:
        """As wide as it is shown, where pixels are not square."""
        width = self._facts.width
        if pixels.shape[1] == width:
            return pixels
        return cv2.resize(pixels, (width, pixels.shape[0]), interpolation=cv2.INTER_LINEAR)

    def _size(self) -> tuple[int, int]:
        """Of the small picture, lying."""
        facts = self._facts
        height = max(2, round(SMALL * facts.height / facts.width))
        return min(SMALL, facts.width), min(height, facts.height)
