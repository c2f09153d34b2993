"""Planned beside measured: the same numbers from the plan's evaluation and from a frame."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np

from ..arrays import LUMA, Floats
from ..optics.picture import UPRIGHT
from ..plan import Plan
from ..results import Evaluation
from ..signal.exposure import signal
from ..signal.noise import trace_noise
from .reading import FrameReading


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


def compare(evaluation: Evaluation, reading: FrameReading) -> list[Compared]:
    """Rows in the order of importance."""
    screen = evaluation.screen
    planned = (None,) * 3 if screen is None else (screen.level_luma, screen.level_key_channel, screen.band_percent)
    luma = reading.level_luma.mean if reading.level_luma else None
    key = reading.level_key_channel.mean if reading.level_key_channel else None
    slope = reading.slope_percent[0] if reading.slope_percent else None
    brighter = "brighter than planned: dim the screen lamps"
    darker = "darker than planned: look for a lamp that is off or further away"
    return [
        _row("Screen, luma", planned[0], luma, 3.0, brighter, darker),
        _row("Screen, key channel", planned[1], key, 3.0, brighter, darker),
        _row(
            "Unevenness",
            planned[2],
            reading.even_percent,
            2.0,
            "more uneven than planned: see where on the deviation map",
            "more even than planned",
        ),
        _row(
            "Left to right",
            _planned_slope(evaluation),
            slope,
            3.0,
            "the right side is brighter than planned",
            "the left side is brighter than planned",
        ),
        _noise_row(evaluation, reading),
        _hue_row(evaluation, reading),
        _edge_row(evaluation, reading),
    ]


def _noise_row(evaluation: Evaluation, reading: FrameReading) -> Compared:
    """Noise on the plan's trace; a codec takes some away, so only more of it is told."""
    planned = None
    if evaluation.screen is not None and evaluation.screen.lux_mean > 0.0:
        planned = trace_noise(evaluation.plan, evaluation.screen.lux_mean)
    within = 0.3 if planned is None else max(0.3, 0.6 * planned)
    noisier = "noisier than planned: a higher ISO, or a darker exposure that was lifted"
    return _row("Noise", planned, reading.noise_percent, within, noisier, "")


def _hue_row(evaluation: Evaluation, reading: FrameReading) -> Compared:
    planned = planned_hue(evaluation)
    measured = reading.hue_deg
    if planned is None or measured is None:
        return Compared("Hue", "°", planned, measured, None, 4.0, "")
    off = (measured - planned + 180.0) % 360.0 - 180.0
    means = "another hue than planned: the white balance, or a lamp's colour" if abs(off) > 4.0 else ""
    return Compared("Hue", "°", planned, measured, off, 4.0, means)


def planned_hue(evaluation: Evaluation) -> float | None:
    """Where the vectorscope will show the judged screen, degrees."""
    judged = evaluation.screen_map.judged
    if evaluation.screen is None or not judged.any():
        return None
    plan = evaluation.plan
    light = np.full(3, evaluation.screen.lux_mean)
    rgb = signal(np.array(plan.screen.reflectance), light, plan.camera) / 100.0
    luma = float(rgb @ LUMA)
    cb, cr = (rgb[2] - luma) / 1.8556, (rgb[0] - luma) / 1.5748
    return float(np.degrees(np.arctan2(cr, cb)) % 360.0)


def _edge_row(evaluation: Evaluation, reading: FrameReading) -> Compared:
    measured = reading.edge.width_px if reading.edge else None
    planned = evaluation.blur.motion_px
    share = reading.width / evaluation.plan.camera.sensor.px_w
    planned = None if planned is None else planned * share
    within = 3.0 if planned is None else max(3.0, 0.3 * planned)
    soft = "softer than movement alone explains: look at the focus"
    found = _row("Edge of the subject", planned, measured, within, soft, "")
    return replace(found, unit="px")


@dataclass(frozen=True)
class Verdict:
    """The one thing to say first."""

    state: Literal["holds", "tight", "fails"]
    says: str


