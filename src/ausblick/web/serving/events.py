"""Server-sent events: a page that stays open hears what others changed, as long as it may listen."""

from __future__ import annotations

import asyncio
import json
from collections.abc import Callable
from contextlib import suppress
from dataclasses import asdict
from typing import Any

from ausblick.app.change_feed import Changed, Changes

LOOK, BEAT = 0.5, 15.0
"""Seconds between two looks whether the listener may still listen, and between two signs of life."""
MOST_WAITING = 200


async def stream(changes: Changes, receive: Any, send: Any, goes_on: Callable[[], bool]) -> None:
    """Until the listener leaves or `goes_on` says no."""
    loop, waiting = asyncio.get_running_loop(), asyncio.Queue[Changed](MOST_WAITING)

    def hear(changed: Changed) -> None:
        loop.call_soon_threadsafe(keep, changed)

    def keep(changed: Changed) -> None:
        # Who does not read for so long asks for everything again when the stream comes back.
        with suppress(asyncio.QueueFull):
            waiting.put_nowait(changed)

    headers = [
        (b"content-type", b"text/event-stream"),
        (b"cache-control", b"no-store"),
        (b"x-accel-buffering", b"no"),
    ]
    await send({"type": "http.response.start", "status": 200, "headers": headers})
    await _say(send, b"retry: 2000\n\n")
    left = asyncio.create_task(_left(receive))
    try:
        with changes.heard_by(hear):
            beaten = loop.time()
            while not left.done() and goes_on():
                try:
                    changed = await asyncio.wait_for(waiting.get(), LOOK)
                    await _say(send, b"data: " + json.dumps(asdict(changed)).encode() + b"\n\n")
                except TimeoutError:
                    if loop.time() - beaten > BEAT:
                        beaten = loop.time()
                        await _say(send, b": still here\n\n")
        await send({"type": "http.response.body", "body": b""})
    finally:
        left.cancel()


async def _say(send: Any, words: bytes) -> None:
    await send({"type": "http.response.body", "body": words, "more_body": True})


async def _left(receive: Any) -> None:
    while (await receive())["type"] != "http.disconnect":
        pass
