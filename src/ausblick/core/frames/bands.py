"""Bands of a lamp that flickers under a shutter that reads row by row: how strong, how fast, how far apart.

A row that is read later sees another moment of the lamp. Light that swings with f Hz makes f x readout bands in the
picture. Where the frame rate does not divide f they travel, by what f has over the nearest multiple of it; where it
does they stand, and only their regular shape across the picture tells them from folds.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.fft import next_fast_len
from scipy.optimize import fmin

from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Hertz, Percent, Points

COLUMNS = 8
COVERED = 0.25
"""Of a block of the picture that must be screen."""
MOST_FRAMES = 1024
"""Of a clip that are looked at: longer ones tell no more."""
LEAST_FRAMES, LEAST_ROWS = 12, 24
LAMPS = (100.0, 120.0)
"""Twice the mains' 50 and 60 Hz."""
NEAR = 0.6
"""Hz by which mains and clocks are off."""
SEEN, SURE = 0.002, 6.0
"""Travelling bands: share of the level, and times what else is there."""
FEWEST = 0.25
"""Bands in the picture's height below which all of it gets brighter at once."""
SLOWEST = 0.7
"""Of a band's way that it has to go in the clip to be told as travelling."""
STAND_SEEN, STAND_SURE = 0.008, 5.0
STAND_BANDS = (1.5, 6.0)
"""Fewer bands that stand are like the light's own slope."""
STAND_ROWS = 0.6
"""Of the picture's height that a column must show: less is no wave beside a slope."""
PURE = 0.6
"""What is left of the rows' profile, as a share of the wave's amplitude: folds are no waves."""
PAD = 4


@dataclass(frozen=True)
class Bands:
    """`amplitude_percent`: of the level on the screen, about it; `swing_percent`: from dark to bright, in points of
    signal; `hz` of the lamp (None: no usual mains fit); `travel_hz`: how often a second they pass a row, above nought
    upwards, below it downwards; `spacing_percent` of the picture's height from one to the next; `readout_ms` of the
    whole picture, where `hz` is known; `standing`: they stay where they are."""

    amplitude_percent: Percent
    swing_percent: Points
    hz: Hertz | None
    travel_hz: Hertz
    spacing_percent: Percent
    readout_ms: float | None
    standing: bool


def block_means(luma: Floats32, screen: Bools) -> Floats32:
    """Means (R, COLUMNS) of each row of a small picture (R, W) on the screen, in blocks across; NaN where there is
    too little of it."""
    rows, width = luma.shape
    step = width // COLUMNS
    some = screen[:, : step * COLUMNS].reshape(rows, COLUMNS, step)
    count = some.sum(axis=2)
    total = (luma[:, : step * COLUMNS].reshape(rows, COLUMNS, step) * some).sum(axis=2)
    there = count >= max(1.0, COVERED * step)
    return np.where(there, total / np.maximum(count, 1), np.nan).astype(np.float32)


def bands_of(means: Floats32, fps: float) -> Bands | None:
    """From the means (T, R, COLUMNS) of `block_means` in every frame; None where nothing is told."""
    means = means[:MOST_FRAMES]
    if len(means) < LEAST_FRAMES:
        return None
    there = np.isfinite(means)
    whole = there.mean(axis=0) > 0.9
    rows = whole.sum(axis=1) >= COLUMNS // 4
    if rows.sum() < LEAST_ROWS:
        return None
    logs = np.where(there & whole, np.log(np.maximum(np.where(there, means, 1.0), 1e-4)), np.nan)
    steady = _mean(logs, 0)[rows]
    level = 100.0 * float(np.exp(np.nanmean(steady)))
    return _travelling(logs, rows, fps, level) or _standing(steady, rows, fps, level)


def _told(amplitude: float, level: float, hz: float | None, travel: float, bands: float, standing: bool) -> Bands:
    return Bands(
        amplitude_percent=100.0 * amplitude,
        swing_percent=level * float(np.exp(amplitude) - np.exp(-amplitude)),
        hz=hz,
        travel_hz=travel,
        spacing_percent=100.0 / bands,
        readout_ms=None if hz is None else 1000.0 * bands / hz,
        standing=standing,
    )


