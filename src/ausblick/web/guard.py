"""What keeps other pages and other machines out: host and origin checks, and the response headers."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, request

from .problems import problem

LOCAL = {"localhost", "127.0.0.1", "[::1]"}
POLICY = "default-src 'self'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'none'"


def register_guard(app: Flask) -> None:
    @app.before_request
    def _only_this_machine() -> Response | None:
        host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
        if host not in LOCAL:
            return problem(403, "Not from here", "this server answers on localhost only")
        origin = request.headers.get("Origin")
        if request.method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != request.host:
            return problem(403, "Not from here", "another page may not change set-ups")
        return None

    @app.after_request
    def _headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response
