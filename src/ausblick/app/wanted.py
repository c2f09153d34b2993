"""Is the work still wanted? Whoever asked may have left, cancelled, or asked again; then it ends where it is.

The light that is remembered asks at every map (`BasisStore`), jobs at every step: a computation ends within some
milliseconds of compiled code after its reader has gone.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from threading import Event


class NoLongerWanted(Exception):
    """Raised inside work that nobody waits for any more."""


_LEFT: ContextVar[Event | None] = ContextVar("left", default=None)


@contextmanager
def wanted_until(left: Event) -> Iterator[None]:
    """What is done inside, in this thread and those that copy its context, ends once `left` is set."""
    before = _LEFT.set(left)
    try:
        yield
    finally:
        _LEFT.reset(before)


def still_wanted() -> None:
    """Raises NoLongerWanted when nobody waits for the answer."""
    left = _LEFT.get()
    if left is not None and left.is_set():
        raise NoLongerWanted
