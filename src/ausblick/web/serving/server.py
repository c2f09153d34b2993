"""Serving on loopback with uvicorn until Ctrl-C or SIGTERM: both end it cleanly, with nothing cut and exit code 0."""

from __future__ import annotations

import asyncio
import gc
import logging
import signal
import socket
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from threading import Thread
from types import FrameType

import uvicorn
from flask_openapi3.openapi import OpenAPI

from ausblick.app.door import Role
from ausblick.app.memory import Memory
from ausblick.app.spare_memory import give_back, share_heaps
from ausblick.store.data_folder import data_dir
from ausblick.store.trouble import StoreTrouble

from ..app import STATIC, create_app, services_of
from ..context import NETWORK
from ..lan.network import Network, NetworkError, Open, qr_terminal
from . import patience
from .gate import Gate
from .patience import PatientProtocol

log = logging.getLogger(__name__)
FINISH = 5
"""Seconds that an ending server gives to the answers that are under way."""
BACKLOG = 512
SWITCH = 0.001
"""Seconds after which a computing thread lets another one go on (Python's own 5 ms add up for a light answer)."""


@dataclass(frozen=True)
class Wishes:
    """`roots`: folders under which some may be watched; `lan`: open the door to the set's network at once;
    `certificate`: the owner's own (certificate, key)."""

    roots: tuple[Path, ...] = ()
    lan: bool = False
    certificate: tuple[Path, Path] | None = None


def run(
    place: Path | None, port: int, wishes: Wishes = Wishes(), prepare: Callable[[Path], None] = lambda _: None
) -> int:
    """Serve a data folder, once it is prepared; prints the address. Returns the exit code."""
    share_heaps()
    if not (STATIC / "index.html").is_file():
        print("ausblick: the page is not built; run 'make demo' or 'make build' first", file=sys.stderr)
        return 2
    try:
        listening = _listen(port)
    except OSError as err:
        print(f"ausblick: cannot serve on port {port}: {err.strerror or err}", file=sys.stderr)
        return 2
    place = place or data_dir()
    try:
        prepare(place)
        app = create_app(place, roots=wishes.roots)
    except OSError as err:
        reason = (err.strerror or str(err)).lower()
        print(f"ausblick: {place}: {reason}; choose a folder with --data", file=sys.stderr)
        return 2
    except StoreTrouble as err:
        print(f"ausblick: {place}: {err}", file=sys.stderr)
        return 2
    network = _network(app, place, listening.getsockname()[1] + 1, wishes.certificate)
    try:
        state = network.open() if wishes.lan else None
    except NetworkError as err:
        services_of(app).close()
        print(f"ausblick: --lan: {err}", file=sys.stderr)
        return 2
    print(f"Ausblick is at {_address(listening)}/   (Ctrl-C stops it)", flush=True)
    if state is not None:
        _tell(state, services_of(app).door.codes)
    # uvicorn raises the signal again once it has ended; by then there is nothing left to stop.
    for ending in (signal.SIGINT, signal.SIGTERM):
        signal.signal(ending, lambda *_: None)
    # The program itself is no garbage: looking through it would stop a drag for a fifth of a second.
    gc.collect()
    gc.freeze()
    give_back()
    try:
        _serve(Serving(app), listening)
    finally:
        gc.unfreeze()
    return 0


def _network(app: OpenAPI, place: Path, port: int, given: tuple[Path, Path] | None) -> Network:
    """The door to the set's network, closed; known to the owner's page."""

    def serve(hosts: frozenset[str], cert: Path, key: Path) -> Serving:
        return Serving(app, hosts, (cert, key))

    network = Network(services_of(app), place, serve, port, given)
    app.extensions[NETWORK] = network
    return network


def _tell(state: Open, codes: dict[Role, str]) -> None:
    print(qr_terminal(state.urls[0]))
    print("Devices on this network reach it at " + " or ".join(state.urls))
    for role, code in codes.items():
        print(f"  passcode to {role:5} {code[:4]}-{code[4:]}")
    print("Browsers warn once, because no authority stands behind the certificate; its SHA-256 is")
    print(f"  {state.fingerprint}", flush=True)


@contextmanager
def beside(place: Path, memory: Memory | None = None) -> Iterator[str]:
    """A server on a free port in a thread of its own, for a browser driven by the same process; its address."""
    app, listening = create_app(place, memory), _listen(0)
    network = _network(app, place, 0, None)
    serving = Serving(app)
    thread = Thread(target=_serve, args=(serving, listening), daemon=True)
    thread.start()
    while not serving.started:
        time.sleep(0.01)
    try:
        yield _address(listening)
    finally:
        network.close()
        serving.end()
        thread.join()


def _listen(port: int) -> socket.socket:
    return socket.create_server(("127.0.0.1", port), backlog=BACKLOG)


def _address(listening: socket.socket) -> str:
    return f"http://127.0.0.1:{listening.getsockname()[1]}"


def _serve(serving: Serving, listening: socket.socket) -> None:
    sys.setswitchinterval(SWITCH)
    try:
        serving.run(sockets=[listening])
    finally:
        if (network := serving.app.extensions.get(NETWORK)) is not None:
            network.close()
        serving.gate.close()
        serving.services.close()


class Serving(uvicorn.Server):
    """uvicorn with the application behind its gate; an ending one tells the jobs at once, not after the answers."""

    def __init__(
        self, app: OpenAPI, hosts: frozenset[str] | None = None, secured: tuple[Path, Path] | None = None
    ) -> None:
        self.app, self.services = app, services_of(app)
        self.gate = Gate(app, self.services, hosts)
        super().__init__(
            uvicorn.Config(
                self.gate,
                http=PatientProtocol,
                ws="none",
                lifespan="off",
                log_config=None,
                access_log=False,
                server_header=False,
                proxy_headers=False,
                timeout_graceful_shutdown=FINISH,
                ssl_certfile=secured[0] if secured else None,
                ssl_keyfile=secured[1] if secured else None,
            )
        )

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """uvicorn leaves a TLS handshake a minute; a stalled one is closed as early as a half-sent request."""
        loop = asyncio.get_running_loop()
        plain = loop.create_server
        if self.config.is_ssl:
            loop.create_server = partial(plain, ssl_handshake_timeout=patience.PATIENCE)  # type: ignore[method-assign]
        try:
            await super().startup(sockets)
        finally:
            loop.create_server = plain  # type: ignore[method-assign]

    def end(self) -> None:
        self.gate.end_streams()
        self.should_exit = True

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self.services.jobs.cancel()
        self.gate.end_streams()
        super().handle_exit(sig, frame)
