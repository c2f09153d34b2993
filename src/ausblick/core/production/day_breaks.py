"""Breaks stand where the gap between two entries is nearest to their time."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from .production_document import Break, minutes_of


class BreaksAhead:
    """The breaks that are still to come on a day, from a time on (minutes since midnight)."""

    def __init__(self, breaks: Iterable[Break], begun: float = 0.0) -> None:
        ahead = (one for one in breaks if minutes_of(one.at) >= begun)
        self._left = sorted(ahead, key=lambda one: one.at)

    def before(self, now: float, minutes: float) -> Iterator[Break]:
        """Those that are taken before an entry of so many minutes begins at `now`; each comes once."""
        while self._left and self._nearer(now, now + minutes):
            rest = self._left.pop(0)
            yield rest
            now += rest.minutes

    def waiting(self, until: float) -> Iterator[Break]:
        """Those whose time comes while somebody is waited for: they are taken then, at their time."""
        while self._left and minutes_of(self._left[0].at) < until:
            yield self._left.pop(0)

    def _nearer(self, now: float, after: float) -> bool:
        at = minutes_of(self._left[0].at)
        return abs(after - at) > abs(now - at)
