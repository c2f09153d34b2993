"""Light across head, chest and legs as the camera sees them: what arrives round about, less the body's own shadow.

    light of a place      = white left * (light - colour) + colour left * colour
    colour of light       = its key channel above the mean of the others, in that channel
    light at a turn       = parabolas through what arrives at TURNED
    turn at a share t     = atan(depth * t / sqrt(1 - t^2)),  t = -1..1 across: an ellipse

Arms, chin and folds keep lamps off more than what comes from all round, and the same turn is seen in the light here
and in a shadow there. So each strip is seen in three like parts, the darkest third of such places first. How much is
left was read off the modelled body in 82 lit sets, by how far a place is turned away (docs/model.md); a hand's is a
tenth less, by which what moves is told best.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..light.round_figure import TURNED

SHARES = np.linspace(-0.93, 0.93, 15)
"""Where across a part, of its half width."""
LEFT_AT = (0.0, 45.0, 75.0)
"""Degrees turned away, by which is told what is left."""


@dataclass(frozen=True)
class Form:
    """How deep a part is, of its width; what of white light and of colour is left at LEFT_AT, by thirds."""

    depth: float
    white: tuple[tuple[float, float, float], ...]
    colour: tuple[tuple[float, float, float], ...]


WHOLE = 3 * ((1.0, 1.0, 1.0),)
"""A sleeve that is held out: by nothing else is a moving arm told better."""
FORMS = {
    "chest": Form(0.58, ((0.78, 0.53, 0.30), (0.96, 0.92, 0.85), (1.21, 1.17, 1.12)),
                  ((1.30, 0.66, 0.43), (1.17, 0.95, 0.77), (0.95, 0.90, 0.75))),
    "legs": Form(1.0, ((0.47, 0.31, 0.20), (0.93, 0.76, 0.65), (1.10, 1.08, 1.10)),
                 ((0.85, 0.64, 0.25), (1.05, 0.91, 0.62), (0.83, 0.87, 0.65))),
    "head": Form(1.0, ((0.69, 0.70, 0.72), (0.96, 0.93, 0.98), (1.08, 1.05, 1.05)),
                 ((0.79, 0.60, 0.33), (0.90, 0.77, 0.63), (0.90, 0.84, 0.71))),
    "sleeve": Form(1.0, WHOLE, WHOLE),
    "hand": Form(1.0, ((0.72, 0.47, 0.30), (0.95, 0.76, 0.66), (1.29, 1.11, 1.04)),
                 ((0.89, 0.31, 0.00), (0.94, 0.62, 0.30), (0.96, 0.80, 0.60))),
}  # fmt: skip
FROM = {"sleeve": "chest", "hand": "chest"}
"""Round which part the light of one is taken that has no places of its own."""


def across(shares: Floats, depth: float) -> Floats:
    """Weights (T, 5) of the light at TURNED for places `shares` (T,) of a part that deep: parabolas through three of
    them, and between two in the middle both that there are."""
    step = math.radians(TURNED[1] - TURNED[0])
    at = (_turned(shares, depth) - math.radians(TURNED[0])) / step
    weights, rows = np.zeros((len(shares), len(TURNED))), np.arange(len(shares))
    before = np.clip(np.floor(at), 0, len(TURNED) - 2).astype(int)
    past = at - before
    for first in range(len(TURNED) - 2):
        # The parabola through `first` and the two after it counts the more, the nearer the middle one is.
        nearness = np.where(before == first, past, np.where(before == first + 1, 1.0 - past, 0.0))
        alone = ((before == 0) & (first == 0)) | ((before == len(TURNED) - 2) & (first == len(TURNED) - 3))
        share = np.where(alone, 1.0, nearness)
        u = at - first
        for i, weight in enumerate((0.5 * (u - 1.0) * (u - 2.0), u * (2.0 - u), 0.5 * u * (u - 1.0))):
            weights[rows, first + i] += share * weight
    return weights


def _turned(shares: Floats, depth: float) -> Floats:
    return np.asarray(np.arctan2(depth * shares, np.sqrt(1.0 - shares * shares)))


def _left(form: Form) -> tuple[Floats, Floats]:
    """What of white and of colour (3, T, 1) is left at SHARES."""
    away = np.degrees(np.abs(_turned(SHARES, form.depth)))
    white, colour = (
        np.array([np.interp(away, LEFT_AT, third) for third in of])[..., None] for of in (form.white, form.colour)
    )
    return white, colour


ACROSS = {part: across(SHARES, form.depth) for part, form in FORMS.items()}
LEFT = {part: _left(form) for part, form in FORMS.items()}


def seen_light(part: str, around: Floats, key: int) -> Floats:
    """Linear light (3 * 15, 3) on a part, of that `around` it (5, 3) at TURNED; `key`: the key channel's index."""
    light = ACROSS[part] @ around
    colour = np.zeros_like(light)
    colour[:, key] = 1.5 * light[:, key] - 0.5 * light.sum(axis=1)
    white_left, colour_left = LEFT[part]
    return np.asarray(white_left * (light - colour) + colour_left * colour).reshape(-1, 3)


def outer_sides(light: Floats) -> Floats:
    """Of what is seen of a part, `light` (3 * 15, 3), that at its outline left and right (2, 3)."""
    return np.asarray(light.reshape(3, -1, 3)[:, [0, -1]].mean(axis=0))


def seen_lights(around: Mapping[str, Floats], key: int) -> dict[str, Floats]:
    """Of every part; empty where nobody is."""
    return {part: seen_light(part, around[FROM.get(part, part)], key) for part in FORMS} if around else {}
