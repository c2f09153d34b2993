"""A data folder in any state gives one clear line; what was stored stays, and comes back from a backup."""

from __future__ import annotations

import shutil
import sqlite3
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from ausblick.app.services import Services, open_services
from ausblick.core.plan import plan_from
from ausblick.store import database
from ausblick.store.backups import BackupError, back_up, newest_sound, restore
from ausblick.store.database import open_database
from ausblick.store.trouble import DamagedData, Locked, NewerData
from ausblick.web.app import create_app, services_of
from tests.test_cli import run

PLAN = plan_from({"format": "ausblick-plan", "version": 1, "title": "Scree"})


def db(place: Path) -> Path:
    return place / "ausblick.sqlite3"


@pytest.fixture
def place(tmp_path: Path) -> Path:
    """A folder with one set-up and a frame's picture, its server ended."""
    services = open_services(tmp_path / "data")
    setup = services.setups.create(PLAN)
    (tmp_path / "picture").write_bytes(b"pixels")
    services.frames.add(setup.id, "a.png", tmp_path / "picture", {"reading": {}}, {"look.jpg": b"look"})
    services.close()
    # What stands in the write-ahead log goes into the file, so that damage to the file is damage to the data.
    with closing(sqlite3.connect(db(tmp_path / "data"))) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    return tmp_path / "data"


def head_lost(file: Path) -> None:
    with file.open("r+b") as data:
        data.write(b"no database at all")


def pages_lost(file: Path) -> None:
    size = file.stat().st_size
    with file.open("r+b") as data:
        data.seek(4096)
        data.write(b"\xff" * (size - 8192))


@pytest.mark.parametrize("spoil", [head_lost, pages_lost])
def test_a_damaged_database_names_the_backup_that_brings_it_back(place: Path, spoil: Callable[[Path], None]) -> None:
    open_services(place).close()  # The day's copy is made when a filled folder is opened.
    copy = newest_sound(place)
    assert copy is not None
    spoil(db(place))
    with pytest.raises(DamagedData, match=f"ausblick restore {copy}"):
        open_database(place)
    done = run("restore", copy, "--data", place)
    assert done.returncode == 0, done.stderr
    assert "damaged-" in done.stdout
    assert open_services(place).setups.get(1).plan.title == "Scree"


def test_a_newer_version_s_data_is_left_alone(place: Path) -> None:
    with closing(sqlite3.connect(db(place))) as connection, connection:
        connection.execute("UPDATE alembic_version SET version_num = '0999'")
    before = sorted(file.name for file in (place / "backups").iterdir())
    for _ in range(2):
        with pytest.raises(NewerData, match="0999"):
            open_database(place)
    assert sorted(file.name for file in (place / "backups").iterdir()) == before


def test_a_file_in_the_folder_s_place_is_one_line(tmp_path: Path) -> None:
    (tmp_path / "data").write_text("no folder")
    done = run("serve", "--data", tmp_path / "data", "--port", "0")
    assert done.returncode == 2
    assert "choose a folder with --data" in done.stderr
    assert len(done.stderr.splitlines()) == 1


@pytest.fixture
def client(place: Path) -> FlaskClient:
    return create_app(place).test_client()


def full(services: Services) -> None:
    """No page may be added any more: what SQLite says on a full disk."""
    with services.setups._sessions.write() as session:
        session.connection().exec_driver_sql("PRAGMA max_page_count=1")


def test_no_space_is_507_and_nothing_half_written(place: Path) -> None:
    app = create_app(place)
    client, services = app.test_client(), services_of(app)
    full(services)
    plan = client.get("/api/setups/1").get_json()["plan"]
    refused = client.put(
        "/api/setups/1", json={"base": 1, "plan": {**plan, "title": "x" * 190, "note": "y" * 90_000}}
    )
    assert refused.status_code == 507
    assert "nothing was stored" in refused.get_json()["detail"]
    assert client.get("/api/setups/1").get_json()["revision"] == 1
    services.close()


