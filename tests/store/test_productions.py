"""Productions: undone and redone step by step, and carried over from a folder that knew one step only."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from sqlalchemy import text

from ausblick.core.production.production_document import Production, dump_production, production_from
from ausblick.store import productions as module
from ausblick.store.database import open_database
from ausblick.store.productions import Productions


def film(title: str) -> Production:
    return production_from({"format": "ausblick-production", "version": 1, "title": title})


def test_undo_goes_back_all_the_way_and_redo_on_again(tmp_path: Path) -> None:
    store = Productions(open_database(tmp_path))
    made = store.create(film("one"))
    assert not made.can_undo
    store.save(made.id, 1, film("two"))
    other = store.create(film("of somebody else"))
    last = store.save(made.id, 2, film("three"))
    assert (last.can_undo, last.can_redo) == (True, False)
    assert store.undo(made.id).production.title == "two"
    back = store.undo(made.id)
    assert (back.production.title, back.can_undo, back.can_redo) == ("one", False, True)
    assert store.undo(made.id).production.title == "one"
    assert store.redo(made.id).production.title == "two"
    assert store.redo(made.id).production.title == "three"
    store.undo(made.id)
    # What is changed after an undo is where redo would have led.
    anew = store.save(made.id, store.get(made.id).revision, film("four"))
    assert not anew.can_redo
    assert store.redo(made.id).production.title == "four"
    assert store.get(other.id).production.title == "of somebody else"
    assert not store.get(other.id).can_undo


def test_only_so_many_steps_are_kept(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "KEPT", 3)
    store = Productions(open_database(tmp_path))
    made = store.create(film("0"))
    for n in range(6):
        store.save(made.id, n + 1, film(str(n + 1)))
    titles = [store.undo(made.id).production.title for _ in range(5)]
    assert titles == ["5", "4", "3", "3", "3"]


def test_a_folder_that_knew_one_step_keeps_it(tmp_path: Path) -> None:
    sessions = open_database(tmp_path)
    made = Productions(sessions).create(film("now"))
    with sessions.write() as session:
        session.execute(text("DROP TABLE production_states"))
        session.execute(text("ALTER TABLE productions ADD COLUMN before TEXT"))
        session.execute(
            text("UPDATE productions SET before = :before"), {"before": json.dumps(dump_production(film("before")))}
        )
        session.execute(text("UPDATE alembic_version SET version_num = '0008'"))
    store = Productions(open_database(tmp_path))
    assert store.get(made.id).production.title == "now"
    assert store.undo(made.id).production.title == "before"
    assert store.redo(made.id).production.title == "now"
