"""Mirrors: lamps in the window pane, and screen colour in shiny things."""

from __future__ import annotations

import math

import numpy as np

from ...camera.view import view_of
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.mirror import in_pane, mirrored_screen
from ...plan import Change, Light, Plan, Window
from ...sentences import few, tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

SHINE, PANE = LIMITS["subject.mirrors"], LIMITS["light.pane"]


def _pane(evaluation: Evaluation) -> Judgement | None:
    if evaluation.plan.window is None:
        return None
    names = {lamp.id: lamp.name for lamp in evaluation.plan.lights}
    seen = [names[r.light] for r in evaluation.reflections if r.visible]
    says = tell("light.pane/seen", lamps=few(tuple(seen))) if seen else tell("light.pane/none")
    return Judgement(PANE.grade(float(len(seen))), float(len(seen)), 0.0, "lamps", says, float(len(seen)))


def _out_of_pane(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """The nearest place for each mirrored lamp from which the pane does not show it."""
    plan = evaluation.plan
    seen = {r.light for r in evaluation.reflections if r.visible}
    changes: list[Change] = []
    words = []
    for index, lamp in enumerate(plan.lights):
        place = _clear_place(plan, plan.window, lamp) if plan.window and lamp.id in seen else None
        if place is not None:
            changes += moves.lamp_to(plan, index, place)
            across, high, z = place
            words.append(tell("do/lamp-to", lamp=lamp.name, across=across, high=high, z=z))
    if not changes:
        return []
    return [Proposal(tell("do/lamps-to", lamps=tuple(words)), tuple(changes), tell("cost/check-face"))]


def _clear_place(plan: Plan, pane: Window, lamp: Light) -> moves.Place | None:
    """Round the subject and upwards, nearest first, keeping the distance to where it aims."""
    aim = np.array(lamp.aim)
    way = np.array(lamp.position) - aim
    away, flat = float(np.linalg.norm(way)), math.hypot(way[0], way[2])
    around, up = math.atan2(way[0], way[2]), math.atan2(way[1], max(flat, 1e-6))
    tries = sorted(
        ((a, e) for a in range(-80, 81, 5) for e in range(0, 41, 10)), key=lambda t: abs(t[0]) + 0.8 * abs(t[1])
    )
    view = view_of(plan.camera, plan.subject)
    for turn, lift in tries[1:]:
        a, e = around + math.radians(turn), min(1.3, up + math.radians(lift))
        x, y, z = aim + away * np.array([math.sin(a) * math.cos(e), math.sin(e), math.cos(a) * math.cos(e)])
        place = moves.stand_inside(plan, (float(x), float(y), float(z)), lamp.position)
        moved = lamp.model_copy(update={"position": place})
        if not in_pane(plan, pane, moved, view).visible and not view.frames(place):
            return place
    return None


def _shines_by_place(plan: Plan) -> float:
    """The excess is told by where things are."""
    mirrored = mirrored_screen(plan, view_of(plan.camera, plan.subject))
    return max((thing.share - SHINE.at for thing in mirrored), default=0.0)


def _shine(evaluation: Evaluation) -> Judgement | None:
    if not evaluation.mirrored:
        return None
    worst = max(evaluation.mirrored, key=lambda thing: thing.share)
    over = worst.share - SHINE.at
    ident = "subject.mirrors/turns" if worst.shape == "pane" else "subject.mirrors/seen"
    says = tell(ident, name=worst.name, share=worst.share)
    return Judgement(SHINE.grade(over), worst.share, SHINE.at, "%", says, max(0.0, over))


def _out_of_mirror(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return [
        *moves.dulled_metal(evaluation),
        *moves.smaller_screen(evaluation),
        *moves.less_floor(evaluation),
        *moves.mark_forward(evaluation, 1.0),
    ]


RULES = (
    Rule(
        id="light.pane",
        stage="light",
        measure="mirrored",
        why="A lamp in the glass can't be keyed away: the pane shows it over the plate.",
        judge=_pane,
        propose=_out_of_pane,
        digits=0,
    ),
    Rule(
        id="subject.mirrors",
        stage="subject",
        measure="mirrored",
        why="What shines does not pick up coloured light, it shows the screen itself: distance does not help, "
        "moving the screen out of the mirror's angle does.",
        judge=_shine,
        propose=_out_of_mirror,
        digits=0,
        unlit=_shines_by_place,
    ),
)
