"""The days: running order, entries with their times, what is to be said against them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ..plan import Plan
from ..rig.rigging_sheet import rigging_sheet
from .change_cost import ShotChange, matrix_of
from .day_breaks import BreaksAhead
from .day_rules import RANK, DayFinding, DaySeen, judge_day
from .production_document import Person, PlannedShot, Production, clock, days_of, minutes_of, one_day, plans_of
from .running_order import Bound, Ordered, along, running_order

FIRST_LIGHT = 20.0
"""Lighting the empty screen and evening it, a clean plate, minutes: ours."""
LATER = "its person comes later"
WHOLE_DAY = (0.0, 48.0 * 60.0)
EntryKind = Literal["rig", "light", "test", "change", "wait", "shot", "break", "wrap"]


@dataclass(frozen=True)
class DayEntry:
    """`at` "HH:MM"; `shot` its id, None for what belongs to none; `day` counted from 0."""

    at: str
    minutes: float
    kind: EntryKind
    shot: str | None
    why: str
    day: int = 0


@dataclass(frozen=True)
class DayPlan:
    """Promised keys of `ausblick production FILE --order`. `saved_minutes`: against the order typed in."""

    order: tuple[str, ...]
    change_minutes: float
    typed_minutes: float
    saved_minutes: float
    matrix: tuple[tuple[float, ...], ...]
    entries: tuple[DayEntry, ...]
    end: str
    findings: tuple[DayFinding, ...]
    ends: tuple[str, ...] = ()
    """When each day ends; `end` is the last's."""
    overs: tuple[float, ...] = ()
    """By how many minutes each day ends after the end that was agreed; below zero, before."""


@dataclass(frozen=True)
class OneDay:
    """A day by itself; `order` are numbers among its own shots, `end` minutes since midnight."""

    production: Production
    order: tuple[int, ...]
    change_minutes: float
    typed_minutes: float
    entries: tuple[DayEntry, ...]
    end: float
    findings: tuple[DayFinding, ...]


def plan_day(production: Production) -> DayPlan:
    """The best order within what binds each day, and the days that follow from it."""
    plans = plans_of(production)
    days = [plan_one(production, plans, number) for number in range(len(days_of(production)))]
    findings = [finding for day in days for finding in day.findings]
    typed, changed = sum(day.typed_minutes for day in days), sum(day.change_minutes for day in days)
    return DayPlan(
        order=tuple(day.production.shots[i].id for day in days for i in day.order),
        change_minutes=round(changed, 1),
        typed_minutes=round(typed, 1),
        saved_minutes=round(typed - changed, 1),
        matrix=tuple(tuple(round(one.minutes, 1) for one in row) for row in matrix_of(production, plans)),
        entries=tuple(entry for day in days for entry in day.entries),
        end=clock(days[-1].end),
        findings=tuple(sorted(findings, key=lambda finding: RANK[finding.severity])),
        ends=tuple(clock(day.end) for day in days),
        overs=tuple(round(day.end - minutes_of(day.production.end), 1) for day in days),
    )


def plan_one(production: Production, plans: list[Plan], number: int) -> OneDay:
    """One of the days; `plans` are those of all shots."""
    places = tuple(i for i, shot in enumerate(production.shots) if shot.day == number)
    day, plans = one_day(production, number), [plans[i] for i in places]
    changes = matrix_of(day, plans)
    matrix = [[change.minutes for change in row] for row in changes]
    first = list(_first(day, plans))
    start = minutes_of(day.call) + sum(minutes for minutes, _, _ in first)
    people = {person.id: person for person in day.people}
    bounds = [bound_of(shot, people) for shot in day.shots]
    ordered = running_order(bounds, matrix, start)
    # Rigged is what the first shot needs, whichever that has become.
    first = list(_first(day, [plans[i] for i in ordered.order]))
    entries, end = _entries(day, ordered, bounds, changes, first)
    seen = DaySeen(day, plans, max(ordered.breaches, _outside(day, bounds, entries)), end, places)
    return OneDay(
        production=day,
        order=ordered.order,
        change_minutes=ordered.change_minutes,
        typed_minutes=along(tuple(range(len(day.shots))), matrix),
        entries=tuple(replace(entry, day=number) for entry in entries),
        end=end,
        findings=tuple(replace(finding, day=number) for finding in judge_day(seen)),
    )


