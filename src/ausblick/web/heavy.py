"""Which requests are heavy: they take turns, and who comes when too many wait is told when to come again."""

from __future__ import annotations

from contextlib import ExitStack
from typing import Literal

from flask import Flask, Response, g, request

from ausblick.app.turns import Busy
from ausblick.app.wanted import NoLongerWanted

from .context import services
from .problems import problem

Kind = Literal["turns", "drags", "reads"]
HEAVY: dict[str, Kind] = {
    "light.post_even_screen": "turns",
    "light.post_distances": "turns",
    "light.post_ledger": "turns",
    "kit.post_propose": "turns",
    "kit.post_room_table": "turns",
    "kit.post_recorders": "turns",
    "check.get_cause": "turns",
    "check.post_pose": "turns",
    "frames.get_comparison": "turns",
    "standin.post_record": "turns",
    "start.post_first_set": "turns",
    "start.post_possible": "drags",
    "productions.get_state": "drags",
    "productions.post_day": "drags",
    "productions.list_takes": "reads",
    "productions.get_take_findings": "reads",
    "standin.get_look": "drags",
    "evaluate.draw_plan": "drags",
    "standin.post_meter": "drags",
    "plate.post_brief": "drags",
    "by_hand.post_readings": "drags",
    "frames.import_upload": "reads",
    "check.post_region": "reads",
    "check.get_trial": "reads",
    "check.get_trial_picture": "reads",
    "check.get_pixels": "reads",
    "plate.post_read": "reads",
    "plate.put_plate": "reads",
    "plate.get_plate": "reads",
}
"""By endpoint. The evaluation of a plan and the list of set-ups take theirs where nothing is remembered
(`Services.findings`), the lists round a take once a tick is kept: nothing that is stored waits for its turn."""


def register_turns(app: Flask) -> None:
    @app.before_request
    def _begin() -> None:
        kind = HEAVY.get(request.endpoint or "")
        if kind is not None:
            g.turn = ExitStack()
            g.turn.enter_context(getattr(services(), kind).taken())

    @app.teardown_request
    def _end(_: BaseException | None) -> None:
        turn: ExitStack | None = g.pop("turn", None)
        if turn is not None:
            turn.close()

    @app.errorhandler(Busy)
    def _busy(err: Busy) -> Response:
        response = problem(429, "Much is being worked on", f"Try again in {err.again} s.")
        response.headers["Retry-After"] = str(err.again)
        return response

    @app.errorhandler(NoLongerWanted)
    def _left(_: NoLongerWanted) -> Response:
        return problem(503, "Nobody waits any more", "Whoever asked has left, so the work was ended.")
