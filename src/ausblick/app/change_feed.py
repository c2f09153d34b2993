"""What one device changed, told to the others: whoever listens hears it at once."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from threading import Lock


@dataclass(frozen=True)
class Changed:
    """`what` has changed: setups, frames, kit, lists, productions or devices; of which set-up, where it is one's;
    `by` which page, which knows already."""

    what: str
    setup: int | None = None
    by: str = ""


Hear = Callable[[Changed], None]


class Changes:
    """Tell and listen; a listener's call must be quick and is made in the thread of whoever tells."""

    def __init__(self) -> None:
        self._listeners: list[Hear] = []
        self._lock = Lock()

    def tell(self, changed: Changed) -> None:
        with self._lock:
            listeners = list(self._listeners)
        for hear in listeners:
            hear(changed)

    @contextmanager
    def heard_by(self, hear: Hear) -> Iterator[None]:
        with self._lock:
            self._listeners.append(hear)
        try:
            yield
        finally:
            with self._lock:
                self._listeners.remove(hear)
