"""What has changed in a take since the reference take of its shot, each against its limit."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ..frames.frame_report import ClipReport, FrameReport, drift_between
from ..production.day_rules import RANK
from ..sentences import Sentence, say, tell
from ..standards.day_limits import DAY_LIMITS
from ..standards.limit import Severity
from .movement import Movement, degrees_of


@dataclass(frozen=True)
class TakeFinding:
    """As a day's finding: `value` against `limit` in `unit`, and why."""

    id: str
    severity: Severity
    says: str
    told: Sentence
    value: float
    limit: float
    unit: str
    why: str


@dataclass(frozen=True)
class TakeSeen:
    """What was measured of a take; `focal_px` of its camera in pixels of the full frame."""

    report: FrameReport
    clip: ClipReport | None
    focal_px: float


def judge_take(
    take: TakeSeen, reference: TakeSeen | None, moved: Movement | None, brighter: float | None = None
) -> list[TakeFinding]:
    """Worst first. `reference`: the shot's first good take; without one only what a take shows by itself. `brighter`:
    points of signal, place by place, where both pictures are there; without it the means are compared."""
    found = list(_breach(take))
    if reference is not None:
        found += _drifted(reference.report, take.report, brighter)
    if moved is not None:
        found += _moved(moved, take.focal_px)
    return sorted(found, key=lambda finding: RANK[finding.severity])


def judge_smoke(before: FrameReport, now: FrameReport) -> list[TakeFinding]:
    """The screen's colour since the take before: smoke lays grey light over it."""
    if not before.saturation or now.saturation is None:
        return []
    off = 100.0 * (now.saturation / before.saturation - 1.0)
    if abs(off) <= DAY_LIMITS["take.smoke"].at:
        return []
    told = tell("take.smoke/thicker" if off < 0.0 else "take.smoke/thinner", off=abs(off))
    return [graded("take.smoke", abs(off), told)]


def graded(rule: str, value: float, told: Sentence, excess: float | None = None) -> TakeFinding:
    """A finding of a rule by its limit; `excess` where it is not the value beyond the limit."""
    by = DAY_LIMITS[rule]
    severity = by.grade(value - by.at if excess is None else excess)
    return TakeFinding(rule, severity, say(told), told, value, by.at, by.unit, by.reason)


def _breach(take: TakeSeen) -> Iterator[TakeFinding]:
    if take.clip is None:
        if take.report.edge_contact_screen:
            yield graded("take.breach", 1.0, tell("take.breach/still"), 0.5)
        return
    frames = float(sum(round((one.ends - one.begins) * take.clip.fps) + 1 for one in take.clip.breaches))
    if frames > DAY_LIMITS["take.breach"].at:
        yield graded("take.breach", frames, tell("take.breach", frames=frames))


def _drifted(before: FrameReport, now: FrameReport, brighter: float | None) -> Iterator[TakeFinding]:
    by = {row.name: row.difference for row in drift_between(before, now)}
    if brighter is not None:
        by["Level"] = brighter
    for name, rule in (("Level", "take.level"), ("Hue", "take.hue"), ("Colour of the light", "take.white-balance")):
        off = abs(by.get(name, 0.0))
        if off > DAY_LIMITS[rule].at:
            yield graded(rule, off, tell(rule, off=off))
    if before.noise_percent and now.noise_percent:
        times = now.noise_percent / before.noise_percent
        if times > DAY_LIMITS["take.noise"].at:
            yield graded("take.noise", times, tell("take.noise", times=times))
    stops = uneven_stops(now) - uneven_stops(before)
    if stops > DAY_LIMITS["take.evenness"].at:
        yield graded("take.evenness", stops, tell("take.evenness", stops=stops))


def uneven_stops(report: FrameReport) -> float:
    """The unevenness of a signal as stops of light, about the level that it has: Rec.709 is near a power of 0.45."""
    if report.level_luma is None or report.even_percent is None or report.level_luma.mean <= 0.0:
        return 0.0
    mean, half = report.level_luma.mean, report.even_percent / 2.0
    low = max(mean - half, 0.05 * mean)
    return math.log2((mean + half) / low) / 0.45


def _moved(moved: Movement, focal_px: float) -> Iterator[TakeFinding]:
    if moved.screen_px is not None and moved.screen_px > DAY_LIMITS["take.screen-moved"].at:
        yield graded("take.screen-moved", moved.screen_px, tell("take.screen-moved", px=moved.screen_px))
    if moved.camera_px is not None:
        turned = degrees_of(moved.camera_px, focal_px)
        if turned > DAY_LIMITS["take.camera-turned"].at:
            yield graded("take.camera-turned", turned, tell("take.camera-turned", deg=turned))
