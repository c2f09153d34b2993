"""What a request changed is told to every page that is open."""

from __future__ import annotations

from flask import Flask, Response, request

from ausblick.app.change_feed import Changed

from .context import services

TOLD = {
    "setups": "setups",
    "frames": "frames",
    "kit": "kit",
    "by_hand": "lists",
    "check": "frames",
    "standin": "frames",
    "productions": "productions",
}
"""By blueprint, for requests that change something."""
ONLY = {
    "kit.save_kit",
    "kit.add_to_kit",
    "kit.undo_kit",
    "kit.save_kit_csv",
    "by_hand.put_tick",
    "by_hand.delete_ticks",
    "check.post_region",
}
"""Of blueprints whose other requests only compute."""
ALL_OF = ("setups", "frames", "standin", "productions")
COMPUTES = ("productions.post_day",)
"""Of those, what changes nothing."""


PAGE = "X-Page"
"""A page names itself, so that it does not hear of what it did."""


def register_telling(app: Flask) -> None:
    @app.after_request
    def _tell(response: Response) -> Response:
        endpoint = request.endpoint or ""
        blueprint = endpoint.partition(".")[0]
        changes = request.method not in ("GET", "HEAD", "OPTIONS") and response.status_code < 300
        if changes and endpoint not in COMPUTES and (endpoint in ONLY or blueprint in ALL_OF):
            number = (request.view_args or {}).get("setup_id")
            setup = None if number is None else int(number)
            services().changes.tell(Changed(TOLD[blueprint], setup, request.headers.get(PAGE, "")[:40]))
        return response
