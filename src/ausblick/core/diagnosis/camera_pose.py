"""Tape measure from a frame: the screen's four corners and its size give the camera's place and direction.

Perspective-n-point by OpenCV (planar solver, then Levenberg-Marquardt); error bars from the Jacobian of the marks.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np

from ..camera.view import View, focus_distance, image_distance, view_of
from ..geometry.vectors import Floats
from ..plan import Change, Plan, edit

MARK_PX = 1.5
"""A corner is clicked to this many px of a frame 1920 wide (one standard deviation)."""


class PoseError(ValueError):
    """Marks that no camera could have seen."""


@dataclass(frozen=True)
class Pose:
    """Camera in m and degrees with one standard deviation of each; `distance` to the screen's plane along z,
    `misfit_px` of the marks in a frame 1920 wide."""

    x: float
    y: float
    z: float
    pan: float
    tilt: float
    roll: float
    errors: dict[str, float]
    misfit_px: float

    def changes(self) -> tuple[Change, ...]:
        """What makes the plan's camera stand as it did."""
        set_to, own = edit.camera, (self.x, self.y, self.z, self.pan, self.tilt, self.roll)
        fields = (set_to.x, set_to.y, set_to.z, set_to.pan, set_to.tilt, set_to.roll)
        return tuple(field(round(float(value), 3)) for field, value in zip(fields, own, strict=True))


def pose_of(plan: Plan, corners: Sequence[tuple[float, float]]) -> Pose:
    """`corners`: the screen's upper left, upper right, lower right and lower left in parts of the frame.

    The lens's image distance depends on where it is focused, which is not known: the camera's focus follows the
    distance found. Raises PoseError.
    """
    marks = np.array(corners, dtype=np.float64)
    if marks.shape != (4, 2) or not np.all(np.isfinite(marks)) or np.any(np.abs(marks) > 4.0):
        raise PoseError("four corners are needed, each in parts of the frame")
    if cv2.contourArea(marks.astype(np.float32)) < 1e-4:
        raise PoseError("the corners lie on one line; click upper left, upper right, lower right, lower left")
    screen = plan.screen
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    world = np.array(
        [[left, screen.bottom + screen.height, 0.0], [right, screen.bottom + screen.height, 0.0],
         [right, screen.bottom, 0.0], [left, screen.bottom, 0.0]]
    )  # fmt: skip
    focus = max(0.5, focus_distance(plan.camera, plan.subject))
    found = None
    for _ in range(3):
        found = _solve(plan, world, marks, focus)
        camera = plan.camera.model_copy(update={c.path.split(".")[1]: c.value for c in found.changes()})
        focus = max(0.3, focus_distance(camera, plan.subject))
    assert found is not None
    return found


def _matrix(plan: Plan, focus: float) -> Floats:
    """Camera matrix for marks in px of a frame 1920 wide."""
    sensor = plan.camera.sensor
    width = 1920.0
    height = width * sensor.px_h / sensor.px_w
    image = image_distance(plan.camera.focal_mm, focus)
    fx, fy = width * image / sensor.width_mm, height * image / sensor.height_mm
    return np.array([[fx, 0.0, width / 2.0], [0.0, fy, height / 2.0], [0.0, 0.0, 1.0]])


def _solve(plan: Plan, world: Floats, marks: Floats, focus: float) -> Pose:
    matrix = _matrix(plan, focus)
    px = marks * (2.0 * matrix[0, 2], 2.0 * matrix[1, 2])
    # OpenCV's camera looks along +z with y down; a turn about x by half a circle brings the set there.
    flip = np.diag([1.0, -1.0, -1.0])
    count, turns, moves, _ = cv2.solvePnPGeneric(world @ flip, px, matrix, None, flags=cv2.SOLVEPNP_IPPE)
    best: tuple[float, Any, Any] | None = None
    for turn, move in zip(turns[:count], moves[:count], strict=True):
        turn, move = cv2.solvePnPRefineLM(world @ flip, px, matrix, None, turn, move)
        lens = _lens(turn, move) @ flip
        if lens[2] <= 0.05:
            continue
        back, _ = cv2.projectPoints(world @ flip, turn, move, matrix, None)
        misfit = float(np.sqrt(((back[:, 0] - px) ** 2).sum(axis=1).mean()))
        if best is None or misfit < best[0]:
            best = misfit, turn, move
    if best is None:
        raise PoseError("no camera before the screen sees these corners; click them in order, from the upper left")
    misfit, turn, move = best
    values = _values(turn, move, flip)
    errors = _errors(world @ flip, turn, move, matrix, flip)
    return Pose(*values, errors=errors, misfit_px=misfit)


def _lens(turn: Any, move: Any) -> Floats:
    rotation, _ = cv2.Rodrigues(turn)
    return np.asarray(-rotation.T @ move.ravel())


def _values(turn: Floats, move: Floats, flip: Floats) -> tuple[float, float, float, float, float, float]:
    """x, y, z, pan, tilt, roll."""
    rotation, _ = cv2.Rodrigues(turn)
    lens = _lens(turn, move) @ flip
    right, _, forward = rotation @ flip
    pan, tilt = math.degrees(math.atan2(forward[0], -forward[2])), math.degrees(math.asin(np.clip(forward[1], -1, 1)))
    level = np.array([math.cos(math.radians(pan)), 0.0, math.sin(math.radians(pan))])
    upright = np.cross(level, forward)
    roll = math.degrees(math.atan2(-float(right @ upright), float(right @ level)))
    return float(lens[0]), float(lens[1]), float(lens[2]), pan, tilt, roll


