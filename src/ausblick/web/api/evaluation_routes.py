"""The evaluation of a plan as it stands in the browser, saved or not."""

from __future__ import annotations

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.plan import Change, apply_changes, plan_from

from ..context import answer, quick_answer, services
from ..evaluation_schemas import EvaluationModel
from ..glossary import TERMS
from ..present import evaluation_model
from ..schemas import REFUSALS, EvaluateBody, GlossaryModel

api = APIBlueprint("evaluate", __name__, url_prefix="/api", abp_tags=[Tag(name="evaluation")], abp_responses=REFUSALS)


@api.post("/evaluate", operation_id="evaluatePlan", responses={200: EvaluationModel})
def evaluate_plan(body: EvaluateBody) -> Response:
    """With `changes`, the plan as it would be after them; without `remedies`, faster."""
    plan = plan_from(body.plan)
    if body.changes:
        plan = apply_changes(plan, [Change(change.path, change.value) for change in body.changes])
    evaluation, findings = services().findings(plan, body.remedies)
    return quick_answer(evaluation_model(evaluation, findings, services().basis))


@api.get("/glossary", operation_id="getGlossary", responses={200: GlossaryModel})
def get_glossary() -> Response:
    model = GlossaryModel.model_validate({"terms": [{"term": t, "means": m} for t, m in TERMS.items()]})
    return answer(model)
