"""What `measure` says of a frame and of a clip: one shape for the command line, the API and the page.

Other programs rely on the names (docs/formats.md); fields may be added, none changes its meaning.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..sentences import Sentence
from ..standards.quantities import Degrees, FramesPerSecond, Hertz, MegabitsPerSecond, Percent, Pixels, Points
from .bands import Bands
from .bands_in_words import bands_cure, bands_not_told, bands_told
from .clip_facts import ClipFacts
from .clip_timing import Breach, ClipReading
from .drift import Drifted, ScreenSeen, drift
from .file_colour import RECORDED, FileColour
from .marks import Mark
from .near_colour import LostPlace
from .reading import FrameReading, Level
from .screen_candidates import Candidate
from .spots import Spot


@dataclass(frozen=True, kw_only=True)
class FrameReport:
    """A still. Levels, band, unevenness, slope, noise and spill in % of signal; what is None was not to be read."""

    width: int
    height: int
    hue: Literal["green", "blue"] | None
    screen_area_percent: Percent
    level_luma: Level | None
    level_key_channel: Level | None
    band_percent: Points | None
    even_percent: Points | None
    grid: tuple[tuple[float | None, ...], ...] | None
    slope_percent: tuple[float, float] | None
    hot_spots: tuple[Spot, ...]
    shadows: tuple[Spot, ...]
    noise_percent: Points | None
    hue_deg: Degrees | None
    saturation: float | None
    clipped_percent: Percent | None
    edge_contact: bool | None
    edge_contact_frame: tuple[str, ...]
    edge_contact_screen: tuple[str, ...]
    edge_width_px: Pixels | None = None
    spill_edge_percent: Percent | None = None
    spill_skin_percent: Percent | None = None
    primaries: str = "709"
    transfer: str = "709"
    assumed: tuple[str, ...] = ()
    marks: tuple[Mark, ...] = ()
    things_at_edge: tuple[str, ...] = ()
    candidates: tuple[Candidate, ...] = ()
    may_be_lost: tuple[LostPlace, ...] = ()


@dataclass(frozen=True, kw_only=True)
class ClipReport:
    """What only time shows, and what the file says of itself; rates in Mbit/s and frames a second. `frames_said`:
    more than `frames` where the file is cut short; `pixel_shape`: width over height of a recorded pixel."""

    container: str
    codec: str
    pix_fmt: str
    chroma: str | None
    bits: int
    mbit_s: MegabitsPerSecond
    fps: FramesPerSecond
    frames: int
    flicker_percent: Points
    flicker_hz: Hertz | None
    drift_percent: Points
    worst_frame: int
    breaches: tuple[Breach, ...]
    bands: Bands | None = None
    bands_told: Sentence | None = None
    bands_cure: Sentence | None = None
    bands_not_told: Sentence | None = None
    codec_name: str = ""
    matrix: str = "709"
    full_range: bool = False
    interlaced: bool = False
    pixel_shape: float = 1.0
    frames_said: int | None = None


def frame_report(
    reading: FrameReading,
    *,
    noise_percent: float | None = None,
    edge_contact: bool | None = None,
    colour: FileColour = RECORDED,
) -> FrameReport:
    """A reading as it is told. A clip knows noise and contact from all its frames."""
    contact, edge = reading.contact, reading.edge
    touches = contact.matters if contact else None
    return FrameReport(
        width=reading.width,
        height=reading.height,
        hue=reading.hue,
        screen_area_percent=reading.screen_area_percent,
        level_luma=reading.level_luma,
        level_key_channel=reading.level_key_channel,
        band_percent=reading.band_percent,
        even_percent=reading.even_percent,
        grid=reading.grid,
        slope_percent=reading.slope_percent,
        hot_spots=reading.hot_spots,
        shadows=reading.shadows,
        noise_percent=noise_percent or reading.noise_percent,
        hue_deg=reading.hue_deg,
        saturation=reading.saturation,
        clipped_percent=reading.clipped_percent,
        edge_contact=touches if edge_contact is None else edge_contact,
        edge_contact_frame=tuple(contact.frame_sides) if contact else (),
        edge_contact_screen=tuple(contact.screen_sides) if contact else (),
        edge_width_px=edge.width_px if edge else None,
        spill_edge_percent=edge.spill_edge_percent if edge else None,
        spill_skin_percent=edge.spill_skin_percent if edge else None,
        primaries=colour.primaries,
        transfer=colour.transfer,
        assumed=colour.assumed,
        marks=reading.marks,
        things_at_edge=contact.things if contact else (),
        candidates=reading.candidates,
        may_be_lost=reading.may_be_lost,
    )


def clip_report(facts: ClipFacts, clip: ClipReading) -> tuple[FrameReport, ClipReport]:
    """The middle frame's report, and what only time shows."""
    contact = bool(clip.breaches) if clip.frame.contact else None
    still = frame_report(clip.frame, noise_percent=clip.temporal_noise_percent, edge_contact=contact,
                         colour=facts.colour)  # fmt: skip
    return still, ClipReport(
        container=facts.container,
        codec=facts.codec,
        pix_fmt=facts.pix_fmt,
        chroma=facts.chroma,
        bits=facts.bits,
        mbit_s=facts.mbit_s,
        fps=facts.fps,
        frames=clip.frames,
        flicker_percent=clip.timing.flicker_percent,
        flicker_hz=clip.timing.flicker_hz,
        drift_percent=clip.timing.drift_percent,
        worst_frame=clip.worst,
        breaches=clip.breaches,
        bands=clip.bands,
        bands_told=None if clip.bands is None else bands_told(clip.bands),
        bands_cure=None if clip.bands is None else bands_cure(clip.bands, facts.fps),
        bands_not_told=bands_not_told(facts.fps) if clip.bands is None else None,
        codec_name=facts.codec_name,
        matrix=facts.matrix,
        full_range=facts.full_range,
        interlaced=facts.interlaced,
        pixel_shape=facts.pixel_shape,
        frames_said=facts.frames_said,
    )


def drift_between(before: FrameReport, now: FrameReport) -> list[Drifted]:
    """What has changed on the screen from one to the other; empty where one shows no screen."""
    seen = _screen(before), _screen(now)
    return [] if seen[0] is None or seen[1] is None else drift(seen[0], seen[1])


def _screen(report: FrameReport) -> ScreenSeen | None:
    if report.level_luma is None or report.hue_deg is None or report.saturation is None:
        return None
    return ScreenSeen(
        report.level_luma.mean, report.hue_deg, report.saturation, report.even_percent, report.noise_percent
    )
