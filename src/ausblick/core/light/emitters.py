"""What a lamp's face is: its place, its axes, its outline, and its beam.

 aim                 the face looks along `axis`; `up` is as near to +y as it can be,
  ^  up              straight up or down: toward -z
  |  /
[face] ----> axis
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats, cross, unit
from ..plan import Fixture
from ..plan.lamps import DiscEmitter, PointEmitter, RectEmitter, SunEmitter, WindowEmitter

DISC_SIDES = 32
AnyEmitter = PointEmitter | RectEmitter | DiscEmitter | SunEmitter | WindowEmitter


@dataclass(frozen=True, eq=False)
class Face:
    """Centre, axis, right, up: (3,) each; `outline` (N, 3), counter-clockwise seen from the front.

    A point source has an empty outline and area 0.
    """

    centre: Floats
    axis: Floats
    right: Floats
    up: Floats
    outline: Floats
    area: float


def face_at(centre: Floats, axis: Floats, emitter: AnyEmitter) -> Face:
    """A face of the emitter's size at `centre` (3,) m looking along `axis` (3,), unit length."""
    up = np.array([0.0, 1.0, 0.0]) - axis[1] * axis
    up = unit(up) if np.linalg.norm(up) > 1e-6 else np.array([0.0, 0.0, -1.0])
    right = cross(up, axis)
    flat, area = _outline(emitter)
    outline = centre + flat[:, :1] * right + flat[:, 1:] * up
    return Face(centre, axis, right, up, outline, area)


def _outline(emitter: AnyEmitter) -> tuple[Floats, float]:
    """Outline in the face's own plane (N, 2) in m and its area in m2."""
    if emitter.shape in ("rect", "window"):
        w, h = emitter.width / 2.0, emitter.height / 2.0
        return np.array([[-w, -h], [w, -h], [w, h], [-w, h]]), 4.0 * w * h
    if emitter.shape == "disc":
        # A polygon of equal area: at 32 sides its light is that of the disc to better than 0.1 %.
        turn = 2.0 * math.pi * np.arange(DISC_SIDES) / DISC_SIDES
        area = math.pi * (emitter.diameter / 2.0) ** 2
        radius = math.sqrt(2.0 * area / (DISC_SIDES * math.sin(2.0 * math.pi / DISC_SIDES)))
        return radius * np.stack([np.cos(turn), np.sin(turn)], axis=1), area
    return np.zeros((0, 2)), 0.0


def lobe_exponent(fixture: Fixture) -> float:
    """Exponent n of the lamp's cosine lobe. For a beam of full half-peak angle b: ln(1/2)/ln cos(b/2).

    Raises ValueError for a beam read from a photometry file, which is no cosine lobe.
    """
    beam = fixture.beam
    if beam.kind == "cosine":
        return beam.n
    if beam.kind == "beam":
        return math.log(0.5) / math.log(math.cos(math.radians(beam.deg / 2.0)))
    if beam.kind == "ies":
        raise ValueError("a photometry file is no cosine lobe")
    return 1.0


def peak_candela(fixture: Fixture) -> float:
    """Peak intensity in cd: given, or from the flux of a cosine lobe, flux*(n + 1) / 2pi.

    n = 0 shines in all directions: flux / 4pi.
    """
    if fixture.peak_cd is not None:
        return fixture.peak_cd
    n = lobe_exponent(fixture)
    flux = fixture.luminous or 0.0
    return flux / (4.0 * math.pi) if n == 0.0 else flux * (n + 1.0) / (2.0 * math.pi)


def lobe(cosine: Floats, n: float) -> Floats:
    """Relative intensity at angles given by their cosine; nothing behind unless n = 0."""
    if n == 0.0:
        return np.ones_like(cosine)
    return np.asarray(np.clip(cosine, 0.0, None) ** n)
