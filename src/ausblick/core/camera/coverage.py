"""Which part of the screen's plane is needed, and whether there is screen-coloured surface there.

    lens . - - - - subject - - - - | screen plane z = 0
         ray through the edge of the action lands further out on the screen: parallax

The needed part is found in the frame (envelope of the action, cut by the frame's own edges), and
each of its outline points is followed along its ray to the first screen-coloured surface.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..geometry.polygon import clip_half_plane, dense
from ..geometry.vectors import Bools, Floats
from ..plan import Framing, Plan, Screen, Subject, people_of
from ..standards.quantities import Metres, Pixels
from .view import View

FRAMING_FROM = {"full": 0.0, "knees": 0.25, "waist": 0.55, "chest": 0.70, "face": 0.82, "hands": 0.40}
"""Lowest part of the body in the picture, as a share of the height."""
FRAMING_TO = {"hands": 0.72}
"""Highest part, where it is not the top of the head."""

PER_EDGE = 24
"""Rays followed along each edge of the needed outline."""


@dataclass(frozen=True, eq=False)
class Coverage:
    """`needed` = x0, y0, x1, y1 on the screen plane in m; `outline` the same as a polygon (N, 2).

    `frame_outline` is that polygon in the frame, `frame_uncovered` marks its points without screen.
    `margin_m` is negative by how much is missing. All None/empty when the camera can't see the plane.
    """

    needed: tuple[float, float, float, float] | None
    covered: bool
    margin_m: Metres | None
    margin_px: Pixels | None
    outline: Floats
    frame_outline: Floats
    frame_uncovered: Bools

    @property
    def corners(self) -> Floats:
        """The outline's corners only (N, 2)."""
        return self.outline[::PER_EDGE]

    @property
    def frame_corners(self) -> Floats:
        """The same in the frame."""
        return self.frame_outline[::PER_EDGE]


NOTHING = Coverage(None, False, None, None, np.zeros((0, 2)), np.zeros((0, 2)), np.zeros(0, dtype=bool))


def framed_part(subject: Subject, framing: Framing) -> tuple[float, float]:
    """Lowest and highest point in m of the body in the picture."""
    return subject.up(FRAMING_FROM[framing]), subject.up(FRAMING_TO.get(framing, 1.0))


def action_heights(subject: Subject) -> tuple[float, float]:
    """Lowest and highest point in m of the action, by the framing."""
    low, high = framed_part(subject, subject.framing)
    return low, high + subject.envelope.up


def action_box(subject: Subject) -> Floats:
    """The 8 corners (8, 3) in m of the reach of the action round the mark."""
    reach = subject.envelope
    low, high = action_heights(subject)
    xs = (subject.x - reach.left, subject.x + reach.right)
    zs = (subject.z - reach.back, subject.z + reach.front)
    return np.array([[x, y, z] for x in xs for y in (low, high) for z in zs])


def coverage_of(plan: Plan, view: View) -> Coverage:
    """Needed part of the screen by the plan's coverage school, and what of it is there."""
    floor_seen = plan.subject is not None and plan.subject.feet_seen
    frame = _needed_in_frame(plan, view, floor_seen)
    if len(frame) < 3:
        return NOTHING
    frame = dense(frame, PER_EDGE)
    rays = view.rays(frame)
    if np.any(rays[:, 2] > -1e-6):
        return NOTHING
    on_plane = view.lens + rays * (-view.lens[2] / rays[:, 2])[:, None]
    margins = _margins(plan.screen, view.lens, rays, on_plane, floor_seen)
    worst = int(np.argmin(margins))
    xy = on_plane[:, :2]
    low, high = xy.min(axis=0), xy.max(axis=0)
    return Coverage(
        needed=(float(low[0]), float(low[1]), float(high[0]), float(high[1])),
        covered=bool(margins[worst] >= -1e-9),
        margin_m=float(margins[worst]),
        margin_px=_in_pixels(plan, view, float(margins[worst])),
        outline=xy,
        frame_outline=frame,
        frame_uncovered=margins < -1e-9,
    )


def _needed_in_frame(plan: Plan, view: View, floor_seen: bool) -> Floats:
    """The needed outline in frame coordinates (N, 2): a part of its own, an opening, the action or the whole frame,
    above the floor line."""
    frame = np.array([[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]])
    opening = opening_of(plan)
    if plan.targets.region:
        part = np.array([(x, y, 0.0) for x, y in plan.targets.region])
        frame = _in_the_frame(*view.project(part))
    elif opening is not None:
        frame = _in_the_frame(*view.project(opening))
    elif plan.subject is not None and plan.targets.coverage_school == "where-needed":
        boxes = np.concatenate([action_box(one) for one in people_of(plan)])
        frame = _in_the_frame(*view.project(boxes))
    if not floor_seen and len(frame):
        frame = _above_floor_line(frame, view)
    return frame


