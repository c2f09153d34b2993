"""A clip in time: flicker, drift, temporal noise and breaches, from the level of every frame on the screen."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import minimize_scalar

from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Hertz, Percent, Points, Seconds
from .bands import Bands
from .reading import FrameReading

LEAST_FRAMES = 8
SURE = 4.0
"""A line in the spectrum counts as flicker when it stands this many times above the rest's root mean square: of all
of the rest, and of what lies within an octave, as slow change of every kind is strong where it is slow."""
NEIGHBOURS = 3
"""Bins within an octave, below and above, that it takes to tell; with fewer the wave must be all that there is."""
PLAIN, GRAIN, ROUGH = 6.0, 2.0, 0.04
"""All that there is: from peak to peak so many times what it leaves, which is no more than so many times what changes
from frame to frame, or this share of the wave."""
OVERTONES = 2
FAINT = 0.3
"""Points from peak to peak below which a few turns are not told from chance."""


NEAR_HALF = 0.45
"""Cycles a frame from which a wave is written as the difference of two large ones."""
OUTLIER = 4.0
"""Standard deviations beyond which a change is a movement."""
BEAT_FRAMES = 16
BEAT_LEFT = 0.3
"""A slow wave leaves less than this share of what a straight drift leaves."""


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
    """`frame`: the reading of the middle frame; `worst`: the frame furthest from the clip's mean level; `bands`: None
    where none are seen."""

    frame: FrameReading
    frames: int
    timing: ClipTiming
    temporal_noise_percent: Percent | None
    worst: int
    breaches: tuple[Breach, ...]
    bands: Bands | None = None


def timing_of(levels: Floats, fps: float) -> ClipTiming:
    """From the screen's level in % of every frame (N,). Drift and flicker are fitted together: neither is told as the
    other."""
    count = len(levels)
    if count < 2:
        return ClipTiming(0.0, None, 0.0)
    if count < LEAST_FRAMES:
        return ClipTiming(0.0, None, _first_to_last(levels))
    waves = [wave for wave in (_line(levels), _beat(levels)) if wave is not None]
    if not waves:
        return ClipTiming(0.0, None, _first_to_last(levels))
    best = max(waves, key=lambda wave: wave.swing)
    return ClipTiming(best.swing, best.per_frame * fps, _first_to_last(best.slow))


def _first_to_last(levels: Floats) -> float:
    tenth = max(1, len(levels) // 10)
    return float(levels[-tenth:].mean() - levels[:tenth].mean())


@dataclass(frozen=True)
class _Wave:
    """Cycles a frame, points from peak to peak, the slow change (N,) beside it, root mean square of the rest, and of
    that what is new in every frame."""

    per_frame: float
    swing: float
    slow: Floats
    left: float
    grain: float


def _fitted(levels: Floats, per_frame: float, degree: int, overtones: int = 0) -> _Wave:
    """Cosine, sine and a polynomial through the levels, by least squares; `overtones`: so many waves more of twice,
    three times … the frequency, as the frame rate shows them."""
    t = np.arange(len(levels))
    slow = np.polynomial.legendre.legvander(2.0 * t / (len(levels) - 1) - 1.0, degree)
    own = degree + 1
    turns = [2.0 * np.pi * k * per_frame * t for k in range(1, overtones + 2)]
    basis = np.column_stack([slow, *(of(turn) for turn in turns for of in (np.cos, np.sin))])
    found = np.linalg.lstsq(basis, levels, rcond=1e-6)[0]
    wave, rest = basis[:, own : own + 2] @ found[own : own + 2], levels - basis @ found
    # Near half the frame rate one wave is written as the difference of two large ones: what is seen is the bound.
    swing = 2.0 * float(np.hypot(*found[own : own + 2]))
    if per_frame > NEAR_HALF:
        swing = min(swing, float(np.ptp(wave)))
    grain = float(np.sqrt((np.diff(rest) ** 2).mean() / 2.0))
    return _Wave(per_frame, swing, slow @ found[:own], float(np.sqrt((rest**2).mean())), grain)


def _sharpened(levels: Floats, low: float, high: float, degree: int, overtones: int = 0) -> _Wave:
    """The wave between two frequencies that leaves the least."""
    found = minimize_scalar(
        lambda f: _fitted(levels, f, degree, overtones).left, bounds=(low, min(high, 0.5)), method="bounded",
        options={"xatol": 1e-3 / len(levels)},
    )  # fmt: skip
    wave = _fitted(levels, float(found.x), degree, overtones)
    at_half = _fitted(levels, 0.5, degree, overtones)
    return at_half if high >= 0.5 and at_half.left <= 1.02 * wave.left else wave


def _line(levels: Floats) -> _Wave | None:
    """A line that stands out of the spectrum."""
    count = len(levels)
    degree = min(3, count // 8 + 1)
    t = np.arange(count)
    # Slow change is drift; what is left is looked at for a line.
    rest = levels - np.polyval(np.polyfit(t, levels, degree), t)
    window = np.hanning(count)
    spectrum = np.abs(np.fft.rfft(rest * window)) * 2.0 / window.sum()
    spectrum[:2] = 0.0
    best = int(np.argmax(spectrum))
    others = np.delete(spectrum, [i for i in range(best - 2, best + 3) if 0 <= i < len(spectrum)])
    floor = float(np.sqrt((others**2).mean())) if len(others) else 0.0
    if float(spectrum[best]) <= max(SURE * floor, 0.02):
        return None
    at = _between_bins(spectrum, best)
    wave = _sharpened(levels, (at - 0.6) / count, (at + 0.6) / count, degree)
    if _stands_out(spectrum, best):
        return wave
    return wave if wave.swing > FAINT and _all_there_is(_with_overtones(levels, wave, degree)) else None


def _with_overtones(levels: Floats, found: _Wave, degree: int) -> _Wave:
    """A lamp's light is seldom one pure wave."""
    step = 0.6 / len(levels)
    return _sharpened(levels, found.per_frame - step, found.per_frame + step, degree, OVERTONES)


