"""Where light can hurt somebody: circuits, heat near cloth, lamps overhead. Usual cautions with their numbers."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Change
from ...rig.circuits import Load, hot_near_cloth, loads, overhead
from ...sentences import tell
from ...standards.limit import Severity
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

POWER, HEAT, OVERHEAD = LIMITS["light.power"], LIMITS["light.heat"], LIMITS["light.overhead"]
LOCAL = "Follow local codes; ask a licensed electrician for anything above a domestic plug."


def _worst(evaluation: Evaluation) -> Load | None:
    known = [load for load in loads(evaluation.plan) if load.rated_amps is not None]
    return max(known, key=lambda load: load.percent or 0.0, default=None)


def _power(evaluation: Evaluation) -> Judgement | None:
    stray = [load for load in loads(evaluation.plan) if load.rated_amps is None and load.watts > 0.0]
    limit = POWER.at
    if stray:
        says = tell("light.power/unrated", circuit=stray[0].circuit, watts=stray[0].watts)
        return Judgement("consider", None, limit, "%", says, 1.0)
    load = _worst(evaluation)
    if load is None or not evaluation.plan.lights:
        return None
    share = load.percent or 0.0
    rated = load.rated_amps or 0.0
    says = tell("light.power/load", circuit=load.circuit, watts=load.watts, amps=load.amps, rated=rated)
    return Judgement(POWER.grade(share - limit), share, limit, "%", says, max(0.0, share - limit))


def _elsewhere(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """One lamp of the fullest circuit to the emptiest."""
    plan, load = evaluation.plan, _worst(evaluation)
    others = [other for other in loads(plan) if other.rated_amps is not None and other != load]
    if load is None or not others:
        return []
    other = min(others, key=lambda o: o.percent or 0.0)
    loaded = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.circuit == load.circuit]
    return [moves.on_circuit(i, lamp, other.circuit) for i, lamp in loaded if lamp.on and lamp.fixture.watts > 0.0]


def _heat(evaluation: Evaluation) -> Judgement | None:
    hot = hot_near_cloth(evaluation.plan)
    if not hot:
        return None
    worst = max(hot, key=lambda h: h.clear - h.away)
    over = worst.clear - worst.away
    says = tell("light.heat", lamp=worst.name, away=worst.away)
    return Judgement(HEAT.grade(over), worst.away, worst.clear, "m", says, over)


def _away(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, names = evaluation.plan, []
    changes: list[Change] = []
    for hot in hot_near_cloth(plan):
        index = next(i for i, lamp in enumerate(plan.lights) if lamp.id == hot.light)
        x, y, z = plan.lights[index].position
        changes += moves.lamp_to(plan, index, (x, y, z + hot.clear - hot.away + 0.05))
        names.append(hot.name)
    return [Proposal(tell("do/clear-distance", lamps=tuple(names)), tuple(changes), tell("cost/light"))]


def _above(evaluation: Evaluation) -> Judgement | None:
    lamps = overhead(evaluation.plan)
    if not lamps:
        return None
    highest = max(lamp.position[1] for lamp in lamps)
    says = tell("light.overhead", lamps=tuple(lamp.name for lamp in lamps))
    severity: Severity = "consider"
    return Judgement(severity, highest, OVERHEAD.at, "m", says, float(len(lamps)))


def _aside(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, lamps = evaluation.plan, overhead(evaluation.plan)
    if plan.subject is None:
        return []
    indexed = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp in lamps]
    return moves.beside_the_action(plan, plan.subject, indexed)


RULES = (
    Rule(
        id="light.power",
        stage="light",
        measure="of the rating",
        why=f"Lamps burn for hours: a circuit is loaded to four fifths of its rating. {LOCAL}",
        judge=_power,
        propose=_elsewhere,
        digits=0,
    ),
    Rule(
        id="light.heat",
        stage="light",
        measure="distance",
        why="Cloth and paper scorch and burn near incandescent lamps; let them cool before anybody moves them.",
        judge=_heat,
        propose=_away,
        digits=2,
    ),
    Rule(
        id="light.overhead",
        stage="light",
        measure="height",
        why="Nothing hangs over people without a secondary fixing, ballast on its stand and somebody competent to "
        "rig it. Follow local codes.",
        judge=_above,
        propose=_aside,
        digits=1,
    ),
)
