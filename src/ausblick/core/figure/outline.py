"""The figure as an outline: enough of a person to see where it stands in the frame.

Parts are flat polygons in the plane of the mark, in shares of the height: x to the right as the
camera sees it, y up from the floor. Farthest first.
"""

from __future__ import annotations

import math

import numpy as np

from ..camera.coverage import FRAMING_FROM, FRAMING_TO
from ..camera.view import View
from ..geometry.vectors import Floats
from ..plan import Plan, Subject


def _ellipse(x: float, y: float, rx: float, ry: float) -> list[tuple[float, float]]:
    turn = [2.0 * math.pi * i / 28 for i in range(28)]
    return [(x + rx * math.cos(t), y + ry * math.sin(t)) for t in turn]


def _limb(ax: float, ay: float, aw: float, bx: float, by: float, bw: float) -> list[tuple[float, float]]:
    """A tapered limb from (ax, ay) to (bx, by) with half widths aw and bw and round ends."""
    along = math.atan2(by - ay, bx - ax)
    half = [math.pi * (i / 10.0 - 0.5) for i in range(11)]
    far = [(bx + bw * math.cos(along + t), by + bw * math.sin(along + t)) for t in half]
    near = [(ax - aw * math.cos(along + t), ay - aw * math.sin(along + t)) for t in half]
    return far + near


def _both(name: str, limb: tuple[float, ...]) -> list[tuple[str, list[tuple[float, float]]]]:
    """The limb on the right and its mirror image on the left."""
    ax, ay, aw, bx, by, bw = limb
    return [(name, _limb(ax, ay, aw, bx, by, bw)), (name, _limb(-ax, ay, aw, -bx, by, bw))]


TORSO = [
    (-0.026, 0.865),
    (-0.055, 0.843),
    (-0.098, 0.828),
    (-0.122, 0.808),
    (-0.128, 0.78),
    (-0.112, 0.72),
    (-0.096, 0.65),
    (-0.088, 0.60),
    (-0.094, 0.54),
    (-0.102, 0.49),
    (-0.1, 0.46),
    (0.1, 0.46),
    (0.102, 0.49),
    (0.094, 0.54),
    (0.088, 0.60),
    (0.096, 0.65),
    (0.112, 0.72),
    (0.128, 0.78),
    (0.122, 0.808),
    (0.098, 0.828),
    (0.055, 0.843),
    (0.026, 0.865),
]
PARTS: tuple[tuple[str, list[tuple[float, float]]], ...] = (
    ("hair", _ellipse(0.0, 0.940, 0.052, 0.060)),
    *_both("legs", (0.050, 0.47, 0.050, 0.056, 0.26, 0.036)),
    *_both("legs", (0.056, 0.26, 0.036, 0.060, 0.045, 0.024)),
    ("feet", _ellipse(-0.068, 0.018, 0.040, 0.018)),
    ("feet", _ellipse(0.068, 0.018, 0.040, 0.018)),
    *_both("arms", (0.106, 0.795, 0.032, 0.142, 0.645, 0.024)),
    *_both("arms", (0.142, 0.645, 0.024, 0.140, 0.500, 0.018)),
    ("hands", _ellipse(-0.139, 0.468, 0.018, 0.032)),
    ("hands", _ellipse(0.139, 0.468, 0.018, 0.032)),
    ("torso", TORSO),
    ("head", _limb(0.0, 0.90, 0.024, 0.0, 0.862, 0.026)),
    ("head", _ellipse(0.0, 0.927, 0.043, 0.058)),
)


def figure_height_px(plan: Plan, view: View) -> float | None:
    """Height in recorded px of the framed part of the figure, cut at the picture's edge; None without one."""
    if plan.subject is None:
        return None
    sensor, subject = plan.camera.sensor, plan.subject
    low, high = FRAMING_FROM[subject.framing], FRAMING_TO.get(subject.framing, 1.0)
    ends = np.array([[subject.x, subject.up(share), subject.z] for share in (low, high)])
    frame, depth = view.project(ends)
    if np.any(depth <= 0.0):
        return None
    across, down = np.abs(np.diff(np.clip(frame, 0.0, 1.0), axis=0))[0]
    return float(np.hypot(across * sensor.px_w, down * sensor.px_h))


def figure_parts(subject: Subject) -> list[tuple[str, Floats]]:
    """(name, polygon (N, 3) in m) of each part, on the mark."""
    parts = []
    for name, flat in PARTS:
        across = subject.x + subject.height * np.array(flat)[:, 0]
        up = np.array([subject.up(y) for _, y in flat])
        parts.append((name, np.stack([across, up, np.full(len(flat), subject.z)], axis=1)))
    return parts
