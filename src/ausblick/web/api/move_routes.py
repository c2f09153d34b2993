"""Tracking marks for a moving camera; scale and place of copies."""

from __future__ import annotations

from flask import Response

from ausblick.core.camera.copies import copies
from ausblick.core.camera.ground_shade import shade_in_plate
from ausblick.core.camera.tracking_marks import Move, tracking_marks
from ausblick.core.plan import plan_from

from ..context import answer
from ..described import group
from ..move_schemas import CopiesBody, CopiesModel, MarksForMoveBody, TrackingMarksModel
from ..present import pairs

api = group("move", "moves and copies")


@api.post("/tracking-marks", operation_id="trackingMarks", responses={200: TrackingMarksModel})
def post_tracking_marks(body: MarksForMoveBody) -> Response:
    """The fewest marks of which the wanted number is in every frame of the move."""
    move = Move(body.pan, body.tilt, body.travel, body.zoom)
    marks = tracking_marks(plan_from(body.plan), move, body.wanted)
    model = TrackingMarksModel(
        places=[(x, y) for x, y in pairs(marks.places, 3)], least=marks.least, shade=marks.shade, says=marks.says
    )
    return answer(model)


@api.post("/copies", operation_id="copies", responses={200: CopiesModel})
def post_copies(body: CopiesBody) -> Response:
    """Scale, place, blur, shade and overlap of one figure multiplied in rows."""
    plan = plan_from(body.plan)
    found = copies(plan, body.rows, body.columns, body.spacing, body.row_depth)
    model = CopiesModel(copies=found, shade=shade_in_plate(plan))
    return answer(model)
