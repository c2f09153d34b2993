"""How much of the solid figure the key takes with the screen.

    light over a body that turns away  = sqrt(1 - 0.92 t^2) * front + 0.75 * |t|^1.5 * side,  t = -1..1 across it
    matte                              = clip((1 - d / d_screen - 0.03) / (white clip - 0.03))

Light on the cloth against light on the screen matters, not equal light. No constant is fitted.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..geometry.vectors import Floats
from .formula import colour_difference
from .screen_signal import ScreenSignal

TURNS = np.linspace(-0.93, 0.93, 15)[:, None]
OF_FRONT, OF_SIDE = np.sqrt(1.0 - 0.92 * TURNS * TURNS), 0.75 * np.abs(TURNS) ** 1.5
BLACK = 0.03


@dataclass(frozen=True, eq=False)
class Lit:
    """A thing's reflectance (3,), and the linear light (3,) on its front and on both its sides."""

    ink: Floats
    front: Floats
    sides: tuple[Floats, Floats]

    @cached_property
    def light(self) -> Floats:
        """Linear light (T, 3) across it."""
        side = np.where(TURNS < 0.0, self.sides[0], self.sides[1])
        return np.asarray(self.ink * (OF_FRONT * self.front + OF_SIDE * side))


def losses_of(things: Mapping[str, Lit], screen: ScreenSignal, key: int) -> dict[str, float]:
    """1 - matte of each thing in %, by the screen's formula."""
    if not things:
        return {}
    looks = np.minimum(np.stack([thing.light for thing in things.values()]), 1.0)
    white = 1.0 - min(max(3.0 * screen.noise_share, 0.04), 0.3)
    raw = 1.0 - colour_difference(looks, key, screen.formula) / screen.median
    kept = np.clip((raw - BLACK) / (white - BLACK), 0.0, 1.0).mean(axis=1)
    return {name: 100.0 * (1.0 - float(each)) for name, each in zip(things, kept, strict=True)}


def figure_loss(losses: Mapping[str, float], shares: Mapping[str, float]) -> float:
    """Of all that is drawn of the figure, by the area that each takes."""
    return sum(share * losses[name] for name, share in shares.items()) / sum(shares.values())
