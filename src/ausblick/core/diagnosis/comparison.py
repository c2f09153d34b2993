"""Planned beside measured: the same numbers from the plan's evaluation and from a frame."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..camera.sensor_noise import trace_noise
from ..evaluation.results import Evaluation
from ..frames.frame_report import ClipReport
from ..frames.reading import FrameReading, Level
from ..frames.spots import Spot
from ..plan import Plan

SKIN, EDGE, AREA = 6.0, 8.0, 12.0
"""Points within which a real person in another pose still agrees with the drawn figure."""
UNPLANNED = 0.4
"""Share of a spot's delta by which a place must differ from the plan to count as a spot of its own."""


@dataclass(frozen=True)
class Compared:
    """`means` says what the difference tells; empty where the two agree or one is missing."""

    name: str
    unit: str
    planned: float | None
    measured: float | None
    difference: float | None
    agree_within: float
    means: str


def compare(
    evaluation: Evaluation, expected: FrameReading, reading: FrameReading, whole: bool = True
) -> list[Compared]:
    """Rows in the order of importance. `expected`: what the plan's own picture reads (`asbuilt.expected`), so that
    both columns come from the same ruler over all of the screen that is seen. `whole`: the frame was read as it is,
    not inside a region that a person drew."""
    brighter = "brighter than planned: dim the screen lamps"
    darker = "darker than planned: look for a lamp that is off or further away"
    more = "more of the screen's colour on the {} than planned: the subject is nearer to the screen, or it is larger"
    return [
        row_of("Screen, luma", _mean(expected.level_luma), _mean(reading.level_luma), 3.0, brighter, darker),
        row_of(
            "Screen, key channel",
            _mean(expected.level_key_channel),
            _mean(reading.level_key_channel),
            3.0,
            brighter,
            darker,
        ),
        row_of(
            "Unevenness",
            expected.even_percent,
            reading.even_percent,
            2.0,
            "more uneven than planned: see where on the deviation map",
            "more even than planned",
        ),
        row_of(
            "Left to right",
            _across(expected),
            _across(reading),
            3.0,
            "the right side is brighter than planned",
            "the left side is brighter than planned",
        ),
        _band_row(expected, reading),
        _noise_row(evaluation, reading),
        _hue_row(expected, reading),
        _saturation_row(expected, reading),
        _edge_row(expected, reading),
        row_of("Spill on skin", _spill(expected, True), _spill(reading, True), SKIN, more.format("skin"), ""),
        row_of("Spill on the edge", _spill(expected, False), _spill(reading, False), EDGE, more.format("edge"), ""),
        row_of(
            "Screen in the frame",
            expected.screen_area_percent if whole else None,
            reading.screen_area_percent,
            AREA,
            "more screen in the picture than planned: the camera is further away, or the subject is smaller in it",
            "less screen in the picture than planned: the camera's place or focal length, or something before it",
        ),
    ]


def _mean(level: Level | None) -> float | None:
    return None if level is None else level.mean


def _across(reading: FrameReading) -> float | None:
    return None if reading.slope_percent is None else reading.slope_percent[0]


def _spill(reading: FrameReading, skin: bool) -> float | None:
    if reading.edge is None:
        return None
    return reading.edge.spill_skin_percent if skin else reading.edge.spill_edge_percent


def _band_row(expected: FrameReading, reading: FrameReading) -> Compared:
    """Single pixels' band: a frame's noise widens it, by what a normal distribution has between p1 and p99."""
    planned = expected.band_percent
    widened = math.hypot(planned or 0.0, 4.65 * (reading.noise_percent or 0.0)) - (planned or 0.0)
    wider = "wider than planned: what is not unevenness is noise, a crease or a mark"
    return row_of("Band, p1 to p99", planned, reading.band_percent, 3.0 + widened, wider, "")


def _noise_row(evaluation: Evaluation, reading: FrameReading) -> Compared:
    """Noise on the plan's trace; a codec takes some away, so only more of it is told."""
    planned = None
    if evaluation.screen is not None and evaluation.screen.lux_mean > 0.0:
        planned = trace_noise(evaluation.plan, evaluation.screen.lux_mean)
    within = 0.3 if planned is None else max(0.3, 0.6 * planned)
    noisier = "noisier than planned: a higher ISO, or a darker exposure that was lifted"
    return row_of("Noise", planned, reading.noise_percent, within, noisier, "")


def _hue_row(expected: FrameReading, reading: FrameReading) -> Compared:
    planned, measured = expected.hue_deg, reading.hue_deg
    if planned is None or measured is None:
        return Compared("Hue", "°", planned, measured, None, 4.0, "")
    off = (measured - planned + 180.0) % 360.0 - 180.0
    means = "another hue than planned: the white balance, or a lamp's colour" if abs(off) > 4.0 else ""
    return Compared("Hue", "°", planned, measured, off, 4.0, means)


def _saturation_row(expected: FrameReading, reading: FrameReading) -> Compared:
    planned, measured = (None if r.saturation is None else 100.0 * r.saturation for r in (expected, reading))
    within = 4.0 if planned is None else max(4.0, 0.2 * planned)
    paler = "paler than planned: other light falls on the screen, or the picture is flatter (log)"
    return row_of("Saturation", planned, measured, within, "deeper than planned: the camera's look", paler)


