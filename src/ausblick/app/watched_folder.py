"""A folder that is watched: what a card reader or a tethered camera puts there is measured as it comes."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from threading import Event, Lock, Thread

from watchdog.events import FileSystemEvent, FileSystemEventHandler
from watchdog.observers import Observer

from ausblick.formats.images import ImageError

ENDINGS = {".png", ".jpg", ".jpeg", ".tif", ".tiff", ".exr", ".dpx", ".mp4", ".mov", ".mkv", ".mxf"}
CALM = 0.8
"""Seconds that a file's size must stay the same before it counts as written."""
MOST_WAIT = 600
PATIENCE = 60.0
"""Seconds that an ending server waits for the file that is being measured."""


class WatchError(ValueError):
    """A folder that can't be watched."""


class _Handler(FileSystemEventHandler):
    def __init__(self, arrived: Callable[[Path], None]) -> None:
        self._arrived = arrived

    def on_created(self, event: FileSystemEvent) -> None:
        self._arrived(Path(str(event.src_path)))

    def on_moved(self, event: FileSystemEvent) -> None:
        self._arrived(Path(str(event.dest_path)))


class Watch:
    """One folder for one set-up. `take` keeps a file that has come; its errors are remembered, not raised."""

    def __init__(self, folder: str, take: Callable[[Path], None]) -> None:
        path = _folder(folder)
        self.folder, self.seen, self.problem = str(path), 0, ""
        self._take, self._stop, self._lock = take, Event(), Lock()
        self._known = _names(path)
        self._measuring: list[Thread] = []
        self._observer = Observer()
        try:
            self._observer.schedule(_Handler(self._arrived), str(path))
            self._observer.start()
        except OSError as err:
            raise WatchError(f"{folder}: can't be watched: {(err.strerror or 'no right to').lower()}") from None

    def _arrived(self, path: Path) -> None:
        with self._lock:
            if path.suffix.lower() not in ENDINGS or path.name in self._known:
                return
            self._known.add(path.name)
            thread = Thread(target=self._measure, args=(path,), daemon=True)
            self._measuring = [*(t for t in self._measuring if t.is_alive()), thread]
            thread.start()

    def _measure(self, path: Path) -> None:
        try:
            if self._written(path):
                self._take(path)
                self.seen += 1
        except ImageError as err:
            self.problem = f"{path.name}: {err}"
        except (OSError, LookupError) as err:
            self.problem = f"{path.name}: can't be read ({str(getattr(err, 'strerror', '') or err).lower()})"

    def _written(self, path: Path) -> bool:
        size = -1
        for _ in range(round(MOST_WAIT / CALM)):
            now = path.stat().st_size
            if now == size and now > 0:
                return True
            size = now
            if self._stop.wait(CALM):
                return False
        return False

    def stop(self) -> None:
        self._stop.set()
        self._observer.stop()

    def join(self) -> None:
        """Wait for the files that are being measured, after `stop`."""
        with self._lock:
            measuring = list(self._measuring)
        for thread in measuring:
            thread.join(PATIENCE)


def _folder(text: str) -> Path:
    """Raises WatchError for what is no folder here, a name no system takes among it."""
    try:
        path = Path(text).expanduser()
        if path.is_dir():
            return path
    except (OSError, ValueError, RuntimeError):
        pass
    raise WatchError(f"{text[:80]}: is no folder on this machine")


def _names(path: Path) -> set[str]:
    try:
        return {entry.name for entry in path.iterdir()}
    except OSError as err:
        raise WatchError(f"{path}: can't be looked into: {(err.strerror or 'no right to').lower()}") from None


class Watches:
    """At most one folder a set-up."""

    def __init__(self) -> None:
        self._by_setup: dict[int, Watch] = {}
        self._lock = Lock()

    def start(self, setup_id: int, folder: str, take: Callable[[Path], None]) -> Watch:
        """Raises WatchError; what was watched before goes on then."""
        watch = Watch(folder, take)
        with self._lock:
            old = self._by_setup.pop(setup_id, None)
            self._by_setup[setup_id] = watch
        if old is not None:
            old.stop()
        return watch

    def get(self, setup_id: int) -> Watch | None:
        with self._lock:
            return self._by_setup.get(setup_id)

    def stop(self, setup_id: int) -> None:
        with self._lock:
            old = self._by_setup.pop(setup_id, None)
        if old is not None:
            old.stop()

    def close(self) -> None:
        """Stop every watch and wait for what is being measured."""
        with self._lock:
            watches = list(self._by_setup.values())
            self._by_setup.clear()
        for watch in watches:
            watch.stop()
        for watch in watches:
            watch.join()
