from __future__ import annotations

import os
import signal
import subprocess
import sys
from pathlib import Path

import pytest
from sqlalchemy import text

from ausblick.core.kit import Kit
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.core.plan import Change, Plan, apply_changes, plan_from
from ausblick.core.production.production_document import production_from
from ausblick.store.data_folder import backups_dir
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import KitConflict, Kits
from ausblick.store.plates import Plates
from ausblick.store.productions import Productions
from ausblick.store.setups import Conflict, NotFound, Setups
from ausblick.store.sweep import sweep
from ausblick.store.takes import Takes


def titled(title: str) -> Plan:
    return plan_from({"format": "ausblick-plan", "version": 1, "title": title})


@pytest.fixture
def setups(tmp_path: Path) -> Setups:
    return Setups(open_database(tmp_path))


def test_undo_and_redo_survive_a_restart(tmp_path: Path, setups: Setups) -> None:
    made = setups.create(titled("one"))
    setups.save(made.id, 1, titled("two"))
    assert setups.save(made.id, 2, titled("three")).can_undo
    again = Setups(open_database(tmp_path))
    assert again.undo(made.id).plan.title == "two"
    back = again.undo(made.id)
    assert (back.plan.title, back.can_undo, back.can_redo) == ("one", False, True)
    assert again.undo(made.id).plan.title == "one"
    assert again.redo(made.id).plan.title == "two"
    forked = again.save(made.id, again.get(made.id).revision, titled("other"))
    assert not forked.can_redo
    assert again.undo(made.id).can_redo
    assert again.redo(made.id).plan.title == "other"


def test_the_later_writer_is_told_and_both_are_kept(setups: Setups) -> None:
    made = setups.create(titled("start"))
    setups.save(made.id, 1, titled("first"))
    with pytest.raises(Conflict) as caught:
        setups.save(made.id, 1, titled("second"))
    assert caught.value.current.plan.title == "first"
    assert setups.get(made.id).plan.title == "first"
    assert setups.version_plan(made.id, caught.value.kept_id).title == "second"
    assert [version.origin for version in setups.versions(made.id)] == ["conflict"]
    # The refused one isn't where redo goes, but it can be opened, and undone again.
    assert not setups.get(made.id).can_redo
    assert setups.open_version(made.id, caught.value.kept_id).plan.title == "second"
    assert setups.undo(made.id).plan.title == "first"


def test_a_save_whose_answer_was_lost_is_no_conflict_when_it_comes_again(setups: Setups) -> None:
    made = setups.create(titled("start"))
    saved = setups.save(made.id, 1, titled("mine"))
    again = setups.save(made.id, 1, titled("mine"), titled("start"))
    assert (again.revision, again.plan.title) == (saved.revision, "mine")
    assert setups.versions(made.id) == []
    assert setups.undo(made.id).plan.title == "start"


def test_what_does_not_touch_the_same_field_is_put_together(setups: Setups) -> None:
    made = setups.create(titled("start"))
    setups.save(made.id, 1, titled("theirs"))
    merged = setups.save(made.id, 1, apply_changes(made.plan, [Change("camera.iso", 200)]), made.plan)
    assert (merged.revision, merged.plan.title, merged.plan.camera.iso) == (3, "theirs", 200)
    with pytest.raises(Conflict) as caught:
        setups.save(
            made.id, 1, apply_changes(made.plan, [Change("title", "mine"), Change("camera.f_number", 8.0)]), made.plan
        )
    (one,) = caught.value.collisions
    assert (one.path, one.mine, one.theirs) == ("title", "mine", "theirs")
    kept = setups.version_plan(made.id, caught.value.kept_id)
    assert (kept.title, kept.camera.f_number, kept.camera.iso) == ("mine", 8.0, 200)


def test_named_versions_are_found_again(setups: Setups) -> None:
    made = setups.create(titled("rough"))
    version = setups.name_version(made.id, "before lunch")
    setups.save(made.id, 1, titled("fine"))
    assert [v.name for v in setups.versions(made.id)] == ["before lunch"]
    assert setups.open_version(made.id, version.id).plan.title == "rough"
    other = setups.create(titled("other"))
    with pytest.raises(NotFound):
        setups.open_version(other.id, version.id)


