"""Bands of a clip in words: what is seen, and the shutters that hold whole flashes of the lamp."""

from __future__ import annotations

from ..camera.motion import safe_shutters
from ..sentences import Sentence, tell
from .bands import Bands, lamp_that_stands


def bands_told(bands: Bands) -> Sentence:
    swing = bands.swing_percent
    if bands.standing:
        return tell("frame.bands/stand", swing=swing, hz=bands.hz or 0.0)
    if bands.hz is None:
        return tell("frame.bands/travel", swing=swing, times=abs(bands.travel_hz))
    return tell("frame.bands/lamp", swing=swing, hz=bands.hz, times=abs(bands.travel_hz))


def bands_cure(bands: Bands, fps: float) -> Sentence:
    """The slowest shutter that fits is the safest: a lamp's flashes are never quite alike."""
    safe = safe_shutters((bands.hz or 0.0) / 2.0, fps) if bands.hz else []
    if not safe:
        return tell("frame.bands/lamps")
    known = tuple(f"1/{1.0 / shutter:.0f}" for shutter in reversed(safe[:4]))
    return tell("frame.bands/compare" if bands.standing else "frame.bands/shutter", shutters=known)


def bands_not_told(fps: float) -> Sentence | None:
    """What a clip that shows no bands cannot rule out: one broad band that stands still is like the light's slope."""
    hz = lamp_that_stands(fps)
    safe = safe_shutters(hz / 2.0, fps) if hz else []
    if hz is None or not safe:
        return None
    return tell(
        "frame.bands/not-told", fps=fps, hz=hz, shutters=tuple(f"1/{1.0 / one:.0f}" for one in reversed(safe[:2]))
    )
