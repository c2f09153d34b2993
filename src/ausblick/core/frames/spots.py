"""Hot spots and shadows: where the screen stands out from a smooth surface laid through it.

A slope or the gentle fall-off of a lamp is part of the surface; a spot is what the surface cannot
follow. The fit is robust (Tukey's biweight), so that the spot does not pull the surface to itself.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Points

LEAST_DELTA = 1.5
"""Points of signal below which nothing is called a spot."""
MOST_SPOTS = 12
BROAD = 0.09
"""Sigma of what counts as the surroundings of a spot, as a share of the frame's width."""


POWERS = ((0, 0), (1, 0), (0, 1), (2, 0), (1, 1), (0, 2), (3, 0), (2, 1), (1, 2), (0, 3))
"""Powers of x and y in the surface."""
COARSE = 4
OF_GRAIN = 4.653
"""Between the 1st and the 99th percentile of a normal distribution, standard deviations."""
FINE = 0.0012
"""Sigma that takes grain away and leaves folds of a fiftieth of the width, as a share of that."""


@dataclass(frozen=True)
class Spot:
    """A box in parts 0..1 of the frame (upper left corner, y down) and its delta in % of signal."""

    x: float
    y: float
    w: float
    h: float
    delta_percent: Points


@dataclass(frozen=True)
class SmoothSurface:
    """The screen without grain (h, w), and what stands out of its surroundings (h, w), both in %.

    `unevenness`: between its 1st and 99th percentile with folds as they are; of `smooth` they are partly gone.
    `slope` = change in % from left to right and from top to bottom of the frame.
    """

    smooth: Floats32
    detail: Floats32
    slope: tuple[float, float]
    unevenness: float


def smoothed(values: Floats32, weight: Bools, sigma: float) -> Floats32:
    """Gaussian mean (h, w) of the values where `weight` holds; zero where there are none near."""
    share = weight.astype(np.float32)
    return _mean(values * share, share, sigma)


def _mean(top: Floats32, bottom: Floats32, sigma: float) -> Floats32:
    """Blurred top over blurred bottom; zero where that is next to nothing."""
    above, below = (np.asarray(cv2.GaussianBlur(part, (0, 0), sigma), dtype=np.float32) for part in (top, bottom))
    least = np.float32(1e-3)
    return np.where(below > least, above / np.maximum(below, least), np.float32(0.0))


