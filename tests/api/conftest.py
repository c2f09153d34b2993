from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from ausblick.app.memory import Memory
from ausblick.web.app import create_app, services_of

MEMORY = Memory()
"""Applications of one session share what they computed, as requests to one do."""


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    app = create_app(tmp_path / "data", MEMORY, roots=[tmp_path])
    yield app.test_client()
    services_of(app).close()
