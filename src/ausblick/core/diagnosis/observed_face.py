"""What a frame shows of the light on the subject's face: left, middle and right of it as the lens sees them.

A lamp that hardly reaches the screen may give most of the face's light, and only there a frame tells of it. Whose
face it is nobody knows to a shade, so that its level counts for little; how its sides differ counts for more.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.turned import upright_places
from ..camera.view import View
from ..colour.curves import decode
from ..frames.reading import FrameReading
from ..geometry.vectors import Bools, Floats, Floats32, cross, unit
from ..plan import Plan, Subject

HEAD = 0.06
"""Half the breadth of a head as a share of stature: usual proportions."""
ACROSS, UP = (-0.4, 0.0, 0.4), (-0.45, -0.2, 0.05)
"""Middles of the zones, and rows of each, in half breadths of the head from its middle."""
HALF = (0.16, 0.4)
"""A zone's half width and half height."""
LEAST_PX = 7.0
"""A head of less than this half breadth in the reading's picture shows no sides."""
NARROW, BROAD = 0.6, 1.8
"""Half the breadth of what stands where the head should be, in planned ones: hair makes it broader."""
CROWN = 1.07
"""From the top of the head to its middle, in half breadths."""
CLIPS = 0.95
"""What clips tells nothing."""


@dataclass(frozen=True, eq=False)
class ObservedFace:
    """Of each zone (Z,): light of each channel in lux `rgb` (Z, 3), and its place in the picture `frame` (Z, 2)."""

    rgb: Floats
    frame: Floats


@dataclass(frozen=True, eq=False)
class FaceZones:
    """Places of a head (Z, K, 3) in m that each zone is taken to be made of, and their normals."""

    points: Floats
    normals: Floats


def face_zones(plan: Plan, subject: Subject) -> FaceZones:
    """The head is a ball that faces the lens: a mean over its normals is what a face in between shows."""
    centre, axes = _head(plan, subject)
    x = np.array([[a + b for b in (-HALF[0], 0.0, HALF[0]) for _ in UP] for a in ACROSS])
    y = np.array([list(UP) * 3] * len(ACROSS))
    ahead = np.sqrt(1.0 - x * x - y * y)
    normals = np.stack([x, y, ahead], axis=-1) @ axes
    return FaceZones(centre + HEAD * subject.height * normals, normals)


def _head(plan: Plan, subject: Subject) -> tuple[Floats, Floats]:
    """Middle (3,) of the head, and its axes (3, 3): to the right and up as the lens sees it, and to the lens."""
    centre = np.array(subject.eyes)
    ahead = unit(np.array([plan.camera.x, plan.camera.y, plan.camera.z]) - centre)
    right = unit(cross(np.array([0.0, 1.0, 0.0]), ahead))
    return centre, np.array([right, cross(ahead, right), ahead])


def observed_face(plan: Plan, signal: Floats32, turns: int, reading: FrameReading, view: View) -> ObservedFace | None:
    """Of the reduced frame (h, w, 3), turned upright so many times, as `view` shows the set.

    None where no head stands before the screen about where it should, or it is too small or clips."""
    # Somebody else may shade a face, and stand before it.
    if reading.found is None or reading.contact is None or plan.subject is None or plan.companions:
        return None
    figure = reading.contact.figure
    height, width = figure.shape
    centre, axes = _head(plan, plan.subject)
    points = np.array([centre, centre + HEAD * plan.subject.height * axes[0]])
    place, depth = view.project(points)
    if not (depth > 0.0).all():
        return None
    middle, side = upright_places(place, turns) * (width, height)
    radius = float(np.hypot(*(side - middle)))
    found = _head_in(figure, middle, radius) if radius >= LEAST_PX else None
    if found is None:
        return None
    camera, zones, places = plan.camera, [], []
    for across in ACROSS:
        x, y = found + radius * np.array([across, -UP[1]])
        rows = slice(max(0, round(y - HALF[1] * radius)), round(y + HALF[1] * radius) + 1)
        columns = slice(max(0, round(x - HALF[0] * radius)), round(x + HALF[0] * radius) + 1)
        shown = signal[rows, columns].astype(np.float64)
        if not shown.size or not figure[rows, columns].all() or float(shown.max(axis=-1).mean()) > CLIPS:
            return None
        zones.append(decode(shown, camera.curve, camera.curve_table).reshape(-1, 3).mean(axis=0))
        places.append((x / width, y / height))
    light = np.array(zones) * grey_lux(camera) / np.maximum(plan.subject.skin, 1e-3)
    return ObservedFace(light, np.array(places))


def _head_in(figure: Bools, middle: Floats, radius: float) -> Floats | None:
    """Middle (2,) in px of the head whose top stands free before the screen, near where it is planned."""
    height, width = figure.shape
    left, right = (int(np.clip(middle[0] + by * radius, 0, width)) for by in (-2.5, 2.5))
    top, bottom = (int(np.clip(middle[1] + by * radius, 0, height)) for by in (-4.0, 2.0))
    rows = np.flatnonzero(figure[top:bottom, left:right].sum(axis=1) > 0.5 * radius)
    if not len(rows) or rows[0] == 0:
        return None
    centre = top + int(rows[0]) + CROWN * radius
    if centre >= bottom:
        return None
    columns = np.flatnonzero(figure[round(centre), left:right])
    if not len(columns):
        return None
    half = 0.5 * float(columns[-1] - columns[0] + 1)
    if not NARROW * radius < half < BROAD * radius:
        return None
    return np.array([left + 0.5 * float(columns[0] + columns[-1]), centre])
