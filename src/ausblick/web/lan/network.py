"""The second way in, for devices on the set's network: TLS on a port of its own, opened and closed by the owner."""

from __future__ import annotations

import io
import socket
import time
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from threading import Lock, Thread
from typing import Any

import segno

from ausblick.app.services import Services

from .certificate import addresses, certificate, fingerprint


class NetworkError(RuntimeError):
    """The door can't be opened; the message says why."""


@dataclass(frozen=True)
class Open:
    """`urls`: where devices reach it; `fingerprint` of the certificate, to compare by eye."""

    urls: tuple[str, ...]
    fingerprint: str


class Network:
    """`serve(hosts, cert, key)` makes a server for these hosts; `given`: a certificate and key of the owner's."""

    def __init__(
        self, services: Services, place: Path, serve: Any, port: int, given: tuple[Path, Path] | None
    ) -> None:
        self._services, self._place, self._serve = services, place, serve
        self._port, self._given = port, given
        self._lock = Lock()
        self._server: Any = None
        self._thread: Thread | None = None
        self.state: Open | None = None

    def open(self) -> Open:
        """Raises NetworkError. New passcodes each time."""
        with self._lock:
            if self.state is not None:
                return self.state
            names = addresses()
            if not names:
                raise NetworkError("this machine has no address on a network: connect it first")
            listening = self._listen()
            port = listening.getsockname()[1]
            try:
                cert, key = self._given or certificate(self._place, names)
                seen = fingerprint(cert)
                server = self._serve(frozenset(f"{name}:{port}" for name in names), cert, key)
                # Read here, where what is wrong with it can be told.
                server.config.load()
            except (OSError, ValueError) as err:
                listening.close()
                raise NetworkError(f"the certificate or its key can't be used: {err}") from None
            self._services.door.open()
            self._server, self._thread = server, Thread(target=server.run, args=([listening],), daemon=True)
            self._thread.start()
            while not server.started and self._thread.is_alive():
                time.sleep(0.02)
            self.state = Open(tuple(f"https://{name}:{port}/" for name in names), seen)
            return self.state

    def _listen(self) -> socket.socket:
        for port in (self._port, 0):
            with suppress(OSError):
                return socket.create_server(("0.0.0.0", port), backlog=128)
        raise NetworkError("no port could be opened for the network")

    def close(self) -> None:
        """Everybody on the network is out at once."""
        with self._lock:
            self._services.door.close()
            if self._server is not None and self._thread is not None:
                self._server.end()
                self._thread.join()
                self._server.gate.close()
            self._server, self._thread, self.state = None, None, None


def qr_svg(url: str) -> bytes:
    out = io.BytesIO()
    segno.make(url, error="m").save(out, kind="svg", scale=5, border=2, dark="#111", light="#fff")
    return out.getvalue()


def qr_terminal(url: str) -> str:
    out = io.StringIO()
    segno.make(url, error="m").terminal(out, compact=True, border=1)
    return out.getvalue()
