from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from threading import Event

import pytest

from ausblick.app.jobs import Job, Jobs
from ausblick.app.watched_folder import Watch, WatchError, Watches
from ausblick.core.matte.window_shot import NoScreen
from ausblick.formats.images import ImageError


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
    watches, began, done = Watches([tmp_path]), Event(), []

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


@pytest.mark.parametrize(
    ("trouble", "told"),
    [
        (NoScreen("nothing to key: no light on it"), "nothing to key: no light on it"),
        (ImageError("the file is empty"), "the file is empty"),
        (ValueError("operands could not be broadcast together"), "The server met an error it did not expect"),
    ],
)
def test_only_what_is_said_for_people_is_shown_to_them(
    trouble: Exception, told: str, caplog: pytest.LogCaptureFixture
) -> None:
    def work(job: Job) -> None:
        raise trouble

    job = Jobs().start(work)
    job.join()
    assert job.state == "failed"
    assert job.problem.startswith(told)
    assert ("Traceback" in caplog.text) == told.startswith("The server")


def until(found: Callable[[], bool]) -> None:
    for _ in range(200):
        if found():
            return
        time.sleep(0.05)
    raise AssertionError("it never came")


@pytest.fixture
def watched(tmp_path: Path) -> Iterator[tuple[Watch, Path, list[str]]]:
    """A folder, its watch, and what was taken."""
    folder, taken = tmp_path / "in", []
    folder.mkdir()

    def take(file: Path) -> None:
        taken.append(file.read_bytes().decode())
        if taken[-1] == "bad":
            raise RuntimeError("nobody thought of this")

    watches = Watches([tmp_path])
    yield watches.start(1, str(folder), take), folder, taken
    watches.close()


def test_a_file_written_over_is_taken_again_and_an_error_ends_nothing(watched: tuple[Watch, Path, list[str]]) -> None:
    watch, folder, taken = watched
    (folder / "a.png").write_bytes(b"bad")
    until(lambda: taken == ["bad"])
    until(lambda: "a.png: could not be measured (RuntimeError)" in watch.problem)
    (folder / "a.png").write_bytes(b"second")
    until(lambda: taken == ["bad", "second"])
    assert watch.seen == 1


def test_pipes_and_links_that_lead_out_are_told_and_not_read(
    watched: tuple[Watch, Path, list[str]], tmp_path: Path
) -> None:
    watch, folder, taken = watched
    os.mkfifo(folder / "pipe.png")
    until(lambda: "pipe.png: is a pipe" in watch.problem)
    (tmp_path / "secret.png").write_bytes(b"secret")
    (folder / "link.png").symlink_to(tmp_path / "secret.png")
    until(lambda: "link.png: is a link that leads out" in watch.problem)
    assert taken == []


def test_many_files_at_once_are_taken_by_one_worker(watched: tuple[Watch, Path, list[str]]) -> None:
    _, folder, taken = watched
    before = threading.active_count()
    for n in range(60):
        (folder / f"{n:02}.png").write_text(f"{n:02}")
    time.sleep(0.4)
    assert threading.active_count() <= before
    until(lambda: len(taken) == 60)
    assert taken == sorted(taken)


def test_only_folders_that_the_owner_named_are_watched(tmp_path: Path) -> None:
    (tmp_path / "named").mkdir()
    (tmp_path / "other").mkdir()
    (tmp_path / "named" / "out").symlink_to(tmp_path / "other")
    watches = Watches([tmp_path / "named"])
    for wrong in (tmp_path / "other", tmp_path / "named" / "out", tmp_path / "named" / ".." / "other"):
        with pytest.raises(WatchError, match="--watch DIR"):
            watches.start(1, str(wrong), lambda _: None)
