"""A window behind the cloth: no proposal leaves it to shine through."""

from __future__ import annotations

from ...plan import Plan, apply_changes, edit
from ...sentences import Sentence, tell

Covered = tuple[Plan, Sentence | None]
"""A plan, and what was hung behind its screen; nothing where nothing had to be."""


def with_second_cloth(plan: Plan) -> Covered:
    """The same cloth once more behind it: of what shines through one, as much shines through the next."""
    screen = plan.screen
    if screen.behind_lux <= 0.0 or screen.transmittance <= 0.0:
        return plan, None
    through = round(screen.transmittance**2, 5)
    return apply_changes(plan, [edit.screen.transmittance(through)]), tell("set-up/second-cloth")


def blacked_out(plan: Plan) -> Covered:
    """Where a second cloth is not enough."""
    return apply_changes(plan, [edit.screen.transmittance(0.0)]), tell("set-up/blackout")
