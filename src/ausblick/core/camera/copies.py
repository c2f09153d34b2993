"""One figure at another depth, or many: scale, place in the picture, and whether copies overlap."""

from __future__ import annotations

from dataclasses import dataclass

from ..plan import Plan
from .view import focus_distance, frame_size


@dataclass(frozen=True)
class Copy:
    """`scale` of the filmed figure; `across` of its middle in parts of the picture's width (0.5 = middle).

    `depth` m behind the mark. `overlaps` a neighbour of its row; `outside` leaves the picture.
    """

    row: int
    place: int
    depth: float
    scale: float
    across: float
    overlaps: bool
    outside: bool


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
    found = []
    for row in range(rows):
        depth = row * row_depth
        wide = frame_size(plan.camera, distance + depth)[0]
        # Every other row stands in the gaps of the one before.
        shift = spacing / 2.0 if row % 2 else 0.0
        for place in range(columns):
            x = (place - (columns - 1) / 2.0) * spacing + shift
            across = 0.5 + (plan.subject.x - plan.camera.x + x) / wide
            half = (reach.left + reach.right) / 2.0 / wide
            found.append(
                Copy(
                    row, place, depth, figure_scale(distance, depth), across,
                    overlaps=columns > 1 and spacing < reach.left + reach.right,
                    outside=across - half < 0.0 or across + half > 1.0,
                )
            )  # fmt: skip
    return found