def opening_of(plan: Plan) -> Floats | None:
    """Corners (4, 3) of a window in a wall between lens and screen: all of the screen that is seen is seen there."""
    window = plan.window
    if window is None or not window.in_wall or not 0.0 < window.z < plan.camera.z:
        return None
    return np.array(window.corners)


def behind_window_wall(plan: Plan, places: Floats, size: float = 0.0) -> Bools:
    """Which places (N, 3), of things that reach so far round them in m, a window's wall hides from the lens."""
    opening = opening_of(plan)
    if opening is None:
        return np.zeros(len(places), dtype=bool)
    lens = np.array([plan.camera.x, plan.camera.y, plan.camera.z])
    beyond = places[:, 2] < opening[0, 2]
    share = (lens[2] - opening[0, 2]) / np.maximum(lens[2] - places[:, 2], 1e-9)
    met = (lens + share[:, None] * (places - lens))[:, :2]
    reach = share[:, None] * size
    low, high = opening.min(axis=0)[:2], opening.max(axis=0)[:2]
    return np.asarray(beyond & ((met + reach < low) | (met - reach > high)).any(axis=1))


def _in_the_frame(corners: Floats, depth: Floats) -> Floats:
    """The outline (N, 2) of places in frame coordinates, cut by the frame's edges; empty where one is behind the
    lens."""
    if np.any(depth <= 0.01):
        return np.zeros((0, 2))
    hull = cv2.convexHull(corners.astype(np.float32))[:, 0].astype(np.float64)
    for normal, offset in (((1, 0), 0), ((-1, 0), -1), ((0, 1), 0), ((0, -1), -1)):
        hull = clip_half_plane(hull, np.array(normal, dtype=float), float(offset))
    return np.asarray(hull)


def _above_floor_line(frame: Floats, view: View) -> Floats:
    """Cut away what lies below the line where the screen's plane meets the floor.

    A ray at (u, v) meets y = 0 of the plane where  lens_y*ray_z - lens_z*ray_y = 0; ray is affine in
    (u, v), so this is a half plane of the frame.
    """

    def height(u: float, v: float) -> float:
        ray = view.rays(np.array([u, v]))
        return float(view.lens[2] * ray[1] - view.lens[1] * ray[2])

    origin, along_u, along_v = height(0, 0), height(1, 0), height(0, 1)
    normal = np.array([along_u - origin, along_v - origin])
    return clip_half_plane(frame, normal, -origin)


def _margins(screen: Screen, lens: Floats, rays: Floats, on_plane: Floats, floor_seen: bool) -> Floats:
    """For each ray, how far inside (+) or outside (-) the screen-coloured surface it lands, in m."""
    left, right = screen.x_centre - screen.width / 2, screen.x_centre + screen.width / 2
    x, y = on_plane[:, 0], on_plane[:, 1]
    # Where the picture may end at the floor line, a screen that stands on the floor has no lower edge.
    ends_at_floor = not floor_seen and screen.bottom <= 0.02 and float(y.min()) < 1e-6
    low = np.full_like(y, np.inf) if ends_at_floor else y - screen.bottom
    high = screen.bottom + screen.height - y
    to_left = _side(x - left, left, 1.0, screen.wing_left, lens, rays)
    to_right = _side(right - x, right, -1.0, screen.wing_right, lens, rays)
    if floor_seen and screen.floor_run > 0.0 and screen.bottom <= 0.02:
        # Level rays never meet the floor; a tiny slope sends them far beyond any floor run.
        reach = -lens[1] / np.minimum(rays[:, 1], -1e-9)
        floor_z = lens[2] + rays[:, 2] * reach
        floor_x = lens[0] + rays[:, 0] * reach
        on_floor = y < screen.bottom
        low = np.where(on_floor, screen.floor_run - floor_z, np.inf)
        to_left = np.where(on_floor, floor_x - left, to_left)
        to_right = np.where(on_floor, right - floor_x, to_right)
    return np.asarray(np.minimum(np.minimum(low, high), np.minimum(to_left, to_right)))


def _side(inside: Floats, edge: float, inward: float, wing: float, lens: Floats, rays: Floats) -> Floats:
    """Distance to a side edge, or along the wing where the ray lands on that."""
    if wing <= 0.0:
        return inside
    with np.errstate(divide="ignore", invalid="ignore"):
        reach = (edge - lens[0]) / rays[:, 0]
    wing_z = lens[2] + rays[:, 2] * reach
    lands = (inside < 0) & (reach > 0) & (inward * (lens[0] - edge) > 0)
    return np.where(lands, wing - wing_z, np.where(inside < 0, inside, np.inf))


def _in_pixels(plan: Plan, view: View, margin_m: float) -> float:
    """The margin as seen in the recorded frame, at the screen's distance."""
    across = 2.0 * view.tan_h * abs(float(view.lens[2]))
    return margin_m / across * plan.camera.sensor.px_w
