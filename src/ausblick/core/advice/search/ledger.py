"""The ledger of stops: every choice that spends or wins light as a signed row, and solutions for a target.

    stops over the target = sum of the rows + what the set gives; a stop is a stop wherever it comes from

Some rows are locked; the free ones are solved so that screen and face reach their levels. Each solution is
evaluated as a plan of its own: what it does to smear, noise, depth, flicker, power and spill is computed.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ...camera.built_in_lens import lens_is_built_in
from ...camera.exposure import stops
from ...camera.motion import flicker_error, safe_shutters
from ...camera.sensor_noise import screen_noise
from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Change, Plan, apply_changes, edit
from ...sentences import Sentence, shutter, tell
from ...standards.quantities import Metres, Percent, Pixels, Points, Stops, Watts
from ..rules.light_rules import wanted_lux
from ..rules.spill_rules import screen_colour, worst_place
from ..rules.subject_rules import wanted_stops
from ..steps import opened, third_stop

Row = Literal["frame rate", "shutter", "aperture", "iso", "nd", "screen lamps", "subject lamps"]
REFERENCE_F = 4.0
SMALLEST, MOST_ISO = 16.0, 3.0
SCREEN, SUBJECT = ("screen",), ("key", "fill", "back")
CLOSE = 0.02
MOST_SOLUTIONS, CAMERA_ROUNDS, DIMMER_ROUNDS = 3, 3, 5
LEAST_STEP = 0.05
"""Solutions reach their targets within CLOSE stops; a dimmer falls to a twentieth in one round at most, so that
it can come back."""


@dataclass(frozen=True)
class Entry:
    """A row: what it is set to, and the stops it wins (+) or spends (-) against the reference."""

    row: Row
    setting: str
    stops: float
    locked: bool


@dataclass(frozen=True)
class Standing:
    """Stops that screen and face are over what is wanted; None without one."""

    screen: float | None
    face: float | None


@dataclass(frozen=True)
class Outcome:
    """What a plan comes to: smear px, noise at the screen's level in % of signal (key channel), depth of field m,
    cut flashes, watts drawn by dimmed lamps, screen colour on the edge in %, and its standing."""

    smear_px: Pixels | None
    noise_percent: Points | None
    depth_m: Metres | None
    cut_flashes: float
    watts: Watts
    edge_percent: Percent | None
    standing: Standing


@dataclass(frozen=True)
class Solution:
    """`missing` stops (0: solved) and what would win them, in words."""

    name: str
    changes: tuple[Change, ...]
    entries: tuple[Entry, ...]
    outcome: Outcome
    missing: Stops
    says: Sentence


@dataclass(frozen=True)
class Ledger:
    entries: tuple[Entry, ...]
    outcome: Outcome
    solutions: tuple[Solution, ...]
    safe_shutters: tuple[float, ...]


def ledger_of(plan: Plan, locked: frozenset[str], store: BasisStore) -> Ledger:
    """The plan's ledger and up to three solutions; `locked` rows stay as they are, and what a phone cannot turn."""
    if lens_is_built_in(plan.camera):
        locked = locked | {"aperture"}
    evaluation = evaluate(plan, store)
    found: list[Solution] = []
    for name, first, start in _ways(plan, locked):
        solution = _solve(evaluation, apply_changes(plan, start), locked, first, name, store)
        if solution.changes and all(solution.name != other.name for other in found):
            found.append(solution)
    return Ledger(
        entries=tuple(entries_of(plan, locked)),
        outcome=outcome_of(evaluation),
        solutions=tuple(sorted(found, key=lambda s: round(s.missing, 1))[:MOST_SOLUTIONS]),
        safe_shutters=tuple(safe_shutters(plan.room.mains.hz, plan.camera.fps)),
    )


def _ways(plan: Plan, locked: frozenset[str]) -> Iterator[tuple[str, str, list[Change]]]:
    """Name, the row that moves first, and what is set beforehand."""
    camera = plan.camera
    if "iso" not in locked and camera.iso > 1.1 * camera.sensor.base_iso and "aperture" not in locked:
        yield "Base ISO, aperture for the light", "aperture", [edit.camera.iso(camera.sensor.base_iso)]
    for first in ("aperture", "shutter", "iso"):
        if first not in locked:
            yield f"{first.upper() if first == 'iso' else first.capitalize()} for the light", first, []


