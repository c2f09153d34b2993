"""A window's screen that is too bright or too dark for the room: film on its pane, or the room lifted to it."""

from __future__ import annotations

import math

from ...camera.coverage import opening_of
from ...plan import Light, Plan, edit
from ...sentences import tell
from ..rule import Proposal
from ..steps import third_stop

LEAST = 0.5
"""Film is sold in whole stops: what is nearer is left to lamps and aperture."""
MOST_FILM = 4
"""Of the heaviest film on the market, stops (density 1.2)."""
THIRD = 1.0 / 3.0
SMALLEST = 22.0


def film_on_pane(plan: Plan, over: float) -> list[Proposal]:
    """Film for a screen that is so many stops too bright; less of it, or none, for one that is too dark."""
    window = plan.window
    if window is None or opening_of(plan) is None or abs(over) < LEAST:
        return []
    stops = min(MOST_FILM, max(0, round(window.film_stops + over)))
    if (stops - window.film_stops) * over <= 0.0:
        return []
    text = tell("do/film", stops=float(stops), density=0.3 * stops) if stops else tell("do/film-off")
    return [Proposal(text, (edit.window.film_stops(float(stops)),), tell("cost/film") if stops else None)]


def inside_lifted(plan: Plan, over: float) -> list[Proposal]:
    """The room's own lamps up and the aperture closed by as much, as far as the lamps go."""
    lamps = _inside(plan)
    if not lamps or opening_of(plan) is None:
        return []
    left = math.log2(1.0 / max(lamp.dimmer for _, lamp in lamps))
    by = THIRD * math.floor(min(over, left) / THIRD + 1e-9)
    f_number = third_stop(plan.camera.f_number * 2.0 ** (by / 2.0), up=True)
    if by < THIRD - 1e-9 or f_number > SMALLEST:
        return []
    dimmers = tuple(edit.lamp(i).dimmer(round(lamp.dimmer * 2.0**by, 3)) for i, lamp in lamps)
    text = tell("do/lift-inside", by=by, to=f_number)
    return [Proposal(text, (*dimmers, edit.camera.f_number(f_number)), tell("cost/lift-inside"))]


def _inside(plan: Plan) -> list[tuple[int, Light]]:
    """Lamps that light the subject on the camera's side of a window's wall."""
    if plan.window is None:
        return []
    z = plan.window.z
    return [
        (i, lamp)
        for i, lamp in enumerate(plan.lights)
        if lamp.role in ("key", "fill", "back") and lamp.on and lamp.dimmer > 0.0 and lamp.position[2] > z
        and not lamp.is_daylight
    ]  # fmt: skip
