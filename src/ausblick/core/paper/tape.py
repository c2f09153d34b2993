"""Places as a tape measures them on the floor: from the screen, from its middle, from the nearest side wall."""

from __future__ import annotations

from ..plan import Plan
from ..sentences import Units, length

ON_LINE = 0.005
"""Nearer to the middle than this, m, is on it."""


def from_middle(x: float, plan: Plan, units: Units) -> str:
    """How far to the side of the line through the screen's middle, as the camera sees left and right."""
    away = x - plan.screen.x_centre
    if abs(away) < ON_LINE:
        return "on it"
    return f"{length(abs(away), units)} {'right' if away > 0 else 'left'}"


def from_wall(x: float, plan: Plan, units: Units) -> str:
    """From the nearer side wall; outdoors there is none."""
    room = plan.room
    if room.kind == "exterior":
        return "–"
    left, right = x - room.x_min, room.x_max - x
    return f"{length(min(left, right), units)} {'left' if left <= right else 'right'}"


def place(x: float, z: float, plan: Plan, units: Units) -> str:
    """From the screen and its middle, in a few words."""
    return f"{length(z, units)} out, {from_middle(x, plan, units)}".replace("on it", "in the middle")
