from __future__ import annotations

import threading
from pathlib import Path
from threading import Event

from ausblick.app.jobs import Job, Jobs
from ausblick.app.watched_folder import Watches


def test_closing_cancels_what_runs_and_waits_for_it() -> None:
    jobs, began, left = Jobs(), Event(), Event()

    def work(job: Job) -> None:
        began.set()
        try:
            while True:
                job.at("round and round")
        finally:
            left.set()

    job = jobs.start(work)
    assert began.wait(20)
    jobs.close()
    assert left.is_set()
    assert job.state == "cancelled"


def test_closing_waits_for_the_file_that_is_being_measured(tmp_path: Path) -> None:
    watches, began, done = Watches(), Event(), []

    def take(path: Path) -> None:
        began.set()
        threading.Event().wait(0.3)
        done.append(path.name)

    watches.start(1, str(tmp_path), take)
    (tmp_path / "a.png").write_bytes(b"x")
    assert began.wait(20)
    watches.close()
    assert done == ["a.png"]
    assert watches.get(1) is None
