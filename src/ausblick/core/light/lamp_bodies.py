"""Lamps and their stands as simple solids, for what they keep off and where they are seen.

A lamp with a face is a card as large as the face, a little behind it; a point is a ball. Both stand on a pole unless
they hang from the ceiling. Bodies reflect nothing.
"""

from __future__ import annotations

import numpy as np

from ..camera.view import View, camera_axes
from ..geometry.polygon import clip_half_plane
from ..geometry.vectors import Floats
from ..plan import Light, Plan
from .basis import BasisStore
from .emission import emission_of
from .keys import lamp_key
from .occlusion import NONE, quad
from .solids import Ball, Pillar, Solid

BEHIND = 0.02
HEAD = 0.1
"""Radius of the head of a lamp without a face, m."""
POLE = 0.0175
"""Radius of a stand's pole, m."""
HANGS, TALLEST = 0.35, 5.5
"""A lamp this near to the ceiling hangs from it, and in a room one that is higher than any stand, m."""


class LampBody:
    """A lamp's `face`; `solids` block as they are; `card` (T, 3, 3) does within `bound`, the ball round it; `bounds`
    hold all of it, `corners` (N, 3) span it."""

    def __init__(self, plan: Plan, lamp: Light) -> None:
        self.face = face = emission_of(lamp, plan).face
        x, y, z = (float(v) for v in face.centre)
        self.card = NONE
        self.solids: tuple[Solid, ...] = (Ball(x, y, z, HEAD),)
        self.reach = HEAD
        if face.area > 0.0:
            flat = (face.outline - face.centre) @ np.stack([face.right, face.up]).T
            w, h = np.abs(flat).max(axis=0)
            back = face.centre - BEHIND * face.axis
            ends = [back + i * w * face.right + j * h * face.up for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
            self.card, self.reach, self.solids = quad(ends), float(np.hypot(w, h)), ()
        self.bound = Ball(x, y, z, self.reach)
        self.bounds: tuple[Solid, ...] = (self.bound,) if len(self.card) else self.solids
        self.corners = np.vstack([self.card.reshape(-1, 3), face.centre[None, :]])
        if stands(plan, lamp):
            pole = Pillar(x, z, POLE, y)
            self.solids, self.bounds = (*self.solids, pole), (*self.bounds, pole)
            self.corners = np.vstack([self.corners, [[x, 0.0, z]]])


def stands(plan: Plan, lamp: Light) -> bool:
    """On a pole, and not from the ceiling or in the sky."""
    return not lamp.is_daylight and on_pole(plan, lamp.position[1])


def on_pole(plan: Plan, height: float) -> bool:
    """Would a lamp at that height, m, stand and not hang?"""
    return height < min(plan.room.height - HANGS, TALLEST) or plan.room.kind == "exterior"


SHARES = np.linspace(0.0, 0.95, 12)[:, None]
UPWARD = np.array([False, True, False])


def pole_places(plan: Plan, lamp: Light) -> Floats:
    """Places (N, 3) in m along a lamp's pole; none where it hangs."""
    if not stands(plan, lamp):
        return np.zeros((0, 3))
    x, y, z = lamp.position
    return np.array([x, y, z]) * np.where(UPWARD, SHARES, 1.0)


def depths(plan: Plan, z: float) -> tuple[float, float]:
    """Between which depths of a room, m, somebody at z stands: a wall with a window in it divides the room."""
    room, window = plan.room, plan.window
    if window is None or not window.in_wall:
        return room.z_min, room.z_max
    wall = min(max(window.z, room.z_min), room.z_max)
    return (room.z_min, wall) if z < window.z else (wall, room.z_max)


def through_walls(plan: Plan, lamp: Light) -> Floats:
    """How far (3,) in m a lamp of a room would have to move along each axis for its face not to reach through that
    wall of two that it reaches through farther. A wall with a window in it is one, in its opening too: nobody stands
    a lamp there."""
    room = plan.room
    near, far = depths(plan, lamp.position[2])
    low, high = np.array([room.x_min, 0.0, near]), np.array([room.x_max, room.height, far])
    if lamp.is_daylight or room.kind != "interior":
        return np.zeros(3)
    outline = emission_of(lamp, plan).face.outline
    if not len(outline):
        return np.zeros(3)
    below, above = np.maximum(low - outline.min(axis=0), 0.0), np.maximum(outline.max(axis=0) - high, 0.0)
    # A face that is too large for the room reaches through both.
    return np.asarray(np.where(below >= above, below, -above))


def head_corners(plan: Plan, lamp: Light) -> Floats:
    """Places (N, 3) in m that span its head."""
    x, y, z = lamp.position
    face = emission_of(lamp, plan).face
    if face.area > 0.0:
        return np.vstack([face.outline, face.centre[None, :]])
    return np.array([x, y, z]) + HEAD * np.vstack([np.zeros(3), np.eye(3), -np.eye(3)])


def body_of(plan: Plan, lamp: Light, store: BasisStore) -> LampBody:
    key = ("body", plan.room.height, plan.room.kind, lamp_key(plan, lamp))
    return store.record(key, lambda: LampBody(plan, lamp))


ROUND_THE_LENS = 0.2
"""So near the plane of a lamp's face, m, a lens within its outline looks through a ring."""


def round_the_lens(plan: Plan, lamp: Light) -> bool:
    """Is it a ring that the camera looks through: the lens within its outline, near its face, looking its way?"""
    face, camera = emission_of(lamp, plan).face, plan.camera
    looks = camera_axes(camera.pan, camera.tilt, camera.roll)[2]
    if lamp.is_daylight or face.area == 0.0 or float(face.axis @ looks) < 0.5:
        return False
    away = np.array([camera.x, camera.y, camera.z]) - face.centre
    if abs(float(away @ face.axis)) > ROUND_THE_LENS:
        return False
    flat = np.stack([face.right, face.up])
    corners, lens = (face.outline - face.centre) @ flat.T, flat @ away
    side = np.roll(corners, -1, axis=0) - corners
    turn = side[:, 0] * (lens[1] - corners[:, 1]) - side[:, 1] * (lens[0] - corners[:, 0])
    return bool((turn > 0.0).all() or (turn < 0.0).all())


def head_in_picture(plan: Plan, lamp: Light, view: View, low: Floats, high: Floats) -> float:
    """How much of a box of the frame, from `low` to `high` (2,), a lamp's face lies over, front or back: 0 to 1."""
    face = emission_of(lamp, plan).face
    return share_of_frame(view, face.outline, low, high) if face.area > 0.0 else 0.0


def share_of_frame(view: View, outline: Floats, low: Floats, high: Floats) -> float:
    """The same of any flat convex outline (N, 3) in m, in order."""
    part = view.shown(outline)
    if not len(part) or np.any(part.max(axis=0) <= low) or np.any(part.min(axis=0) >= high):
        return 0.0
    for axis in np.eye(2):
        for normal, offset in ((axis, float(axis @ low)), (-axis, -float(axis @ high))):
            part = clip_half_plane(part, normal, offset)
    if len(part) < 3:
        return 0.0
    (x, y), box = part.T, float(np.prod(high - low))
    return 0.5 * abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / max(box, 1e-9)


def pole_in_picture(view: View, at: tuple[float, float, float]) -> bool:
    """Is any of a pole from the floor up to `at`, m, in the frame?"""
    x, y, z = at
    return any(view.frames((x, share * y, z)) for share in (0.0, 0.25, 0.5, 0.75))


FRAME = np.zeros(2), np.ones(2)
"""All of it, as such a box."""
