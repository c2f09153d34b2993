"""The web application: the API under /api, and the page for everything else."""

from __future__ import annotations

from pathlib import Path

from flask import Response, send_from_directory
from flask_openapi3.models.info import Info
from flask_openapi3.openapi import OpenAPI

from ausblick import __version__
from ausblick.core.light.basis import BasisStore, Shelf
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import Kits
from ausblick.store.plates import Plates
from ausblick.store.setups import Setups
from ausblick.store.test_keys import TestKeys
from ausblick.store.ticks import Ticks

from .api import by_hand, check, evaluate, frames, kit, light, move, plate, screen, setups, standin, testkey
from .guard import register_guard
from .jobs import Jobs
from .problems import on_invalid, register_problems
from .schemas import Problem
from .standins import Standins
from .watching import Watches

STATIC = Path(__file__).parent / "static"
MAX_BODY = 420_000_000
MAX_JSON = 6_000_000
EXPECTED = 12
TRIALS = 3
"""Trial keys that are remembered: figures and views of one frame are asked for one after the other."""


def create_app(place: Path) -> OpenAPI:
    """The application on a data folder. Raises OSError where that can't be written."""
    app = OpenAPI(
        __name__,
        static_folder=None,
        doc_ui=False,
        info=Info(title="Ausblick", version=__version__),
        responses={422: Problem, 404: Problem},
        validation_error_status=422,
        validation_error_model=Problem,
        validation_error_callback=on_invalid,
    )
    app.config["MAX_CONTENT_LENGTH"] = MAX_BODY
    sessions = open_database(place)
    app.extensions["ausblick-setups"] = Setups(sessions)
    app.extensions["ausblick-frames"] = Frames(sessions, place)
    app.extensions["ausblick-kits"] = Kits(sessions)
    app.extensions["ausblick-plates"] = Plates(place)
    app.extensions["ausblick-test-keys"] = TestKeys(sessions, place)
    app.extensions["ausblick-ticks"] = Ticks(sessions)
    app.extensions["ausblick-standins"] = Standins()
    app.extensions["ausblick-watches"] = Watches()
    app.extensions["ausblick-basis"] = BasisStore()
    app.extensions["ausblick-trials"] = Shelf(TRIALS)
    app.extensions["ausblick-expected"] = Shelf(EXPECTED)
    app.extensions["ausblick-jobs"] = Jobs()
    register_guard(app)
    register_problems(app)
    for blueprint in (
        setups.api,
        evaluate.api,
        frames.api,
        kit.api,
        plate.api,
        screen.api,
        move.api,
        light.api,
        testkey.api,
        check.api,
        standin.api,
        by_hand.api,
    ):
        app.register_api(blueprint)
    _register_page(app)
    return app


def close_app(app: OpenAPI) -> None:
    """End the work beside the requests: jobs are cancelled, folders no longer watched."""
    app.extensions["ausblick-jobs"].close()
    app.extensions["ausblick-watches"].close()


def _register_page(app: OpenAPI) -> None:
    @app.route("/assets/<path:name>")
    def assets(name: str) -> Response:
        """Built files carry a hash in their names, so they never change."""
        return send_from_directory(STATIC / "assets", name, max_age=31_536_000)

    @app.route("/")
    @app.route("/<path:_view>")
    def page(_view: str = "") -> Response:
        response = send_from_directory(STATIC, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response
