"""Decoded ahead: one thread makes the next pictures while another reads those that are there."""

from __future__ import annotations

from collections.abc import Generator, Iterator
from contextlib import suppress
from queue import Full, Queue
from threading import Event, Thread
from typing import Generic, TypeVar

T = TypeVar("T")
MOST = 6
"""Pictures that wait; a 4K picture is some 12 MB."""
PATIENCE_S = 0.1
"""How soon the thread notices that nobody reads any more."""


class _End(Generic[T]):
    """What comes after the last one: nothing, or what went wrong."""

    def __init__(self, error: BaseException | None = None) -> None:
        self.error = error


def ahead(made: Iterator[T], most: int = MOST) -> Generator[T]:
    """The same things in the same order, made in a thread of their own; what that raises is raised here. Who stops
    reading, closes: the thread ends before this does, so that what it reads from may be closed."""
    waiting: Queue[T | _End[T]] = Queue(most)
    stopped = Event()

    def put(one: T | _End[T]) -> None:
        while not stopped.is_set():
            with suppress(Full):
                waiting.put(one, timeout=PATIENCE_S)
                return

    def work() -> None:
        try:
            for one in made:
                put(one)
                if stopped.is_set():
                    return
            put(_End())
        except BaseException as error:  # Raised again where it is read.
            put(_End(error))

    thread = Thread(target=work, daemon=True)
    thread.start()
    try:
        while True:
            one = waiting.get()
            if isinstance(one, _End):
                if one.error is not None:
                    raise one.error
                return
            yield one
    finally:
        stopped.set()
        thread.join()