def bound_of(shot: PlannedShot, people: dict[str, Person]) -> Bound:
    person = people.get(shot.person or "")
    start = WHOLE_DAY[0] if person is None or person.from_ is None else minutes_of(person.from_)
    end = WHOLE_DAY[1] if person is None or person.to is None else minutes_of(person.to)
    return Bound(shot.minutes, start, end, shot.dirty, shot.pinned)


def _first(production: Production, plans: list[Plan]) -> Iterator[tuple[float, EntryKind, str]]:
    """What has to be done before anybody is filmed: from the rigging sheet of the first plan."""
    if not plans:
        return
    each, sheet = production.minutes, rigging_sheet(plans[0])
    rig = each.screen + each.lamp * len(plans[0].lights) + sheet.steaming_min
    rig += each.floor if plans[0].screen.floor_run > 0.0 else 0.0
    steam = f", {sheet.steaming_min:.0f} min of steaming in it" if sheet.steaming_min else ""
    yield rig, "rig", f"screen and {len(plans[0].lights)} lamps{steam}"
    yield FIRST_LIGHT, "light", "light the empty screen, even it, film the clean plate"
    yield each.test, "test", "a minute of test, keyed with one click"


def _entries(
    production: Production, ordered: Ordered, bounds: list[Bound], changes: list[list[ShotChange]],
    first: list[tuple[float, EntryKind, str]],
) -> tuple[list[DayEntry], float]:  # fmt: skip
    """Entries and when the last one ends, minutes since midnight."""
    now, found, before = float(minutes_of(production.call)), list[DayEntry](), None
    breaks = BreaksAhead(production.breaks)

    def add(minutes: float, kind: EntryKind, shot: str | None, why: str) -> None:
        nonlocal now
        found.append(DayEntry(clock(now), round(minutes, 1), kind, shot, why))
        now += minutes

    def rest(minutes: float) -> None:
        for one in breaks.before(now, minutes):
            add(one.minutes, "break", None, one.name)

    def wait(shot: str, until: float) -> None:
        """Whoever rests while they wait has waited."""
        for one in breaks.waiting(until) if until > now else ():
            if minutes_of(one.at) > now:
                add(minutes_of(one.at) - now, "wait", shot, LATER)
            add(one.minutes, "break", None, one.name)
        if until > now:
            add(until - now, "wait", shot, LATER)

    for minutes, kind, why in first:
        rest(minutes)
        add(minutes, kind, None, why)
    for i in ordered.order:
        shot = production.shots[i]
        change = None if before is None else changes[before][i]
        if change is not None and change.minutes > 0.0:
            rest(change.minutes)
            add(change.minutes, "change", shot.id, ", ".join(change.done))
        wait(shot.id, bounds[i].earliest)
        rest(shot.minutes)
        add(shot.minutes, "shot", shot.id, _why(production, before, i, change))
        before = i
    if ordered.order:
        found.append(
            DayEntry(clock(now), 0.0, "wrap", None, "clean plate of the last state before anything is torn down")
        )
    return found, now


def _outside(production: Production, bounds: list[Bound], entries: list[DayEntry]) -> int:
    """Shots that end after their person's time once the breaks are in."""
    latest = {shot.id: bound.latest for shot, bound in zip(production.shots, bounds, strict=True)}
    now, outside = float(minutes_of(production.call)), 0
    for entry in entries:
        now += entry.minutes
        outside += entry.kind == "shot" and now > latest[entry.shot or ""] + 1.0
    return outside


def _why(production: Production, before: int | None, i: int, change: ShotChange | None) -> str:
    shot = production.shots[i]
    if shot.pinned is not None:
        return "pinned to this place"
    if before is None or change is None:
        return "first"
    if change.minutes == 0.0:
        return "nothing changes after the shot before"
    return f"{change.minutes:g} min of change after the shot before" + (", dirty ones last" if shot.dirty else "")
