"""The light on loose strands: as much as face and shoulders get, shared out round the head as its hair gets it."""

from __future__ import annotations

import numpy as np

from ..figure.loose_strands import light_on_strands, round_the_head
from ..figure.solid_body import PARTS
from ..geometry.vectors import Floats, Floats32
from ..plan import Subject
from .capture import Capture
from .drawn_place import DrawnPlace

NODES = np.radians(np.arange(-40.0, 221.0, 10.0))
"""Where round the head it is asked for: from below its right over the crown to below its left."""
EVENED = np.radians(20.0)
EVERY = 4
"""Of so many places of the hair one is looked at."""
LEAST, MOST = 0.25, 4.0
"""Times the mean: a strand stands off from what its neighbour is shaded by."""
NOTHING = 1e-6


def strand_light(capture: Capture, subject: Subject, place: DrawnPlace, box: tuple[slice, slice]) -> Floats32:
    """Linear light (h, w, 3) in a box of the figure's plane."""
    x, y = place.shares(box)
    at = round_the_head(subject.body, x, y)
    nodes = light_on_strands(capture.light) * _round_the_head(capture, subject)
    return np.stack([np.interp(at, NODES, nodes[:, c]) for c in range(3)], axis=-1).astype(np.float32)


def _round_the_head(capture: Capture, subject: Subject) -> Floats:
    """What hair that is seen from aside gets at the nodes (N, 3), in times its mean over them."""
    even = np.ones((len(NODES), 3))
    if capture.body is None:
        return even
    shape, known = capture.body.body.shape, capture.body.known
    rows = known[shape.part[known] == PARTS.index("hair")][::EVERY]
    if not len(rows):
        return even
    own, aside = shape.own[rows], 1.0 - np.abs(shape.facing[rows, 2])
    apart = (round_the_head(subject.body, own[:, 0], own[:, 1]) - NODES[:, None]) / EVENED
    weights = aside**2 * np.exp(-0.5 * apart**2) + NOTHING
    found = (weights @ capture.body.lux[rows]) / weights.sum(axis=1, keepdims=True)
    return np.asarray(np.clip(found / np.maximum(found.mean(axis=0), NOTHING), LEAST, MOST))
