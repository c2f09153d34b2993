"""Read a frame: find the screen, then everything one would want to know of it."""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from typing import Literal

import cv2
import numpy as np

from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Degrees, Percent, Points
from .apart import screen_alone
from .contact import Contact, contact_of
from .edge import EdgeReading, read_edge
from .find_screen import LONGEST, FoundScreen, seek_screen
from .frame import Frame, chroma_of, linear_of, luma_of, picked, trace_signal
from .grain import noise_percent
from .marks import FoundMarks, Mark, find_marks
from .near_colour import LostPlace, lost_parts
from .scopes import Scopes, scopes_of
from .screen_candidates import Candidate, candidates_of
from .spots import SmoothSurface, Spot, find_spots, fit_surface

SAMPLE = 120_000
MAP_WIDTH = 160


@dataclass(frozen=True)
class Level:
    """Mean and percentiles of the screen's pixels, % of signal."""

    mean: Percent
    p1: Percent
    p99: Percent


@dataclass(frozen=True)
class FrameReading:
    """What a frame shows of the screen. Fields after `height` are None where no screen was found. `candidates`: what
    else may be the screen; a person points at it. `may_be_lost`: parts of the figure that have nearly the
    screen's colour."""

    width: int
    height: int
    hue: Literal["green", "blue"] | None
    screen_area_percent: Percent
    level_luma: Level | None = None
    level_key_channel: Level | None = None
    band_percent: Points | None = None
    even_percent: Points | None = None
    grid: tuple[tuple[float | None, ...], ...] | None = None
    slope_percent: tuple[float, float] | None = None
    hot_spots: tuple[Spot, ...] = ()
    shadows: tuple[Spot, ...] = ()
    noise_percent: Points | None = None
    hue_deg: Degrees | None = None
    saturation: float | None = None
    clipped_percent: Percent | None = None
    contact: Contact | None = None
    found: FoundScreen | None = None
    deviation: Floats | None = None
    edge: EdgeReading | None = None
    marks: tuple[Mark, ...] = ()
    candidates: tuple[Candidate, ...] = ()
    may_be_lost: tuple[LostPlace, ...] = ()


Region = Sequence[tuple[float, float]]
"""A rectangle or lasso: corners in parts of the frame."""


def read_frame(frame: Frame, trace: str = "luma", region: Region = (), wanted: str = "other") -> FrameReading:
    """Every reading of a frame, on the trace 'luma' or 'key-channel'. Needs at least 16 x 16 px.

    `region`: where a person says the screen is; what is outside is not screen. `wanted`: the hue that it has in the
    plan, which is looked for first, under other white balances too.
    """
    reduced = frame.reduced(LONGEST)
    linear = linear_of(reduced)
    drawn = _filled(region, reduced.shape[:2]) if len(region) >= 3 else None
    sought = seek_screen(reduced, drawn, linear, wanted)
    if sought.found is None:
        return FrameReading(frame.width, frame.height, None, 0.0, candidates=candidates_of(sought))
    # Inside of what a person drew all of it is the screen.
    found, apart = screen_alone(sought.found, reduced) if drawn is None else (sought.found, [])
    candidates = candidates_of(sought, apart)
    percent = 100.0 * trace_signal(reduced, trace, found.channel)
    contact = contact_of(found)
    lost = lost_parts(linear, found, contact)
    if lost.places:
        found = replace(found, mask=found.mask & ~lost.mask, core=found.core & ~lost.mask)
        contact = contact_of(found)
    marked = find_marks(percent, found, contact.figure)
    found = _between_marks(found, marked)
    # The surface and what stands out of it cost as much as all the rest: both at once.
    with ThreadPoolExecutor(1) as beside:
        surfaced = beside.submit(fit_surface, percent, found.core)
        levels = _levels(frame, found)
        noise = noise_percent(frame, found.core, trace, found.channel)
        # Cloth of the screen's colour is no spill.
        edge = read_edge(frame, reduced, linear, found, replace(contact, figure=contact.figure & ~lost.mask))
        cb, cr = _chroma(reduced, found.core)
        surface = surfaced.result()
    chosen = levels.luma if trace == "luma" else levels.key
    return FrameReading(
        width=frame.width,
        height=frame.height,
        hue=found.hue,
        screen_area_percent=found.area_percent,
        level_luma=levels.luma,
        level_key_channel=levels.key,
        band_percent=chosen.p99 - chosen.p1,
        even_percent=surface.unevenness,
        grid=_grid(percent, found),
        slope_percent=surface.slope,
        hot_spots=tuple(find_spots(surface, found.core, noise or 0.0, 1)),
        shadows=tuple(find_spots(surface, found.core, noise or 0.0, -1)),
        noise_percent=noise,
        hue_deg=float(np.degrees(np.arctan2(cr, cb)) % 360.0),
        saturation=float(np.hypot(cb, cr)),
        clipped_percent=levels.clipped_percent,
        contact=contact,
        found=found,
        deviation=_deviation(surface, found, chosen.mean),
        edge=edge,
        marks=marked.marks,
        candidates=candidates,
        may_be_lost=lost.places,
    )


