"""Shapes of things that a figure holds or wears: outline as a signed distance, and which way each place of it faces.

Units are shares of the height, x to the right as the camera sees it, y up from the floor, z towards the camera.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Protocol

import numpy as np

from ..geometry.vectors import Floats

STEEP = 0.999
"""No normal lies wholly in the picture's plane."""


class Shape(Protocol):
    """x, y (...) in, (...) or (..., 3) out; `outlines` are polygons (N, 2), `middle` a place (x, y)."""

    @property
    def middle(self) -> tuple[float, float]: ...

    def distance(self, x: Floats, y: Floats) -> Floats:
        """Signed, from its outline; inside < 0."""

    def normals(self, x: Floats, y: Floats) -> Floats:
        """What is seen of it faces that way, in the body's axes, unit length."""

    def outlines(self) -> tuple[Floats, ...]: ...


def bounds(shape: Shape) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1."""
    every = np.concatenate(shape.outlines())
    (x0, y0), (x1, y1) = every.min(axis=0), every.max(axis=0)
    return float(x0), float(y0), float(x1), float(y1)


def _ahead(across: Floats, up: Floats) -> Floats:
    """Normals (..., 3) of two parts in the picture's plane, cut where they are longer than one."""
    longest = np.maximum(np.hypot(across, up) / STEEP, 1.0)
    across, up = across / longest, up / longest
    return np.stack([across, up, np.sqrt(1.0 - across**2 - up**2)], axis=-1)


def _round(x: float, y: float, half: float, begin: float = 0.0, end: float = 2.0 * math.pi) -> Floats:
    turn = np.linspace(begin, end, 25)
    return np.stack([x + half * np.cos(turn), y + half * np.sin(turn)], axis=1)


@dataclass(frozen=True)
class Sphere:
    x: float
    y: float
    half: float

    @property
    def middle(self) -> tuple[float, float]:
        return self.x, self.y

    def distance(self, x: Floats, y: Floats) -> Floats:
        return np.asarray(np.hypot(x - self.x, y - self.y) - self.half)

    def normals(self, x: Floats, y: Floats) -> Floats:
        return _ahead((x - self.x) / self.half, (y - self.y) / self.half)

    def outlines(self) -> tuple[Floats, ...]:
        return (_round(self.x, self.y, self.half),)


@dataclass(frozen=True)
class Jar:
    """An upright cylinder, `half` wide and `tall` up and down from its middle, its corners rounded."""

    x: float
    y: float
    half: float
    tall: float

    @property
    def middle(self) -> tuple[float, float]:
        return self.x, self.y

    def distance(self, x: Floats, y: Floats) -> Floats:
        rounded = 0.25 * self.half
        across, up = np.abs(x - self.x) - (self.half - rounded), np.abs(y - self.y) - (self.tall - rounded)
        outside = np.hypot(np.maximum(across, 0.0), np.maximum(up, 0.0))
        return np.asarray(outside + np.minimum(np.maximum(across, up), 0.0) - rounded)

    def normals(self, x: Floats, y: Floats) -> Floats:
        return _ahead((x - self.x) / self.half, np.zeros(x.shape))

    def outlines(self) -> tuple[Floats, ...]:
        corners = np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]])
        return ((self.x, self.y) + corners * (self.half, self.tall),)


@dataclass(frozen=True)
class Pane(Jar):
    """The same outline, flat."""

    def normals(self, x: Floats, y: Floats) -> Floats:
        return _ahead(np.zeros(x.shape), np.zeros(x.shape))


