"""The web application: the API under /api, and the page for everything else."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from pathlib import Path
from typing import cast

from flask import Response, request, send_from_directory
from flask_openapi3.models.info import Info
from flask_openapi3.openapi import OpenAPI
from werkzeug.exceptions import MethodNotAllowed
from werkzeug.routing import Map

from ausblick import __version__
from ausblick.app.memory import Memory
from ausblick.app.services import Services, open_services

from .api import (
    check_routes,
    evaluation_routes,
    export_routes,
    frame_routes,
    hand_routes,
    kit_routes,
    light_routes,
    move_routes,
    network_routes,
    plate_routes,
    production_routes,
    screen_routes,
    setup_routes,
    standin_routes,
    start_routes,
    test_key_routes,
    trash_routes,
)
from .context import EXTENSION
from .guard import MOST_FILE, register_guard
from .heavy import register_turns
from .problems import on_invalid, problem, register_problems
from .schemas import REFUSALS, Problem
from .telling import register_telling

STATIC = Path(__file__).parent / "static"
ROUTES = (
    setup_routes.api,
    evaluation_routes.api,
    export_routes.api,
    frame_routes.api,
    kit_routes.api,
    plate_routes.api,
    production_routes.api,
    screen_routes.api,
    move_routes.api,
    light_routes.api,
    test_key_routes.api,
    trash_routes.api,
    check_routes.api,
    standin_routes.api,
    start_routes.api,
    hand_routes.api,
    network_routes.api,
)


def create_app(place: Path, memory: Memory | None = None, roots: Iterable[Path] = ()) -> OpenAPI:
    """The application on a data folder; `roots`: folders under which some may be watched.

    Raises OSError where the data folder can't be written, StoreTrouble where it can't be used.
    """
    app = OpenAPI(
        __name__,
        static_folder=None,
        doc_ui=False,
        info=Info(title="Ausblick", version=__version__),
        responses=REFUSALS,
        validation_error_status=422,
        validation_error_model=Problem,
        validation_error_callback=on_invalid,
    )
    app.config["MAX_CONTENT_LENGTH"] = MOST_FILE
    app.extensions[EXTENSION] = open_services(place, memory, roots)
    register_guard(app)
    register_turns(app)
    register_telling(app)
    register_problems(app)
    for routes in ROUTES:
        app.register_api(routes)
    _register_page(app)
    return app


def services_of(app: OpenAPI) -> Services:
    return cast(Services, app.extensions[EXTENSION])


def _register_page(app: OpenAPI) -> None:
    @cache
    def known() -> Map:
        """All paths of the API; made when somebody asks wrongly, for it takes as long as all else at the start."""
        rules = [rule.empty() for rule in app.url_map.iter_rules() if rule.rule.startswith("/api/")]
        return Map(rules, converters=app.url_map.converters)

    @app.errorhandler(MethodNotAllowed)
    def wrong_method(err: MethodNotAllowed) -> Response:
        """The page takes every path by GET, so that a path nobody knows seems to be one that takes no POST."""
        if request.path.startswith("/api/") and not known().bind("").allowed_methods(request.path):
            return _no_such_path(request.path)
        response = problem(405, err.name, err.description)
        response.headers["Allow"] = ", ".join(err.valid_methods or ())
        return response

    @app.route("/assets/<path:name>")
    def assets(name: str) -> Response:
        """Built files carry a hash in their names, so they never change."""
        return send_from_directory(STATIC / "assets", name, max_age=31_536_000)

    @app.route("/sw.js")
    def worker() -> Response:
        """What keeps the log readable while the server is away; asked for anew each time, for it is what caches."""
        response = send_from_directory(STATIC, "sw.js", mimetype="text/javascript")
        response.headers["Cache-Control"] = "no-cache"
        return response

    @app.route("/")
    @app.route("/<path:_view>")
    def page(_view: str = "") -> Response:
        if f"{_view}/".startswith("api/"):
            return _no_such_path(f"/{_view}")
        response = send_from_directory(STATIC, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response


def _no_such_path(path: str) -> Response:
    return problem(404, "Not found", f"there is no {path[:100]}; docs/api/openapi.json names all paths")