def _between_marks(found: FoundScreen, marked: FoundMarks) -> FoundScreen:
    """Judged is the screen that no mark covers, as long as there is enough of it."""
    core = found.core & ~marked.covered
    return replace(found, core=core) if core.sum() > 0.3 * found.core.sum() else found


def _chroma(reduced: Floats32, core: Bools) -> tuple[float, float]:
    """Mean Cb and Cr of the screen: of its mean colour, because both are sums of R, G and B."""
    mean = np.array(cv2.mean(reduced, core.astype(np.uint8))[:3], dtype=np.float32)
    cb, cr = chroma_of(mean, luma_of(mean))
    return float(cb), float(cr)


@dataclass(frozen=True)
class _Levels:
    luma: Level
    key: Level
    clipped_percent: Percent


def _levels(frame: Frame, found: FoundScreen) -> _Levels:
    """From single pixels, untouched by any reduction."""
    sample, _ = frame.sampled(SAMPLE)
    pixels = picked(sample, on_sample(found.core, sample))
    clipped = 100.0 * float((pixels[:, found.channel] >= 0.995).mean())
    return _Levels(_level(luma_of(pixels)), _level(pixels[:, found.channel]), clipped)


def _filled(region: Region, shape: tuple[int, ...]) -> Bools:
    mask = np.zeros(shape[:2], dtype=np.uint8)
    corners = np.round(np.array(region) * (shape[1], shape[0])).astype(np.int32)
    cv2.fillPoly(mask, [corners], 1)
    return mask > 0


def frame_scopes(frame: Frame, reading: FrameReading) -> Scopes:
    """The instruments for a frame that was read."""
    sample, _ = frame.sampled(400_000)
    found = reading.found
    on_screen = on_sample(found.core, sample) if found else np.zeros(sample.shape[:2], dtype=bool)
    return scopes_of(sample, on_screen, found.channel if found else 1)


def on_sample(mask: Bools, sample: Floats32) -> Bools:
    """A mask of the reduced frame at the places of a sample (h, w, 3)."""
    size = (sample.shape[1], sample.shape[0])
    return np.asarray(cv2.resize(mask.astype(np.uint8), size, interpolation=cv2.INTER_NEAREST) > 0)


def _level(values: Floats32) -> Level:
    low, high = np.percentile(values, [1.0, 99.0])
    return Level(100.0 * float(values.mean(dtype=np.float64)), 100.0 * float(low), 100.0 * float(high))


def _grid(percent: Floats32, found: FoundScreen) -> tuple[tuple[float | None, ...], ...]:
    """Means (3 rows from the top, 3 columns); None where less than 5 % of a zone is screen."""
    rows = []
    for part, mask, core in zip(
        np.array_split(percent, 3), np.array_split(found.mask, 3), np.array_split(found.core, 3), strict=True
    ):
        cells = zip(
            np.array_split(part, 3, axis=1),
            np.array_split(mask, 3, axis=1),
            np.array_split(core, 3, axis=1),
            strict=True,
        )
        rows.append(tuple(_zone(values, m, c) for values, m, c in cells))
    return tuple(rows)


def _zone(values: Floats32, mask: Bools, core: Bools) -> float | None:
    if not mask.size or mask.mean() < 0.05:
        return None
    return float(values[core if core.any() else mask].mean())


def _deviation(surface: SmoothSurface, found: FoundScreen, level: float) -> Floats:
    """The smoothed screen minus its mean in %, at most MAP_WIDTH wide; NaN off the screen."""
    step = max(1, found.core.shape[1] // MAP_WIDTH)
    smooth = surface.smooth[::step, ::step].astype(np.float64) - level
    return np.where(found.core[::step, ::step], smooth, np.nan)