def _errors(world: Floats, turn: Floats, move: Floats, matrix: Floats, flip: Floats) -> dict[str, float]:
    """Standard deviations, from marks that are off by MARK_PX each."""
    _, jacobian = cv2.projectPoints(world, turn, move, matrix, None)
    by_pose = jacobian[:, :6]
    spread = MARK_PX**2 * np.linalg.pinv(by_pose.T @ by_pose)
    centre = np.array(_values(turn, move, flip))
    step, rows = 1e-5, []
    packed = np.concatenate([turn.ravel(), move.ravel()])
    for k in range(6):
        moved = packed.copy()
        moved[k] += step
        rows.append((np.array(_values(moved[:3].reshape(3, 1), moved[3:].reshape(3, 1), flip)) - centre) / step)
    slope = np.array(rows).T
    sigma = np.sqrt(np.maximum(np.diag(slope @ spread @ slope.T), 0.0))
    return dict(zip(("x", "y", "z", "pan", "tilt", "roll"), (float(v) for v in sigma), strict=True))


def view_from(plan: Plan, pose: Pose) -> View:
    """The view of the plan's lens from where it really stood."""
    camera = plan.camera.model_copy(update={c.path.split(".")[1]: c.value for c in pose.changes()})
    return view_of(camera, plan.subject)


def mark_of(plan: Plan, view: View, foot: tuple[float, float], head: tuple[float, float], height: float) -> Floats:
    """The subject's mark (x, z) in m from its foot on the floor and a point of known height straight above it.

    The foot's ray is followed to the floor; where the foot is not in the picture the two rays are fitted to a
    vertical of that height. Raises PoseError.
    """
    low, high = view.rays(np.array([foot, head]))
    # lens + a*low = (x, 0, z) and lens + b*high = (x, height, z): least squares in a, b, x, z.
    lens = view.lens
    system = np.array(
        [[low[0], 0, -1, 0], [low[1], 0, 0, 0], [low[2], 0, 0, -1],
         [0, high[0], -1, 0], [0, high[1], 0, 0], [0, high[2], 0, -1]], dtype=np.float64,
    )  # fmt: skip
    wanted = np.array([-lens[0], -lens[1], -lens[2], -lens[0], height - lens[1], -lens[2]])
    found, *_ = np.linalg.lstsq(system, wanted, rcond=None)
    if found[0] <= 0.0 or found[1] <= 0.0:
        raise PoseError("these two points are not one above the other on the floor before the camera")
    return np.asarray(found[2:])


def find_corners(mask: Floats) -> list[tuple[float, float]] | None:
    """The screen's corners in parts of the frame, from its mask (h, w); None where it is cut by the frame's edge."""
    height, width = mask.shape
    grey = (mask > 0).astype(np.uint8)
    if grey[0].any() or grey[-1].any() or grey[:, 0].any() or grey[:, -1].any():
        return None
    outlines, _ = cv2.findContours(grey, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    hull = cv2.convexHull(max(outlines, key=cv2.contourArea))
    for share in np.linspace(0.01, 0.08, 15):
        four = cv2.approxPolyDP(hull, share * cv2.arcLength(hull, True), True)[:, 0].astype(float)
        if len(four) == 4:
            break
    else:
        return None
    turn = np.argsort(np.arctan2(four[:, 1] - four[:, 1].mean(), four[:, 0] - four[:, 0].mean()))
    four = four[turn]
    four = np.roll(four, -int(np.argmin(four.sum(axis=1))), axis=0)
    edge = max(outlines, key=cv2.contourArea)[:, 0].astype(float)
    sides = [_side(edge, four[k], four[(k + 1) % 4]) for k in range(4)]
    if any(side is None for side in sides):
        return None
    crossed = [np.cross(sides[k - 1], sides[k]) for k in range(4)]  # type: ignore[arg-type]
    if any(abs(point[2]) < 1e-9 for point in crossed):
        return None
    return [(float(p[0] / p[2] + 0.5) / width, float(p[1] / p[2] + 0.5) / height) for p in crossed]


def _side(edge: Floats, a: Floats, b: Floats) -> Floats | None:
    """The line (3,) through the outline's points along a side: far finer than a corner's own pixel."""
    way = b - a
    length = float(np.linalg.norm(way))
    if length < 8.0:
        return None
    along = (edge - a) @ way / length**2
    out = np.array([way[1], -way[0]]) / length
    across = (edge - a) @ out
    near = (along > 0.08) & (along < 0.92) & (np.abs(across) < 0.03 * length + 1.5)
    if near.sum() < 6:
        return None
    # Outlines run through the middles of the last pixels inside; the edge lies half a pixel further out.
    slope, start = np.polyfit(along[near], across[near], 1)
    first, last = (a + t * way + (start + slope * t + 0.5) * out for t in (0.0, 1.0))
    return np.cross([*first, 1.0], [*last, 1.0])
