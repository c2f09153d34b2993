"""What several ask for at the same time is worked out once; the last few answers are kept."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from threading import Event, Lock
from typing import Generic, TypeVar

from ausblick.core.remembered.shelf import Shelf

from .wanted import still_wanted

T = TypeVar("T")
OFTEN_S = 0.05
"""How often who waits looks whether anybody still waits for him, s."""


class AskedOnce(Generic[T]):
    """By key: who asks while another's answer is under way waits for it, as long as somebody waits for him. Threads
    may share it."""

    def __init__(self, most: int) -> None:
        self._kept: Shelf[T] = Shelf(most)
        self._under_way: dict[Hashable, Event] = {}
        self._lock = Lock()

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """What is kept under a key, else what `make` makes. Who waited for one that failed, or was called off, makes
        it anew."""
        while True:
            with self._lock:
                known = self._kept.known(key)
                waited = self._under_way.get(key)
                if known is None and waited is None:
                    mine = self._under_way[key] = Event()
            if known is not None:
                return known
            if waited is None:
                return self._made(key, make, mine)
            while not waited.wait(OFTEN_S):
                still_wanted()

    def _made(self, key: Hashable, make: Callable[[], T], done: Event) -> T:
        try:
            made = make()
            return self._kept.get(key, lambda: made)
        finally:
            with self._lock:
                del self._under_way[key]
            done.set()
