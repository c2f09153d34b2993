"""A folder that is watched: what a card reader or a tethered camera puts there is measured as it comes.

One worker takes one file after the other, however many come at once. A file counts as written when it has stayed the
same for a moment; one that is written over is taken again.
"""

from __future__ import annotations

import logging
import stat
import time
from collections.abc import Callable, Iterable
from contextlib import suppress
from pathlib import Path
from threading import Event, Lock, Thread

from watchdog.events import FileSystemEvent, FileSystemEventHandler
from watchdog.observers import Observer

from ausblick.formats.images import ImageError

log = logging.getLogger(__name__)
ENDINGS = {
    ".png", ".jpg", ".jpeg", ".tif", ".tiff", ".exr", ".dpx", ".webp", ".heic", ".heif", ".avif", ".dng", ".cr2",
    ".cr3", ".nef", ".arw", ".raf", ".orf", ".rw2", ".mp4", ".mov", ".m4v", ".mkv", ".mxf", ".avi", ".mts",
    ".m2ts", ".ts",
}  # fmt: skip
CALM, LOOK = 0.8, 0.2
"""Seconds that a file must stay the same before it counts as written, and between two looks."""
PATIENCE = 60.0
"""Seconds that an ending server waits for the file that is being measured."""

Look = tuple[int, int]
"""A file's size and the time it was last written, ns."""


class WatchError(ValueError):
    """A folder that can't be watched."""


def usual_roots() -> tuple[Path, ...]:
    """Where pictures and films of the person at this machine lie."""
    return tuple(Path.home() / name for name in ("Pictures", "Movies", "Videos"))


class _Handler(FileSystemEventHandler):
    def __init__(self, changed: Callable[[Path], None]) -> None:
        self._changed = changed

    def on_any_event(self, event: FileSystemEvent) -> None:
        if event.event_type in ("created", "modified", "moved", "closed") and not event.is_directory:
            self._changed(Path(str(event.dest_path or event.src_path)))


class Watch:
    """One folder for one set-up. `take` keeps a file that has come; its errors are remembered, not raised."""

    def __init__(self, folder: str, take: Callable[[Path], None], roots: Iterable[Path]) -> None:
        path = _folder(folder, roots)
        self.folder, self.seen, self.problem = str(path), 0, ""
        self._path, self._take = path, take
        self._known = _looks(path)
        self._waiting: dict[Path, tuple[Look, float]] = {}
        self._stop, self._lock = Event(), Lock()
        self._observer = Observer()
        try:
            self._observer.schedule(_Handler(self._changed), str(path))
            self._observer.start()
        except OSError as err:
            raise WatchError(f"{folder}: can't be watched: {(err.strerror or 'no right to').lower()}") from None
        self._worker = Thread(target=self._work, daemon=True)
        self._worker.start()

    def _changed(self, file: Path) -> None:
        if file.suffix.lower() in ENDINGS and file.parent == self._path:
            with self._lock:
                self._waiting.setdefault(file, ((-1, -1), time.monotonic()))

    def _work(self) -> None:
        while not self._stop.wait(LOOK):
            for file in self._written():
                self._measure(file)
                if self._stop.is_set():
                    return

    def _written(self) -> list[Path]:
        """Files that have stayed the same for a moment, in the order they came."""
        with self._lock:
            waiting = list(self._waiting.items())
        ready = []
        for file, (before, since) in waiting:
            now = self._look(file)
            if now is not None and (now != before or now[0] == 0):
                with self._lock:
                    self._waiting[file] = (now, time.monotonic())
            elif now is None or time.monotonic() - since >= CALM:
                with self._lock:
                    del self._waiting[file]
                if now is not None and self._known.get(file.name) != now:
                    self._known[file.name] = now
                    ready.append(file)
        return ready

    def _look(self, file: Path) -> Look | None:
        """None for what is gone, and for what is no file of this folder: that is told."""
        try:
            if file.is_symlink() and not file.resolve().is_relative_to(self._path):
                self.problem = f"{file.name}: is a link that leads out of the folder; it is not read"
                return None
            found = file.stat()
        except OSError:
            return None
        if not stat.S_ISREG(found.st_mode):
            self.problem = f"{file.name}: is a pipe or a device, no file; it is not read"
            return None
        return found.st_size, found.st_mtime_ns

    def _measure(self, file: Path) -> None:
        try:
            self._take(file)
            self.seen += 1
        except ImageError as err:
            self.problem = f"{file.name}: {err}"
        except (OSError, LookupError) as err:
            self.problem = f"{file.name}: can't be read ({str(getattr(err, 'strerror', '') or err).lower()})"
        except Exception as err:
            # Whatever one file does, the next one is measured.
            log.exception("a watched file")
            self.problem = f"{file.name}: could not be measured ({type(err).__name__})"

    def stop(self) -> None:
        self._stop.set()
        self._observer.stop()

    def join(self) -> None:
        """Wait for the file that is being measured, after `stop`."""
        self._worker.join(PATIENCE)


def _folder(text: str, roots: Iterable[Path]) -> Path:
    """Raises WatchError for what is no folder here, a name no system takes among it, and for one that the owner of
    the machine has not named."""
    try:
        path = Path(text).expanduser().resolve()
        found = path.is_dir()
    except (OSError, ValueError, RuntimeError):
        found = False
    if not found:
        raise WatchError(f"{text[:80]}: is no folder on this machine")
    if not any(path.is_relative_to(root.resolve()) for root in roots):
        named = ", ".join(str(root) for root in roots) or "none"
        raise WatchError(f"{text[:80]}: only folders under {named} are watched; allow more with: serve --watch DIR")
    return path


def _looks(path: Path) -> dict[str, Look]:
    """What lies there already."""
    try:
        entries = list(path.iterdir())
    except OSError as err:
        raise WatchError(f"{path}: can't be looked into: {(err.strerror or 'no right to').lower()}") from None
    found = {}
    for entry in entries:
        with suppress(OSError):
            look = entry.stat()
            found[entry.name] = (look.st_size, look.st_mtime_ns)
    return found


class Watches:
    """At most one folder a set-up."""

    def __init__(self, roots: Iterable[Path] = ()) -> None:
        self._roots = tuple(roots) or usual_roots()
        self._by_setup: dict[int, Watch] = {}
        self._lock = Lock()

    def start(self, setup_id: int, folder: str, take: Callable[[Path], None]) -> Watch:
        """Raises WatchError; what was watched before goes on then."""
        watch = Watch(folder, take, self._roots)
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