def test_delete_hides_and_restore_brings_back(setups: Setups) -> None:
    made = setups.create(titled("keep me"))
    assert setups.duplicate(made.id).plan.title == "keep me, copy"
    assert setups.rename(made.id, "kept").plan.title == "kept"
    setups.delete(made.id)
    assert [s.plan.title for s in setups.all()] == ["keep me, copy"]
    with pytest.raises(NotFound):
        setups.get(made.id)
    assert setups.restore(made.id).plan.title == "kept"
    with pytest.raises(NotFound):
        setups.restore(99)


def test_frames_of_an_older_folder_come_through_the_migration(tmp_path: Path) -> None:
    """At 0004 numbers came again; what was stored keeps its own, and the next one is new."""
    sessions = open_database(tmp_path)
    setup = Setups(sessions).create(titled("old"))
    with sessions.write() as session:
        session.execute(text("DROP TABLE frames"))
        for later in ("kit_states", "takes", "production_states", "productions"):
            session.execute(text(f"DROP TABLE {later}"))
        session.execute(
            text(
                "CREATE TABLE frames (id INTEGER PRIMARY KEY, setup_id INTEGER NOT NULL, name VARCHAR(200) NOT NULL, "
                "stored VARCHAR(200) NOT NULL, reading TEXT NOT NULL, created DATETIME NOT NULL)"
            )
        )
        session.execute(
            text("INSERT INTO frames VALUES (7, :setup, 'take.png', 'abc', '{}', '2026-01-02 03:04:05.000000')"),
            {"setup": setup.id},
        )
        session.execute(text("UPDATE alembic_version SET version_num = '0004'"))
    frames = Frames(open_database(tmp_path), tmp_path)
    assert [(frame.id, frame.name) for frame in frames.of_setup(setup.id)] == [(7, "take.png")]
    frames.delete(7)
    picture = tmp_path / "picture"
    picture.write_bytes(b"-")
    assert frames.add(setup.id, "next.png", picture, {}, {}).id == 8
    (copy,) = backups_dir(tmp_path).glob("before-migration-from-0004-*.sqlite3")
    assert copy.stat().st_size > 0


SAVER = """
import sys
from pathlib import Path
from ausblick.core.plan import plan_from
from ausblick.store.database import open_database
from ausblick.store.setups import Setups
setups = Setups(open_database(Path(sys.argv[1])))
made = setups.create(plan_from({"format": "ausblick-plan", "version": 1, "title": "0"}))
for n in range(1, 100_000):
    setups.save(made.id, n, plan_from({"format": "ausblick-plan", "version": 1, "title": str(n)}))
    print(n, flush=True)
"""


