"""The figure as an outline: enough of the body to see where it stands in the frame.

Parts are flat polygons in the plane of the mark: what is seen of each piece of the solid body from straight ahead.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..camera.coverage import FRAMING_FROM, FRAMING_TO
from ..camera.view import View
from ..geometry.vectors import Floats
from ..plan import Camera, Plan, Subject
from .body_file import outlines_of
from .chair import chair_outlines
from .held_props import shown_props
from .on_mark import on_mark
from .solid_body import piece_name, with_floor

SHOWN = (
    ("chair", ("chair",)),
    ("legs", ("legs",)),
    ("feet", ("shoes",)),
    ("hair", ("hair",)),
    ("torso", ("coat",)),
    ("head", ("head",)),
    ("hands", ("hand",)),
    ("arms", ("moving sleeve",)),
    ("hands", ("moving hand",)),
)
"""Names of parts and the pieces of the body they are, farthest first."""


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


def figure_parts(subject: Subject, camera: Camera) -> list[tuple[str, Floats]]:
    """(name, polygon (N, 3) in m) of each part, on the mark."""
    mark = on_mark(subject, camera)
    flat: list[tuple[str, Floats]] = []
    for name, pieces in SHOWN:
        if pieces == ("hand",):
            # Fingers close round what they hold.
            flat += [("prop", outline) for one in shown_props(subject) for outline in one.shape.outlines()]
        flat += [(name, outline) for outline in piece_outlines(subject, pieces)]
    return [(name, mark.at(np.insert(outline, 2, 0.0, axis=1))) for name, outline in flat]


def piece_outlines(subject: Subject, names: Sequence[str]) -> list[Floats]:
    """Polygons (N, 2) in shares of stature of pieces of the body as it is dressed and posed; none that it lacks."""
    known = outlines_of(subject.body)
    lowered = subject.lowered / subject.height
    found = []
    for name in names:
        if name == "chair" and subject.posture == "seated" and subject.framing != "hands":
            found += chair_outlines(subject.height, subject.lowered)
        for outline in known.get(piece_name(subject, name) or "", ()):
            moved = with_floor(outline, lowered) if subject.posture == "seated" else outline
            found.append(moved)
    return found
