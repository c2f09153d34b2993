"""The judged screen as either formula of the key sees it: one for everybody who stands before it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..camera.level_schools import key_channel
from ..plan import Plan
from .formula import FORMULAS
from .needed_clip import ScreenClip, clips_of
from .screen_signal import ScreenPatch, ScreenSignal, signal_of


@dataclass(frozen=True)
class KeyedScreen:
    """By the colour difference against the mean of the other channels, and against the larger: what it gives of the
    screen, and the clip that holds it. `key`: the screen's channel."""

    key: int
    signals: tuple[ScreenSignal, ...]
    clips: tuple[ScreenClip, ...]


def keyed_screen(plan: Plan, patches: Sequence[ScreenPatch]) -> KeyedScreen | None:
    """`patches`: the judged screen. None where none of it is lit."""
    key = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    signals = [signal_of(patches, key, plan.camera, formula) for formula in FORMULAS]
    lit = tuple(each for each in signals if each is not None)
    if len(lit) < len(FORMULAS):
        return None
    return KeyedScreen(key, lit, tuple(clips_of(lit)))