def broadly(values: Floats32, weight: Bools, sigma: float) -> Floats32:
    """`smoothed` for a wide Gaussian, worked out on a quarter of the rows and columns."""
    height, width = values.shape
    size = (max(1, width // COARSE), max(1, height // COARSE))
    share = weight.astype(np.float32)
    top, bottom = (
        np.asarray(cv2.resize(part, size, interpolation=cv2.INTER_AREA), dtype=np.float32)
        for part in (values * share, share)
    )
    mean = _mean(top, bottom, sigma / COARSE)
    return np.asarray(cv2.resize(mean, (width, height), interpolation=cv2.INTER_LINEAR), dtype=np.float32)


def fit_surface(percent: Floats32, mask: Bools) -> SmoothSurface:
    """A cubic surface through the masked values (h, w) in %, robust against spots."""
    height, width = percent.shape
    smooth = _within(mask, smoothed(percent, mask, max(1.0, 0.006 * width)))
    ys, xs = _places(mask, 2_500)
    terms = _terms(xs / width - 0.5, ys / height - 0.5)
    wanted = smooth[ys, xs].astype(np.float64)
    weights = np.ones(len(wanted))
    for _ in range(8):
        found = _solved(terms, wanted, weights)
        off = wanted - terms @ found
        spread = max(0.15, 1.4826 * float(np.median(np.abs(off))))
        weights = np.clip(1.0 - (off / (4.7 * spread)) ** 2, 0.0, None) ** 2
        if weights.sum() < 12:
            break
    fitted = _surface(found, np.arange(width) / width - 0.5, np.arange(height) / height - 0.5)
    detail = _detail(_within(mask, smooth - fitted), mask)
    return SmoothSurface(smooth, detail, _slope(smooth, mask), _unevenness(percent, mask))


def _unevenness(percent: Floats32, mask: Bools) -> float:
    """Between the 1st and the 99th percentile of the masked values (h, w), less what grain is left in them.

    A Gaussian of sigma leaves k = 1/(4 pi sigma^2) of the grain's variance, and what it takes out of the values has
    1 - 3k of it: that tells what is left.
    """
    sigma = max(0.8, FINE * mask.shape[1])
    fine = smoothed(percent, mask, sigma)[mask]
    kept = 1.0 / (4.0 * np.pi * sigma**2)
    taken = 1.4826 * float(np.median(np.abs(percent[mask] - fine)))
    left = taken * float(np.sqrt(kept / (1.0 - 3.0 * kept)))
    spread = float(np.ptp(np.percentile(fine, [1.0, 99.0])))
    return float(np.sqrt(max(0.0, spread**2 - (OF_GRAIN * left) ** 2)))


def _within(mask: Bools, values: Floats32) -> Floats32:
    return np.where(mask, values, np.float32(0.0))


def _places(mask: Bools, most: int) -> tuple[npt.NDArray[np.intp], npt.NDArray[np.intp]]:
    """Rows and columns of masked places, evenly taken, about `most` of them."""
    flat = np.flatnonzero(mask)
    rows, columns = np.divmod(flat[:: max(1, len(flat) // most)], mask.shape[1])
    return rows, columns


def _detail(left_over: Floats32, mask: Bools) -> Floats32:
    """What is left (h, w) over the surface and over the broad misfit that a hard-lit screen leaves.

    Spots found at first are kept out of the surroundings in a second pass, so that they neither lose
    height nor get a rim of the other sign.
    """
    broad = BROAD * mask.shape[1]
    first = _within(mask, left_over - broadly(left_over, mask, broad))
    high = (np.abs(first) > 0.7 * threshold_of(first, mask, 0.0)).astype(np.uint8)
    grow = max(1, round(0.25 * broad))
    standing = cv2.dilate(high, np.ones((2 * grow + 1, 2 * grow + 1), np.uint8))
    around = mask & (standing == 0)
    if around.sum() < 0.3 * mask.sum():
        return first
    return _within(mask, left_over - broadly(left_over, around, broad))


def threshold_of(detail: Floats32, mask: Bools, noise_percent: float) -> float:
    """How far in % something must stand out to be called a spot."""
    some = detail[::2, ::2][mask[::2, ::2]]
    usual = 1.4826 * float(np.median(np.abs(some))) if len(some) else 0.0
    return max(LEAST_DELTA, 4.5 * usual, 0.6 * noise_percent)


def _slope(smooth: Floats32, mask: Bools) -> tuple[float, float]:
    """Change in % across and down the whole frame, of a plane through the masked values."""
    height, width = mask.shape
    ys, xs = _places(mask, 20_000)
    terms = np.stack([np.ones(len(xs)), xs / width, ys / height], axis=1)
    _, across, down = _solved(terms, smooth[ys, xs].astype(np.float64), np.ones(len(xs)))
    return float(across), float(down)


def _solved(terms: Floats, wanted: Floats, weights: Floats) -> Floats:
    """Weighted least squares by its normal equations: few terms, many places. A trace of the identity keeps a screen
    that is one row high solvable."""
    weighted = terms * weights[:, None]
    square = weighted.T @ terms
    return np.linalg.solve(square + 1e-9 * np.trace(square) * np.eye(len(square)), weighted.T @ wanted)


def _terms(x: Floats, y: Floats) -> Floats:
    return np.stack([x**i * y**j for i, j in POWERS], axis=1)


def _surface(found: Floats, x: Floats, y: Floats) -> Floats32:
    """The cubic (H, W) on the grid of x (W,) and y (H,)."""
    coefficients = np.zeros((4, 4))
    for (i, j), value in zip(POWERS, found, strict=True):
        coefficients[j, i] = value
    down, across = (np.polynomial.polynomial.polyvander(at, 3) for at in (y, x))
    return np.asarray(down @ coefficients @ across.T, dtype=np.float32)


def _stands_out(surface: SmoothSurface, mask: Bools, inside: Bools, sign: int, least: float) -> bool:
    """Is the place really brighter (darker) than what lies round it?

    Where a surface overshoots at the rim of a screen, something is left over that nobody would see.
    """
    reach = max(5, round(0.8 * float(np.sqrt(inside.sum()))))
    near = cv2.dilate(inside.astype(np.uint8), np.ones((5, 5), np.uint8)) > 0
    around = cv2.dilate(inside.astype(np.uint8), np.ones((2 * reach + 1, 2 * reach + 1), np.uint8)) > 0
    ring = around & mask & ~near
    smooth = surface.smooth
    return bool(ring.any() and sign * (smooth[inside].mean() - smooth[ring].mean()) >= least)


def find_spots(surface: SmoothSurface, mask: Bools, noise_percent: float, sign: int) -> list[Spot]:
    """Located spots brighter (sign +1) or darker (-1) than the surface, strongest first."""
    height, width = mask.shape
    left_over = sign * surface.detail
    threshold = threshold_of(surface.detail, mask, noise_percent)
    count, labels = cv2.connectedComponents((left_over > 0.5 * threshold).astype(np.uint8), connectivity=8)
    spots = []
    for label in range(1, count):
        inside = labels == label
        peak = float(left_over[inside].max())
        if peak < threshold:
            continue
        ys, xs = np.nonzero(inside & (left_over > max(0.35 * peak, 0.5 * threshold)))
        if len(xs) < 0.0004 * mask.size or not _stands_out(
            surface, mask, inside, sign, max(0.4 * threshold, 0.3 * peak)
        ):
            continue
        x0, x1, y0, y1 = xs.min(), xs.max() + 1, ys.min(), ys.max() + 1
        left, top = float(x0 / width), float(y0 / height)
        size = float((x1 - x0) / width), float((y1 - y0) / height)
        spots.append(Spot(left, top, *size, delta_percent=round(sign * peak, 3)))
    return sorted(spots, key=lambda spot: -abs(spot.delta_percent))[:MOST_SPOTS]
