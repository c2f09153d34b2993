"""Who gets an answer: host, origin and fetch checks, devices of the set's network by role, body limits, headers.

On loopback the person at the machine asks and may do everything. Requests that come in by the network's door
(`outside`) need a session, and what changes something its CSRF token.
"""

from __future__ import annotations

import hmac
from collections.abc import Collection
from dataclasses import dataclass
from typing import Literal
from urllib.parse import urlsplit

from flask import Flask, Response, g, request

from ausblick.app.door import Device, Door, Role

from .context import services
from .problems import problem

LOCAL = ("localhost", "127.0.0.1", "[::1]")
COOKIE, CSRF = "ausblick", "X-CSRF"
OUTSIDE = "ausblick.outside"
"""In the scope of a request that came in by the network's door: the hosts it may be asked for."""
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
OPEN = ("/api/door", "/api/me")
"""What a device may ask before it was let in."""
OWNER = "/api/network"
COMPUTES = (
    "/api/evaluate", "/api/picture", "/api/propose", "/api/even-screen", "/api/distances", "/api/ledger",
    "/api/room-table", "/api/recorders", "/api/framing", "/api/brief", "/api/tracking-marks", "/api/copies",
    "/api/screen-advice", "/api/readings", "/api/zebra", "/api/sun", "/api/plate/marks", "/api/plate/read",
    "/api/photometry", "/api/test-key", "/api/start", "/api/productions/day",
)  # fmt: skip
"""Answers to a question: nothing is changed, so looking is enough."""
LOGS = ("/frames", "/lists")
"""Under a set-up: what may be done with the role *log*."""


@dataclass(frozen=True)
class Asked:
    """What the decision is made by."""

    method: str
    path: str
    host: str
    origin: str
    site: str
    csrf: str
    cookie: str
    hosts: Collection[str] | None
    """Of the network's door; None on loopback."""

    @property
    def changes(self) -> bool:
        return self.method not in ("GET", "HEAD", "OPTIONS")


@dataclass(frozen=True)
class Refusal:
    status: int
    title: str
    detail: str


def admit(asked: Asked, door: Door) -> Device | Refusal | Literal["owner", "stranger"]:
    """Who asks, or why there is no answer."""
    own = asked.hosts if asked.hosts is not None else LOCAL
    name = asked.host.rsplit(":", 1)[0] if asked.hosts is None and not asked.host.endswith("]") else asked.host
    if name not in own:
        return Refusal(403, "Not from here", "this server does not answer under that name")
    if asked.changes and asked.origin and urlsplit(asked.origin).netloc != asked.host:
        return Refusal(403, "Not from here", "another page may not change set-ups")
    # A page elsewhere can make a browser ask here; it gets no answer, and nothing is computed for it.
    if asked.path.startswith("/api/") and asked.site in ("cross-site", "same-site"):
        return Refusal(403, "Not from here", "another page may not ask here")
    return "owner" if asked.hosts is None else _device(asked, door)


def _device(asked: Asked, door: Door) -> Device | Refusal | Literal["stranger"]:
    if not asked.path.startswith("/api/") or asked.path in OPEN:
        return door.device(asked.cookie) or "stranger"
    device = door.device(asked.cookie)
    if device is None:
        return Refusal(401, "Not let in", "type the passcode that the owner of this program shows")
    if asked.changes and not hmac.compare_digest(device.csrf.encode(), asked.csrf.encode()):
        return Refusal(403, "Not from here", "the request does not come from this program's page")
    if not _may(device.role, asked):
        return Refusal(403, "Not with this role", f"a device let in to {device.role} may not do this")
    return device


def _may(role: Role, asked: Asked) -> bool:
    if asked.path.startswith(OWNER) or asked.path.endswith("/watch"):
        return False
    if not asked.changes or role == "all" or asked.path.startswith(COMPUTES):
        return True
    parts = asked.path.split("/")
    if asked.path.startswith("/api/productions/") and len(parts) > 4 and parts[4] == "takes":
        return role == "log"
    return role == "log" and len(parts) > 4 and asked.path.startswith("/api/setups/") and f"/{parts[4]}" in LOGS


def is_file(content_type: str) -> bool:
    """Pictures and clips come as multipart; everything else is a request's own words."""
    return content_type.startswith("multipart/")


def register_guard(app: Flask) -> None:
    @app.before_request
    def _refused() -> Response | None:
        found = admit(_asked(), services().door)
        if isinstance(found, Refusal):
            return problem(found.status, found.title, found.detail)
        g.who = found
        return _too_large()

    @app.after_request
    def _headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers[name] = value
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response


def _asked() -> Asked:
    headers = request.headers
    return Asked(
        method=request.method,
        path=request.path,
        host=request.host,
        origin=headers.get("Origin", ""),
        site=headers.get("Sec-Fetch-Site", ""),
        csrf=headers.get(CSRF, ""),
        cookie=request.cookies.get(COOKIE, ""),
        hosts=request.environ.get("asgi.scope", {}).get(OUTSIDE),
    )


def _too_large() -> Response | None:
    most = MOST_FILE if is_file(request.content_type or "") else MOST_JSON
    if (request.content_length or 0) > most:
        return problem(413, "Too large", f"at most {most / 1e6:.0f} MB can be sent here")
    return None
