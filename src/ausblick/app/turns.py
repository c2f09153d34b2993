"""Heavy work takes turns: some at once, some wait in the order they came, the rest is told when to come again."""

from __future__ import annotations

import math
import time
from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from threading import Condition

from .wanted import still_wanted

_HAS_TURN: ContextVar[bool] = ContextVar("has_turn", default=False)
LOOK = 0.2
"""Seconds after which somebody who waits looks whether the reader has left."""


class Busy(Exception):
    """Too many wait already. `again` says in how many seconds there should be room."""

    def __init__(self, again: int) -> None:
        super().__init__(f"try again in {again} s")
        self.again = again


class Turns:
    """`usual`: how long one takes in s, at first; what is measured takes its place."""

    def __init__(self, at_once: int, waiting: int, usual: float = 2.0) -> None:
        self._at_once, self._most, self._usual = at_once, waiting, usual
        self._working = 0
        self._line: deque[object] = deque()
        self._changed = Condition()

    @contextmanager
    def taken(self) -> Iterator[None]:
        """One's turn, in the order in which people came; inside a turn there is no other to wait for. Raises Busy,
        and NoLongerWanted while waiting."""
        if _HAS_TURN.get():
            yield
            return
        with self._changed:
            # The lock is held until one stands in line, so that the bound holds however many come at once.
            if self._working + len(self._line) >= self._at_once + self._most:
                raise Busy(self._again())
            ticket = self._line_up()
        self._enter(ticket)
        begun, mark = time.monotonic(), _HAS_TURN.set(True)
        try:
            yield
        finally:
            _HAS_TURN.reset(mark)
            self._leave()
            self._usual += 0.2 * (time.monotonic() - begun - self._usual)

    def pass_on(self) -> None:
        """Between two steps of long work: who waits goes first."""
        with self._changed:
            if not self._line:
                return
            ticket = self._line_up()
        self._leave()
        try:
            self._enter(ticket)
        except BaseException:
            # `taken` gives a place back in any case: it must be one that was there.
            with self._changed:
                self._working += 1
            raise

    def _line_up(self) -> object:
        """A place at the end of the line; the lock is held by who asks."""
        ticket = object()
        self._line.append(ticket)
        return ticket

    def _enter(self, ticket: object) -> None:
        with self._changed:
            try:
                while self._working >= self._at_once or self._line[0] is not ticket:
                    self._changed.wait(LOOK)
                    still_wanted()
                self._working += 1
            finally:
                self._line.remove(ticket)
                self._changed.notify_all()

    def _leave(self) -> None:
        with self._changed:
            self._working -= 1
            self._changed.notify_all()

    def _again(self) -> int:
        ahead = len(self._line) + self._working
        return max(1, math.ceil(self._usual * ahead / self._at_once))
