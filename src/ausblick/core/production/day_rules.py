"""What stands against a day: each rule by its id, its number against its limit, and what can be done about it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ..plan import Plan
from ..rig.screen_colour import REFERENCE
from ..sentences import Sentence, say, tell
from ..standards.day_limits import DAY_LIMITS
from ..standards.limit import Severity
from .edit_hours import edit_hours
from .outfit_check import before_screen, in_the_picture, worst_before
from .production_document import Outfit, Person, PlannedShot, Production, minutes_of
from .sound import independent

RANK: dict[Severity, int] = {"stop": 0, "fix": 1, "consider": 2, "fine": 3}


@dataclass(frozen=True)
class Amendment:
    """A field of the production document, by its path, and what it becomes."""

    path: str
    value: float | str | bool


@dataclass(frozen=True)
class DayRemedy:
    """What can be done; `changes` of the production document, none where hands have to do it."""

    text: str
    told: Sentence
    changes: tuple[Amendment, ...] = ()


@dataclass(frozen=True)
class DayFinding:
    """`id` as a rule's; severity as a plan's findings have it; `shot` and `day` it is about. `value` against `limit`
    in `unit`; `why` and `source` are the limit's."""

    id: str
    severity: Severity
    says: str
    shot: str | None
    told: Sentence
    value: float
    limit: float
    unit: str
    why: str
    source: str
    day: int = 0
    remedies: tuple[DayRemedy, ...] = ()


@dataclass(frozen=True)
class DaySeen:
    """What the rules look at: one day's production, its plans, how it runs; `places` of its shots in the whole."""

    production: Production
    plans: list[Plan]
    breaches: int
    end: float
    places: tuple[int, ...]

    @property
    def shots(self) -> list[tuple[PlannedShot, Plan]]:
        return list(zip(self.production.shots, self.plans, strict=True))

    def needing(self, need: str) -> int:
        return sum(need in shot.needs for shot in self.production.shots)


Judge = Callable[[DaySeen], Iterator[DayFinding]]


def judge_day(day: DaySeen) -> list[DayFinding]:
    """Worst first, each kind in the order of the rules."""
    found = [finding for rule in RULES for finding in rule(day)]
    return sorted(found, key=lambda finding: RANK[finding.severity])


def found(
    rule: str, excess: float, value: float, told: Sentence, shot: str | None = None,
    remedies: tuple[DayRemedy, ...] = (), limit: float | None = None,
) -> DayFinding:  # fmt: skip
    """A finding of a rule, graded by its limit."""
    by = DAY_LIMITS[rule]
    at = by.at if limit is None else limit
    return DayFinding(
        rule, by.grade(excess), say(told), shot, told, value, at, by.unit, by.reason, by.source, remedies=remedies
    )


def remedy(told: Sentence, *changes: Amendment) -> DayRemedy:
    return DayRemedy(say(told), told, changes)


def _test(day: DaySeen) -> Iterator[DayFinding]:
    minutes = day.production.minutes.test
    if day.shots and minutes < DAY_LIMITS["day.test"].at:
        do = remedy(tell("day.test/do", minutes=5.0), Amendment("minutes.test", 5.0))
        yield found("day.test", 1.0, minutes, tell("day.test"), remedies=(do,))


def _people(day: DaySeen) -> Iterator[DayFinding]:
    if day.breaches:
        yield found("day.people", day.breaches, day.breaches, tell("day.people", shots=float(day.breaches)))


def _late(day: DaySeen) -> Iterator[DayFinding]:
    over = day.end - minutes_of(day.production.end)
    if over <= 0.0:
        return
    dos = tuple(
        remedy(tell("day.late/do", title=shot.title or shot.id, minutes=shot.minutes))
        for shot, _ in day.shots
        if shot.priority == "if-time"
    )
    yield found("day.late", over, over, tell("day.late", over=over, end=day.production.end), remedies=dos)


def _outfit(day: DaySeen) -> Iterator[DayFinding]:
    outfits = {one.id: one for one in day.production.outfits}
    for (shot, plan), place in zip(day.shots, day.places, strict=True):
        outfit = outfits.get(shot.outfit or "")
        if outfit is None or plan.subject is None or not outfit.garments:
            continue
        outfit = in_the_picture(outfit, plan.subject)
        worst = worst_before(outfit, plan)
        solid = 100.0 * worst.solid
        limit = DAY_LIMITS["day.outfit"].at
        if solid < limit:
            told = tell("day.outfit", outfit=outfit.name or outfit.id, garment=worst.pieces[0].garment, solid=solid,
                        hue=plan.screen.hue)  # fmt: skip
            ways = (*_other_screen(outfit, plan), *_other_outfit(day.production, outfit, plan, place))
            yield found("day.outfit", limit - solid, solid, told, shot.id, ways)


