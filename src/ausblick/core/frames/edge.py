"""The subject's edge in a frame: how sharp it is, and how much of the screen's colour lies on it and on skin.

Spill is what the key channel has above the mean of the others, in % of the light (luminance), in linear light.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats, Floats32
from .contact import Contact
from .find_screen import FoundScreen
from .frame import Frame, chroma_of, linear_of, luma_of, picked

PLACES, REACH = 60, 14
"""Places along the edge that are looked at, and px to both sides of it."""
LEAST_STEP = 0.02
BAND = (0.004, 0.014)
"""From where to where inside the outline the edge's colour is read, in parts of the frame's width."""


@dataclass(frozen=True)
class EdgeReading:
    """10 to 90 % width of the edge in px of the frame; spill on the edge band and on skin in %; None: not told."""

    width_px: float | None
    spill_edge_percent: float | None
    spill_skin_percent: float | None


def read_edge(frame: Frame, reduced: Floats32, linear: Floats32, found: FoundScreen, contact: Contact) -> EdgeReading:
    """`reduced` (h, w, 3) is the frame's reduced signal that the masks belong to, `linear` its light."""
    if not contact.figure.any():
        return EdgeReading(None, None, None)
    figure = _filled(contact.figure)
    inside = cv2.distanceTransform(np.pad(figure.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    width = figure.shape[1]
    band = (inside > BAND[0] * width + 1.0) & (inside < BAND[1] * width + 2.0) & _near(found.mask, 0.03 * width)
    solid = inside > BAND[1] * width + 2.0
    return EdgeReading(
        _width(frame, figure, found),
        _spill(picked(linear, band), found.channel),
        _spill(picked(linear, solid)[_skin(picked(reduced, solid))], found.channel),
    )


def _filled(figure: Bools) -> Bools:
    return np.asarray(cv2.morphologyEx(figure.astype(np.uint8), cv2.MORPH_CLOSE, np.ones((5, 5), np.uint8)) > 0)


def _near(mask: Bools, reach: float) -> Bools:
    away = cv2.distanceTransform((~mask).astype(np.uint8), cv2.DIST_L2, 3)
    return np.asarray(away < reach)


def _skin(signal: Floats32) -> Bools:
    """Which of N colours (N, 3) lie between red and yellow, neither grey nor dark: skin of any tone, some clothes."""
    luma = luma_of(signal)
    cb, cr = chroma_of(signal, luma)
    angle = np.degrees(np.arctan2(cr, cb))
    return np.asarray((angle > 95.0) & (angle < 150.0) & (np.hypot(cb, cr) > 0.03) & (luma > 0.12))


def _spill(linear: Floats32, channel: int) -> float | None:
    """Of N pixels' light (N, 3), in %; None where they are too few to tell."""
    if len(linear) < 40:
        return None
    pixels = linear.astype(np.float64)
    others = (pixels.sum(axis=1) - pixels[:, channel]) / 2.0
    excess = pixels[:, channel] - others
    return 100.0 * float(np.median(excess / np.maximum(luma_of(pixels.astype(np.float32)), 1e-3)))


def _width(frame: Frame, figure: Bools, found: FoundScreen) -> float | None:
    """Median width of profiles across the outline, in the frame's own pixels."""
    outlines, _ = cv2.findContours(figure.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    outline = max(outlines, key=len)[:, 0].astype(np.float64)
    if len(outline) < 40:
        return None
    scale = frame.width / figure.shape[1]
    soft = cv2.GaussianBlur(figure.astype(np.float32), (0, 0), 2.0)
    slope_x, slope_y = cv2.Sobel(soft, -1, 1, 0), cv2.Sobel(soft, -1, 0, 1)
    near_screen = _near(found.mask, max(4.0, 0.03 * figure.shape[1]))
    reach = REACH * max(1.0, scale)
    t = np.linspace(-reach, reach, 4 * REACH + 1)
    places = outline[:: max(1, len(outline) // PLACES)]
    column, row = places[:, 0].astype(int), places[:, 1].astype(int)
    way = np.stack([slope_x[row, column], slope_y[row, column]], axis=1).astype(np.float64)
    length = np.linalg.norm(way, axis=1)
    keep = near_screen[row, column] & (length > 1e-6)
    way = way[keep] / length[keep, None]
    at = (places[keep] + 0.5)[:, None] * scale + t[:, None] * way[:, None]
    step = float(t[1] - t[0])
    shares = _shares(_profiles(frame, at, found.channel))
    widths = [width for share in shares if (width := _fall(share, step)) is not None]
    return float(np.median(widths)) if len(widths) >= 6 else None


def _profiles(frame: Frame, at: Floats, channel: int) -> Floats:
    """The screen's colour (P, N) in linear light along places (P, N, 2) that all lie in the frame."""
    columns, rows = (np.round(at[..., k] - 0.5).astype(int) for k in (0, 1))
    inside = (columns >= 0) & (rows >= 0) & (columns < frame.width) & (rows < frame.height)
    whole = inside.all(axis=1)
    pixels = linear_of(frame.signal(frame.pixels[rows[whole], columns[whole]]))
    colour = pixels[..., channel] - 0.5 * (pixels.sum(axis=-1) - pixels[..., channel])
    ends = np.pad(colour.astype(np.float64), ((0, 0), (1, 1)), mode="edge")
    return np.asarray(0.25 * ends[:, :-2] + 0.5 * ends[:, 1:-1] + 0.25 * ends[:, 2:])


def _shares(profiles: Floats) -> Floats:
    """Those profiles (P, N) that fall into the figure, from 1 before it to 0 inside."""
    outer, inner = np.median(profiles[:, :8], axis=1), np.median(profiles[:, -8:], axis=1)
    falls = outer - inner >= LEAST_STEP
    low, drop = inner[falls, None], (outer - inner)[falls, None]
    return np.asarray((profiles[falls] - low) / drop)


def _fall(share: Floats, step: float) -> float | None:
    """10 to 90 % width in px of one profile (N,) from 1 to 0; None where it does not go through both."""
    last, first = np.nonzero(share > 0.9)[0], np.nonzero(share < 0.1)[0]
    if not len(last) or not len(first) or first[first > last[0]].size == 0:
        return None
    end = int(first[first > last[0]][0])
    start = int(last[last < end][-1])
    return max(0.0, (_crossing(share, end - 1, 0.1) - _crossing(share, start, 0.9)) * step)


def _crossing(share: Floats, index: int, level: float) -> float:
    """Where the profile falls through a level between two of its places."""
    a, b = float(share[index]), float(share[index + 1])
    return index + (a - level) / (a - b) if a > b else float(index)
