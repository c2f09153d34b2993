"""Where light can hurt somebody: circuits, heat near cloth, lamps overhead. Usual cautions with their numbers."""

from __future__ import annotations

import math

import numpy as np

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.emission import usual
from ...plan import Change, Light, edit
from ...rig.circuits import Load, hot_near_cloth, loads, overhead
from ...sentences import few, tell
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
    says = tell(f"light.heat/{worst.what}", lamp=worst.name, away=worst.away)
    return Judgement(HEAT.grade(over), worst.away, worst.clear, "m", says, over)


TO_A_CENTIMETRE = 0.011
"""A place is told to the centimetre, m."""


def _away(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Back from the cloth; back along the aim from a board; the sheet hung further out."""
    plan, hot = evaluation.plan, hot_near_cloth(evaluation.plan)
    index = {lamp.id: i for i, lamp in enumerate(plan.lights)}
    from_cloth: list[str] = []
    from_boards: list[str] = []
    stands: list[Change] = []
    found, reached = [], True
    for one in hot:
        i, step = index[one.light], one.clear - one.away + 0.05
        lamp = plan.lights[i]
        if one.what == "sheet":
            found.append(_sheet_out(i, lamp, one.clear + 0.05))
            continue
        x, y, z = lamp.position
        away = np.array(lamp.position) - np.array(lamp.aim)
        ax, _, az = step * away / max(float(np.linalg.norm(away)), 1e-6)
        at = (x, y, z + step) if one.what == "cloth" else (x + ax, y, z + az)
        stands += moves.lamp_to(plan, i, at)
        reached &= math.dist(moves.stand_inside(plan, at, lamp.position), at) < TO_A_CENTIMETRE
        (from_cloth if one.what == "cloth" else from_boards).append(lamp.name)
    if stands:
        word = "do/clear-distance" if from_cloth else "do/away-from-boards"
        if not reached:
            word = "do/as-far-as-room"
        found.append(Proposal(tell(word, lamps=(*from_cloth, *from_boards)), tuple(stands), tell("cost/light")))
    return found


def _sheet_out(index: int, lamp: Light, to: float) -> Proposal:
    """Every sheet of a lamp hung that far before it."""
    out = [
        one.model_copy(update={"distance": round(max(to, usual(one, "distance")), 2)})
        if one.kind == "diffusion"
        else one
        for one in lamp.modifiers
    ]
    first, *more = (one.model_dump(mode="json") for one in out)
    changes = (edit.lamp(index).modifier(first), edit.lamp(index).beyond(more))
    return Proposal(tell("do/sheet-further", lamp=lamp.name, to=to), changes, tell("cost/light"))


def _above(evaluation: Evaluation) -> Judgement | None:
    lamps = overhead(evaluation.plan)
    if not lamps:
        return None
    highest = max(lamp.position[1] for lamp in lamps)
    says = tell("light.overhead", lamps=few(tuple(lamp.name for lamp in lamps)))
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
        why="Cloth, paper and foam boards scorch and burn near incandescent lamps; let lamps cool before anybody "
        "moves them, and put only what their maker allows before them.",
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
