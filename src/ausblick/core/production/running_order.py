"""The order of the shots with the least minutes of change between them, under what binds the day.

Bound: a pinned shot keeps its place, dirty shots come after all clean ones, people are filmed within their times.
Waiting for somebody is allowed; it is no change. Up to EXACT shots every order is weighed (Held and Karp's dynamic
programme over sets of shots, 1962, with labels of minutes and time that no other one beats); beyond, the best of many
beginnings is improved by moving shots and turning stretches round until nothing helps.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from ..geometry.vectors import Floats, Ints

EXACT = 12
STARTS = 16
SEED = 7
FAR = 1e6
"""Minutes that a breach of somebody's times counts as, so that an order without one always wins."""


@dataclass(frozen=True)
class Bound:
    """A shot as the order sees it: minutes it takes, when it may be filmed (minutes since midnight)."""

    minutes: float
    earliest: float
    latest: float
    dirty: bool
    pinned: int | None


@dataclass(frozen=True)
class Ordered:
    """`order`: numbers of shots; `change_minutes` along it; `breaches`: shots outside their person's times."""

    order: tuple[int, ...]
    change_minutes: float
    breaches: int


def running_order(shots: list[Bound], minutes: list[list[float]], start: float) -> Ordered:
    """The best order, from `start` on (minutes since midnight). `minutes`[i][j]: change from shot i to j.

    Where no order keeps everybody within their times, one with the fewest breaches.
    """
    if not shots:
        return Ordered((), 0.0, 0)
    order = _exact(shots, minutes, start) if len(shots) <= EXACT else None
    if order is None:
        order = _searched(shots, minutes, start)
    return Ordered(order, along(order, minutes), _breaches(order, shots, minutes, start))


def along(order: tuple[int, ...], minutes: list[list[float]]) -> float:
    """Minutes of change along an order."""
    return sum(minutes[a][b] for a, b in pairwise(order))


def allowed(order: tuple[int, ...], shots: list[Bound]) -> bool:
    """Does it keep pins, and clean before dirty? A pin outweighs the dirt: whoever pins has said so."""
    if any(shot.pinned is not None and order[shot.pinned] != i for i, shot in enumerate(shots)):
        return False
    free = [shots[i].dirty for i in order if shots[i].pinned is None]
    return free == sorted(free)


def _starts(order: tuple[int, ...], shots: list[Bound], minutes: list[list[float]], start: float) -> Iterator[float]:
    now, before = start, None
    for i in order:
        now += 0.0 if before is None else minutes[before][i]
        now = max(now, shots[i].earliest)
        yield now
        now += shots[i].minutes
        before = i


def _breaches(order: tuple[int, ...], shots: list[Bound], minutes: list[list[float]], start: float) -> int:
    begun = _starts(order, shots, minutes, start)
    return sum(at + shots[i].minutes > shots[i].latest + 1e-9 for i, at in zip(order, begun, strict=True))


def _exact(shots: list[Bound], minutes: list[list[float]], start: float) -> tuple[int, ...] | None:
    """None where no order keeps everybody within their times."""
    count = len(shots)
    pinned = {shot.pinned: i for i, shot in enumerate(shots) if shot.pinned is not None}
    clean = sum(1 << i for i, shot in enumerate(shots) if not shot.dirty and shot.pinned is None)
    # Of each set of shots done and the last of them: (minutes, end, order), none beaten in both by another.
    labels: dict[tuple[int, int], list[tuple[float, float, tuple[int, ...]]]] = {(0, -1): [(0.0, start, ())]}
    for place in range(count):
        onward: dict[tuple[int, int], list[tuple[float, float, tuple[int, ...]]]] = {}
        for (done, last), known in labels.items():
            for i in _next(shots, pinned, place, done, clean):
                step = 0.0 if last < 0 else minutes[last][i]
                for cost, now, order in known:
                    end = max(now + step, shots[i].earliest) + shots[i].minutes
                    if end <= shots[i].latest + 1e-9:
                        _keep(onward.setdefault((done | 1 << i, i), []), (cost + step, end, (*order, i)))
        labels = onward
    ends = [label for known in labels.values() for label in known]
    return min(ends)[2] if ends else None


def _next(shots: list[Bound], pinned: dict[int, int], place: int, done: int, clean: int) -> list[int]:
    """Shots that may stand at a place after those that are done."""
    if place in pinned:
        return [pinned[place]]
    left = [i for i, shot in enumerate(shots) if not done >> i & 1 and shot.pinned is None]
    return [i for i in left if not shots[i].dirty] if clean & ~done else left


