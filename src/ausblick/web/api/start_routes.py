"""The first two minutes: what was said of a room and its things becomes a plan, and a lit one; one lamp more."""

from __future__ import annotations

from flask import Response

from ausblick.core.plan import plan_from
from ausblick.core.start.answers_given import lamp_from, said_from
from ausblick.core.start.first_set import first_set, possible_with
from ausblick.core.start.one_more_lamp import free_lamps, one_more_lamp

from ..context import answer, services
from ..described import group
from ..kit_schemas import PlanBody
from ..start_schemas import (
    FirstSetModel,
    FreeLampsModel,
    MoreLampBody,
    MoreLampModel,
    OpenFinding,
    PossibleModel,
    SaidBody,
)

api = group("start", "start", "/api/start")


@api.post("/possible", operation_id="possibleWith", responses={200: PossibleModel})
def post_possible(body: SaidBody) -> Response:
    """At once: the unlit plan, and what room, cloth and lenses can shoot. Nothing is stored."""
    plan, possible = possible_with(said_from(body.said), services().kits.get().kit)
    return answer(PossibleModel(plan=plan, possible=list(possible)))


@api.post("", operation_id="firstSet", responses={200: FirstSetModel})
def post_first_set(body: SaidBody) -> Response:
    """A lit set for what was said, its first findings, and one sentence over it. Nothing is stored."""
    made = first_set(said_from(body.said), services().kits.get().kit, services().basis)
    found = [f.judgement for f in made.findings if f.judgement.severity != "fine"]
    return answer(
        FirstSetModel(
            plan=made.plan,
            kit=made.kit,
            verdict=made.verdict,
            says=made.says,
            told=list(made.told),
            instead=made.instead,
            open=[OpenFinding(severity=one.severity, says=one.says) for one in found],
        )
    )


@api.post("/lamp", operation_id="oneMoreLamp", responses={200: MoreLampModel})
def post_lamp(body: MoreLampBody) -> Response:
    """Where one more lamp goes into a plan, and what it is called. Nothing is stored."""
    kit = services().kits.get().kit
    return answer(MoreLampModel(light=one_more_lamp(plan_from(body.plan), lamp_from(body.lamp), kit)))


@api.post("/free-lamps", operation_id="freeLamps", responses={200: FreeLampsModel})
def post_free_lamps(body: PlanBody) -> Response:
    """The kit's lamps with how many of each the plan does not use yet."""
    return answer(FreeLampsModel(lamps=list(free_lamps(plan_from(body.plan), services().kits.get().kit))))
