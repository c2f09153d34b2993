"""The server with the demo data, started anew when Python changes, and the page with hot reload (make dev)."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path
from threading import Event

from watchdog.events import FileSystemEvent, FileSystemEventHandler
from watchdog.observers import Observer

ROOT = Path(__file__).resolve().parent.parent
CALM = 0.4
"""Seconds without a change before the server starts again: editors write in several steps."""


class Changes(FileSystemEventHandler):
    def __init__(self) -> None:
        self.seen = Event()

    def on_modified(self, event: FileSystemEvent) -> None:
        if str(event.src_path).endswith(".py"):
            self.seen.set()

    on_created = on_modified
    on_moved = on_modified


def main() -> int:
    changes, observer = Changes(), Observer()
    observer.schedule(changes, str(ROOT / "src/ausblick"), recursive=True)
    observer.start()
    page = subprocess.Popen(["npx", "vite"], cwd=ROOT / "web")
    server = _serve()
    try:
        while page.poll() is None:
            if not changes.seen.wait(0.5):
                continue
            while changes.seen.is_set():
                changes.seen.clear()
                changes.seen.wait(CALM)
            server.terminate()
            server.wait()
            server = _serve()
    except KeyboardInterrupt:
        pass
    finally:
        for child in (server, page):
            child.terminate()
        observer.stop()
    return 0


def _serve() -> subprocess.Popen[bytes]:
    return subprocess.Popen([sys.executable, "-m", "ausblick", "demo", "--log", "info"], cwd=ROOT)


if __name__ == "__main__":
    sys.exit(main())
