"""What was deleted and can be brought back."""

from __future__ import annotations

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.store.setups import DamagedSetup

from ..context import answer, services
from ..schemas import REFUSALS, TrashedFrame, TrashedSetup, TrashModel

api = APIBlueprint("trash", __name__, url_prefix="/api", abp_tags=[Tag(name="trash")], abp_responses=REFUSALS)


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
