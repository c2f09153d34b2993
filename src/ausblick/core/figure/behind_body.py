"""What the camera does not see because somebody stands before it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..camera.view import View
from ..geometry.vectors import Bools, Floats, Floats32
from ..plan import Plan, Subject, people_of
from .outline import figure_parts

FINE = 4096.0
"""Steps of the frame that outlines are told to."""
MOVING = "arms", "hands", "prop"
"""Parts that are somewhere else in the next moment."""


@dataclass(frozen=True, eq=False)
class BodyInFrame:
    """How far off somebody is, m along the lens's axis; their outlines (N, 2) in steps of the frame, and the box
    round all of them."""

    depth: float
    outlines: tuple[Floats32, ...]
    low: Floats
    high: Floats


def bodies_in_frame(plan: Plan, view: View) -> tuple[BodyInFrame, ...]:
    """Everybody as planned on the mark, without what they move; nobody who is behind the lens."""
    found = (_body(person, plan, view) for person in people_of(plan))
    return tuple(one for one in found if one is not None)


def _body(person: Subject, plan: Plan, view: View) -> BodyInFrame | None:
    shown = []
    for name, corners in figure_parts(person, plan.camera):
        outline, depth = view.project(corners)
        if name not in MOVING and np.all(depth > 0.0):
            shown.append((FINE * outline).astype(np.float32))
    if not shown:
        return None
    _, (middle,) = view.project(np.array([[person.x, 0.5 * person.top, person.z]]))
    every = np.concatenate(shown)
    return BodyInFrame(float(middle), tuple(shown), every.min(axis=0), every.max(axis=0))


def behind_bodies(bodies: Sequence[BodyInFrame], frame: Floats, depth: Floats) -> Bools:
    """Of places at `frame` (N, 2) and `depth` (N,), m, which (N,) the line from the lens meets somebody before."""
    hidden, at = np.zeros(len(frame), dtype=bool), FINE * frame
    for body in bodies:
        may = (depth > body.depth) & np.all((at > body.low) & (at < body.high), axis=1) & ~hidden
        if may.any():
            hidden[may] = [_within(body, float(x), float(y)) for x, y in at[may]]
    return hidden


def _within(body: BodyInFrame, x: float, y: float) -> bool:
    return any(cv2.pointPolygonTest(outline, (x, y), False) > 0 for outline in body.outlines)
