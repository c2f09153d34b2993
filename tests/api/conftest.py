from __future__ import annotations

from pathlib import Path

import pytest
from flask.testing import FlaskClient

from ausblick.web.app import create_app


@pytest.fixture
def client(tmp_path: Path) -> FlaskClient:
    return create_app(tmp_path / "data").test_client()
