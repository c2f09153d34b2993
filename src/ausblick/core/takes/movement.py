"""Has the screen moved in the picture, or the camera before it, since another frame of the same set-up?

The screen's visible sides are compared where each frame shows them; what lies beside the screen (the room) is laid
over that of the other frame by phase correlation (Kuglin and Hines, 1975). Where room and screen move alike, the
camera did.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats32

LEAST_ROOM = 0.06
"""Share of the frame beside the screen from which its movement can be read."""
LEAST_RESPONSE = 0.08
"""Of the correlation's peak: below it nothing can be said."""
FADE = 24.0
"""Width in pixels over which the room beside the screen fades out."""
BORDER = 0.015
"""Sides nearer to the frame's edge, in parts of it, are cut by the frame."""
ALIKE = 0.5
"""Room and screen move alike when they differ by less than this share of the movement, or a pixel."""
LEAST_ROWS = 24


@dataclass(frozen=True)
class Movement:
    """Pixels of the full frame: of the screen against the room, and of the whole picture. None where not seen."""

    screen_px: float | None
    camera_px: float | None


@dataclass(frozen=True)
class FrameSeen:
    """A frame for looking at, luma (h, w) 0..1, its screen (h, w), and pixels of the full frame per pixel of it."""

    luma: Floats32
    screen: Bools
    scale: float


def movement(before: FrameSeen, now: FrameSeen) -> Movement:
    if before.screen.shape != now.screen.shape:
        return Movement(None, None)
    screen = _screen_shift(before.screen, now.screen)
    room = _room_shift(before, now)
    if screen is None and room is None:
        return Movement(None, None)
    if screen is None or room is None:
        # One of them alone: the picture has moved, whichever it was; a screen that fills the frame tells no camera.
        shift = screen if screen is not None else room
        assert shift is not None
        length = math.hypot(*shift) * now.scale
        return Movement(length, None) if screen is not None else Movement(None, length)
    apart = math.dist(screen, room)
    alike = apart <= max(1.0, ALIKE * math.hypot(*room))
    return Movement(0.0 if alike else apart * now.scale, math.hypot(*room) * now.scale)


def background_percent(before: FrameSeen, now: FrameSeen) -> float | None:
    """Mean difference of what both frames show as empty screen, % of signal; None where they share none."""
    apart = _apart(before, now)
    return None if apart is None else 100.0 * float(np.abs(apart).mean())


def level_points(before: FrameSeen, now: FrameSeen) -> float | None:
    """By how many points of signal the screen is brighter, at least, on three quarters of it: the shade of a figure
    that stands elsewhere is no change of the light. None where the frames share no screen."""
    apart = _apart(before, now)
    if apart is None:
        return None
    low, high = (100.0 * float(part) for part in np.percentile(apart, [25.0, 75.0]))
    return low if low > 0.0 else min(high, 0.0)


def _apart(before: FrameSeen, now: FrameSeen) -> Floats32 | None:
    if before.screen.shape != now.screen.shape:
        return None
    rim = np.ones((9, 9), np.uint8)
    both = cv2.erode((before.screen & now.screen).astype(np.uint8), rim).astype(bool)
    return (now.luma - before.luma)[both] if both.any() else None


def degrees_of(px: float, focal_px: float) -> float:
    """The camera's turn for a movement of the picture, both in pixels of the full frame."""
    return math.degrees(math.atan2(px, focal_px))


def _sides(screen: Bools) -> dict[str, float]:
    """Where the left, right and upper side stand, in pixels, of those that the frame shows."""
    found = {}
    for name, mask in (("left", screen), ("right", screen[:, ::-1]), ("top", screen.T)):
        rows = mask[mask.mean(axis=1) > 0.05]
        if len(rows) < LEAST_ROWS:
            continue
        at = float(np.percentile(rows.argmax(axis=1), 25.0))
        if at > BORDER * mask.shape[1]:
            found[name] = mask.shape[1] - 1 - at if name == "right" else at
    return found


def _screen_shift(before: Bools, now: Bools) -> tuple[float, float] | None:
    a, b = _sides(before), _sides(now)
    across = [b[side] - a[side] for side in ("left", "right") if side in a and side in b]
    down = [b["top"] - a["top"]] if "top" in a and "top" in b else []
    if not across and not down:
        return None
    return (float(np.mean(across)) if across else 0.0, down[0] if down else 0.0)


def _room_shift(before: FrameSeen, now: FrameSeen) -> tuple[float, float] | None:
    beside = ~(_hull(before.screen) | _hull(now.screen))
    if beside.mean() < LEAST_ROOM:
        return None
    weight = _fading(beside)
    pictures = [_edges(seen.luma) * weight for seen in (before, now)]
    if min(float(picture.std()) for picture in pictures) < 1e-4:
        return None
    (x, y), response = cv2.phaseCorrelate(pictures[0], pictures[1])
    return (float(x), float(y)) if response >= LEAST_RESPONSE else None


def _fading(part: Bools) -> Floats32:
    """1 well inside a part of the frame, fading to 0 at its border: light that runs on beyond a hard border has an
    edge there that never moves."""
    inside = np.clip(cv2.distanceTransform(part.astype(np.uint8), cv2.DIST_L2, 3) / FADE, 0.0, 1.0)
    return np.asarray(cv2.GaussianBlur(inside, (0, 0), FADE / 6.0) * part, dtype=np.float32)


def _hull(screen: Bools) -> Bools:
    """What the screen spans, the figure before it with it, and a rim that its own edge may move in."""
    ys, xs = np.nonzero(screen)
    filled = np.zeros(screen.shape, dtype=np.uint8)
    if len(ys):
        points = np.stack([xs, ys], axis=1).astype(np.int32)
        cv2.fillConvexPoly(filled, cv2.convexHull(points), 1)
    return cv2.dilate(filled, np.ones((25, 25), np.uint8)).astype(bool)


def _edges(luma: Floats32) -> Floats32:
    """Light apart, so that a dimmer is no movement."""
    smooth = cv2.GaussianBlur(luma.astype(np.float32), (0, 0), 1.0)
    return np.asarray(np.hypot(cv2.Sobel(smooth, cv2.CV_32F, 1, 0), cv2.Sobel(smooth, cv2.CV_32F, 0, 1)))