def _edge_row(expected: FrameReading, reading: FrameReading) -> Compared:
    planned = expected.edge.width_px if expected.edge else None
    if planned is not None:
        planned *= reading.width / expected.width
    measured = reading.edge.width_px if reading.edge else None
    within = 3.0 if planned is None else max(3.0, 0.3 * planned)
    soft = "softer than planned: look at the focus, or the whole body moves"
    return replace(row_of("Edge of the subject", planned, measured, within, soft, ""), unit="px")


@dataclass(frozen=True)
class Verdict:
    """The one thing to say first."""

    state: Literal["holds", "tight", "fails"]
    says: str


def verdict(evaluation: Evaluation, expected: FrameReading, reading: FrameReading, rows: list[Compared]) -> Verdict:
    """What hurts most: no screen, the wrong screen, clipping, the subject off it or
    of its colour; then the plan missed; then spots
    that the plan's own picture does not have."""
    wanted = evaluation.plan.screen.hue
    if reading.hue is None:
        return Verdict("fails", "No green or blue screen was found in this frame.")
    if wanted != "other" and wanted != reading.hue:
        says = f"Is this the screen? A {reading.hue} one was found, and the plan says {wanted}: "
        return Verdict("tight", says + "look at the white balance first.")
    if reading.clipped_percent is not None and reading.clipped_percent > 0.5:
        return Verdict(
            "fails", f"{reading.clipped_percent:.0f} % of the screen clips: less light on it, or less exposure."
        )
    if reading.contact is not None and set(reading.contact.screen_sides) - {"bottom"}:
        sides = " and ".join(side for side in reading.contact.screen_sides if side != "bottom")
        return Verdict("fails", f"The subject leaves the screen: {sides}.")
    if reading.may_be_lost and not expected.may_be_lost:
        return Verdict("fails", "Part of the figure has nearly the screen's colour: the key may lose it.")
    off = {row.name: _how_far(row) for row in rows if row.means}
    if off:
        worst = max(rows, key=lambda row: off.get(row.name, 0.0))
        return Verdict("fails" if off[worst.name] > 3.0 else "tight", f"{worst.name}: {worst.means}.")
    spots = [s for s in (*reading.hot_spots, *reading.shadows) if not as_planned(s, expected, reading)]
    spots.sort(key=lambda spot: -abs(spot.delta_percent))
    if spots:
        word = "hot spot" if spots[0].delta_percent > 0 else "shadow or crease"
        return Verdict("tight", f"As planned, but for a {word} of {abs(spots[0].delta_percent):.0f} points.")
    return Verdict("holds", "The frame shows what was planned.")


def _how_far(row: Compared) -> float:
    """A difference over what still agrees. A screen more even than planned is another set, and no fault: it never
    fails, and is told after what is worse than planned."""
    off = abs(row.difference or 0.0) / row.agree_within
    return 1.0 if row.name == "Unevenness" and (row.difference or 0.0) < 0.0 else off


def as_planned(spot: Spot, expected: FrameReading, reading: FrameReading) -> bool:
    """Does the plan's own picture deviate there in the same way?"""
    planned, measured = _deviation_in(expected, spot), _deviation_in(reading, spot)
    if planned is None or measured is None:
        return False
    return abs(measured - planned) < UNPLANNED * abs(spot.delta_percent)


def _deviation_in(reading: FrameReading, spot: Spot) -> float | None:
    """Mean deviation in % inside a spot's box; None where that is no screen."""
    if reading.deviation is None:
        return None
    height, width = reading.deviation.shape
    top, left = int(spot.y * height), int(spot.x * width)
    cells = reading.deviation[top : max(top + 1, round((spot.y + spot.h) * height)),
                              left : max(left + 1, round((spot.x + spot.w) * width))]  # fmt: skip
    seen = cells[np.isfinite(cells)]
    return float(seen.mean()) if len(seen) else None


def row_of(
    name: str, planned: float | None, measured: float | None, within: float, above: str, below: str
) -> Compared:
    """A row in %: what it means to lie above or below the plan by more than `within`."""
    if planned is None or measured is None:
        return Compared(name, "%", planned, measured, None, within, "")
    off = measured - planned
    means = "" if abs(off) <= within else above if off > 0 else below
    return Compared(name, "%", planned, measured, off, within, means)


def recording_differs(plan: Plan, clip: ClipReport) -> list[str]:
    """What a clip is against what the plan records, in words; empty where they agree."""
    camera, found = plan.camera, []
    wanted = camera.recording
    if wanted.chroma != "raw":
        if clip.chroma and clip.chroma != wanted.chroma:
            found.append(f"chroma is {clip.chroma}, the plan says {wanted.chroma}")
        if clip.bits != wanted.bits:
            found.append(f"{clip.bits} bit, the plan says {wanted.bits}")
    if abs(clip.fps - camera.fps) > 0.05:
        found.append(f"{clip.fps:.2f} frames a second, the plan says {camera.fps:g}")
    if clip.mbit_s and wanted.chroma != "raw" and clip.mbit_s < 0.6 * wanted.mbit_s:
        found.append(f"{clip.mbit_s:.0f} Mbit/s, the plan says {wanted.mbit_s:g}")
    return found
