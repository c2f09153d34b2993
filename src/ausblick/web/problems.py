"""One error format: every exception that reaches the API becomes a Problem with a status."""

from __future__ import annotations

import errno
import logging

from flask import Flask, Response, request
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from ausblick.core.plan import PlanError
from ausblick.formats.images import ImageError
from ausblick.store.setups import DamagedState, NotFound
from ausblick.store.trouble import Locked, NoSpace, StoreTrouble

from .schemas import Problem

log = logging.getLogger("ausblick")
TROUBLE = (500, "The data can't be used")
TROUBLES = {NoSpace: (507, "No space left"), Locked: (503, "The data is in use")}


def problem(status: int, title: str, detail: str, field: str | None = None) -> Response:
    body = Problem(title=title, detail=detail, field=field).model_dump_json()
    return Response(body, status=status, mimetype="application/problem+json")


def on_invalid(err: ValidationError) -> Response:
    """A body, path or query that isn't what the description says."""
    first = err.errors(include_url=False)[0]
    field = ".".join(str(step) for step in first["loc"]) or "body"
    return problem(422, "The request can't be read", f"{field}: {first['msg']}", field)


def register_problems(app: Flask) -> None:
    @app.errorhandler(PlanError)
    def _plan(err: PlanError) -> Response:
        return problem(422, "The plan can't be read", str(err), err.path)

    @app.errorhandler(ImageError)
    def _image(err: ImageError) -> Response:
        return problem(422, "The frame can't be read", str(err), "file")

    @app.errorhandler(DamagedState)
    def _damaged(err: DamagedState) -> Response:
        return problem(422, "This set-up is damaged", str(err))

    @app.errorhandler(StoreTrouble)
    def _trouble(err: StoreTrouble) -> Response:
        log.error("%s", err)
        status, title = next((found for kind, found in TROUBLES.items() if isinstance(err, kind)), TROUBLE)
        response = problem(status, title, str(err))
        if status == 503:
            response.headers["Retry-After"] = "2"
        return response

    @app.errorhandler(OSError)
    def _system(err: OSError) -> Response:
        if err.errno in (errno.ENOSPC, errno.EDQUOT):
            return _trouble(NoSpace())
        return _unexpected(err)

    @app.errorhandler(NotFound)
    def _missing(err: NotFound) -> Response:
        return problem(404, "Not found", str(err))

    @app.errorhandler(RecursionError)
    def _deep(err: RecursionError) -> Response:
        return problem(422, "The request can't be read", "body: is nested too deep", "body")

    @app.errorhandler(HTTPException)
    def _http(err: HTTPException) -> Response:
        return problem(err.code or 500, err.name, err.description or err.name)

    @app.errorhandler(Exception)
    def _unexpected(err: Exception) -> Response:
        log.exception("%s %s", request.method, request.path)
        return problem(
            500, "Something went wrong here", "The server met an error it did not expect; nothing was stored."
        )
