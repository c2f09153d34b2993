"""Serving on loopback with waitress until Ctrl-C."""

from __future__ import annotations

import sys
from pathlib import Path

from waitress.server import create_server

from ausblick.store.places import data_dir

from .app import STATIC, create_app


def run(place: Path | None, port: int) -> int:
    """Serve a data folder; prints the address. Returns the exit code."""
    if not (STATIC / "index.html").is_file():
        print("ausblick: the page is not built; run 'make demo' or 'make build' first", file=sys.stderr)
        return 2
    try:
        app = create_app(place or data_dir())
        server = create_server(app, host="127.0.0.1", port=port, threads=6, clear_untrusted_proxy_headers=True)
    except OSError as err:
        print(f"ausblick: cannot serve on port {port}: {err.strerror or err}", file=sys.stderr)
        return 2
    print(f"Ausblick is at http://127.0.0.1:{server.effective_port}/   (Ctrl-C stops it)", flush=True)
    try:
        server.run()
    except KeyboardInterrupt:
        pass
    finally:
        server.close()
    return 0
