"""How wide a lamp's beam is on the floor plan: to where half of its strength along the aim is left.

Fixture, photometry file, modifier and door leaves together, as the light itself is computed.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..geometry.vectors import Floats
from .emission import Emission
from .occlusion import visible_share
from .quadrature import polygon_points

AWAY = 3.0
"""Where the strength is looked at, m from the lamp: doors shade softly near by, and sharply only from afar."""
STEP = 1.0


@lru_cache(maxsize=256)
def beam_width(emission: Emission) -> tuple[float, float] | None:
    """Degrees to the left and to the right of the aim, as the lamp looks; 180 where it never falls to half.

    The aim is swung round the vertical. None for a sun, which has no beam.
    """
    if emission.normal_lux is not None:
        return None
    angles = np.arange(0.0, 180.0 + STEP, STEP)
    return _fall(angles, _strength(emission, -angles)), _fall(angles, _strength(emission, angles))


def _strength(emission: Emission, degrees: Floats) -> Floats:
    """cd (A,) along the aim swung by so many degrees, to the right as the lamp looks."""
    turn = np.radians(degrees)
    x, y, z = emission.face.axis
    ways = np.stack([x * np.cos(turn) - z * np.sin(turn), np.full_like(turn, y), z * np.cos(turn) + x * np.sin(turn)])
    strength = emission.candela(AWAY * ways, np.full(len(turn), AWAY))
    if not len(emission.leaves):
        return strength
    face = emission.face
    samples = polygon_points(face.outline, 4)[0] if face.area > 0.0 else face.centre[None, :]
    seen = visible_share(face.centre + AWAY * ways.T, samples, np.ones((1, len(samples))), emission.leaves)
    return np.asarray(strength * seen)


def _fall(angles: Floats, strength: Floats) -> float:
    half = 0.5 * strength[0]
    below = np.flatnonzero(strength <= half)
    if not len(below) or strength[0] <= 0.0:
        return 180.0
    k = int(below[0])
    share = (strength[k - 1] - half) / max(strength[k - 1] - strength[k], 1e-12)
    return float(angles[k - 1] + share * STEP)
