"""The plate's camera from marks on it: horizon, receding lines, and what the shadow of a thing tells.

    picture     u to the right, v downwards, 0..1; the axis goes through its middle
    centred     x to the right, y up, in px

Vanishing points v1, v2 of two horizontal directions at right angles give the focal length:
f^2 = -v1 . v2 (Caprile and Torre, IJCV 4, 1990). The horizon runs through both.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..camera.view import camera_axes
from ..geometry.vectors import Floats

Spot = tuple[float, float]
Line = tuple[Spot, Spot]


class MarkError(ValueError):
    """Marks that can't be what they are meant for; the message says which and why."""


@dataclass(frozen=True)
class Marks:
    """What was marked: the horizon, pairs of receding parallels, a thing's foot, top and shadow tip."""

    horizon: Line | None = None
    first: tuple[Line, Line] | None = None
    second: tuple[Line, Line] | None = None
    foot: Spot | None = None
    top: Spot | None = None
    tip: Spot | None = None


@dataclass(frozen=True)
class PlateCamera:
    """Tilt (up) and roll in degrees, focal length on a 36 mm wide sensor, horizontal angle of view.

    `horizon_v` = the horizon's height in the middle of the picture. `measured_view` is False when the
    focal length was assumed.
    """

    tilt: float
    roll: float
    focal_mm_ff: float
    view_deg: float
    horizon_v: float
    measured_view: bool


@dataclass(frozen=True)
class PlateLight:
    """Where the light comes from, degrees: azimuth 0 from the camera, negative from the left; elevation."""

    azimuth: float
    elevation: float


def centred(spot: Spot, width: int, height: int) -> Floats:
    return np.array([(spot[0] - 0.5) * width, (0.5 - spot[1]) * height])


def vanishing_point(pair: tuple[Line, Line], width: int, height: int) -> Floats:
    """Where two marked parallels meet (2,), centred px. Raises MarkError when they never do."""
    lines = []
    for a, b in pair:
        p, q = centred(a, width, height), centred(b, width, height)
        if float(np.linalg.norm(p - q)) < 0.02 * width:
            raise MarkError("a receding line is too short: mark it over a longer stretch")
        lines.append(np.cross([*p, 1.0], [*q, 1.0]))
    meet = np.cross(lines[0] / np.linalg.norm(lines[0][:2]), lines[1] / np.linalg.norm(lines[1][:2]))
    if abs(meet[2]) < 1e-4:
        raise MarkError("two receding lines run parallel in the picture: they give no vanishing point")
    return np.asarray(meet[:2] / meet[2])


def plate_camera(marks: Marks, width: int, height: int, focal_mm_ff: float) -> PlateCamera:
    """The camera from what is marked; `focal_mm_ff` is taken where the marks don't tell it.

    Raises MarkError when neither a horizon nor receding lines are marked, or they contradict.
    """
    points = [vanishing_point(pair, width, height) for pair in (marks.first, marks.second) if pair is not None]
    focal, measured = focal_mm_ff / 36.0 * width, False
    if len(points) == 2:
        square = -float(points[0] @ points[1])
        if square <= (0.2 * width) ** 2:
            raise MarkError(
                "the two pairs of lines are not at right angles on the ground: mark two walls of one corner"
            )
        focal, measured = math.sqrt(square), True
    through = _horizon(marks, points, width, height)
    along = through[1] - through[0]
    if along[0] < 0:
        along = -along
    roll = math.degrees(math.atan2(along[1], along[0]))
    # Distance of the horizon from the middle, upwards, measured across the horizon.
    across = np.array([-along[1], along[0]]) / np.linalg.norm(along)
    above = float(through[0] @ across)
    return PlateCamera(
        tilt=-math.degrees(math.atan2(above, focal)),
        roll=roll,
        focal_mm_ff=focal / width * 36.0,
        view_deg=2.0 * math.degrees(math.atan(width / (2.0 * focal))),
        horizon_v=0.5 - above / max(1e-6, math.cos(math.radians(roll))) / height,
        measured_view=measured,
    )


def _horizon(marks: Marks, points: list[Floats], width: int, height: int) -> tuple[Floats, Floats]:
    """Two centred points of the horizon: as marked, through both vanishing points, or level through one."""
    if marks.horizon is not None:
        a, b = (centred(spot, width, height) for spot in marks.horizon)
        if float(np.linalg.norm(a - b)) < 0.05 * width:
            raise MarkError("the horizon is too short: mark two points far apart on it")
        return a, b
    if len(points) == 2:
        return points[0], points[1]
    if len(points) == 1:
        return points[0], points[0] + np.array([1.0, 0.0])
    raise MarkError("mark the horizon, or lines that recede along the ground")


def plate_light(marks: Marks, camera: PlateCamera, width: int, height: int) -> PlateLight:
    """Direction of the light from a thing's foot, its top and the tip of its shadow on level ground.

    Raises MarkError when one is missing, or foot or tip is not below the horizon.
    """
    if marks.foot is None or marks.top is None or marks.tip is None:
        raise MarkError("mark the foot, the top and the tip of the shadow of one upright thing")
    focal = camera.focal_mm_ff / 36.0 * width
    axes = camera_axes(0.0, camera.tilt, camera.roll)

    def ray(spot: Spot) -> Floats:
        return np.asarray(np.array([*centred(spot, width, height), focal]) @ axes)

    foot, tip = (_on_ground(ray(spot), name) for spot, name in ((marks.foot, "foot"), (marks.tip, "tip")))
    upward = ray(marks.top)
    # The lens is 1 above the ground; the top is on the upright through the foot.
    reach = float(foot[[0, 2]] @ upward[[0, 2]]) / float(upward[[0, 2]] @ upward[[0, 2]])
    tall = 1.0 + reach * upward[1]
    toward = foot - tip
    length = float(np.hypot(toward[0], toward[2]))
    if tall <= 0.01 or length < 1e-6:
        raise MarkError("the top must be above the foot, and the shadow must have a length")
    return PlateLight(
        azimuth=math.degrees(math.atan2(toward[0], toward[2])),
        elevation=math.degrees(math.atan2(tall, length)),
    )


def _on_ground(ray: Floats, name: str) -> Floats:
    if ray[1] > -1e-4 * float(np.linalg.norm(ray)):
        raise MarkError(f"the {name} must lie below the horizon, on the ground")
    return np.asarray(ray / -ray[1])
