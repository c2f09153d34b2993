"""Movement and shutter: how far an edge smears, and which shutters lamps do not flicker in."""

from __future__ import annotations

import math

from ..plan import Camera
from .view import image_distance, pixel_pitch_mm


def motion_blur_px(speed: float, distance_m: float, camera: Camera, exposed_s: float | None = None) -> float:
    """Smear in px of something crossing the frame: v*t*b / (d*pitch), b the image distance of what is in focus there.

    speed in m/s, distance_m > 0 from the lens; `exposed_s`: the shutter, where nothing else is given.
    """
    travel_mm = speed * (camera.shutter_s if exposed_s is None else exposed_s)
    travel_mm *= image_distance(camera.focal_mm, distance_m) / distance_m
    return travel_mm / pixel_pitch_mm(camera)


def shutter_angle(shutter_s: float, fps: float) -> float:
    """Degrees of a turning shutter that exposes for `shutter_s`: 360*t*fps."""
    return 360.0 * shutter_s * fps


def flicker_error(shutter_s: float, mains_hz: float) -> float:
    """How far the shutter is from whole flashes of a mains lamp, in flashes (0 = safe, 0.5 = worst).

    Plain lamps flash 2*mains times a second. A shutter shorter than one flash counts in full.
    """
    flashes = shutter_s * 2.0 * mains_hz
    return abs(flashes - round(flashes)) if flashes >= 1.0 else min(0.5, 1.0 - flashes)


def safe_shutters(mains_hz: float, fps: float) -> list[float]:
    """Shutters in s that hold whole flashes, shortest first: k / (2*mains), up to one frame; none where not even one
    flash fits into a frame."""
    longest = math.floor(2.0 * mains_hz / fps + 1e-6)
    return [k / (2.0 * mains_hz) for k in range(1, longest + 1)]
