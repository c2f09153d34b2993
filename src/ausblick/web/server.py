"""Serving on loopback with waitress until Ctrl-C."""

from __future__ import annotations

import logging
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Thread

from flask_openapi3.openapi import OpenAPI
from waitress.server import BaseWSGIServer, create_server

from ausblick.app.memory import Memory
from ausblick.store.data_folder import data_dir

from .app import STATIC, close_app, create_app

log = logging.getLogger(__name__)
THREADS = 6
PATIENCE = 60.0
"""Seconds that an ending server waits for the requests it is still answering."""


def run(place: Path | None, port: int) -> int:
    """Serve a data folder; prints the address. Returns the exit code."""
    if not (STATIC / "index.html").is_file():
        print("ausblick: the page is not built; run 'make demo' or 'make build' first", file=sys.stderr)
        return 2
    try:
        app, server = _open(place or data_dir(), port)
    except OSError as err:
        print(f"ausblick: cannot serve on port {port}: {err.strerror or err}", file=sys.stderr)
        return 2
    log.info("serving with %d threads", THREADS)
    print(f"Ausblick is at http://127.0.0.1:{server.effective_port}/   (Ctrl-C stops it)", flush=True)
    try:
        server.run()
    except KeyboardInterrupt:
        _finish(app, server)
    finally:
        server.close()
        _finish(app, server)
    return 0


@contextmanager
def beside(place: Path, memory: Memory | None = None) -> Iterator[str]:
    """A server on a free port in a thread of its own, for a browser driven by the same process; its address."""
    app, server = _open(place, 0, memory)
    Thread(target=server.run, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.effective_port}"
    finally:
        _finish(app, server)


def _open(place: Path, port: int, memory: Memory | None = None) -> tuple[OpenAPI, BaseWSGIServer]:
    app = create_app(place, memory)
    server = create_server(app, host="127.0.0.1", port=port, threads=THREADS, clear_untrusted_proxy_headers=True)
    return app, server


def _finish(app: OpenAPI, server: BaseWSGIServer) -> None:
    """Let no thread compute on: one inside compiled code when Python ends takes the process down with an abort."""
    close_app(app)
    server.task_dispatcher.shutdown(timeout=PATIENCE)
