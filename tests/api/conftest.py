from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from ausblick.app.memory import Memory
from ausblick.web.app import close_app, create_app

MEMORY = Memory()
"""Applications of one session share what they computed, as requests to one do."""


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    app = create_app(tmp_path / "data", MEMORY)
    yield app.test_client()
    close_app(app)
