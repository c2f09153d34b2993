"""More screen: as much as what is seen asks for, alone or along with a mark that moves away from it."""

from __future__ import annotations

from ...camera.coverage import Coverage, coverage_of
from ...camera.view import view_of
from ...plan import Change, Plan, apply_changes, edit, people_of
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from ..rule import Proposal

Needed = tuple[float, float, float, float]
"""Left, lower, right and upper end in m of what is needed in the screen's plane."""
MARGIN = LIMITS["screen.margin"].at


def with_enough_screen(plan: Plan, before: Coverage, text: Sentence, changes: tuple[Change, ...]) -> Proposal:
    """Changes that need more screen than there is, together with it, where it was enough before; else as they are."""
    cost, there = tell("cost/screen-depth"), apply_changes(plan, changes)
    seen = coverage_of(there, view_of(there.camera, there.subject))
    if before.covered and not seen.covered and seen.needed is not None:
        for larger in larger_screen(there, seen.needed):
            return Proposal(tell("do/and", first=text, then=larger.text), (*changes, *larger.changes), cost)
    return Proposal(text, changes, cost)


def larger_screen(plan: Plan, needed: Needed) -> list[Proposal]:
    """As large a screen, and as long a floor run, as is needed and somewhat more; nothing where the room has no place
    for it."""
    screen, spare = plan.screen, MARGIN + 0.05
    on_floor = screen.bottom <= 0.02
    left = min(screen.x_centre - screen.width / 2, needed[0] - spare)
    right = max(screen.x_centre + screen.width / 2, needed[2] + spare)
    top = max(screen.bottom + screen.height, needed[3] + spare)
    if plan.room.kind == "interior":
        # As much to spare as the room gives; what is needed itself has to fit in.
        left, right = max(left, plan.room.x_min), min(right, plan.room.x_max)
        top = min(top, plan.room.height)
        if needed[0] <= left or needed[2] >= right or needed[3] >= top:
            return []
    bottom = screen.bottom if on_floor else max(0.0, min(screen.bottom, needed[1] - spare))
    width, height = round(right - left, 2), round(top - bottom, 2)
    changes = [
        edit.screen.width(width),
        edit.screen.x_centre(round((left + right) / 2, 3)),
        edit.screen.height(height),
        edit.screen.bottom(round(bottom, 2)),
    ]
    sizes = {"to": (width, height), "was": (screen.width, screen.height)}
    text = tell("do/bigger-screen", **sizes)
    if plan.subject is not None and plan.subject.feet_seen and needed[1] < 0:
        run = round(max(one.z + one.envelope.front for one in people_of(plan)) + spare + 0.1, 2)
        if run > screen.floor_run:
            changes.append(edit.screen.floor_run(run))
            text = tell("do/bigger-screen-run", run=run, **sizes)
            if (width, height) == (round(screen.width, 2), round(screen.height, 2)):
                text = tell("do/longer-run", to=run, was=screen.floor_run)
    if (width, height) == (round(screen.width, 2), round(screen.height, 2)) and len(changes) == 4:
        return []
    return [Proposal(text, tuple(changes), tell("cost/more-cloth"))]
