"""What a screen shot costs at the edit, in hours: by what is seen of the person, and by what is hard to key."""

from __future__ import annotations

from ..plan import Plan, people_of
from .production_document import EditHours, PlannedShot

HARD_PROPS = ("glass", "liquid", "smoke")


def edit_hours(shot: PlannedShot, plan: Plan, each: EditHours) -> float:
    """The estimate's factors are the production's own; a shot without a person counts as a close one."""
    subject = plan.subject
    framing = "hands" if subject is None else subject.framing
    hours = {"full": each.full, "knees": each.full, "waist": each.waist}.get(framing, each.close)
    if "moving-camera" in shot.needs:
        hours *= each.moving_camera
    hard = "smoke" in shot.needs
    for person in people_of(plan):
        hard |= person.hair_kind in ("fine", "curly") or any(prop.kind in HARD_PROPS for prop in person.props)
    return hours * each.hair_glass_smoke if hard else hours