def _travelling(logs: Floats, rows: Bools, fps: float, level: float) -> Bands | None:
    """The strongest wave in time and along the rows (periodogram under Hann windows)."""
    # What is the same across the picture stays, what moves through a part of it does not.
    change = logs - _mean(logs, 0)
    moving = np.zeros(change.shape[:2])
    moving[:, rows] = np.nan_to_num(np.nanmedian(np.where(rows[None, :, None], change, 0.0), axis=2)[:, rows])
    count, height = len(moving), len(rows)
    window = np.hanning(count + 2)[1:-1, None] * _hann_over(rows)[None, :]
    wave = moving - (moving * window).sum() / window.sum()
    shape = (_padded(count), _padded(height))
    # A row later is a moment later: of the two ways to tell one wave that with a positive number of bands.
    power = np.abs(np.fft.rfft2(wave * window, shape)) * 2.0 / window.sum()
    hertz: Floats = np.fft.fftfreq(shape[0], 1.0 / fps).astype(np.float64)
    bands: Floats = np.fft.rfftfreq(shape[1], 1.0 / height).astype(np.float64)
    power[np.abs(hertz) < SLOWEST * fps / count] = 0.0
    at = np.unravel_index(int(np.argmax(power)), power.shape)
    seen = power[power > 0.0]
    floor = float(np.sqrt(np.mean(np.minimum(seen, np.percentile(seen, 90.0)) ** 2))) if len(seen) else 0.0
    least = max(SEEN, SURE * floor)
    # A slow wave shows half of itself here at the least; most clips have none and need no fit.
    if float(power[at]) < 0.5 * least:
        return None
    start = _peak(power, (int(at[0]), int(at[1])), hertz, bands)
    travel, number, amplitude = _fitted(moving, window, start, fps)
    if number < FEWEST or amplitude < least:
        return None
    return _told(amplitude, level, _lamp(travel, fps), travel, number, standing=False)


def _mean(values: Floats, axis: int) -> Floats:
    """Of what is there; NaN where nothing is."""
    count = np.isfinite(values).sum(axis=axis)
    return np.where(count > 0, np.nansum(values, axis=axis) / np.maximum(count, 1), np.nan)


def _hann_over(rows: Bools) -> Floats:
    """A window over the rows from the first to the last that count."""
    found = np.flatnonzero(rows)
    first, last = int(found[0]), int(found[-1])
    window = np.zeros(len(rows))
    window[first : last + 1] = np.hanning(last - first + 3)[1:-1]
    return window * rows


def _padded(count: int) -> int:
    return int(next_fast_len(PAD * count, real=True))


def _peak(power: Floats, at: tuple[int, int], hertz: Floats, bands: Floats) -> tuple[float, float]:
    """Between the steps of the transform, by the parabola through the logarithms of three of them each way."""
    found = []
    for axis, (index, values) in enumerate(zip(at, (hertz, bands), strict=True)):
        line = np.asarray(power.take(at[1 - axis], axis=1 - axis))
        size = len(line)
        a, b, c = np.log(np.maximum(line[[(index - 1) % size, index, (index + 1) % size]], 1e-12))
        bend = a - 2.0 * b + c
        between = float(np.clip(0.5 * (a - c) / bend, -0.5, 0.5)) if abs(bend) > 1e-12 else 0.0
        found.append(float(values[index]) + between * abs(float(values[1] - values[0])))
    return found[0], found[1]