def _keep(known: list[tuple[float, float, tuple[int, ...]]], new: tuple[float, float, tuple[int, ...]]) -> None:
    if any(cost <= new[0] and end <= new[1] for cost, end, _ in known):
        return
    known[:] = [one for one in known if not (new[0] <= one[0] and new[1] <= one[1])]
    known.append(new)


def _searched(shots: list[Bound], minutes: list[list[float]], start: float) -> tuple[int, ...]:
    """Local search from the order given, from nearest neighbours and from mixed ones; always the same answer."""
    day = _Day(shots, minutes, start)
    found = [day.improved(begun) for begun in day.beginnings()]
    return tuple(int(i) for i in min(found, key=lambda order: (day.weights(order[None, :])[0], tuple(order))))


class _Day:
    """Many orders weighed at once: (K, n) numbers of shots, row by row."""

    def __init__(self, shots: list[Bound], minutes: list[list[float]], start: float) -> None:
        self.minutes, self.start = np.array(minutes), start
        self.takes = np.array([shot.minutes for shot in shots])
        self.earliest = np.array([shot.earliest for shot in shots])
        self.latest = np.array([shot.latest for shot in shots])
        self.dirty = np.array([shot.dirty for shot in shots])
        pinned = {shot.pinned: i for i, shot in enumerate(shots) if shot.pinned is not None}
        self.pins = np.array([pinned.get(place, -1) for place in range(len(shots))])
        self.free = np.flatnonzero(~np.isin(np.arange(len(shots)), list(pinned.values())))

    def arranged(self, free: Ints) -> Ints:
        """Whole orders (K, n) of free shots (K, m): the clean before the dirty, the pinned in their places."""
        clean_first = np.take_along_axis(free, np.argsort(self.dirty[free], axis=1, kind="stable"), axis=1)
        orders = np.broadcast_to(self.pins, (len(free), len(self.pins))).copy()
        orders[:, self.pins < 0] = clean_first
        return orders

    def weights(self, orders: Ints) -> Floats:
        """Minutes of change (K,), and FAR for every shot outside its times."""
        changes = self.minutes[orders[:, :-1], orders[:, 1:]]
        now, breaches = np.full(len(orders), self.start), np.zeros(len(orders))
        for place in range(orders.shape[1]):
            shot = orders[:, place]
            step = changes[:, place - 1] if place else 0.0
            now = np.maximum(now + step, self.earliest[shot]) + self.takes[shot]
            breaches += now > self.latest[shot] + 1e-9
        return np.asarray(changes.sum(axis=1) + FAR * breaches)

    def beginnings(self) -> Iterator[Ints]:
        dice = np.random.default_rng(SEED)
        count = len(self.free)
        yield self.arranged(self.free[None, :])[0]
        # Each beginning costs with the square of the shots, so that many shots have fewer.
        starts = max(4, min(STARTS, STARTS * 900 // max(count, 1) ** 2))
        for n in range(starts - 1 if count else 0):
            order, left = [int(self.free[n % count])], set(self.free.tolist()) - {int(self.free[n % count])}
            while left:
                rest = sorted(left)
                blur = dice.uniform(0.7, 1.3, len(rest)) if n >= count else 1.0
                near = rest[int(np.argmin((self.minutes[order[-1], rest] + 0.1) * blur))]
                order.append(near)
                left.discard(near)
            yield self.arranged(np.array([order]))[0]

    def improved(self, order: Ints) -> Ints:
        """One shot to another place, or a stretch turned round, while that helps."""
        now = float(self.weights(order[None, :])[0])
        while True:
            others = self.arranged(_neighbours(order[self.pins < 0]))
            weights = self.weights(others) if len(others) else np.array([now])
            best = int(np.argmin(weights))
            if weights[best] >= now - 1e-9:
                return order
            now, order = float(weights[best]), others[best]


def _neighbours(free: Ints) -> Ints:
    """(K, m): each shot moved to each other place, each stretch turned round."""
    count, found = len(free), []
    for a in range(count):
        rest = np.delete(free, a)
        found += [np.insert(rest, b, free[a]) for b in range(count) if b != a]
        found += [np.concatenate([free[:a], free[a : b + 1][::-1], free[b + 1 :]]) for b in range(a + 1, count)]
    return np.array(found, dtype=free.dtype).reshape(-1, count)
