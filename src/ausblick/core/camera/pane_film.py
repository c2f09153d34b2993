"""Neutral film on the pane of a window in a wall: light that goes from one side of the wall to the other is dimmed by
it, whichever way it goes, and so is what the lens sees through the pane.

Neutral density adds in stops: a film of 0.3 lets half through (ISO 5-2, transmittance density D = lg(1/T)).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Plan


@dataclass(frozen=True)
class PaneFilm:
    """Where it hangs, m from the screen, and the share of light that it lets through."""

    z: float
    passes: float

    def through(self, a: Floats, b: Floats) -> Floats:
        """Share (...) of light that gets from places at z = a (...) to others at z = b (...), m."""
        return np.where((a - self.z) * (b - self.z) < 0.0, self.passes, 1.0)


def film_of(plan: Plan) -> PaneFilm | None:
    """None without a film; one on a loose pane is none, as light goes round it."""
    window = plan.window
    if window is None or not window.in_wall or window.film_stops <= 0.0:
        return None
    return PaneFilm(window.z, 2.0**-window.film_stops)


def film_before_screen(plan: Plan) -> float:
    """Share of the screen's light that reaches the lens."""
    film = film_of(plan)
    return 1.0 if film is None else float(film.through(np.array(0.0), np.array(plan.camera.z)))
