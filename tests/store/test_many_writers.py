"""Many hands at once: of those who save on the same revision one wins, the others are told, and nothing is lost."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from threading import Barrier
from typing import TypeVar

import pytest

from ausblick.core.kit import Kit
from ausblick.core.plan import Plan, plan_from
from ausblick.store.database import Sessions, open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import KitConflict, Kits
from ausblick.store.setups import Conflict, Setups

WRITERS, ROUNDS = 8, 100


@pytest.fixture
def sessions(tmp_path: Path) -> Sessions:
    return open_database(tmp_path)


T = TypeVar("T")


def titled(title: str) -> Plan:
    return plan_from({"format": "ausblick-plan", "version": 1, "title": title})


def all_at_once(write: Callable[[int], T]) -> list[T]:
    gate = Barrier(WRITERS)

    def one(writer: int) -> T:
        gate.wait()
        return write(writer)

    with ThreadPoolExecutor(WRITERS) as pool:
        return list(pool.map(one, range(WRITERS)))


@pytest.mark.parametrize("rounds", [6, pytest.param(ROUNDS, marks=pytest.mark.torture)])
def test_one_of_eight_saves_on_the_same_base_wins(sessions: Sessions, rounds: int) -> None:
    setups = Setups(sessions)
    made = setups.create(titled("start"))
    acknowledged = []
    for base in range(1, rounds + 1):

        def save(writer: int, base: int = base) -> tuple[int, str] | None:
            title = f"{base} by {writer}"
            try:
                return setups.save(made.id, base, titled(title)).revision, title
            except Conflict:
                return None

        won = [result for result in all_at_once(save) if result]
        assert len(won) == 1
        acknowledged.append(won[0])
    assert [revision for revision, _ in acknowledged] == list(range(2, rounds + 2))
    # Every acknowledged save is in the history, in its place.
    found = [setups.get(made.id).plan.title] + [setups.undo(made.id).plan.title for _ in range(rounds)]
    assert found == [title for _, title in reversed(acknowledged)] + ["start"]
    assert len(setups.versions(made.id)) == rounds * (WRITERS - 1)


def test_renames_at_once_are_all_counted(sessions: Sessions) -> None:
    setups = Setups(sessions)
    made = setups.create(titled("start"))
    revisions = all_at_once(lambda writer: setups.rename(made.id, f"name {writer}").revision)
    assert sorted(revisions) == list(range(2, WRITERS + 2))


def test_undo_at_once_goes_one_step_each(sessions: Sessions) -> None:
    setups = Setups(sessions)
    made = setups.create(titled("0"))
    for step in range(1, 21):
        setups.save(made.id, step, titled(str(step)))
    titles = all_at_once(lambda _: setups.undo(made.id).plan.title)
    assert sorted(titles) == sorted(str(20 - step) for step in range(1, WRITERS + 1))
    assert setups.redo(made.id).plan.title == str(20 - WRITERS + 1)


def test_a_save_does_not_wait_for_a_clip_that_is_copied(
    tmp_path: Path, sessions: Sessions, monkeypatch: pytest.MonkeyPatch
) -> None:
    setups, frames = Setups(sessions), Frames(sessions, tmp_path)
    made = setups.create(titled("start"))
    clip = tmp_path / "clip.mov"
    clip.write_bytes(b"frames")
    copy = shutil.copyfile

    def slowly(source: Path, target: Path) -> None:
        setups.save(made.id, 1, titled("meanwhile"))
        copy(source, target)

    monkeypatch.setattr("ausblick.store.frames.shutil.copyfile", slowly)
    frame = frames.add(made.id, "clip", clip, {}, {})
    assert setups.get(made.id).plan.title == "meanwhile"
    assert frames.file(frame.id).read_bytes() == b"frames"


def test_the_first_kit_is_saved_once(sessions: Sessions) -> None:
    kits = Kits(sessions)
    for base in range(20):

        def save(_: int, base: int = base) -> bool:
            try:
                return kits.save(base, Kit()).revision == base + 1
            except KitConflict:
                return False

        assert sum(all_at_once(save)) == 1