def test_a_locked_database_is_503_and_says_when_to_come_again(place: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(database, "WAIT_MS", 50)
    client = create_app(place).test_client()
    with closing(sqlite3.connect(db(place), isolation_level=None)) as other:
        other.execute("BEGIN EXCLUSIVE")
        refused = client.patch("/api/setups/1", json={"title": "Mine"})
        other.execute("ROLLBACK")
    assert refused.status_code == 503
    assert refused.headers["Retry-After"] == "2"
    assert refused.get_json()["detail"] == str(Locked())


def test_one_damaged_set_up_is_listed_and_the_others_work(place: Path) -> None:
    client = create_app(place).test_client()
    client.post("/api/setups", json={"title": "Vault"})
    plan = client.get("/api/setups/1").get_json()["plan"]
    client.put("/api/setups/1", json={"base": 1, "plan": {**plan, "title": "Scree, again"}})
    with closing(sqlite3.connect(db(place))) as connection, connection:
        connection.execute("UPDATE revisions SET plan = '{half' WHERE id = (SELECT max(id) FROM revisions)")
    damaged, sound = client.get("/api/setups").get_json()["setups"]
    assert "not JSON" in damaged["damaged"]
    assert (sound["title"], sound["damaged"]) == ("Vault", "")
    refused = client.get("/api/setups/1")
    assert refused.status_code == 422
    assert "undo brings back" in refused.get_json()["detail"]
    assert client.post("/api/setups/1/undo").get_json()["plan"]["title"] == "Scree"


def test_everything_comes_back_from_an_archive_taken_and_restored_while_a_server_runs(place: Path) -> None:
    client = create_app(place).test_client()
    archive = place.parent / "all.zip"
    assert run("backup", archive, "--data", place).returncode == 0
    with zipfile.ZipFile(archive) as inside:
        assert {Path(name).name for name in inside.namelist()} == {"ausblick.sqlite3", "original", "look.jpg"}
    client.patch("/api/setups/1", json={"title": "Spoilt"})
    client.delete("/api/frames/1")
    done = run("restore", archive, "--data", place)
    assert done.returncode == 0, done.stderr
    assert "before-restore-" in done.stdout
    assert client.get("/api/setups/1").get_json()["plan"]["title"] == "Scree"
    assert client.get("/api/frames/1/look.jpg").data == b"look"


def test_an_archive_fills_an_empty_folder(place: Path, tmp_path: Path) -> None:
    archive = tmp_path / "all.zip"
    assert back_up(place, archive) == 3
    assert restore(tmp_path / "elsewhere", archive) is None
    moved = open_services(tmp_path / "elsewhere")
    assert moved.setups.get(1).plan.title == "Scree"
    assert moved.frames.file(1).read_bytes() == b"pixels"


@pytest.mark.parametrize("content", [b"", b"PK\x03\x04 no zip", b"SQLite format 3\0 but no more"])
def test_what_is_no_backup_changes_nothing(place: Path, content: bytes) -> None:
    file = place.parent / "what.zip"
    file.write_bytes(content)
    with pytest.raises(BackupError):
        restore(place, file)
    assert open_services(place).setups.get(1).plan.title == "Scree"


def test_an_archive_that_reaches_out_of_its_folder_is_refused(place: Path) -> None:
    file = place.parent / "sly.zip"
    with zipfile.ZipFile(file, "w") as archive:
        archive.writestr("frames/../../../outside", "x")
    with pytest.raises(BackupError, match="which no backup has"):
        restore(place, file)


def test_what_a_killed_server_left_is_swept_by_the_next(place: Path) -> None:
    frame = next((place / "frames").iterdir())
    left = [
        place / "frames" / "0123.part",
        place / "frames" / "4567",
        place / "test-keys" / "89",
        place / "work" / "up",
    ]
    for folder in left:
        folder.mkdir()
        (folder / "file").write_bytes(b"x")
    (place / "plates" / "77.jpg").write_bytes(b"x")
    first = open_services(place)
    assert not any(folder.exists() for folder in left)
    assert not (place / "plates" / "77.jpg").exists()
    assert frame.is_dir()
    # A second server on the same data sweeps nothing: the first may be filling it.
    left[0].mkdir()
    second = open_services(place)
    assert left[0].exists()
    second.close()
    first.close()
    shutil.rmtree(left[0])


def test_a_server_that_ended_lets_the_folder_go(place: Path) -> None:
    for _ in range(2):
        (place / "work" / "left").mkdir(exist_ok=True)
        services = open_services(place)
        assert not (place / "work" / "left").exists()
        services.close()
