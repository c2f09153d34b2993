"""Depth of field for a key edge, and how far the screen melts behind it.

Circle of confusion in sensor pixels, not in fractions of the frame: a key cuts pixels.
Formulas: geometric optics of a thin lens focused at s, e.g. hyperfocal H = f^2/(N*c) + f.
"""

from __future__ import annotations

import math

from ..plan import Camera
from .view import pixel_pitch_mm

SHARP_PX = 2.0
"""An edge smeared over two pixels still keys as an edge."""


def depth_of_field(camera: Camera, distance_m: float, circle_px: float = SHARP_PX) -> tuple[float, float]:
    """Nearest and farthest sharp distance in m (far may be inf) when focused at distance_m > f."""
    f, n = camera.focal_mm, camera.f_number
    s = max(distance_m * 1000.0, 1.001 * f)
    hyperfocal = f * f / (n * circle_px * pixel_pitch_mm(camera)) + f
    near = s * (hyperfocal - f) / (hyperfocal + s - 2.0 * f)
    far = s * (hyperfocal - f) / (hyperfocal - s) if s < hyperfocal else math.inf
    return near / 1000.0, far / 1000.0


def defocus_px(camera: Camera, focus_m: float, at_m: float) -> float:
    """Diameter in px of the disc that a point at `at_m` becomes when focused at `focus_m`.

    c = f^2 / (N*(s - f)) * |D - s| / D.
    """
    f = camera.focal_mm
    s, d = max(focus_m * 1000.0, 1.001 * f), max(at_m * 1000.0, 1.0)
    disc_mm = f * f / (camera.f_number * (s - f)) * abs(d - s) / d
    return disc_mm / pixel_pitch_mm(camera)


def f_number_for(camera: Camera, focus_m: float, near_m: float, far_m: float) -> float:
    """The f-number at which near_m..far_m is just sharp, other things equal."""
    wide_open = max(defocus_px(camera, focus_m, near_m), defocus_px(camera, focus_m, far_m))
    return camera.f_number * wide_open / SHARP_PX
