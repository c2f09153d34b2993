"""Files that come from outside: an upload, or a folder that is watched."""

from __future__ import annotations

import shutil
import tempfile
from collections.abc import Callable
from pathlib import Path

from ausblick.core.frames.file_colour import FileColour
from ausblick.formats.clips import Progress
from ausblick.formats.images import MAX_BYTES, ImageError
from ausblick.store.frames import StoredFrame
from ausblick.store.setups import NotFound

from .change_feed import Changed
from .frame_import import import_clip, import_frame, looks_like_clip, read_as
from .jobs import Job
from .services import Services
from .watched_folder import Watch


def take_upload(services: Services, setup_id: int, name: str, save: Callable[[Path], None]) -> StoredFrame | Job:
    """A frame is read at once; a clip takes longer and is a job. `save` writes the file where it is told.

    Raises ImageError, TooMany where two things are worked on already, and NotFound.
    """
    plan = services.setups.get(setup_id).plan
    folder = Path(tempfile.mkdtemp(dir=services.work))
    target, handed_over = folder / "file", False

    def read_clip(job: Job) -> None:
        try:
            _told(services, job, name, lambda told: import_clip(services.frames, setup_id, name, target, plan, told))
        finally:
            shutil.rmtree(folder, ignore_errors=True)

    try:
        save(target)
        if target.stat().st_size > MAX_BYTES:
            raise ImageError(f"the file is larger than {MAX_BYTES // 1_000_000} MB")
        if not looks_like_clip(target):
            return import_frame(services.frames, setup_id, name, target, plan)
        job = services.jobs.start(read_clip)
        handed_over = True
        return job
    finally:
        if not handed_over:
            shutil.rmtree(folder, ignore_errors=True)


def reread(services: Services, frame_id: int, said: FileColour | None) -> StoredFrame | Job:
    """A kept file read as a person says that it is written: a frame at once, a clip as a job, as when they came in.

    Raises ImageError, TooMany where two things are worked on already, and NotFound.
    """
    stored = services.frames.get(frame_id)
    plan = services.setups.get(stored.setup_id).plan
    if not stored.data.get("clip"):
        with services.turns.taken():
            return read_as(services.frames, stored, plan, said)

    def read_clip(job: Job) -> None:
        _told(services, job, stored.name, lambda told: read_as(services.frames, stored, plan, said, told))

    return services.jobs.start(read_clip)


def _told(services: Services, job: Job, name: str, read: Callable[[Progress], StoredFrame]) -> None:
    """Read a clip in a job that tells how far it is, and everybody when it is there."""

    def progress(share: float) -> None:
        job.at("reading")
        job.result = {"name": name, "share": share}

    frame = read(progress)
    job.result = {"name": name, "share": 1.0, "frame": frame}
    services.changes.tell(Changed("frames", frame.setup_id))


def watch_folder(services: Services, setup_id: int, folder: str) -> Watch:
    """Measure what comes into a folder of this machine from now on. Raises WatchError and NotFound."""
    services.setups.get(setup_id)

    def take(file: Path) -> None:
        try:
            plan = services.setups.get(setup_id).plan
        except NotFound:
            return
        work = import_clip if looks_like_clip(file) else import_frame
        work(services.frames, setup_id, file.name, file, plan)
        services.changes.tell(Changed("frames", setup_id))

    return services.watches.start(setup_id, folder, take)
