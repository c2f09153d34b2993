from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from ausblick.web.app import close_app, create_app


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    app = create_app(tmp_path / "data")
    yield app.test_client()
    close_app(app)
