"""In a proposal the key leads: it gives most of the face's light, whatever a white room returns of the other lamps;
no lamp that is placed is as good as off, and no ISO is raised while a lamp has something left."""

from __future__ import annotations

import math

from ...camera.view import View
from ...evaluation.evaluate import evaluate
from ...light.basis import BasisStore
from ...plan import Light, Plan, apply_changes, edit
from .. import moves
from ..rules.subject_rules import wanted_stops
from ..steps import ISOS, nominal_iso
from .lamp_roles import may_stand

LEADS, LEAST, FULL, ENOUGH = 0.62, 0.05, 0.9, 0.87
"""Share of the face's light; least dimmer of a lamp that is worth its stand; what counts as all a lamp has; what of
the wanted light is enough, a fifth of a stop less, before an ISO is raised."""
WITH_A_KEY = 3
"""Lamps from which a key can lead; with fewer one light does for both, a school of its own."""
ROUNDS = 4
REACHED = 1.0
"""A key no nearer to the face than this, m."""
PARTS = (1.0, 0.75, 0.5, 0.25)
"""Of the stops by which the ISO is raised: so much of them a nearer key gives, the most that it can."""


def face_goal(low: float, high: float) -> float:
    """Stops over grey to aim at: grey where that is allowed, else the middle of the allowed band."""
    return 0.0 if low <= 0.0 <= high else (low + high) / 2.0


def key_leads(plan: Plan, store: BasisStore) -> Plan:
    """All lamps but the key dimmed until it leads, the key raised to the face's level."""
    keys = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.role == "key"]
    if len(plan.lights) < WITH_A_KEY or len(keys) != 1:
        return plan
    index = keys[0][0]
    for _ in range(ROUNDS):
        full = evaluate(apply_changes(plan, [edit.lamp(index).dimmer(1.0)]), store)
        total, each = full.exposure.subject_lux or 0.0, full.face_by_lamp.get(plan.lights[index].id, 0.0)
        wanted = full.exposure.grey_lux * 2.0 ** face_goal(*wanted_stops(full))
        others = total - each
        if each <= 0.0 or others <= 0.0:
            return plan
        # A key that has not enough leads over as much as it gives.
        allowed = min((1.0 - LEADS) * wanted, each * (1.0 - LEADS) / LEADS)
        factor = min(1.0, allowed / others)
        dimmer = min(1.0, max(LEAST, (wanted - others * factor) / each))
        changes = [edit.lamp(index).dimmer(round(dimmer, 3))]
        changes += [
            edit.lamp(i).dimmer(round(max(LEAST, lamp.dimmer * factor), 3))
            for i, lamp in enumerate(plan.lights)
            if i != index and lamp.role in ("screen", "fill")
        ]
        plan = apply_changes(plan, changes)
        if factor > 0.98:
            return plan
    return plan


def without_idle(plan: Plan) -> Plan:
    """Fill and back lamps that give next to nothing stay in their cases; the others give a twentieth at least."""

    def kept(lamp: Light) -> bool:
        return lamp.role not in ("fill", "back") or lamp.dimmer > LEAST

    lights = [
        lamp.model_copy(update={"dimmer": max(LEAST, lamp.dimmer)}).model_dump(mode="json")
        for lamp in plan.lights
        if kept(lamp)
    ]
    return apply_changes(plan, [edit.lights(lights)])


def nearer_key(plan: Plan, view: View) -> Plan | None:
    """At base ISO with the key as much nearer as that takes, or as low an ISO as its nearest place allows; None
    where no ISO is raised, where no screen lamp has anything left to follow with, or where it has no nearer place."""
    camera, base = plan.camera, plan.camera.sensor.base_iso
    raised = math.log2(camera.iso / base)
    keys = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.role == "key"]
    left = any(lamp.dimmer < FULL for lamp in plan.lights if lamp.role == "screen")
    if raised < 0.02 or not left or len(keys) != 1 or plan.subject is None:
        return None
    for part in PARTS:
        iso = nominal_iso(base * 2.0 ** ((1.0 - part) * raised), base)
        for moved in moves.nearer(plan, *keys[0], plan.subject, math.log2(camera.iso / iso)):
            found = apply_changes(plan, [*moved.changes, edit.camera.iso(iso)])
            place = found.lights[keys[0][0]].position
            if math.dist(place, plan.subject.eyes) > REACHED and may_stand(found, view, place):
                return found
    return None


def lower_iso(plan: Plan) -> float | None:
    """The lowest nominal ISO at which the busiest of key and screen lamps still has enough; None where it is set."""
    camera, base = plan.camera, plan.camera.sensor.base_iso
    busiest = max((lamp.dimmer for lamp in plan.lights if lamp.role in ("key", "screen")), default=1.0)
    if camera.iso <= 1.01 * base or busiest >= FULL:
        return None
    enough = camera.iso * busiest
    found = min(n for n in (*ISOS, base, camera.iso) if n >= max(base, ENOUGH * enough))
    return float(found) if math.log2(camera.iso / found) > 0.1 else None
