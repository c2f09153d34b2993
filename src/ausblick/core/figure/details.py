"""What makes the figure a person with something in its hand: a face, and props that are seen through or mirror."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Subject
from ..plan.people import HIPS
from .limbs import HAND_AT, LAYERS, Layer, Limb, hand, pair

FACE = (
    # x, y, half width, half height, share of light that is lost
    (-0.0165, 0.9255, 0.0062, 0.0030, 0.80), (0.0165, 0.9255, 0.0062, 0.0030, 0.80),
    (-0.0170, 0.9350, 0.0095, 0.0022, 0.45), (0.0170, 0.9350, 0.0095, 0.0022, 0.45),
    (0.0035, 0.9120, 0.0045, 0.0100, 0.14), (0.0, 0.9050, 0.0060, 0.0020, 0.40),
    (0.0, 0.8935, 0.0115, 0.0021, 0.50), (0.0, 0.8890, 0.0090, 0.0022, 0.18),
)  # fmt: skip
"""Eyes, brows, nose and mouth in shares of the height."""
HOLDING = (
    Layer("sleeve", (
        Limb(-0.108, 0.785, 0.034, -0.168, 0.670, 0.027), Limb(-0.168, 0.670, 0.027, -0.212, 0.750, 0.019),
    ), 0.03),
    Layer("hands", hand(-0.216, 0.774, -8.0), 0.025),
)  # fmt: skip
REACHING = (
    Layer("sleeve", (Limb(-0.50, 0.495, 0.036, -0.262, 0.560, 0.021),), 0.03),
    Layer("hands", hand(-0.225, 0.570, 74.0), 0.025),
    Layer("forearm", (Limb(0.50, 0.495, 0.036, 0.205, 0.575, 0.021),), 0.03, moves=True),
    Layer("moving hand", hand(0.168, 0.588, -66.0, 1.05), 0.025, moves=True),
)
"""For a picture of hands the body stands beside the frame and reaches into it."""
HELD = (Limb(-0.228, 0.828, 0.024, -0.228, 0.884, 0.024), Limb(-0.186, 0.836, 0.015, -0.186, 0.866, 0.015))
HELD_LOW = (Limb(-0.152, 0.600, 0.030, -0.152, 0.655, 0.030), Limb(-0.060, 0.560, 0.018, -0.060, 0.600, 0.018))
"""Where the first and the second prop are held, by a standing figure and by reaching hands."""
SMOKE = 0.35


def layers_of(subject: Subject) -> tuple[Layer, ...]:
    """The figure's layers in the order they are painted; with a prop one arm is raised to hold it."""
    if subject.framing == "hands":
        return REACHING
    own = {layer.name: layer for layer in HOLDING} if subject.props else {}
    if subject.posture == "seated":
        own |= {layer.name: layer for layer in seated_legs(subject.height, subject.lowered)}
    layers = tuple(own.get(layer.name, layer) for layer in LAYERS) if own else LAYERS
    return (chair(subject.height, subject.lowered), *layers) if subject.posture == "seated" else layers


def seated_legs(height: float, lowered: float) -> tuple[Layer, Layer]:
    """Thighs toward the lens, foreshortened, and shins down to the floor, which lies `lowered` m above where a
    standing figure's would; in shares of the height."""
    floor, knee = lowered / height, HIPS - 0.02
    thigh, shin = (0.05, HIPS, 0.056, 0.062, knee, 0.050), (0.062, knee, 0.042, 0.066, floor + 0.05, 0.024)
    feet = pair((0.066, floor + 0.02, 0.02, 0.09, floor + 0.013, 0.013))
    return Layer("legs", pair(thigh, shin), 0.05), Layer("feet", feet, 0.03)


def chair(height: float, lowered: float) -> Layer:
    """A plain chair from the front, of usual size whatever the height of who sits on it: seat, four legs, two posts
    and two rails of the back; in shares of the height as the figure's."""
    floor, m = lowered / height, 1.0 / height
    seat = HIPS - 0.03 * m
    legs = pair(
        (0.19 * m, seat, 0.020 * m, 0.21 * m, floor + 0.012 * m, 0.012 * m),
        (0.17 * m, seat, 0.018 * m, 0.17 * m, floor + 0.10 * m, 0.011 * m),
    )
    posts = pair((0.19 * m, seat, 0.018 * m, 0.20 * m, seat + 0.42 * m, 0.015 * m))
    rails = (
        Limb(-0.20 * m, seat + 0.40 * m, 0.035 * m, 0.20 * m, seat + 0.40 * m, 0.035 * m),
        Limb(-0.19 * m, seat + 0.20 * m, 0.015 * m, 0.19 * m, seat + 0.20 * m, 0.015 * m),
        Limb(-0.21 * m, seat, 0.022 * m, 0.21 * m, seat, 0.022 * m),
    )
    return Layer("chair", (*legs, *posts, *rails), 0.25 * m)


def held_by(subject: Subject) -> tuple[Limb, ...]:
    """Places of the props, the first ones of as many as can be held."""
    return (HELD_LOW if subject.framing == "hands" else HELD)[: len(subject.props)]


def hand_at(subject: Subject) -> tuple[float, float]:
    """Middle of the moving hand in shares of the height."""
    return (0.155, 0.592) if subject.framing == "hands" else HAND_AT


def face_shade(x: Floats, y: Floats) -> Floats:
    """Share of light (...) that the face's features leave at places x, y (...) in shares of the height."""
    shade = np.ones(x.shape)
    for cx, cy, rx, ry, lost in FACE:
        away = ((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2
        shade *= 1.0 - lost * np.exp(-(away**2))
    return shade


@dataclass(frozen=True)
class Look:
    """A prop at some pixels: how much of what is behind it covers (...), and its colour (..., 3)."""

    alpha: Floats
    colour: Floats


def prop_look(kind: str, ink: Floats, turn: Floats, front: Floats, screen: Floats) -> Look:
    """`turn` (...): -1 at the left rim, 1 at the right; light of the front (3,) and colour of the screen (3,).

    Metal mirrors the screen along its rim, glass is seen through but for its rim, smoke is thin everywhere.
    """
    rim = np.abs(turn)
    facing = np.sqrt(np.clip(1.0 - 0.9 * turn * turn, 0.05, 1.0))
    body = facing[..., None] * ink * front
    shine = np.exp(-(((turn + 0.45) / 0.10) ** 2))
    if kind == "metal":
        mirrored = np.clip((rim - 0.62) / 0.3, 0.0, 1.0)[..., None]
        colour = (1.0 - mirrored) * 0.8 * body + mirrored * 0.75 * screen + 0.5 * shine[..., None] * front
        return Look(np.ones(turn.shape), colour)
    if kind == "glass":
        alpha = np.clip(0.10 + 0.65 * rim**6 + 0.6 * shine, 0.0, 1.0)
        return Look(alpha, np.broadcast_to(0.5 * front, (*turn.shape, 3)))
    if kind == "liquid":
        return Look(np.clip(0.55 + 0.4 * rim**4, 0.0, 1.0), body)
    if kind == "smoke":
        return Look(SMOKE * facing, body)
    return Look(np.ones(turn.shape), body)