def _all_there_is(wave: _Wave) -> bool:
    """A walk or a cloud goes its own way beside any wave; a lamp goes with it."""
    goes_with_it = wave.left < max(GRAIN * wave.grain, ROUGH * wave.swing) and wave.swing > PLAIN * wave.left
    return goes_with_it and wave.swing > FAINT


def _stands_out(spectrum: Floats, best: int) -> bool:
    """Of the bins (N,) within an octave: a walk's strongest bin is no line."""
    # Its octave, the wave's own overtone left out.
    sides = spectrum[max(2, best // 2 + 3) : best - 2], spectrum[best + 3 : 2 * best - 2]
    # Near half the frame rate nothing lies above.
    told = [side for side in sides if len(side) or best + 3 < len(spectrum)]
    least = SURE * max(float(np.sqrt((side**2).mean())) if len(side) >= NEIGHBOURS else np.inf for side in told)
    return float(spectrum[best]) > least


def _beat(levels: Floats) -> _Wave | None:
    """A wave so slow that it goes a few times round at most, where it tells far more than a smooth drift does."""
    count = len(levels)
    if count < BEAT_FRAMES:
        return None
    tries = (_fitted(levels, f, 1) for f in np.arange(1.0, 3.6, 0.2) / count)
    rough = min(tries, key=lambda wave: wave.left)
    wave = _sharpened(levels, rough.per_frame - 0.2 / count, rough.per_frame + 0.2 / count, 1)
    t = np.arange(count)
    smooth = float(np.std(levels - np.polyval(np.polyfit(t, levels, 3), t)))
    straight = float(np.std(levels - np.polyval(np.polyfit(t, levels, 1), t)))
    tells = wave.left < BEAT_LEFT * straight and wave.left < 0.5 * smooth
    return wave if tells and _all_there_is(wave) else None


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


def change_on(now: Floats32, before: Floats32, places: Bools) -> float:
    """Mean change in points of signal from one frame's luma (h, w), 0..1, to another's on some places (h, w)."""
    count = int(np.count_nonzero(places))
    return 100.0 * float(np.vdot(now - before, places.astype(np.float32))) / max(1, count)


def noise_between(before: Floats32, now: Floats32, inside: Bools) -> float:
    """Standard deviation in % of signal of one frame's noise, from the change (h, w) of luma to the next frame on the
    screen. What a whole row has in common is light that flickers, and no noise."""
    change = np.where(inside, 100.0 * (now - before), 0.0)
    count = inside.sum(axis=1)
    row = change.sum(axis=1) / np.maximum(count, 1)
    rest = (change - row[:, None])[inside]
    # So has what moves: its edges are far out of what noise does.
    for _ in range(2):
        rest = rest[np.abs(rest) < OUTLIER * max(float(np.std(rest)), 1e-6)]
    free = max(1, len(rest) - int((count > 0).sum()))
    return float(np.sqrt((rest**2).sum() / free / 2.0))