def _fitted(wave: Floats, window: Floats, start: tuple[float, float], fps: float) -> tuple[float, float, float]:
    """Hz, bands in the height and amplitude of the wave that fits best, near where the transform has its peak. What
    does not change in time was taken out of the picture (T, R): it is taken out of the wave that is fitted too."""
    count, height = wave.shape
    times, places = np.arange(count) / fps, np.arange(height) / height
    weight = np.sqrt(window)

    def fit(at: Floats) -> tuple[float, float]:
        turn = 2j * np.pi * (at[0] * times[:, None] + at[1] * places[None, :])
        moving = np.exp(turn)
        moving = (moving - moving.mean(axis=0)) * weight
        basis = np.stack([moving.real.ravel(), moving.imag.ravel()], axis=1)
        values = (wave * weight).ravel()
        found, left, _, _ = np.linalg.lstsq(basis, values, rcond=None)
        return float(np.hypot(*found)), float(left[0]) if len(left) else float(values @ values)

    begin = np.array(start)
    simplex = begin + np.array([[0.0, 0.0], [0.3 * fps / count, 0.0], [0.0, 0.1]])

    def left(at: Floats) -> float:
        return fit(at)[1]

    best = np.asarray(fmin(left, begin, initial_simplex=simplex, maxiter=60, disp=False))
    return float(best[0]), float(best[1]), fit(best)[0]


def _lamp(travel: float, fps: float) -> float | None:
    """The usual lamp that travels so at this frame rate: travel = hz less the nearest multiple of the frame rate."""
    for hz in LAMPS:
        apart = (hz - travel) / fps
        if abs(apart - round(apart)) * fps <= NEAR:
            return travel + round(apart) * fps
    return None


def lamp_that_stands(fps: float) -> float | None:
    """The usual lamp's Hz whose bands stand still at this frame rate; None where those of both travel."""
    return next((hz for hz in LAMPS if abs(hz / fps - round(hz / fps)) * fps <= NEAR), None)


def _standing(steady: Floats, rows: Bools, fps: float, level: float) -> Bands | None:
    """A wave along the rows with one phase in all columns, beside a cubic slope in each."""
    lamp = lamp_that_stands(fps)
    columns = np.isfinite(steady).sum(axis=0) >= STAND_ROWS * len(rows)
    if lamp is None or columns.sum() < COLUMNS // 2:
        return None
    places = np.flatnonzero(rows) / len(rows)
    profile = np.nanmedian(steady[:, columns] - np.nanmean(steady[:, columns], axis=0), axis=1)
    numbers = np.arange(*STAND_BANDS, 0.05)
    best = int(np.argmin([_left(places, profile, float(one)) for one in numbers]))
    # At the least number it is a slope that waves fit better than the cubic does.
    if best == 0:
        return None
    number = numbers[best]
    waves = np.array([_wave(places, column, float(number)) for column in steady.T[columns]])
    amplitude = float(np.hypot(*waves.mean(axis=0)))
    scatter = float(np.sqrt(waves.var(axis=0, ddof=1).sum() / len(waves)))
    unsure = amplitude < STAND_SURE * scatter or _left(places, profile, float(number)) > PURE * amplitude
    if amplitude < STAND_SEEN or unsure:
        return None
    return _told(amplitude, level, lamp, 0.0, float(number), standing=True)


def _basis(places: Floats, number: float) -> Floats:
    turn = 2.0 * np.pi * number * places
    return np.stack([np.cos(turn), np.sin(turn), *(places**power for power in range(4))], axis=1)


def _wave(places: Floats, column: Floats, number: float) -> Floats:
    """Cosine and sine in a column (R,), beside a cubic; places that stand out are weighed down (Huber, 1964)."""
    there = np.isfinite(column)
    basis, values = _basis(places[there], number), column[there]
    weight = np.ones(len(values))
    for _ in range(3):
        fit = np.linalg.lstsq(basis * weight[:, None], values * weight, rcond=None)[0]
        off = np.abs(values - basis @ fit)
        scale = 1.5 * max(float(np.median(off)) / 0.6745, 1e-9)
        weight = np.sqrt(np.minimum(1.0, scale / np.maximum(off, 1e-12)))
    return np.asarray(fit[:2])


def _left(places: Floats, profile: Floats, number: float) -> float:
    """Root mean square of what wave and slope leave of a profile (R,)."""
    there = np.isfinite(profile)
    basis = _basis(places[there], number)
    fit = np.linalg.lstsq(basis, profile[there], rcond=None)[0]
    return float(np.sqrt(np.mean((profile[there] - basis @ fit) ** 2)))