@pytest.mark.torture
def test_the_last_acknowledged_save_survives_kill_9(tmp_path: Path) -> None:
    process = subprocess.Popen([sys.executable, "-c", SAVER, str(tmp_path)], stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    acknowledged = 0
    for line in process.stdout:
        acknowledged = int(line)
        if acknowledged == 25:
            os.kill(process.pid, signal.SIGKILL)
            break
    acknowledged = max([acknowledged, *(int(line) for line in process.stdout)])
    process.wait()
    (kept,) = Setups(open_database(tmp_path)).all()
    assert int(kept.plan.title) >= acknowledged
    assert Setups(open_database(tmp_path)).save(kept.id, kept.revision, titled("on")).plan.title == "on"


def test_frames_are_kept_with_their_pictures_and_go_with_them(tmp_path: Path, setups: Setups) -> None:
    made = setups.create(titled("a"))
    frames = Frames(open_database(tmp_path), tmp_path)
    picture = tmp_path / "in.png"
    picture.write_bytes(b"picture")
    kept = frames.add(made.id, "in.png", picture, {"reading": 1}, {"look.jpg": b"small"})
    assert frames.file(kept.id).read_bytes() == b"picture"
    assert frames.file(kept.id, "look.jpg").read_bytes() == b"small"
    assert frames.of_setup(made.id)[0].data == {"reading": 1}
    frames.delete(kept.id)
    assert frames.of_setup(made.id) == []
    with pytest.raises(NotFound):
        frames.file(kept.id)
    with pytest.raises(NotFound):
        frames.add(77, "x", picture, {}, {})
    # It lies in the trash, and comes back with its pictures.
    assert [frame.id for frame in frames.in_trash()] == [kept.id]
    assert frames.restore(kept.id).data == {"reading": 1}
    assert frames.file(kept.id, "look.jpg").read_bytes() == b"small"
    assert frames.in_trash() == []


def test_the_trash_is_emptied_of_frames_after_a_month(tmp_path: Path, setups: Setups) -> None:
    made = setups.create(titled("a"))
    sessions = open_database(tmp_path)
    frames = Frames(sessions, tmp_path)
    picture = tmp_path / "in.png"
    picture.write_bytes(b"picture")
    old, new, kept = (frames.add(made.id, name, picture, {}, {}) for name in ("old", "new", "kept"))
    for frame in (old, new):
        frames.delete(frame.id)
    with sessions.write() as session:
        session.execute(text(f"UPDATE frames SET deleted = '2026-01-02 03:04:05.000000' WHERE id = {old.id}"))
    sweep(tmp_path, sessions)
    assert [frame.name for frame in frames.in_trash()] == ["new"]
    assert (old.path.exists(), new.path.exists(), kept.path.exists()) == (False, True, True)


def test_a_kit_goes_back_step_by_step_and_on_again(tmp_path: Path) -> None:
    kits = Kits(open_database(tmp_path))
    assert kits.ways() == (False, False)
    kits.save(0, small_kit())
    kits.save(1, full_kit())
    assert kits.undo().kit == small_kit()
    back = kits.undo()
    assert (back.kit, back.revision, kits.ways()) == (Kit(), 4, (False, True))
    assert kits.undo().kit == Kit()
    assert [kits.redo().kit, kits.redo().kit, kits.redo().kit] == [small_kit(), full_kit(), full_kit()]
    assert (kits.undo().kit, kits.ways()) == (small_kit(), (True, True))
    kits.save(kits.get().revision, Kit())
    assert kits.ways() == (True, False)
    with pytest.raises(KitConflict):
        kits.save(1, full_kit())


def test_a_plate_that_was_replaced_or_dropped_comes_back(tmp_path: Path) -> None:
    open_database(tmp_path)
    plates = Plates(tmp_path)
    plates.put(1, b"first")
    plates.put(1, b"second")
    plates.restore(1)
    assert plates.file(1).read_bytes() == b"first"
    plates.restore(1)
    assert plates.file(1).read_bytes() == b"second"
    plates.delete(1)
    assert not plates.file(1).is_file()
    plates.restore(1)
    assert plates.file(1).read_bytes() == b"second"


def test_changes_apply_to_what_was_stored(setups: Setups) -> None:
    made = setups.create(titled("a"))
    moved = apply_changes(setups.get(made.id).plan, [Change("subject.z", 3.1)])
    subject = setups.save(made.id, 1, moved).plan.subject
    assert subject is not None
    assert subject.z == 3.1


TAKER = """
import sys
from pathlib import Path
from ausblick.core.takes.take_document import take_from
from ausblick.store.database import open_database
from ausblick.store.takes import Takes
takes = Takes(open_database(Path(sys.argv[1])))
for n in range(int(sys.argv[2]), 100_000):
    takes.log(1, take_from({"key": f"take-{n:06d}", "shot": "a", "number": n + 1, "at": "2027-03-16T10:00:00Z"}))
    print(n, flush=True)
"""


@pytest.mark.torture
def test_every_acknowledged_take_survives_a_hundred_kills(tmp_path: Path) -> None:
    sessions = open_database(tmp_path)
    document = {"format": "ausblick-production", "version": 1, "shots": [{"id": "a"}]}
    Productions(sessions).create(production_from(document))
    acknowledged = -1
    for kill in range(100):
        command = [sys.executable, "-c", TAKER, str(tmp_path), str(acknowledged + 1)]
        process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        assert process.stdout is not None
        for line in process.stdout:
            acknowledged = int(line)
            if acknowledged % 7 == kill % 7:
                os.kill(process.pid, signal.SIGKILL)
                break
        acknowledged = max([acknowledged, *(int(line) for line in process.stdout if line.strip().isdigit())])
        process.wait()
        numbers = [take.number - 1 for take in Takes(sessions).of_production(1)]
        assert numbers[: acknowledged + 1] == list(range(acknowledged + 1))
