"""A connection that does not send its request is closed: half-sent ones would stand for ever otherwise. And none
waits for the other end to say that it has the first piece of an answer before it sends the next."""

from __future__ import annotations

import asyncio
import socket
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol

PATIENCE = 15.0
"""Seconds for a request's head, and for every next piece of its body."""


class PatientProtocol(H11Protocol):
    """uvicorn's HTTP/1.1 with a limit to how long the head of a request may take."""

    def __init__(self, *given: Any, **named: Any) -> None:
        super().__init__(*given, **named)
        self._head_due: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        # Only on sockets that say they are TCP's does asyncio itself do this, and those of a listening one do not:
        # head and body go out one by one, and the body would wait the 40 ms that a reader's system takes to answer.
        transport.get_extra_info("socket").setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        self._wait_for_head()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.response_complete:
            self._head_is_there()
        elif self._head_due is None:
            self._wait_for_head()

    def connection_lost(self, exc: Exception | None) -> None:
        self._head_is_there()
        super().connection_lost(exc)

    def _wait_for_head(self) -> None:
        self._head_due = self.loop.call_later(PATIENCE, self.transport.close)

    def _head_is_there(self) -> None:
        if self._head_due is not None:
            self._head_due.cancel()
            self._head_due = None
