"""The clip that holds the whole screen, and which faults it comes from.

    clip = 99.5 % quantile over the judged places of 1 - d / median(d), each spread by a normal of
           s^2 = (noise of d / median)^2 + (half the fold's contrast * d / median)^2

Only the dark side against the median costs clip: a hot spot costs none. No constant is fitted.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats, Ints
from .screen_signal import ScreenSignal

QUANTILE = 0.995
STEPS = 12
BINS = 120
"""A clip read from so many groups of places of like signal is within 0.005 of one read from all (mean 0.001)."""


def needed_clip(signal: ScreenSignal) -> float:
    """As a share of the matte, 0 to 1."""
    return needed_clips([signal])[0]


def needed_clips(signals: Sequence[ScreenSignal]) -> list[float]:
    """Of several screens, searched for side by side."""
    groups: dict[int, Groups] = {}
    for signal in signals:
        if id(signal.d) not in groups:
            groups[id(signal.d)] = Groups.of(1.0 - signal.d / signal.median, signal.share)
    own = [groups[id(signal.d)] for signal in signals]
    spread = np.stack(
        [
            group.spread(np.hypot(signal.noise, 0.5 * signal.folds * signal.d) / signal.median)
            for group, signal in zip(own, signals, strict=True)
        ]
    )
    middle, weights = np.stack([group.middle for group in own]), np.stack([group.weights for group in own])
    low, high = np.zeros(len(signals)), np.ones(len(signals))
    for _ in range(STEPS):
        at = 0.5 * (low + high)
        held = np.einsum("sb,sb->s", _below((at[:, None] - middle) / spread), weights)
        low, high = np.where(held < QUANTILE, at, low), np.where(held < QUANTILE, high, at)
    return [float(clip) for clip in 0.5 * (low + high)]


BELOW_AT = np.linspace(-6.0, 6.0, 2401)
BELOW = np.array([0.5 * math.erfc(-at / math.sqrt(2.0)) for at in BELOW_AT])


def _below(at: Floats) -> Floats:
    """Share of a normal's values below (...) its standard deviations, to 1e-6, by a table: SciPy's own would take a
    third of a second to load, of every command."""
    return np.asarray(np.interp(at, BELOW_AT, BELOW))


@dataclass(frozen=True, eq=False)
class Groups:
    """Places (N,) of like middle taken together: which of the BINS groups each is in, how much it counts, and how
    far from its group's middle it lies, squared; of each group the mean middle and its weight (BINS,)."""

    which: Ints
    share: Floats
    apart2: Floats
    middle: Floats
    held: Floats

    @staticmethod
    def of(middle: Floats, share: Floats) -> Groups:
        low, high = float(middle.min()), float(middle.max())
        which = ((middle - low) * (BINS / max(high - low, 1e-9))).astype(int)
        which = np.minimum(which, BINS - 1)
        held = np.asarray(np.bincount(which, share, BINS), dtype=float)
        mean = np.bincount(which, share * middle, BINS) / np.maximum(held, 1e-12)
        return Groups(which, share, np.square(middle - mean[which]), mean, held)

    @property
    def weights(self) -> Floats:
        """Of the groups, 1 together."""
        return np.asarray(self.held / self.held.sum())

    def spread(self, own: Floats) -> Floats:
        """Root mean square spread (BINS,) of places that spread by `own` (N,), with how far apart they lie."""
        sums = np.bincount(self.which, self.share * (own * own + self.apart2), BINS)
        return np.asarray(np.maximum(np.sqrt(sums / np.maximum(self.held, 1e-12)), 1e-4))


@dataclass(frozen=True)
class ScreenClip:
    """What holds a screen, as a share of the matte, and what each fault adds to it: shadow, folds, noise, clipping,
    and unevenness, which is what a screen without the other four still needs. `unclipped`: what it would need had
    nothing clipped; what is cut off at white hides how uneven it was."""

    needed: float
    unclipped: float
    causes: Mapping[str, float]


def clips_of(signals: Sequence[ScreenSignal]) -> list[ScreenClip]:
    """Of several screens; what a fault adds is told by the clip without it."""
    versions = [_with_and_without(signal) for signal in signals]
    found = iter(needed_clips([one for own in versions for one in own]))
    return [_clip(*(next(found) for _ in own)) for own in versions]


def _with_and_without(signal: ScreenSignal) -> list[ScreenSignal]:
    unshaded = signal.evenly(shadow=False)
    return [
        signal,
        unshaded.evenly(folds=False, noise=False),
        unshaded,
        signal.evenly(folds=False),
        signal.evenly(noise=False),
        *([signal.as_if_unclipped()] if signal.clipped > 0.0 else []),
    ]


def _clip(
    whole: float, alone: float, unshaded: float, flat: float, quiet: float, unclipped: float | None = None
) -> ScreenClip:
    causes = {"unevenness": alone, "shadow": whole - unshaded, "folds": whole - flat, "noise": whole - quiet}
    if unclipped is None:
        return ScreenClip(whole, whole, causes)
    by_clipping = max(0.0, whole - unclipped)
    causes |= {"unevenness": max(0.0, alone - by_clipping), "clipping": by_clipping}
    return ScreenClip(whole, unclipped, causes)
