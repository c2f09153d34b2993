"""The promised answers as plain JSON-ready data: what `check`, `measure` and `key` say.

Other programs rely on these names (docs/formats.md); keys may be added, none changes its meaning.
"""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ausblick.core.diagnosis.trial_key import TrialKey
from ausblick.core.frames.clip_timing import ClipReading
from ausblick.core.frames.drift import Drifted, ScreenSeen, drift
from ausblick.core.frames.reading import FrameReading, Level
from ausblick.core.frames.spots import Spot
from ausblick.core.matte.keyer import Key
from ausblick.core.matte.levers import Lever
from ausblick.core.matte.quality import Measures
from ausblick.core.matte.simulation import SimulatedKey


def frame_report(reading: FrameReading) -> dict[str, Any]:
    """The `measure` object of a still frame."""
    contact = reading.contact
    return {
        "width": reading.width,
        "height": reading.height,
        "hue": reading.hue,
        "screen_area_percent": reading.screen_area_percent,
        "level_luma": _level(reading.level_luma),
        "level_key_channel": _level(reading.level_key_channel),
        "band_percent": reading.band_percent,
        "even_percent": reading.even_percent,
        "grid": [list(row) for row in reading.grid] if reading.grid else None,
        "slope_percent": list(reading.slope_percent) if reading.slope_percent else None,
        "hot_spots": [_spot(spot) for spot in reading.hot_spots],
        "shadows": [_spot(spot) for spot in reading.shadows],
        "noise_percent": reading.noise_percent,
        "hue_deg": reading.hue_deg,
        "saturation": reading.saturation,
        "clipped_percent": reading.clipped_percent,
        "edge_contact": contact.matters if contact else None,
        "edge_contact_frame": list(contact.frame_sides) if contact else [],
        "edge_contact_screen": list(contact.screen_sides) if contact else [],
        "edge_width_px": reading.edge.width_px if reading.edge else None,
        "spill_edge_percent": reading.edge.spill_edge_percent if reading.edge else None,
        "spill_skin_percent": reading.edge.spill_skin_percent if reading.edge else None,
    }


def _level(level: Level | None) -> dict[str, float] | None:
    return asdict(level) if level else None


def _spot(spot: Spot) -> dict[str, float]:
    return asdict(spot)


def screen_seen(report: dict[str, Any]) -> ScreenSeen | None:
    """The screen's means out of a `measure` object; None where no screen was found."""
    if report["level_luma"] is None or report["hue_deg"] is None or report["saturation"] is None:
        return None
    names = ("hue_deg", "saturation", "even_percent", "noise_percent")
    return ScreenSeen(report["level_luma"]["mean"], *(report.get(name) for name in names))  # type: ignore[arg-type]


def drift_report(before: dict[str, Any], now: dict[str, Any]) -> list[dict[str, Any]]:
    """What has changed on the screen between two `measure` objects; empty where one has none."""
    return [asdict(row) for row in drift_between(before, now)]


def drift_between(before: dict[str, Any], now: dict[str, Any]) -> list[Drifted]:
    seen = screen_seen(before), screen_seen(now)
    return [] if seen[0] is None or seen[1] is None else drift(seen[0], seen[1])


def key_report(key: Key) -> dict[str, Any]:
    """The `key` object."""
    return {
        "residue_percent": key.residue_percent,
        "holes_percent": key.holes_percent,
        "black_clip": key.black_clip,
        "white_clip": key.white_clip,
        "needed_clip": key.needed_clip,
        "sample": {"rgb": list(key.sample.rgb), "x": key.sample.x, "y": key.sample.y},
    }


def trial_report(trial: TrialKey) -> dict[str, Any]:
    """What a key against a clean plate says in the place of the plain one's figures."""
    return {
        "residue_percent": trial.residue_percent,
        "holes_percent": trial.holes_percent,
        "black_clip": trial.pulled.black_clip,
        "white_clip": trial.pulled.white_clip,
        "needed_clip": trial.pulled.needed_clip,
    }


def simulated_report(key: SimulatedKey, levers: list[Lever]) -> dict[str, Any]:
    """The `test-key` object."""
    m = key.measures
    return {
        "quality": key.quality,
        "edge_error": m.edge_error,
        "residue_percent": m.residue_percent,
        "holes_percent": m.holes_percent,
        "hair_error": m.hair_error,
        "motion_error": m.motion_error,
        "soft_edge_cm2": m.soft_edge,
        "needed_clip": m.needed_clip,
        "composite_error": m.composite_error,
        "screen_left": m.screen_left,
        "flicker_percent": key.flicker_percent,
        "second_keyer": None if key.second is None else _second(key.second),
        "parts": [asdict(part) for part in key.parts],
        "levers": [
            {
                "change": lever.change,
                "quality_after": lever.quality_after,
                "gain": lever.gain,
                "cost": lever.cost,
                "changes": [{"path": c.path, "value": c.value} for c in lever.changes],
            }
            for lever in levers
        ],
    }


def clip_report(facts: Any, clip: ClipReading) -> dict[str, Any]:
    """The `measure` object of a clip: the still's keys from its middle frame, and what only time shows."""
    return {
        **frame_report(clip.frame),
        "noise_percent": clip.temporal_noise_percent or clip.frame.noise_percent,
        "edge_contact": bool(clip.breaches) if clip.frame.contact else None,
        **{
            name: getattr(facts, name)
            for name in ("container", "codec", "pix_fmt", "chroma", "bits", "mbit_s", "fps")
        },
        "frames": clip.frames,
        "flicker_percent": clip.timing.flicker_percent,
        "flicker_hz": clip.timing.flicker_hz,
        "drift_percent": clip.timing.drift_percent,
        "worst_frame": clip.worst,
        "breaches": [asdict(breach) for breach in clip.breaches],
    }


def _second(m: Measures) -> dict[str, float | None]:
    names = ("edge_error", "hair_error", "needed_clip", "residue_percent", "holes_percent")
    return {name: getattr(m, name) for name in names}
