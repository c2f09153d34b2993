"""Things that a figure holds or wears: where each is, how large it is, and its shape.

Units are shares of the height, x to the right as the camera sees it, y up from the floor.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from ..plan import Prop, Subject
from ..plan.people import PropShape
from .prop_shapes import Club, Jar, Pane, Scoop, Shape, Spectacles, Sphere, bounds

HAND_AT, HANDS_ALONE_AT = (0.213, 0.846), (0.155, 0.592)
"""Middle of the moving hand: raised, and of hands alone."""


@dataclass(frozen=True)
class Held:
    """Room in a hand for a thing whose middle is at (x, y), `half` wide and `tall` up and down from there."""

    x: float
    y: float
    half: float
    tall: float

    def formed(self, shape: PropShape) -> Shape:
        """What is held there, of a hand's shapes."""
        if shape == "sphere":
            return Sphere(self.x, self.y, self.half)
        if shape == "pane":
            return Pane(self.x, self.y, self.half, self.tall)
        grip = self.y - 0.9 * self.tall
        if shape == "bat":
            return Club(self.x, grip, 14.0 * self.half, -0.6, 0.35 * self.half, 0.85 * self.half)
        if shape == "scoop":
            handle = Club(self.x, grip, 3.4 * self.half, -0.9, 0.25 * self.half, 0.25 * self.half)
            reach = handle.reach + 0.6 * self.half
            bowl = Sphere(self.x - reach * math.sin(0.9), grip + reach * math.cos(0.9), 0.95 * self.half)
            return Scoop(bowl, handle)
        return Jar(self.x, self.y, self.half, self.tall)

    def together_with(self, first: Shape, shape: PropShape) -> Shape:
        """A second thing in the hand that has the first: what is long stands in a jar, what is not on it; beside
        anything else it is in the same grip."""
        if type(first) is Jar:
            if shape in ("scoop", "bat"):
                return self._standing_in(first, shape)
            above = 0.5 * self.half if shape == "sphere" else self.tall
            return replace(self, x=first.x, y=first.y + first.tall + above).formed(shape)
        rod = first.handle if isinstance(first, Scoop) else first
        if isinstance(rod, Club):
            return replace(self, x=rod.x, y=rod.y + (self.half if shape == "sphere" else self.tall)).formed(shape)
        x0, _, x1, _ = bounds(first)
        return replace(self, x=min(self.x, 0.2 * x0 + 0.8 * x1)).formed(shape)

    def _standing_in(self, jar: Jar, shape: PropShape) -> Shape:
        foot = min(0.95 * self.half, 0.7 * jar.half)
        x, y = jar.x - 0.25 * jar.half, jar.y - jar.tall + 1.2 * foot
        if shape == "bat":
            return Club(x, y, 14.0 * self.half, LEANS, 0.35 * self.half, 0.85 * self.half)
        reach = (jar.y + jar.tall + 1.6 * self.half - y) / math.cos(LEANS)
        return Scoop(Sphere(x, y, foot), Club(x, y, reach, LEANS, 0.25 * self.half, 0.25 * self.half))


LEANS = 0.3
"""What stands in a jar leans against its rim, radians."""
HELD = (Held(-0.228, 0.856, 0.024, 0.048), Held(-0.186, 0.851, 0.015, 0.030))
HELD_LOW = (Held(-0.229, 0.615, 0.030, 0.046), Held(-0.180, 0.603, 0.018, 0.036))
"""Where the first and the second prop are held, by a standing figure and by reaching hands."""
BEFORE = 0.05
"""How far before the middle of the body."""
SPECTACLES, BEFORE_EYES = Spectacles(0.0, 0.9335, 0.0182, 0.0145, 0.0125, 0.0014), 0.07
"""Worn: the eyes of the modelled heads are there (`scripts/bodies/head.py`); usual frames are 14 cm wide."""


@dataclass(frozen=True)
class Shown:
    """A thing as it is in the picture, its shape, and how far it is before the middle of the body."""

    prop: Prop
    shape: Shape
    before: float

    @property
    def worn(self) -> bool:
        """On the body, which is behind it."""
        return isinstance(self.shape, Spectacles)


def shown_props(subject: Subject) -> tuple[Shown, ...]:
    """Glasses on the nose, and the first of all other things, as many as can be held. What is said to lie on skin or
    clothes has no shape of its own."""
    hands = iter(HELD_LOW if subject.framing == "hands" else HELD)
    found: list[Shown] = []
    in_hand: Shape | None = None
    for prop in subject.props:
        if prop.held and (held := next(hands, None)) is not None:
            in_hand = held.formed(prop.formed) if in_hand is None else held.together_with(in_hand, prop.formed)
            found.append(Shown(prop, in_hand, BEFORE))
        elif prop.formed == "glasses" and subject.framing != "hands":
            found.append(Shown(prop, SPECTACLES, BEFORE_EYES))
    return tuple(found)


def hand_at(subject: Subject) -> tuple[float, float]:
    """Middle of the moving hand in shares of the height."""
    return HANDS_ALONE_AT if subject.framing == "hands" else HAND_AT
