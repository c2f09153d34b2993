"""One figure at another depth, or many: scale, place in the picture, blur, shade, and whether copies overlap."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..plan import Plan
from ..standards.quantities import Degrees, Pixels
from .focus import defocus_px
from .ground_shade import ContactShade, shade_in_plate
from .view import View, focus_distance, frame_size, view_of


@dataclass(frozen=True)
class Copy:
    """`scale` of the filmed figure; `across` of its middle in parts of the picture's width (0.5 = middle).

    `depth` m behind the mark. `overlaps` a neighbour of its row; `outside` leaves the picture. `blur_px`: what the
    lens, focused on the mark, would make of a point at its depth, in recorded px. `shade_px`: length in the picture
    of its shadow on level ground, `shade_deg` its direction there, clockwise from straight up; None where nothing
    tells a light, or the shadow reaches behind the lens.
    """

    row: int
    place: int
    depth: float
    scale: float
    across: float
    overlaps: bool
    outside: bool
    blur_px: Pixels
    shade_px: Pixels | None
    shade_deg: Degrees | None


def figure_scale(distance_m: float, depth_m: float) -> float:
    """Size of a figure that stands `depth_m` further than the mark: d / (d + depth)."""
    return distance_m / max(1e-6, distance_m + depth_m)


def copies(plan: Plan, rows: int, columns: int, spacing: float, row_depth: float) -> list[Copy]:
    """A crowd of one: `columns` abreast, `spacing` m apart, in `rows` that are row_depth m behind each other.

    The camera stays as it is for all takes: height, tilt and lens. Needs a figure before the camera.
    """
    distance = focus_distance(plan.camera, plan.subject)
    if plan.subject is None or distance <= 0.0:
        return []
    reach = plan.subject.envelope
    view, shade = view_of(plan.camera, plan.subject), shade_in_plate(plan)
    found = []
    for row in range(rows):
        depth = row * row_depth
        blur = defocus_px(plan.camera, distance, distance + depth)
        wide = frame_size(plan.camera, distance + depth)[0]
        # Every other row stands in the gaps of the one before.
        shift = spacing / 2.0 if row % 2 else 0.0
        for place in range(columns):
            x = (place - (columns - 1) / 2.0) * spacing + shift
            across = 0.5 + (plan.subject.x - plan.camera.x + x) / wide
            px, deg = _shadow_seen(plan, view, plan.subject.x + x, plan.subject.z - depth, shade)
            half = (reach.left + reach.right) / 2.0 / wide
            found.append(
                Copy(
                    row, place, depth, figure_scale(distance, depth), across,
                    overlaps=columns > 1 and spacing < reach.left + reach.right,
                    outside=across - half < 0.0 or across + half > 1.0,
                    blur_px=blur, shade_px=px, shade_deg=deg,
                )
            )  # fmt: skip
    return found


def _shadow_seen(
    plan: Plan, view: View, x: float, z: float, shade: ContactShade | None
) -> tuple[float | None, float | None]:
    """Length in px and direction in degrees, clockwise from up, of a shadow that begins at x, z on the ground."""
    if shade is None:
        return None, None
    turn = math.radians(shade.azimuth_deg)
    end = (x + shade.length_m * math.sin(turn), 0.0, z - shade.length_m * math.cos(turn))
    frame, depth = view.project(np.array([(x, 0.0, z), end]))
    if np.any(depth <= 0.05):
        return None, None
    sensor = plan.camera.sensor
    across, down = (frame[1] - frame[0]) * (sensor.px_w, sensor.px_h)
    return float(np.hypot(across, down)), math.degrees(math.atan2(across, -down)) % 360.0
