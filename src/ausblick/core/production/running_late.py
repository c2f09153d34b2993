"""The day while it goes: when it will end as takes come in, and what brings it back, in minutes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from ..plan import Plan
from ..sentences import Sentence, say, tell
from .change_cost import ShotChange, matrix_of
from .day_breaks import BreaksAhead
from .day_plan import WHOLE_DAY, bound_of
from .production_document import Break, PlannedShot, Production, minutes_of
from .running_order import Bound, running_order

TOLD_FROM = 10.0
"""Minutes over from which options are told."""


@dataclass(frozen=True)
class LateOption:
    """What can be done, and the minutes that it saves; `shots` it is about."""

    text: str
    told: Sentence
    minutes: float
    shots: tuple[str, ...]


@dataclass(frozen=True)
class DayProjection:
    """`end` and `over` in minutes (since midnight; after the agreed end); `left` shots in their order; `options` the
    largest saving first, told from ten minutes over; `keeps` what may not be dropped."""

    end: float
    over: float
    left: tuple[str, ...]
    options: tuple[LateOption, ...]
    keeps: tuple[str, ...]


@dataclass(frozen=True)
class _Unfilmed:
    """What is still to be filmed from `begun` on, after `last` (None: nothing was filmed yet)."""

    shots: tuple[PlannedShot, ...]
    bounds: tuple[Bound, ...]
    matrix: list[list[float]]
    last: int | None
    missing: tuple[float, ...]
    """Share of each shot that is missing."""
    begun: float
    breaks: tuple[Break, ...]

    def minutes(self, i: int) -> float:
        return self.shots[i].minutes * self.missing[i]

    def end(self, order: tuple[int, ...]) -> float:
        """With the breaks that are still to come, and waiting for whoever is not there yet."""
        now, before, ahead = self.begun, self.last, BreaksAhead(self.breaks, self.begun)

        def rested(minutes: float) -> float:
            return now + sum(one.minutes for one in ahead.before(now, minutes))

        for i in order:
            change = 0.0 if before is None else self.matrix[before][i]
            now = rested(change) + change
            until = self.bounds[i].earliest
            for one in ahead.waiting(until) if until > now else ():
                now = max(now, float(minutes_of(one.at))) + one.minutes
            now = max(now, until)
            now = rested(self.minutes(i)) + self.minutes(i)
            before = i
        return now


def project(
    day: Production,
    plans: list[Plan],
    order: tuple[int, ...],
    done: Mapping[str, float],
    last: str | None,
    now: float,
) -> DayProjection:  # fmt: skip
    """From `now` on (minutes since midnight). `done`: share of each shot that has its good takes, by id; `last`: the
    shot that was filmed last, from whose set-up things are changed."""
    ids, people = [shot.id for shot in day.shots], {one.id: one for one in day.people}
    changes = matrix_of(day, plans)
    left = _Unfilmed(
        shots=day.shots,
        bounds=tuple(bound_of(shot, people) for shot in day.shots),
        matrix=[[change.minutes for change in row] for row in changes],
        last=ids.index(last) if last in ids else None,
        missing=tuple(max(0.0, 1.0 - done.get(one, 0.0)) for one in ids),
        begun=max(now, float(minutes_of(day.call))),
        breaks=day.breaks,
    )
    open_shots = tuple(i for i in order if left.missing[i] > 0.0)
    end = left.end(open_shots)
    over = end - minutes_of(day.end)
    options = sorted(_options(left, plans, open_shots, changes), key=lambda option: -option.minutes)
    late = over >= TOLD_FROM
    return DayProjection(
        end=end,
        over=over,
        left=tuple(ids[i] for i in open_shots),
        options=tuple(option for option in options if option.minutes >= 1.0) if late else (),
        keeps=(say(tell("late.keeps/plate")), say(tell("late.keeps/test"))) if late else (),
    )


def _options(
    left: _Unfilmed, plans: list[Plan], order: tuple[int, ...], changes: list[list[ShotChange]]
) -> Iterator[LateOption]:
    full = left.end(order)
    for i in order:
        shot = left.shots[i]
        if shot.priority != "must":
            told = tell("late.drop" if shot.priority == "if-time" else "late.should", title=_title(shot))
            yield _option(told, full - left.end(tuple(k for k in order if k != i)), shot)
        if len(shot.variants) > 1:
            yield _fewer_variants(left, order, i)
        if plans[i].screen.floor_run > 0.0 and "feet" not in shot.needs:
            yield _option(tell("late.tighter", title=_title(shot)), _floor_minutes(left, order, i, changes), shot)
    yield from _merged(left, order, full)


def _fewer_variants(left: _Unfilmed, order: tuple[int, ...], i: int) -> LateOption:
    shot = left.shots[i]
    count = len(shot.variants)
    fewer = max(1, count // 2)
    told = tell("late.variants", title=_title(shot), fewer=float(fewer), all=float(count))
    still = max(0.0, fewer / count - (1.0 - left.missing[i]))
    missing = tuple(still if k == i else share for k, share in enumerate(left.missing))
    kept = order if still > 0.0 else tuple(k for k in order if k != i)
    return _option(told, left.end(order) - replace(left, missing=missing).end(kept), shot)


def _floor_minutes(left: _Unfilmed, order: tuple[int, ...], i: int, changes: list[list[ShotChange]]) -> float:
    """What laying the floor piece for this shot costs on the way to it and from it."""
    at = order.index(i)
    before = order[at - 1] if at else left.last
    ways = [changes[before][i]] if before is not None else []
    ways += [changes[i][order[at + 1]]] if at + 1 < len(order) else []
    return sum(way.part("floor") for way in ways)


def _merged(left: _Unfilmed, order: tuple[int, ...], full: float) -> Iterator[LateOption]:
    """The order of what is left that has the least change, begun from where the set stands now; pins are let go."""
    if len(order) < 2:
        return
    bounds = [replace(left.bounds[i], minutes=left.minutes(i), pinned=None) for i in order]
    matrix = [[left.matrix[a][b] for b in order] for a in order]
    if left.last is not None and left.last not in order:
        # What stands now comes first, pinned: the way from it is part of the order.
        bounds = [Bound(0.0, *WHOLE_DAY, False, 0), *bounds]
        matrix = [[0.0, *(left.matrix[left.last][b] for b in order)], *([0.0, *row] for row in matrix)]
        found = tuple(order[i - 1] for i in running_order(bounds, matrix, left.begun).order if i)
    else:
        found = tuple(order[i] for i in running_order(bounds, matrix, left.begun).order)
    told = tell("late.merge", titles=tuple(_title(left.shots[i]) for i in found))
    yield LateOption(say(told), told, full - left.end(found), tuple(left.shots[i].id for i in found))


def _option(told: Sentence, minutes: float, shot: PlannedShot) -> LateOption:
    return LateOption(say(told), told, minutes, (shot.id,))


def _title(shot: PlannedShot) -> str:
    return shot.title or shot.id
