"""The camera as a projection: from the set to the frame and back.

    frame           u to the right, v downwards, both 0..1 of the sensor's own sides
    camera axes     right, up, forward (rows of `axes`)

A camera at pan = tilt = roll = 0 looks along -z, straight at the screen.
"""

from __future__ import annotations

import math
from collections.abc import Hashable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..geometry.polygon import clip_half_plane
from ..geometry.vectors import Floats, cross
from ..plan import Camera, Subject

AHEAD = 1e-4
"""Points less than 0.1 mm in front of the lens have no picture."""


NEAREST = 0.05
"""What is nearer to the lens than this, m, is not seen."""


@dataclass(frozen=True, eq=False)
class View:
    """Lens position (3,) in m, camera axes (3, 3), half angles of view as tangents."""

    lens: Floats
    axes: Floats
    tan_h: float
    tan_v: float

    def project(self, points: Floats) -> tuple[Floats, Floats]:
        """Frame coordinates (..., 2) and distances along the axis (...) in m of points (..., 3).

        A point behind the lens has a distance <= 0 and frame coordinates that mean nothing.
        """
        local = (points - self.lens) @ self.axes.T
        depth = local[..., 2]
        safe = np.where(depth > AHEAD, depth, AHEAD)
        frame = np.empty((*depth.shape, 2))
        frame[..., 0] = 0.5 + 0.5 * local[..., 0] / (safe * self.tan_h)
        frame[..., 1] = 0.5 - 0.5 * local[..., 1] / (safe * self.tan_v)
        return frame, depth

    def frames(self, place: tuple[float, float, float]) -> bool:
        """Is a place (x, y, z) in m in the picture?"""
        frame, depth = self.project(np.array(place))
        return bool(depth > NEAREST and np.all((frame > 0.0) & (frame < 1.0)))

    def shown(self, outline: Floats) -> Floats:
        """Frame coordinates (M, 2) of what of a flat convex outline (N, 3) lies before the lens; it may reach beyond
        the frame. (0, 2) where nothing does."""
        forward = self.axes[2]
        ahead = clip_half_plane(outline, forward, float(self.lens @ forward) + NEAREST)
        return self.project(ahead)[0] if len(ahead) >= 3 else np.zeros((0, 2))

    def rays(self, frame: Floats) -> Floats:
        """Directions (..., 3), not of unit length, through frame coordinates (..., 2)."""
        local = np.ones((*frame.shape[:-1], 3))
        local[..., 0] = (2.0 * frame[..., 0] - 1.0) * self.tan_h
        local[..., 1] = (1.0 - 2.0 * frame[..., 1]) * self.tan_v
        return np.asarray(local @ self.axes)


def view_key(view: View) -> Hashable:
    """What a view is remembered by."""
    return view.lens.tobytes(), view.axes.tobytes(), view.tan_h, view.tan_v


@lru_cache(maxsize=256)
def camera_axes(pan: float, tilt: float, roll: float) -> Floats:
    """Rows right, up, forward for angles in degrees (pan to the right, tilt up, roll clockwise)."""
    p, t, r = (math.radians(a) for a in (pan, tilt, roll))
    forward = np.array([math.sin(p) * math.cos(t), math.sin(t), -math.cos(p) * math.cos(t)])
    level = np.array([math.cos(p), 0.0, math.sin(p)])
    upright = cross(level, forward)
    right = math.cos(r) * level - math.sin(r) * upright
    axes = np.stack([right, cross(right, forward), forward])
    axes.setflags(write=False)
    return axes


def image_distance(focal_mm: float, distance_m: float) -> float:
    """Thin lens: f*d / (d - f) in mm for a subject at `distance_m`. Infinite distance gives f.

    At or inside the focal length no picture forms; the value for just outside it is returned.
    """
    distance_mm = max(distance_m * 1000.0, focal_mm * 1.001)
    return focal_mm * distance_mm / (distance_mm - focal_mm)


def focus_distance(camera: Camera, subject: Subject | None) -> float:
    """Distance in m along the optical axis at which the lens is focused: the mark, else the screen.

    Zero or negative when what should be sharp is behind the camera.
    """
    forward = camera_axes(camera.pan, camera.tilt, camera.roll)[2]
    lens = np.array([camera.x, camera.y, camera.z])
    if subject is None:
        return abs(float(camera.z / forward[2])) if forward[2] < -1e-6 else float(camera.z)
    return float((np.array(subject.eyes) - lens) @ forward)


def view_of(camera: Camera, subject: Subject | None) -> View:
    """The projection of a plan's camera, focused on the mark."""
    reach = focus_distance(camera, subject)
    image = image_distance(camera.focal_mm, reach) if reach > 0.0 else camera.focal_mm
    return View(
        lens=np.array([camera.x, camera.y, camera.z]),
        axes=camera_axes(camera.pan, camera.tilt, camera.roll),
        tan_h=camera.sensor.width_mm / (2.0 * image),
        tan_v=camera.sensor.height_mm / (2.0 * image),
    )


def frame_size(camera: Camera, distance_m: float) -> tuple[float, float]:
    """Width and height in m of what the frame holds at a distance: sensor * d / image distance."""
    image = image_distance(camera.focal_mm, distance_m)
    return (camera.sensor.width_mm * distance_m / image, camera.sensor.height_mm * distance_m / image)


def angle_of_view(size_mm: float, focal_mm: float) -> float:
    """Full angle in degrees seen by a sensor side at infinity: 2*atan(s / 2f)."""
    return math.degrees(2.0 * math.atan(size_mm / (2.0 * focal_mm)))


def pixel_pitch_mm(camera: Camera) -> float:
    return camera.sensor.width_mm / camera.sensor.px_w