@dataclass(frozen=True)
class Club:
    """A round rod from its grip (x, y), `reach` long towards `turn` (radians from upright, to the right), its radius
    growing from `thin` to `thick`."""

    x: float
    y: float
    reach: float
    turn: float
    thin: float
    thick: float

    @property
    def middle(self) -> tuple[float, float]:
        return self.x, self.y

    def _own(self, x: Floats, y: Floats) -> tuple[Floats, Floats]:
        """How far along its axis a place lies, and how far aside of it."""
        sin, cos = math.sin(self.turn), math.cos(self.turn)
        return (x - self.x) * sin + (y - self.y) * cos, (x - self.x) * cos - (y - self.y) * sin

    def _radius(self, along: Floats) -> Floats:
        share = np.clip(along / self.reach, 0.0, 1.0)
        return np.asarray(self.thin + (self.thick - self.thin) * share)

    def distance(self, x: Floats, y: Floats) -> Floats:
        # Of a cone so slender the nearest place of the axis is as good as straight aside.
        along, aside = self._own(x, y)
        return np.asarray(np.hypot(along - np.clip(along, 0.0, self.reach), aside) - self._radius(along))

    def normals(self, x: Floats, y: Floats) -> Floats:
        along, aside = self._own(x, y)
        radius = self._radius(along)
        beyond = (along - np.clip(along, 0.0, self.reach)) / radius
        sin, cos = math.sin(self.turn), math.cos(self.turn)
        return _ahead(aside / radius * cos + beyond * sin, beyond * cos - aside / radius * sin)

    def outlines(self) -> tuple[Floats, ...]:
        far = self.x + self.reach * math.sin(self.turn), self.y + self.reach * math.cos(self.turn)
        tip = _round(*far, self.thick, -self.turn, math.pi - self.turn)
        grip = _round(self.x, self.y, self.thin, math.pi - self.turn, 2.0 * math.pi - self.turn)
        return (np.concatenate([tip, grip]),)


@dataclass(frozen=True)
class Scoop:
    """A bowl at the end of a handle."""

    bowl: Sphere
    handle: Club

    @property
    def middle(self) -> tuple[float, float]:
        return self.bowl.middle

    def distance(self, x: Floats, y: Floats) -> Floats:
        return np.minimum(self.bowl.distance(x, y), self.handle.distance(x, y))

    def normals(self, x: Floats, y: Floats) -> Floats:
        of_bowl = self.bowl.distance(x, y) < self.handle.distance(x, y)
        return np.where(of_bowl[..., None], self.bowl.normals(x, y), self.handle.normals(x, y))

    def outlines(self) -> tuple[Floats, ...]:
        return *self.handle.outlines(), *self.bowl.outlines()


@dataclass(frozen=True)
class Spectacles:
    """Two lenses `half` wide and `tall` up and down, `apart` from the nose's middle at (x, y), in rims that a bridge
    joins; the lenses are curved, and lean as they do on a nose."""

    x: float
    y: float
    apart: float
    half: float
    tall: float
    rim: float

    @property
    def middle(self) -> tuple[float, float]:
        return self.x, self.y

    def _to_lens(self, x: Floats, y: Floats) -> tuple[Floats, Floats]:
        """From the middle of the nearer lens."""
        side = np.where(x < self.x, -1.0, 1.0)
        return np.asarray(x - self.x - side * self.apart), np.asarray(y - self.y)

    def within(self, x: Floats, y: Floats) -> Floats:
        """Signed distance from the nearer lens, without its rim; inside < 0."""
        across, up = self._to_lens(x, y)
        # An ellipse's distance, to first order.
        own = np.hypot(across / self.half, up / self.tall)
        slope = np.hypot(across / self.half**2, up / self.tall**2) / np.maximum(own, 1e-9)
        return np.asarray((own - 1.0) / np.maximum(slope, 1e-9))

    def distance(self, x: Floats, y: Floats) -> Floats:
        bridge = np.hypot(
            np.maximum(np.abs(x - self.x) - (self.apart - self.half), 0.0), y - self.y - 0.3 * self.tall
        )
        return np.minimum(self.within(x, y) - self.rim, bridge - 0.5 * self.rim)

    def normals(self, x: Floats, y: Floats) -> Floats:
        across, up = self._to_lens(x, y)
        return _ahead(across / CURVED, up / CURVED - LEANS)

    def outlines(self) -> tuple[Floats, ...]:
        ring = _round(0.0, 0.0, 1.0) * (self.half + self.rim, self.tall + self.rim)
        return tuple(ring + np.array([self.x + side * self.apart, self.y]) for side in (-1.0, 1.0))


CURVED, LEANS = 0.06, 0.1
"""Radius of a lens's outer face in shares of the height (10 cm: usual), and how far it looks down, as a sine."""
