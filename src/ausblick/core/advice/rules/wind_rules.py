"""Wind on the screen, or a fan's air: a sail of several square metres on two stands."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...rig.rigging_sheet import rigging_sheet, wind_force
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule

WIND = LIMITS["screen.wind"]


def _judge(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    wind = plan.room.wind_ms
    if wind <= 0.0 or plan.screen.material == "paint":
        return None
    sheet, fan = rigging_sheet(plan), plan.room.kind == "interior"
    if sheet.stands:
        ident = "screen.wind/fan" if fan else "screen.wind"
    else:
        ident = "screen.wind/leans/fan" if fan else "screen.wind/leans"
    force = wind_force(plan.screen.width * plan.screen.height, wind)
    over = wind - WIND.at
    says = tell(ident, wind=wind, force=force, ballast=sheet.ballast_kg)
    return Judgement(WIND.grade(over), wind, WIND.at, "m/s", says, max(0.0, over))


def _turned_away(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """A fan; no field of the plan calms the wind."""
    if evaluation.plan.room.kind == "exterior":
        return []
    return [Proposal(tell("do/fan-away"), (edit.room.wind_ms(0.0),), tell("cost/fan"))]


RULES = (
    Rule(
        id="screen.wind",
        stage="screen",
        measure="wind",
        why="Cloth flutters before it falls, and a frame that goes over hurts people. Guy it, keep somebody at it, "
        "and take it down above its maker's limit; local rules and a competent rigger decide.",
        judge=_judge,
        propose=_turned_away,
        digits=0,
    ),
)
