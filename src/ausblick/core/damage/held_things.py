"""What things that are held add to the edge: metal mirrors the screen all round its outline, glass faintly.

    error = sum(MIRRORS * length) / (lengths of all held + length of the body's own outline)

of what a test key's window round the first thing shows; lengths in px. What a convex thing mirrors at its outline is
what stands behind it. MIRRORS and the body's outline were read off five sets of things in six pictures of the demo's
sets (docs/model.md): predicted within 0.03, and 0.05 for one, where 0.02 to 0.13 were measured.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..figure.held_props import Shown, shown_props
from ..geometry.polygon import dense
from ..geometry.vectors import Floats
from ..plan import Subject
from .crop import WINDOW

MIRRORS = {"metal": 0.44, "glass": 0.08, "liquid": 0.08}
OUTLINE, FINEST, MORE = 2200.0, 0.04, 50000.0
"""Px of the body's outline in a window of pixels of FINEST cm or less at the mark, and how many more per cm."""
PER_EDGE = 40


def mirrored_at_edge(subject: Subject, pixel_cm: float) -> float:
    """Error of the matte, 0 to 1, that it adds to the edge in the window round the first thing held."""
    held = [thing for thing in shown_props(subject) if not thing.worn]
    if not held or pixel_cm <= 0.0:
        return 0.0
    scale = 100.0 * subject.height / pixel_cm
    middle = np.array(held[0].shape.middle)
    lengths = [_length(thing, [other for other in held if other is not thing], middle, scale) for thing in held]
    whole = sum(lengths) + OUTLINE + MORE * max(0.0, pixel_cm - FINEST)
    mirrors = (MIRRORS.get(thing.prop.kind, 0.0) for thing in held)
    return sum(share * length for share, length in zip(mirrors, lengths, strict=True)) / whole


def _length(thing: Shown, others: Sequence[Shown], middle: Floats, scale: float) -> float:
    """Px of a thing's outline in the window round `middle`, where no other is behind or before it that hides the
    screen."""
    total = 0.0
    for outline in thing.shape.outlines():
        at = dense(outline, PER_EDGE)
        counts = np.all(np.abs(scale * (at - middle)) < 0.5 * np.array(WINDOW), axis=1)
        for other in others:
            if other.prop.kind in ("matt", "metal"):
                counts &= other.shape.distance(at[:, 0], at[:, 1]) > 0.0
        total += float(np.linalg.norm(np.roll(at, -1, axis=0) - at, axis=1)[counts].sum())
    return scale * total
