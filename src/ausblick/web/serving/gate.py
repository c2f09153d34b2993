"""Before the application: bodies are read within their limits, and a reader who leaves is noticed.

A request reaches a thread only when all of it is here, so that no slow sender holds one. While it is answered the
connection is watched; when it closes, whatever is computed for it ends (`app/wanted.py`).
"""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator, Collection
from contextlib import suppress
from http.cookies import CookieError, SimpleCookie
from tempfile import SpooledTemporaryFile
from threading import Event
from typing import IO, Any

from a2wsgi import WSGIMiddleware

from ausblick.app.services import Services
from ausblick.app.wanted import wanted_until

from ..guard import COOKIE, CSRF, HEADERS, MOST_FILE, MOST_JSON, OUTSIDE, Asked, Refusal, admit, is_file
from .events import stream
from .patience import PATIENCE

EVENTS = "/api/events"
IN_MEMORY, PIECE, MOST_DROPPED = 1_000_000, 65_536, 100_000_000
THREADS = 48
"""More than can be at heavy work or wait for it (app/services.py: three kinds of 2 + 8), so light answers always
find one."""


class _Left(Exception):
    """The sender closed the connection."""


class Refused(Exception):
    def __init__(self, status: int, title: str, detail: str) -> None:
        super().__init__(detail)
        self.status, self.title = status, title


class Gate:
    """ASGI application round a WSGI one."""

    def __init__(self, application: Any, services: Services, hosts: Collection[str] | None = None) -> None:
        """`hosts`: by which the network's devices ask; None for the machine's own loopback."""
        self._application = WSGIMiddleware(application, workers=THREADS)
        self._services, self._hosts = services, hosts
        self._readers: set[Event] = set()
        self._ending = False

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        if scope["type"] != "http":
            await self._application(scope, receive, send)
            return
        scope[OUTSIDE] = self._hosts
        asked = _asked(scope, self._hosts)
        try:
            # Nobody who gets no answer sends a body, and strangers do not fill the disk.
            found = admit(asked, self._services.door)
            if isinstance(found, Refusal):
                raise Refused(found.status, found.title, found.detail)
            if asked.path == EVENTS and found != "stranger":
                await stream(self._services.changes, receive, send, lambda: self._may_go_on(asked))
                return
            body = await _read(scope, receive)
        except Refused as err:
            await _refuse(send, err)
            return
        if body is None:
            return
        with body:
            await self._answer(scope, body, receive, send)

    async def _answer(self, scope: Any, body: IO[bytes], receive: Any, send: Any) -> None:
        left = Event()
        self._readers.add(left)
        watch = asyncio.create_task(_watch(receive, left))
        try:
            with wanted_until(left):
                await self._application(scope, _served(body), send)
        finally:
            self._readers.discard(left)
            watch.cancel()
            with suppress(asyncio.CancelledError):
                await watch

    def _may_go_on(self, asked: Asked) -> bool:
        return not self._ending and not isinstance(admit(asked, self._services.door), Refusal)

    def end_streams(self) -> None:
        """Streams would go on for ever; an ending server ends them."""
        self._ending = True

    def close(self) -> None:
        """End what is computed still, and wait: a thread inside compiled code takes an ending Python down with it."""
        for left in list(self._readers):
            left.set()
        self._application.executor.shutdown(wait=True, cancel_futures=True)


def _asked(scope: Any, hosts: Collection[str] | None) -> Asked:
    headers = {name.decode("latin1"): value.decode("latin1") for name, value in scope["headers"]}
    cookies = SimpleCookie()
    with suppress(CookieError):
        cookies.load(headers.get("cookie", ""))
    return Asked(
        method=scope["method"],
        path=scope["path"],
        host=headers.get("host", ""),
        origin=headers.get("origin", ""),
        site=headers.get("sec-fetch-site", ""),
        csrf=headers.get(CSRF.lower(), ""),
        cookie=cookies[COOKIE].value if COOKIE in cookies else "",
        hosts=hosts,
    )


async def _read(scope: Any, receive: Any) -> IO[bytes] | None:
    """The whole body, in memory or beside it; None where the sender left. Raises Refused."""
    headers = dict(scope["headers"])
    file = is_file(headers.get(b"content-type", b"").decode("latin1"))
    most = MOST_FILE if file else MOST_JSON
    size = headers.get(b"content-length", b"0")
    if size.isdigit() and int(size) > most:
        await _drain(receive)
        raise _too_large(most)
    body: IO[bytes] = SpooledTemporaryFile(IN_MEMORY)  # noqa: SIM115  who answers closes it
    try:
        async for piece in _pieces(receive, each=file):
            body.write(piece)
            if body.tell() > most:
                await _drain(receive)
                raise _too_large(most)
    except Refused:
        body.close()
        raise
    except _Left:
        body.close()
        return None
    body.seek(0)
    return body


async def _pieces(receive: Any, each: bool) -> AsyncIterator[bytes]:
    """The body as it comes: `each` piece in time, or all of it. Raises Refused and _Left."""
    clock = asyncio.get_running_loop().time
    due = clock() + PATIENCE
    while True:
        try:
            message = await asyncio.wait_for(receive(), PATIENCE if each else max(0.0, due - clock()))
        except TimeoutError:
            raise Refused(408, "Too slow", f"the request did not arrive within {PATIENCE:.0f} s") from None
        if message["type"] == "http.disconnect":
            raise _Left
        yield message.get("body", b"")
        if not message.get("more_body", False):
            return


async def _drain(receive: Any) -> None:
    """Take what is still sent and drop it, so that a sender who reads only afterwards gets the answer."""
    dropped = 0
    with suppress(Refused, _Left):
        async for piece in _pieces(receive, each=False):
            dropped += len(piece)
            if dropped > MOST_DROPPED:
                return


def _too_large(most: int) -> Refused:
    return Refused(413, "Too large", f"at most {most / 1e6:.0f} MB can be sent here")


def _served(body: IO[bytes]) -> Any:
    """The body for the application, piece by piece."""

    async def receive() -> dict[str, Any]:
        piece = body.read(PIECE)
        return {"type": "http.request", "body": piece, "more_body": len(piece) == PIECE}

    return receive


async def _watch(receive: Any, left: Event) -> None:
    while (await receive())["type"] != "http.disconnect":
        pass
    left.set()


async def _refuse(send: Any, refused: Refused) -> None:
    body = json.dumps({"title": refused.title, "detail": str(refused), "field": None}).encode()
    headers = [
        (b"content-type", b"application/problem+json"),
        (b"content-length", str(len(body)).encode()),
        (b"connection", b"close"),
        *((name.lower().encode(), value.encode()) for name, value in HEADERS.items()),
    ]
    await send({"type": "http.response.start", "status": refused.status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
