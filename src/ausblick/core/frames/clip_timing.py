"""A clip in time: flicker, drift, temporal noise and breaches, from the level of every frame on the screen."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Bools, Floats
from ..standards.quantities import Hertz, Percent, Points, Seconds
from .reading import FrameReading

LEAST_FRAMES = 8
SURE = 4.0
"""A line in the spectrum counts as flicker when it stands this many times above the rest's root mean square."""


@dataclass(frozen=True)
class ClipTiming:
    """flicker: peak to peak of the strongest periodic change of the screen's level, points of signal, and its
    frequency in Hz as the clip shows it (None: none stands out); drift: level of the last tenth less the first's."""

    flicker_percent: Points
    flicker_hz: Hertz | None
    drift_percent: Points


@dataclass(frozen=True)
class Breach:
    """From when to when, in s, the subject touches the frame's edge or leaves the screen, and on which sides."""

    begins: Seconds
    ends: Seconds
    sides: tuple[str, ...]


@dataclass(frozen=True)
class ClipReading:
    """`frame`: the reading of the middle frame; `worst`: the frame furthest from the clip's mean level."""

    frame: FrameReading
    frames: int
    timing: ClipTiming
    temporal_noise_percent: Percent | None
    worst: int
    breaches: tuple[Breach, ...]


def timing_of(levels: Floats, fps: float) -> ClipTiming:
    """From the screen's level in % of every frame (N,)."""
    count = len(levels)
    if count < 2:
        return ClipTiming(0.0, None, 0.0)
    tenth = max(1, count // 10)
    drift = float(levels[-tenth:].mean() - levels[:tenth].mean())
    if count < LEAST_FRAMES:
        return ClipTiming(0.0, None, drift)
    t = np.arange(count)
    # Slow change is drift; what is left is looked at for a line.
    rest = levels - np.polyval(np.polyfit(t, levels, min(3, count // 8 + 1)), t)
    window = np.hanning(count)
    spectrum = np.abs(np.fft.rfft(rest * window)) * 2.0 / window.sum()
    spectrum[:2] = 0.0
    best = int(np.argmax(spectrum))
    others = np.delete(spectrum, [i for i in range(best - 2, best + 3) if 0 <= i < len(spectrum)])
    floor = float(np.sqrt((others**2).mean())) if len(others) else 0.0
    amplitude = float(spectrum[best])
    if amplitude <= max(SURE * floor, 0.02):
        return ClipTiming(0.0, None, drift)
    return ClipTiming(2.0 * amplitude, _between_bins(spectrum, best) * fps / count, drift)


def _between_bins(spectrum: Floats, best: int) -> float:
    """The line's place between bins by the parabola through the logarithms of three of them."""
    if not 0 < best < len(spectrum) - 1:
        return float(best)
    a, b, c = np.log(np.maximum(spectrum[best - 1 : best + 2], 1e-12))
    bend = a - 2.0 * b + c
    return float(best + 0.5 * (a - c) / bend) if abs(bend) > 1e-12 else float(best)


def breaches_of(touching: list[tuple[float, tuple[str, ...]]], step: float) -> tuple[Breach, ...]:
    """Stretches of sampled frames (time in s, sides) on which something touches; `step` between samples."""
    found: list[Breach] = []
    for time, sides in touching:
        if not sides:
            continue
        if found and time - found[-1].ends <= 1.5 * step:
            merged = tuple(sorted({*found[-1].sides, *sides}))
            found[-1] = Breach(found[-1].begins, time, merged)
        else:
            found.append(Breach(time, time, sides))
    return tuple(found)


def level_on(values: Floats, mask: Bools) -> float:
    """Mean % of signal of some of a frame's luma (h, w), 0..1, on the screen."""
    return 100.0 * float(values[mask].mean()) if mask.any() else 0.0
