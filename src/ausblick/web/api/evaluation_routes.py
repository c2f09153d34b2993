"""The evaluation of a plan as it stands in the browser, saved or not."""

from __future__ import annotations

from base64 import b64encode

from flask import Response

from ausblick.core.plan import Change, apply_changes, plan_from
from ausblick.core.standin.planned_picture import picture_at_once, planned_picture
from ausblick.formats.images import jpeg_bytes

from ..context import answer, quick_answer, services
from ..described import group
from ..evaluation_schemas import EvaluationModel, PlannedPictureModel
from ..glossary import TERMS
from ..present import evaluation_model
from ..schemas import EvaluateBody, GlossaryModel, PictureBody

api = group("evaluate", "evaluation")
PICTURE_WIDTH = 640


@api.post("/evaluate", operation_id="evaluatePlan", responses={200: EvaluationModel})
def evaluate_plan(body: EvaluateBody) -> Response:
    """With `changes`, the plan as it would be after them; without `remedies`, faster."""
    plan = plan_from(body.plan)
    if body.changes:
        plan = apply_changes(plan, [Change(change.path, change.value) for change in body.changes])
    evaluation, findings = services().findings(plan, body.remedies)
    return quick_answer(evaluation_model(evaluation, findings, services().basis))


@api.post("/picture", operation_id="drawPlan", responses={200: PlannedPictureModel})
def draw_plan(body: PictureBody) -> Response:
    """The planned set as the camera would see it, without noise and codec."""
    plan, memory = plan_from(body.plan), services().memory
    if body.at_once:
        drawn = picture_at_once(plan, PICTURE_WIDTH, memory.basis, memory.last_light)
    else:
        drawn = planned_picture(plan, memory.evaluated, PICTURE_WIDTH, memory.basis, memory.last_light)
    if drawn is None:
        return answer(PlannedPictureModel(picture=None, settled=False))
    return answer(PlannedPictureModel(picture=b64encode(jpeg_bytes(drawn.frame)).decode(), settled=drawn.settled))


@api.get("/glossary", operation_id="getGlossary", responses={200: GlossaryModel})
def get_glossary() -> Response:
    model = GlossaryModel.model_validate({"terms": [{"term": t, "means": m} for t, m in TERMS.items()]})
    return answer(model)
