"""The screen as a choice and as work: colour evidence with a recommendation, and the rigging sheet."""

from __future__ import annotations

from flask import Response

from ausblick.core.plan import plan_from
from ausblick.core.rig.materials import FACTS
from ausblick.core.rig.rigging_sheet import rigging_sheet
from ausblick.core.rig.screen_colour import SOLID, advice, evidence
from ausblick.core.rig.wardrobe_check import checks

from ..context import answer, services
from ..described import group
from ..kit_schemas import PlanBody
from ..screen_schemas import ScreenAdviceModel

api = group("screen", "screen")


@api.post("/screen-advice", operation_id="screenAdvice", responses={200: ScreenAdviceModel})
def post_screen_advice(body: PlanBody) -> Response:
    plan, bag = plan_from(body.plan), services().kits.get().kit.sandbag_kg
    model = ScreenAdviceModel.model_validate(
        {
            "checks": checks(plan),
            "materials": FACTS,
            "evidence": evidence(plan),
            "advice": advice(plan),
            "sheet": rigging_sheet(plan, bag),
            "bag_kg": bag,
            "solid": SOLID,
        }
    )
    return answer(model)
