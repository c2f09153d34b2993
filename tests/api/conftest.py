from __future__ import annotations

import shutil
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from flask_openapi3.openapi import OpenAPI

from ausblick.app.memory import Memory
from ausblick.app.services import open_services
from ausblick.store.database import database_file
from ausblick.web.app import create_app, services_of
from ausblick.web.context import EXTENSION

MEMORY = Memory()
"""Applications of one session share what they computed, as requests to one do."""


@pytest.fixture(scope="session")
def new_database(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty database as it is made: making it takes longer than most tests."""
    place = tmp_path_factory.mktemp("new")
    services_of(create_app(place)).close()
    return database_file(place)


@cache
def application(place: Path) -> OpenAPI:
    app = create_app(place, MEMORY)
    services_of(app).close()
    return app


@pytest.fixture
def client(tmp_path: Path, new_database: Path) -> Iterator[FlaskClient]:
    """A data folder of its own behind one application."""
    app, place = application(new_database.parent), tmp_path / "data"
    place.mkdir()
    shutil.copy(new_database, database_file(place))
    app.extensions[EXTENSION] = open_services(place, MEMORY, [tmp_path])
    yield app.test_client()
    services_of(app).close()
