"""How much of the figure in the picture is cloth above, cloth below, skin and hair."""

from __future__ import annotations

import cv2
import numpy as np

from ..camera.view import NEAREST, View
from ..figure.outline import figure_parts
from ..geometry.vectors import Floats
from ..plan import Camera, Subject
from ..remembered.shelf import Shelf

PARTS = ("drawn torso", "drawn legs", "skin", "drawn hair")
BANDS = 21
OF_BODY: Floats = np.array([
    [0, 0, 0, 0, 0, 0, 0, 0, 2.1, 5.3, 6.0, 5.6, 6.5, 8.2, 9.1, 8.0, 5.9, 0.1, 0, 0, 0],
    [2.6, 3.3, 3.4, 3.4, 3.6, 4.4, 4.4, 4.3, 2.6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
    [0, 0, 0, 0, 0, 0, 0, 0, 0.6, 0.9, 0.1, 0, 0, 0, 0, 0.1, 1.5, 2.8, 2.2, 0.8, 0],
    [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0.5, 1.7, 0.5],
])  # fmt: skip
"""Area (4, 21) that each part takes of the modelled body from the front, in % of it, by twentieths of stature from
the floor."""
ACROSS, WEIGHTS = np.array([-0.09, 0.0, 0.09]), np.array([0.25, 0.5, 0.25])
"""Where across, in shares of stature, a band is asked whether it is in the picture, and what each place counts."""
HANDS = {"drawn torso": 0.6, "skin": 0.4}
"""Of hands alone with their sleeves, where none of it is in the frame."""
SIDE = 160
"""Cells across the frame that hands and sleeves are counted by."""
FINE = 4
"""Bits of a cell that outlines are drawn to."""


def seen_areas(subject: Subject, view: View, camera: Camera) -> dict[str, float]:
    """Share of the figure by part, of what the camera frames; they sum to 1. Legs that the framing leaves out are cut
    off at the edit."""
    if subject.framing == "hands":
        return _of_hands(subject, view, camera)
    up = np.array([subject.up((band + 0.5) / 20.0) for band in range(BANDS)])
    at = np.empty((BANDS, len(ACROSS), 3))
    at[..., 0], at[..., 1], at[..., 2] = subject.x + ACROSS * subject.height, up[:, None], subject.z
    frame, depth = view.project(at)
    inside = (depth > NEAREST) & np.all((frame > 0.0) & (frame < 1.0), axis=-1)
    found = OF_BODY @ (inside @ WEIGHTS)
    if not subject.legs_seen:
        found[PARTS.index("drawn legs")] = 0.0
    whole = found if found.any() else OF_BODY.sum(axis=1)
    return {part: float(area) for part, area in zip(PARTS, whole / whole.sum(), strict=True) if area > 0.0}


_KEPT: Shelf[dict[str, float]] = Shelf(64)


def _of_hands(subject: Subject, view: View, camera: Camera) -> dict[str, float]:
    """Hands before their sleeves, as the frame shows them."""
    lens = camera.x, camera.y, camera.z, camera.pan, camera.tilt, camera.roll, camera.focal_mm, camera.sensor
    key = subject.body, subject.posture, subject.height, subject.x, subject.z, lens
    return _KEPT.get(key, lambda: _counted(subject, view, camera))


def _counted(subject: Subject, view: View, camera: Camera) -> dict[str, float]:
    sensor = camera.sensor
    cells = np.zeros((max(1, round(SIDE * sensor.px_h / sensor.px_w)), SIDE), dtype=np.uint8)
    order = {"torso": 1, "arms": 1, "hands": 2}
    parts = [(order[name], corners) for name, corners in figure_parts(subject, camera) if name in order]
    for value, corners in sorted(parts, key=lambda part: part[0]):
        frame, depth = view.project(corners)
        if np.all(depth > NEAREST):
            at = np.round(2**FINE * (frame * cells.shape[::-1] - 0.5)).astype(np.int32)
            cv2.fillPoly(cells, [at], value, shift=FINE)
    sleeve, hand = (int((cells == value).sum()) for value in (1, 2))
    if not sleeve + hand:
        return HANDS
    return {"drawn torso": sleeve / (sleeve + hand), "skin": hand / (sleeve + hand)}