def _other_screen(outfit: Outfit, plan: Plan) -> Iterator[DayRemedy]:
    """No change of the document: the other cloth has to be there, and its light is another."""
    for hue, reflectance in REFERENCE.items():
        solid = 100.0 * before_screen(outfit, hue, reflectance).solid
        if hue != plan.screen.hue and solid >= DAY_LIMITS["day.outfit"].at:
            yield remedy(tell("day.outfit/screen", hue=hue, solid=solid))


def _other_outfit(production: Production, worn: Outfit, plan: Plan, place: int) -> Iterator[DayRemedy]:
    for other in production.outfits:
        if other.id == worn.id or other.person != worn.person or not other.garments or plan.subject is None:
            continue
        solid = 100.0 * worst_before(in_the_picture(other, plan.subject), plan).solid
        if solid >= DAY_LIMITS["day.outfit"].at:
            told = tell("day.outfit/other", outfit=other.name or other.id, solid=solid)
            yield remedy(told, Amendment(f"shots[{place}].outfit", other.id))


def _minor(day: DaySeen) -> Iterator[DayFinding]:
    filmed = {shot.person for shot, _ in day.shots}
    for person in day.production.people:
        missing = _missing_of_minor(person)
        if person.id in filmed and missing:
            what = "both" if len(missing) == 2 else missing[0]
            told = tell(f"day.minor/{what}", name=person.name or person.id)
            first = next(shot.id for shot, _ in day.shots if shot.person == person.id)
            yield found("day.minor", len(missing), len(missing), told, first)


def _missing_of_minor(person: Person) -> list[str]:
    if not person.minor:
        return []
    times = person.from_ is None or person.to is None
    return [word for word, lacks in (("times", times), ("guardian", not person.guardian.strip())) if lacks]


def _plate(day: DaySeen) -> Iterator[DayFinding]:
    for shot, plan in day.shots:
        if not plan.plate.known:
            yield found("day.plate", 1.0, 1.0, tell("day.plate"), shot.id)


def _still_take(day: DaySeen) -> Iterator[DayFinding]:
    for (shot, _), place in zip(day.shots, day.places, strict=True):
        if "moving-camera" in shot.needs and not shot.still_take:
            do = remedy(tell("day.still-take/do"), Amendment(f"shots[{place}].still_take", True))
            yield found("day.still-take", 1.0, 0.0, tell("day.still-take"), shot.id, (do,))


def _sound(day: DaySeen) -> Iterator[DayFinding]:
    shots, devices = day.needing("sound"), independent(day.production.sound)
    limit = DAY_LIMITS["day.sound"].at
    if shots and devices < limit:
        told = tell("day.sound", shots=float(shots), devices=float(devices))
        yield found("day.sound", limit - devices, devices, told)


def _many(day: DaySeen) -> Iterator[DayFinding]:
    most, count = day.production.most_screen_shots, len(day.shots)
    if count > most:
        hours = sum(edit_hours(shot, plan, day.production.edit_hours) for shot, plan in day.shots)
        told = tell("day.many", shots=float(count), hours=hours)
        yield found("day.many", count - most, count, told, limit=float(most))


def _cautions(day: DaySeen) -> Iterator[DayFinding]:
    """Said once a day, with the number that calls for it."""
    run = max((plan.screen.floor_run for plan in day.plans), default=0.0)
    lamps = [lamp for plan in day.plans for lamp in plan.lights if not lamp.is_daylight]
    cables = max((sum(not one.is_daylight for one in plan.lights) for plan in day.plans), default=0)
    high = max((lamp.position[1] for lamp in lamps), default=0.0)
    seen = {
        "day.floor-cloth": (run, tell("day.floor-cloth", run=run)),
        "day.wind": (day.needing("wind"), tell("day.wind", shots=float(day.needing("wind")))),
        "day.cables": (cables, tell("day.cables", cables=float(cables))),
        "day.ladder": (high, tell("day.ladder", height=high)),
        "day.fog": (day.needing("smoke"), tell("day.fog", shots=float(day.needing("smoke")))),
    }
    for rule, (value, told) in seen.items():
        excess = value - DAY_LIMITS[rule].at
        if excess > 0.0:
            yield found(rule, excess, float(value), told)


RULES: tuple[Judge, ...] = (_test, _people, _late, _outfit, _minor, _plate, _still_take, _sound, _many, _cautions)