def entries_of(plan: Plan, locked: frozenset[str] = frozenset()) -> Iterator[Entry]:
    """Rows against 180 degrees, f/4, base ISO, no ND, lamps at full."""
    camera = plan.camera
    if camera.playback_fps > 0.0 and camera.playback_fps != camera.fps:
        yield _entry("frame rate", f"{camera.fps:g} fps", stops(camera.playback_fps / camera.fps), locked)
    yield _entry("shutter", shutter(camera.shutter_s), stops(camera.shutter_s * 2.0 * camera.fps), locked)
    yield _entry("aperture", f"f/{camera.f_number:g}", 2.0 * math.log2(REFERENCE_F / camera.f_number), locked)
    yield _entry("iso", f"ISO {camera.iso:.0f}", stops(camera.iso / camera.sensor.base_iso), locked)
    yield _entry("nd", f"{camera.nd_stops:g} stops", -camera.nd_stops, locked)
    rows: tuple[tuple[Row, tuple[str, ...]], ...] = (
        ("screen lamps", SCREEN),
        ("subject lamps", SUBJECT),
    )
    for row, roles in rows:
        top = _top(plan, roles)
        if top > 0.0:
            yield _entry(row, f"{100.0 * top:.0f} %", stops(top), locked)


def _entry(row: Row, setting: str, value: float, locked: frozenset[str]) -> Entry:
    return Entry(row, setting, value, row in locked)


def _top(plan: Plan, roles: tuple[str, ...]) -> float:
    """The highest dimmer among the lit lamps of some roles: the one that runs out first."""
    return max((lamp.dimmer for lamp in plan.lights if lamp.role in roles and lamp.on), default=0.0)


def standing_of(evaluation: Evaluation) -> Standing:
    screen, over = evaluation.screen, evaluation.exposure.stops_over
    low, high = wanted_stops(evaluation)
    goal = 0.0 if low <= 0.0 <= high else (low + high) / 2.0
    lit = screen is not None and screen.lux_mean > 0.0
    return Standing(
        stops(screen.lux_mean / wanted_lux(evaluation)) if screen is not None and lit else None,
        over - goal if over is not None and math.isfinite(over) else None,
    )


def outcome_of(evaluation: Evaluation) -> Outcome:
    plan = evaluation.plan
    reading = worst_place(evaluation, "side")
    depth = None if evaluation.focus is None else evaluation.focus.far_m - evaluation.focus.near_m
    return Outcome(
        smear_px=evaluation.blur.motion_px,
        noise_percent=screen_noise(plan, evaluation.screen.lux_mean) if evaluation.screen else None,
        depth_m=depth if depth is not None and math.isfinite(depth) else None,
        cut_flashes=flicker_error(plan.camera.shutter_s, plan.room.mains.hz),
        watts=sum(lamp.fixture.watts * lamp.dimmer for lamp in plan.lights if lamp.on),
        edge_percent=None if reading is None else screen_colour(evaluation, reading),
        standing=standing_of(evaluation),
    )


def _solve(
    before: Evaluation, start: Plan, locked: frozenset[str], first: str, name: str, store: BasisStore
) -> Solution:
    """Camera by one row, then both groups of dimmers; repeated because each zone lights the other."""
    changed = start
    for _ in range(CAMERA_ROUNDS):
        result = evaluate(changed, store)
        moves = _camera_changes(changed, first, _camera_shift(result, locked), locked)
        if moves:
            changed = apply_changes(changed, moves)
        for _ in range(DIMMER_ROUNDS):
            result = evaluate(changed, store)
            steps = _dim(result, locked)
            if not steps:
                break
            changed = apply_changes(changed, steps)
    result = evaluate(changed, store)
    left = _left(standing_of(result))
    missing = left if left > CLOSE else 0.0
    differences = tuple(_differences(before.plan, changed))
    if all(change.path.startswith("lights") for change in differences):
        name = "Dimmers alone"
    return Solution(
        name,
        differences,
        tuple(entries_of(changed, locked)),
        outcome_of(result),
        missing,
        _says(result, missing, locked),
    )


def _left(standing: Standing) -> float:
    """Stops that are still missing on the darker of both."""
    known = [-value for value in (standing.screen, standing.face) if value is not None]
    return max(known, default=0.0)


def _camera_shift(evaluation: Evaluation, locked: frozenset[str]) -> float:
    """Stops the camera has to win (+) or spend (-), before rounding to what it offers."""
    plan, standing = evaluation.plan, standing_of(evaluation)
    needs, allows = [], []
    for value, row, roles in (
        (standing.screen, "screen lamps", SCREEN),
        (standing.face, "subject lamps", SUBJECT),
    ):
        if value is None:
            continue
        top = _top(plan, roles)
        room = 0.0 if row in locked or top <= 0.0 else -stops(top)
        needs.append(-value - room)
        allows.append(-value if row in locked or top <= 0.0 else math.inf)
    if not needs:
        return 0.0
    wanted = max(needs)
    # What can't be dimmed must be met exactly; otherwise the camera moves only as far as it has to.
    fixed = min(allows)
    return fixed if math.isfinite(fixed) else max(0.0, wanted)


