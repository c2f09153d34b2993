"""What was deleted and can be brought back."""

from __future__ import annotations

from flask import Response

from ausblick.store.setups import DamagedSetup

from ..context import answer, services
from ..described import group
from ..schemas import TrashedFrame, TrashedSetup, TrashModel

api = group("trash", "trash")


@api.get("/trash", operation_id="getTrash", responses={200: TrashModel})
def get_trash() -> Response:
    """Deleted set-ups and frames, the last first. A frame is gone after a month, a set-up stays."""
    setups = [
        TrashedSetup(id=one.id, title=f"Set-up {one.id}" if isinstance(one, DamagedSetup) else one.plan.title)
        for one in services().setups.in_trash()
    ]
    frames = [
        TrashedFrame(id=one.id, setup_id=one.setup_id, name=one.name, deleted=one.deleted)
        for one in services().frames.in_trash()
        if one.deleted is not None
    ]
    return answer(TrashModel(setups=setups, frames=frames))
