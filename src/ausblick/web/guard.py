"""What keeps other pages and other machines out: host, origin and fetch checks, body limits, and response headers."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, request

from .problems import problem

LOCAL = {"localhost", "127.0.0.1", "[::1]"}
MOST_JSON, MOST_FILE = 6_000_000, 420_000_000
"""Bytes of a body: of a plan or another request, and of a picture or clip."""
HEADERS = {
    "Content-Security-Policy": "default-src 'self'; img-src 'self' data: blob:; frame-ancestors 'none'; "
    "base-uri 'none'; form-action 'self'; object-src 'none'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), display-capture=(), usb=(), payment=()",
}


def is_file(content_type: str) -> bool:
    """Pictures and clips come as multipart; everything else is a request's own words."""
    return content_type.startswith("multipart/")


def register_guard(app: Flask) -> None:
    @app.before_request
    def _refused() -> Response | None:
        return _elsewhere() or _too_large()

    @app.after_request
    def _headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers[name] = value
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response


def _elsewhere() -> Response | None:
    host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
    if host not in LOCAL:
        return problem(403, "Not from here", "this server answers on localhost only")
    origin = request.headers.get("Origin")
    if request.method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != request.host:
        return problem(403, "Not from here", "another page may not change set-ups")
    # A page elsewhere can make a browser ask here; it gets no answer, and nothing is computed for it.
    if request.path.startswith("/api/") and request.headers.get("Sec-Fetch-Site") in ("cross-site", "same-site"):
        return problem(403, "Not from here", "another page may not ask here")
    return None


def _too_large() -> Response | None:
    most = MOST_FILE if is_file(request.content_type or "") else MOST_JSON
    if (request.content_length or 0) > most:
        return problem(413, "Too large", f"at most {most / 1e6:.0f} MB can be sent here")
    return None
