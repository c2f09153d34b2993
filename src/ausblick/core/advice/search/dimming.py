"""Dimmers of a proposal: face and screen to their levels, the fill a share of the key."""

from __future__ import annotations

import math

from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation
from ...light.balance import balanced_dimmers
from ...light.basis import BasisStore
from ...plan import Plan, apply_changes, edit
from ..rules.light_rules import wanted_lux
from ..rules.subject_rules import wanted_stops
from .key_leads import face_goal
from .lamp_roles import FILL_OF_KEY

RIM_OF_FACE = 0.5


def face_surplus(full: Evaluation) -> float | None:
    """Stops that the face is above its goal."""
    over = full.exposure.stops_over
    return None if over is None or not math.isfinite(over) else over - face_goal(*wanted_stops(full))


def dimmed(plan: Plan, store: BasisStore) -> Plan:
    """Dimmers: fill as a share of the key, both to the face's level, then the screen to its own."""
    full = [edit.lamp(i).dimmer(1.0) for i in range(len(plan.lights))]
    plan = apply_changes(plan, full)
    index = {lamp.id: i for i, lamp in enumerate(plan.lights)}
    # In a bright room each zone lights the other a little: twice round settles both.
    for _ in range(2):
        plan = _dim_face(plan, store)
        evaluation = evaluate(plan, store)
        target = wanted_lux(evaluation)
        solved = balanced_dimmers(plan, evaluation.judged_cells, target, store)
        plan = apply_changes(plan, [edit.lamp(index[k]).dimmer(round(v, 3)) for k, v in solved.items()])
    return _dim_face(plan, store)


def _dim_face(plan: Plan, store: BasisStore) -> Plan:
    plan = apply_changes(plan, [edit.lamp(i).dimmer(1.0) for i in _subject_lamps(plan)])
    evaluation = evaluate(plan, store)
    roles = {lamp.role: (i, lamp) for i, lamp in enumerate(plan.lights) if lamp.role in ("key", "fill", "back")}
    key_lux = evaluation.face_by_lamp.get(roles["key"][1].id, 0.0) if "key" in roles else 0.0
    if key_lux <= 0.0:
        return plan
    share = FILL_OF_KEY[plan.plate.softness]
    fill_lux = evaluation.face_by_lamp.get(roles["fill"][1].id, 0.0) if "fill" in roles else 0.0
    # By lamp, with what the room returns of each: the sum is linear in the dimmers.
    total = evaluation.exposure.subject_lux or 0.0
    goal = face_goal(*wanted_stops(evaluation))
    wanted = evaluation.exposure.grey_lux * 2.0**goal
    rest = max(0.0, total - key_lux - fill_lux)
    key_wanted = max(0.0, wanted - rest) / (1.0 + (share if fill_lux > 0.0 else 0.0))
    key_dimmer = min(1.0, key_wanted / key_lux)
    changes = [edit.lamp(roles["key"][0]).dimmer(round(key_dimmer, 3))]
    if fill_lux > 0.0:
        changes.append(
            edit.lamp(roles["fill"][0]).dimmer(round(min(1.0, share * key_dimmer * key_lux / fill_lux), 3))
        )
    if "back" in roles:
        full = evaluation.rim_ratio * (evaluation.exposure.subject_lux or 0.0)
        rim = RIM_OF_FACE * evaluation.exposure.grey_lux * 2.0**goal
        changes.append(edit.lamp(roles["back"][0]).dimmer(round(min(1.0, rim / full) if full > 0.0 else 1.0, 3)))
    return apply_changes(plan, changes)


def _subject_lamps(plan: Plan) -> list[int]:
    return [i for i, lamp in enumerate(plan.lights) if lamp.role in ("key", "fill", "back")]