def verdict(evaluation: Evaluation, reading: FrameReading, rows: list[Compared]) -> Verdict:
    """What hurts most: no screen, the wrong screen, clipping, the subject off it; then the plan missed."""
    wanted = evaluation.plan.screen.hue
    if reading.hue is None:
        return Verdict("fails", "No green or blue screen was found in this frame.")
    if wanted != "other" and wanted != reading.hue:
        return Verdict("fails", f"The screen is {reading.hue}; the plan says {wanted}.")
    if reading.clipped_percent is not None and reading.clipped_percent > 0.5:
        return Verdict(
            "fails", f"{reading.clipped_percent:.0f} % of the screen clips: less light on it, or less exposure."
        )
    if reading.contact is not None and set(reading.contact.screen_sides) - {"bottom"}:
        sides = " and ".join(side for side in reading.contact.screen_sides if side != "bottom")
        return Verdict("fails", f"The subject leaves the screen: {sides}.")
    off = {row.name: abs(row.difference or 0.0) / row.agree_within for row in rows if row.means}
    if off:
        worst = max(rows, key=lambda row: off.get(row.name, 0.0))
        return Verdict("fails" if off[worst.name] > 3.0 else "tight", f"{worst.name}: {worst.means}.")
    spots = sorted((*reading.hot_spots, *reading.shadows), key=lambda spot: -abs(spot.delta_percent))
    if spots:
        word = "hot spot" if spots[0].delta_percent > 0 else "shadow or crease"
        return Verdict("tight", f"As planned, but for a {word} of {abs(spots[0].delta_percent):.0f} points.")
    return Verdict("holds", "The frame shows what was planned.")


def _row(name: str, planned: float | None, measured: float | None, within: float, above: str, below: str) -> Compared:
    if planned is None or measured is None:
        return Compared(name, "%", planned, measured, None, within, "")
    off = measured - planned
    means = "" if abs(off) <= within else above if off > 0 else below
    return Compared(name, "%", planned, measured, off, within, means)


def _in_picture(evaluation: Evaluation) -> tuple[Floats, Floats]:
    """Upright picture coordinates (N, 2) and planned level (N,) of every judged cell."""
    grid, judged = evaluation.screen_map.grid, evaluation.screen_map.judged.ravel()
    frame, _ = evaluation.view.project(grid.points()[judged])
    upright = np.array(UPRIGHT[round(evaluation.plan.camera.roll / 90.0) % 4], dtype=float)
    luma = evaluation.plan.targets.level_trace == "luma"
    levels = evaluation.screen_map.luma if luma else evaluation.screen_map.key_channel
    return frame @ upright[:2, :2].T + upright[:2, 2], levels.ravel()[judged]


def planned_grid(evaluation: Evaluation) -> list[list[float | None]]:
    """The plan's 3 x 3 zone means in %, rows from the top; None where a zone needs no screen."""
    place, level = _in_picture(evaluation)
    zone = np.floor(np.clip(place, 0.0, 0.9999) * 3.0).astype(int)
    return [
        [
            float(level[here].mean()) if (here := (zone[:, 1] == row) & (zone[:, 0] == column)).sum() > 3 else None
            for column in range(3)
        ]
        for row in range(3)
    ]


def _planned_slope(evaluation: Evaluation) -> float | None:
    """Change in % from the left to the right edge of the frame, of a plane through the judged cells."""
    place, level = _in_picture(evaluation)
    if len(level) < 6 or float(np.ptp(place[:, 0])) < 0.05:
        return None
    terms = np.stack([np.ones(len(level)), place[:, 0], place[:, 1]], axis=1)
    return float(np.linalg.lstsq(terms, level, rcond=None)[0][1])


def recording_differs(plan: Plan, facts: dict[str, Any]) -> list[str]:
    """What a clip is against what the plan records, in words; empty where they agree or there is no clip."""
    if not facts:
        return []
    camera, found = plan.camera, []
    wanted = camera.recording
    if wanted.chroma != "raw" and facts.get("chroma") and facts["chroma"] != wanted.chroma:
        found.append(f"chroma is {facts['chroma']}, the plan says {wanted.chroma}")
    if wanted.chroma != "raw" and facts.get("bits") != wanted.bits:
        found.append(f"{facts.get('bits')} bit, the plan says {wanted.bits}")
    if abs(float(facts.get("fps") or 0.0) - camera.fps) > 0.05:
        found.append(f"{float(facts.get('fps') or 0.0):.2f} frames a second, the plan says {camera.fps:g}")
    rate = float(facts.get("mbit_s") or 0.0)
    if rate and wanted.chroma != "raw" and rate < 0.6 * wanted.mbit_s:
        found.append(f"{rate:.0f} Mbit/s, the plan says {wanted.mbit_s:g}")
    return found
