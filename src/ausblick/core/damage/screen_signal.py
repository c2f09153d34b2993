"""What the key is cut from: the colour difference of every judged place of the screen, its noise and its folds."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ..camera.sensor_noise import noise_linear
from ..geometry.vectors import Floats
from ..plan import Camera
from .formula import Formula, colour_difference

DARK, LEAST = 1e-6, 1e-3
"""Linear light, white = 1."""


@dataclass(frozen=True, eq=False)
class ScreenPatch:
    """Judged places of one surface: linear light (N, 3), white = 1 and not yet clipped; `open`: how many times that
    without the figure's shadow (N,); `folds`: contrast (N,); how much each counts (N,)."""

    linear: Floats
    open: Floats
    folds: Floats
    share: Floats


@dataclass(frozen=True, eq=False)
class ScreenSignal:
    """d (N,) by a formula, as recorded, clipped at white; `noise`: its standard
    deviation (N,); `folds`, `open`, `share` as in a patch; `median` of d; `whole` (N,) and `unclipped`: d and its
    median had nothing clipped; `light` (3,): the linear light of that place, unclipped too."""

    formula: Formula
    d: Floats
    noise: Floats
    folds: Floats
    open: Floats
    share: Floats
    median: float
    whole: Floats
    unclipped: float
    light: Floats

    @cached_property
    def noise_share(self) -> float:
        """Noise of d over d at the median screen."""
        return float(_weighted_median(self.noise, self.share)) / max(self.median, 1e-9)

    @property
    def clipped(self) -> float:
        """How much more d there would be without clipping, as a share: 0 where nothing clips."""
        return max(0.0, self.unclipped / max(self.median, 1e-9) - 1.0)

    def as_if_unclipped(self) -> ScreenSignal:
        """The same had nothing clipped."""
        return replace(self, d=self.whole, median=self.unclipped)

    def evenly(self, *, folds: bool = True, shadow: bool = True, noise: bool = True) -> ScreenSignal:
        """The same without one of its faults."""
        return replace(
            self,
            d=self.d if shadow else self.d * self.open,
            folds=self.folds if folds else np.zeros_like(self.folds),
            noise=self.noise if noise else np.zeros_like(self.noise),
        )


def signal_of(patches: Sequence[ScreenPatch], key: int, camera: Camera, formula: Formula) -> ScreenSignal | None:
    """Of all judged places; None where there is none or no light on them."""
    found = [patch for patch in patches if len(patch.linear)]
    if not found:
        return None
    linear = np.concatenate([patch.linear for patch in found])
    shown = np.minimum(linear, 1.0)
    share = np.concatenate([patch.share for patch in found])
    d = colour_difference(shown, key, formula)
    middle, whole = _weighted_middle(d, share), d
    median = float(d[middle])
    if float(linear.max()) > 1.0:
        whole = colour_difference(linear, key, formula)
        middle = _weighted_middle(whole, share)
    unclipped = float(whole[middle])
    if not unclipped > DARK:
        return None
    # A screen at white in every channel has no difference left: as little as a code value stands for it.
    median = max(median, LEAST)
    return ScreenSignal(
        formula=formula,
        d=d,
        noise=_noise(linear, key, camera, formula),
        folds=np.concatenate([patch.folds for patch in found]),
        open=np.concatenate([patch.open for patch in found]),
        share=share,
        median=median,
        whole=whole,
        unclipped=unclipped,
        light=linear[middle],
    )


def _noise(linear: Floats, key: int, camera: Camera, formula: Formula) -> Floats:
    """Standard deviation (N,) of d. A channel that clips has no noise left."""
    sigma = np.where(linear < 1.0, noise_linear(np.minimum(linear, 1.0), camera), 0.0)
    a, b = (c for c in range(3) if c != key)
    if formula == "larger":
        others = np.where(linear[:, a] > linear[:, b], sigma[:, a], sigma[:, b])
    else:
        others = 0.5 * np.hypot(sigma[:, a], sigma[:, b])
    return np.asarray(np.hypot(sigma[:, key], others))


def _weighted_median(values: Floats, weights: Floats) -> float:
    return float(values[_weighted_middle(values, weights)])


def _weighted_middle(values: Floats, weights: Floats) -> int:
    """Where the weighted median is."""
    order = np.argsort(values)
    total = np.cumsum(weights[order])
    return int(order[int(np.searchsorted(total, 0.5 * total[-1]))])
