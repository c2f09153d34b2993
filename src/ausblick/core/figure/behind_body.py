"""What the camera does not see because somebody stands before it."""

from __future__ import annotations

import cv2
import numpy as np

from ..camera.view import View
from ..geometry.vectors import Bools, Floats
from ..plan import Plan, Subject
from .outline import figure_parts

FINE = 4096.0
"""Steps of the frame that outlines are told to."""
MOVING = "arms", "hands", "prop"
"""Parts that are somewhere else in the next moment."""


def behind_bodies(plan: Plan, view: View, places: Floats) -> Bools:
    """Of places (N, 3) in m, which (N,) the line from the lens meets somebody before: whoever stands on the mark as
    planned, without what they move."""
    hidden = np.zeros(len(places), dtype=bool)
    people = () if plan.subject is None else (plan.subject, *plan.companions)
    frame, depth = view.project(places)
    for person in people:
        further = depth > _depth(person, view)
        hidden |= further & _within(person, plan, view, frame)
    return hidden


def _depth(person: Subject, view: View) -> float:
    _, depth = view.project(np.array([[person.x, 0.5 * person.top, person.z]]))
    return float(depth[0])


def _within(person: Subject, plan: Plan, view: View, frame: Floats) -> Bools:
    found = np.zeros(len(frame), dtype=bool)
    for name, corners in figure_parts(person, plan.camera):
        outline, depth = view.project(corners)
        if name in MOVING or np.any(depth <= 0.0):
            continue
        shown = (FINE * outline).astype(np.float32)
        found |= np.array([cv2.pointPolygonTest(shown, (FINE * x, FINE * y), False) > 0 for x, y in frame])
    return found