def _camera_changes(plan: Plan, first: str, shift: float, locked: frozenset[str]) -> list[Change]:
    camera = plan.camera
    if abs(shift) < 0.01:
        return []
    if first == "aperture":
        f_number = min(opened(camera, camera.f_number * 2.0 ** (-shift / 2.0)), SMALLEST)
        rest = shift - 2.0 * math.log2(camera.f_number / f_number)
        return [edit.camera.f_number(f_number), *([] if "iso" in locked else _iso(plan, rest))]
    if first == "iso":
        return _iso(plan, shift)
    return _shutter(plan, shift, locked)


def _iso(plan: Plan, shift: float) -> list[Change]:
    """In thirds of a stop upwards, between base and three stops above it."""
    camera = plan.camera
    if shift <= 0.01 and camera.iso <= camera.sensor.base_iso:
        return []
    raised = math.ceil(3.0 * (stops(camera.iso / camera.sensor.base_iso) + shift) - 1e-6) / 3.0
    iso = camera.sensor.base_iso * 2.0 ** min(max(raised, 0.0), MOST_ISO)
    return [edit.camera.iso(float(round(iso / 10.0) * 10))]


def _shutter(plan: Plan, shift: float, locked: frozenset[str]) -> list[Change]:
    """The shortest flicker-safe shutter that wins enough, else the longest there is."""
    camera = plan.camera
    wanted = camera.shutter_s * 2.0**shift
    safe = safe_shutters(plan.room.mains.hz, camera.fps)
    enough = [s for s in safe if s >= wanted * 0.999]
    chosen = min(enough) if enough else max(safe, default=1.0 / camera.fps)
    rest = stops(wanted / chosen)
    return [
        edit.camera.shutter_s(round(chosen, 7)),
        *(_iso(plan, rest) if rest > 0.01 and "iso" not in locked else []),
    ]


def _dim(result: Evaluation, locked: frozenset[str]) -> list[Change]:
    """One round of both groups of dimmers toward their levels, counting only what the group itself gives."""
    plan, standing, changes = result.plan, standing_of(result), []
    on_screen = result.screen.lux_mean if result.screen else 0.0
    on_face = result.exposure.subject_lux or 0.0
    for value, row, roles, shares, total in (
        (standing.screen, "screen lamps", SCREEN, result.screen_by_lamp, on_screen),
        (standing.face, "subject lamps", SUBJECT, result.face_by_lamp, on_face),
    ):
        if value is None or row in locked or abs(value) < CLOSE / 4.0:
            continue
        own = sum(shares.get(lamp.id, 0.0) for lamp in plan.lights if lamp.role in roles and lamp.on)
        top = _top(plan, roles)
        if own <= 0.0 or top <= 0.0:
            continue
        factor = max(LEAST_STEP, (own + total * (2.0**-value - 1.0)) / own)
        factor = min(factor, 1.0 / top)
        if abs(factor - 1.0) < 1e-3:
            continue
        changes += [
            edit.lamp(i).dimmer(float(min(1.0, round(lamp.dimmer * factor, 4))))
            for i, lamp in enumerate(plan.lights)
            if lamp.role in roles and lamp.on
        ]
    return changes


def _differences(before: Plan, after: Plan) -> Iterator[Change]:
    old, new = before.camera, after.camera
    for set_to, was, now in (
        (edit.camera.shutter_s, old.shutter_s, new.shutter_s),
        (edit.camera.f_number, old.f_number, new.f_number),
        (edit.camera.iso, old.iso, new.iso),
        (edit.camera.nd_stops, old.nd_stops, new.nd_stops),
    ):
        if was != now:
            yield set_to(now)
    for i, (lamp, dimmed) in enumerate(zip(before.lights, after.lights, strict=True)):
        if lamp.dimmer != dimmed.dimmer:
            yield edit.lamp(i).dimmer(dimmed.dimmer)


def _says(result: Evaluation, missing: float, locked: frozenset[str]) -> Sentence:
    standing = standing_of(result)
    if missing <= 0.0:
        over = [v for v in (standing.screen, standing.face) if v is not None and v > CLOSE]
        if over:
            return tell("ledger/too-much", over=max(over))
        return tell("ledger/solved")
    short = "screen" if (standing.screen or 0.0) <= (standing.face or 0.0) else "face"
    nearer = 2.0 ** (-missing / 2.0)
    wide = third_stop(result.plan.camera.f_number * nearer, up=False)
    if wide >= result.plan.camera.widest and "aperture" not in locked:
        return tell(f"ledger/short-{short}-open", missing=missing, nearer=100.0 * nearer, f_number=wide)
    return tell(f"ledger/short-{short}", missing=missing, nearer=100.0 * nearer)
