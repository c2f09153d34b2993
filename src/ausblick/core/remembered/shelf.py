"""What is remembered: by its whole content, least recently asked for first to go."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, field
from functools import wraps
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar
from weakref import WeakSet

T = TypeVar("T")
P = ParamSpec("P")
STAYS = 8
"""Of what a shelf holds at most, one part in so many stays when room is needed: that of the set-up in hand."""


@dataclass(eq=False)
class Shelf(Generic[T]):
    """Least-recently-used memory, bounded in number, and in bytes where `size` tells them. Threads may share it.

    `lasts`: it holds answers that are small and long in coming, and is not cleared where room is needed.
    """

    most: int
    most_bytes: int = 0
    size: Callable[[T], int] = lambda _: 0
    lasts: bool = False
    _kept: OrderedDict[Hashable, T] = field(default_factory=OrderedDict)
    _bytes: int = 0
    _lock: Lock = field(default_factory=Lock)

    def __post_init__(self) -> None:
        if not self.lasts:
            _SHELVES.add(self)

    def known(self, key: Hashable) -> T | None:
        """What is remembered under a key, without making it; None where nothing is."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
            return self._kept.get(key)

    def all_known(self, keys: Sequence[Hashable]) -> list[T | None]:
        """The same of several keys."""
        with self._lock:
            found = [self._kept.get(key) for key in keys]
            for key, one in zip(keys, found, strict=True):
                if one is not None:
                    self._kept.move_to_end(key)
        return found

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = make()
        self.put(key, made)
        return made

    def put(self, key: Hashable, made: T) -> None:
        """Remembered in the place of what another thread, or an older answer, left there."""
        with self._lock:
            older = self._kept.pop(key, None)
            self._bytes += self.size(made) - (0 if older is None else self.size(older))
            self._kept[key] = made
            self._shrink(self.most, self.most_bytes)

    def let_go(self) -> None:
        """All but what was asked for last."""
        with self._lock:
            self._shrink(max(1, self.most // STAYS), self.most_bytes // STAYS)

    def _shrink(self, most: int, most_bytes: int) -> None:
        while len(self._kept) > most or (self._bytes > most_bytes and len(self._kept) > 1):
            self._bytes -= self.size(self._kept.popitem(last=False)[1])


_SHELVES: WeakSet[Shelf[Any]] = WeakSet()


def let_go_of_older() -> None:
    """Of all that is remembered, but for what lasts, only what was asked for last stays."""
    for shelf in list(_SHELVES):
        shelf.let_go()


def remembered(most: int) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """The last `most` answers of a function are on a shelf, by its arguments in their order: for what is too large
    to stay where room is needed, as in `functools.lru_cache` it would."""

    def on_shelf(make: Callable[P, T]) -> Callable[P, T]:
        shelf: Shelf[T] = Shelf(most)

        @wraps(make)
        def known(*args: P.args, **kwargs: P.kwargs) -> T:
            return shelf.get((args, *kwargs.items()), lambda: make(*args, **kwargs))

        return known

    return on_shelf
