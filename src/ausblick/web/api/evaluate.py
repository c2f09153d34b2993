"""The evaluation of a plan as it stands in the browser, saved or not."""

from __future__ import annotations

from flask import Response, current_app
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from ausblick.core.kit.rules import kit_rules
from ausblick.core.plan import Change, apply_changes, plan_from
from ausblick.core.rules.findings import find
from ausblick.store.kits import Kits

from ..evaluation_schemas import EvaluationModel
from ..glossary import TERMS
from ..present import evaluation_model
from ..schemas import EvaluateBody, GlossaryModel
from .setups import basis

api = APIBlueprint("evaluate", __name__, url_prefix="/api", abp_tags=[Tag(name="evaluation")])


@api.post("/evaluate", operation_id="evaluatePlan", responses={200: EvaluationModel})
def evaluate_plan(body: EvaluateBody) -> Response:
    """With `changes`, the plan as it would be after them; without `remedies`, faster."""
    plan = plan_from(body.plan)
    if body.changes:
        plan = apply_changes(plan, [Change(change.path, change.value) for change in body.changes])
    kit: Kits = current_app.extensions["ausblick-kits"]
    also = kit_rules(kit.get().kit)
    evaluation, findings = find(plan, basis(), with_remedies=body.remedies, also=also)
    return Response(evaluation_model(evaluation, findings, basis()).model_dump_json(), mimetype="application/json")


@api.get("/glossary", operation_id="getGlossary", responses={200: GlossaryModel})
def get_glossary() -> Response:
    model = GlossaryModel.model_validate({"terms": [{"term": t, "means": m} for t, m in TERMS.items()]})
    return Response(model.model_dump_json(), mimetype="application/json")
