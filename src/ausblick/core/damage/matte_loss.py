"""How much of the solid figure the key takes with the screen.

    matte = clip((1 - d / d_screen - black) / (white - black))       of places all across it (round_form.py)

Light on the cloth against light on the screen matters, not equal light. The black clip is the moving hand's, fitted
there.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..geometry.vectors import Floats
from .formula import colour_difference
from .screen_signal import ScreenSignal

BLACK, BLACK_BY_NOISE, BLACK_BY_FOLDS, MOST_BLACK = 0.005, 5.97, 1.24, 0.6
"""The black clip near the figure: its least, by the noise, by what folds add to the clip that the screen needs."""


def black_clip(noise: float, folds: float) -> float:
    """`noise`: share of d of the screen; `folds`: what they add to the clip."""
    return min(MOST_BLACK, BLACK + BLACK_BY_NOISE * noise + BLACK_BY_FOLDS * folds)


@dataclass(frozen=True, eq=False)
class Lit:
    """A thing's reflectance (3,), and the linear light (T, 3) on places all across it."""

    ink: Floats
    on_it: Floats

    @cached_property
    def light(self) -> Floats:
        """Linear light (T, 3) that it sends back."""
        return np.asarray(self.ink * self.on_it)


def losses_of(things: Mapping[str, Lit], screen: ScreenSignal, key: int, black: float) -> dict[str, float]:
    """1 - matte of each thing in %, by the screen's formula."""
    if not things:
        return {}
    looks = np.minimum(np.stack([thing.light for thing in things.values()]), 1.0)
    white = 1.0 - min(max(3.0 * screen.noise_share, 0.04), 0.3)
    raw = 1.0 - colour_difference(looks, key, screen.formula) / screen.median
    kept = np.clip((raw - black) / max(0.05, white - black), 0.0, 1.0).mean(axis=1)
    return {name: 100.0 * (1.0 - float(each)) for name, each in zip(things, kept, strict=True)}


def figure_loss(losses: Mapping[str, float], shares: Mapping[str, float]) -> float:
    """Of all that is drawn of the figure, by the area that each takes; 0 where nothing of it is to be kept."""
    return sum(share * losses[name] for name, share in shares.items()) / max(sum(shares.values()), 1e-9)
