"""The day: running order, entries with their times, what is to be said against it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ..plan import Plan
from ..rig.rigging_sheet import rigging_sheet
from ..rig.wardrobe_check import hue_checks
from .change_cost import ShotChange, matrix_of
from .production_document import Person, PlannedShot, Production, clock, minutes_of, plans_of
from .running_order import Bound, Ordered, along, running_order

FIRST_LIGHT = 20.0
"""Lighting the empty screen and evening it, a clean plate, minutes: ours."""
MOST_SHOTS_A_DAY = 8
WHOLE_DAY = (0.0, 48.0 * 60.0)
EntryKind = Literal["rig", "light", "test", "change", "wait", "shot", "wrap"]


@dataclass(frozen=True)
class DayEntry:
    """`at` "HH:MM"; `shot` its id, None for what belongs to none."""

    at: str
    minutes: float
    kind: EntryKind
    shot: str | None
    why: str


@dataclass(frozen=True)
class DayFinding:
    """`id` as a rule's; severity as a plan's findings have it."""

    id: str
    severity: Literal["stop", "fix", "consider"]
    says: str
    shot: str | None


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


def plan_day(production: Production) -> DayPlan:
    """The best order within what binds it, and the day that follows from it."""
    plans, shots = plans_of(production), production.shots
    changes = matrix_of(production, plans)
    matrix = [[change.minutes for change in row] for row in changes]
    first = list(_first(production, plans))
    start = minutes_of(production.call) + sum(minutes for minutes, _, _ in first)
    people = {person.id: person for person in production.people}
    bounds = [_bound(shot, people) for shot in shots]
    ordered = running_order(bounds, matrix, start)
    typed = along(tuple(range(len(shots))), matrix)
    entries, end = _entries(production, ordered, bounds, changes, first)
    return DayPlan(
        order=tuple(shots[i].id for i in ordered.order),
        change_minutes=round(ordered.change_minutes, 1),
        typed_minutes=round(typed, 1),
        saved_minutes=round(typed - ordered.change_minutes, 1),
        matrix=tuple(tuple(round(value, 1) for value in row) for row in matrix),
        entries=tuple(entries),
        end=clock(end),
        findings=tuple(_findings(production, plans, ordered, end)),
    )


def _bound(shot: PlannedShot, people: dict[str, Person]) -> Bound:
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
    for minutes, kind, why in first:
        found.append(DayEntry(clock(now), round(minutes, 1), kind, None, why))
        now += minutes
    for i in ordered.order:
        shot = production.shots[i]
        change = None if before is None else changes[before][i]
        if change is not None and change.minutes > 0.0:
            found.append(DayEntry(clock(now), round(change.minutes, 1), "change", shot.id, ", ".join(change.done)))
            now += change.minutes
        if bounds[i].earliest > now:
            wait = bounds[i].earliest - now
            found.append(DayEntry(clock(now), round(wait, 1), "wait", shot.id, "its person comes later"))
            now += wait
        found.append(DayEntry(clock(now), shot.minutes, "shot", shot.id, _why(production, before, i, change)))
        now += shot.minutes
        before = i
    if ordered.order:
        found.append(
            DayEntry(clock(now), 0.0, "wrap", None, "clean plate of the last state before anything is torn down")
        )
    return found, now


def _why(production: Production, before: int | None, i: int, change: ShotChange | None) -> str:
    shot = production.shots[i]
    if shot.pinned is not None:
        return "pinned to this place"
    if before is None or change is None:
        return "first"
    if change.minutes == 0.0:
        return "nothing changes after the shot before"
    return f"{change.minutes:g} min of change after the shot before" + (", dirty ones last" if shot.dirty else "")


def _findings(production: Production, plans: list[Plan], ordered: Ordered, end: float) -> Iterator[DayFinding]:
    """What stands against the day, worst first."""
    if production.shots and production.minutes.test <= 0.0:
        yield DayFinding("day.test", "stop", "No time for a test: a minute of it, keyed, saves the day", None)
    if ordered.breaches:
        some = "one shot" if ordered.breaches == 1 else f"{ordered.breaches} shots"
        yield DayFinding("day.people", "stop", f"No order keeps everybody within their times: {some} outside", None)
    over = end - minutes_of(production.end)
    if over > 0.0:
        yield DayFinding("day.late", "fix", f"The day ends {over:.0f} min after {production.end}", None)
    for shot, plan in zip(production.shots, plans, strict=True):
        yield from _of_shot(production, shot, plan)
    if len(production.shots) > MOST_SHOTS_A_DAY:
        many = f"{len(production.shots)} screen shots in a day: each costs hours at the edit"
        yield DayFinding("day.many", "consider", many, None)


def _of_shot(production: Production, shot: PlannedShot, plan: Plan) -> Iterator[DayFinding]:
    person = next((one for one in production.people if one.id == shot.person), None)
    if person is not None and person.minor and (person.from_ is None or person.to is None):
        says = f"{person.name or person.id} is a minor: working times and guardian are missing; local law decides"
        yield DayFinding("day.minor", "fix", says, shot.id)
    for check in hue_checks(plan) if shot.outfit is not None and plan.subject is not None else ():
        yield DayFinding("day.outfit", "fix", f"{check.thing}: {check.matter}; {check.do}", shot.id)
    if plan.screen.floor_run > 0.0:
        says = f"{plan.screen.floor_run:g} m of cloth underfoot: mats, taped edges"
        yield DayFinding("day.floor-cloth", "consider", says, shot.id)
    if not plan.plate.known:
        yield DayFinding("day.plate", "consider", "Nobody knows yet what goes behind", shot.id)
