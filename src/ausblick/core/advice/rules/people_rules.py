"""More than one person in the picture: faces lit alike, and nobody in another's light.

What a person costs the key is judged person by person by the other rules (`advice/companions.py`).
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Plan, edit, name_of, people_of
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule

BALANCE, IN_LIGHT = LIMITS["subject.balance"], LIMITS["subject.in-light"]
STEPS = (0.3, 0.6)
APART, FROM_SCREEN, FROM_LENS = 0.6, 0.8, 0.8
"""People from each other, from the screen and from the lens at least, m: shoulders, and their shadow."""


def _apart(evaluation: Evaluation) -> list[tuple[float, int]]:
    """How many stops each companion's face is over the subject's, by its place among them."""
    own = evaluation.exposure.subject_lux
    if not own:
        return []
    lux = ((i, one.exposure.subject_lux) for i, one in enumerate(evaluation.others))
    return [(math.log2(each / own), i) for i, each in lux if each]


def _balance(evaluation: Evaluation) -> Judgement | None:
    found = _apart(evaluation)
    if not found:
        return None
    over, i = max(found, key=lambda one: abs(one[0]))
    ident = "subject.balance/brighter" if over > 0.0 else "subject.balance/darker"
    says = tell(ident, name=evaluation.plan.companions[i].name, by=abs(over))
    beyond = max(0.0, abs(over) - BALANCE.at)
    return Judgement(BALANCE.grade(beyond), over, BALANCE.at, "stops", says, beyond)


def _nearer_alike(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    found = _apart(evaluation)
    if not found:
        return []
    _, i = max(found, key=lambda one: abs(one[0]))
    return list(_moved(evaluation.plan, i))


def _in_light(evaluation: Evaluation) -> Judgement | None:
    person = _shaded(evaluation)
    if person is None:
        return None
    shade = evaluation.of(person).face_shade
    assert shade is not None
    who = name_of(people_of(evaluation.plan)[person])
    over = shade.percent - IN_LIGHT.at
    ident = "subject.in-light" if over > 0.0 else "subject.in-light/clear"
    says = tell(ident, by=shade.by, share=shade.percent, who=who, lamp=shade.lamp)
    return Judgement(IN_LIGHT.grade(over), shade.percent, IN_LIGHT.at, "%", says, max(0.0, over))


def _shaded(evaluation: Evaluation) -> int | None:
    """Whose face others shade most, by their place among the people; None where nobody is lit among others."""
    shares = {}
    for person in range(len(evaluation.others) + 1):
        shade = evaluation.of(person).face_shade
        if shade is not None:
            shares[person] = shade.percent
    return max(shares, key=lambda one: shares[one], default=None)


def _out_of_light(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """A companion moves: whoever is shaded, or who shades the subject."""
    person = _shaded(evaluation)
    if person is None:
        return []
    shade = evaluation.of(person).face_shade
    assert shade is not None
    names = [one.name for one in evaluation.plan.companions]
    index = person - 1 if person else names.index(shade.by)
    return list(_moved(evaluation.plan, index))


def _moved(plan: Plan, index: int) -> Iterator[Proposal]:
    """A companion a step to either side, nearer and further, and beside the subject."""
    who = plan.companions[index]
    assert plan.subject is not None
    steps = [(side * step, 0.0) for step in STEPS for side in (-1, 1)]
    steps += [(0.0, side * step) for step in STEPS for side in (-1, 1)]
    places = [(who.x + x, who.z + z) for x, z in steps] + [(who.x, plan.subject.z)]
    for x, z in dict.fromkeys((round(x, 2), round(z, 2)) for x, z in places):
        if (x, z) != (who.x, who.z) and _free(plan, index, x, z):
            changes = (edit.companion(index).x(x), edit.companion(index).z(z))
            yield Proposal(tell("do/person-to", name=who.name, across=x, z=z), changes, tell("cost/framing-moves"))


def _free(plan: Plan, index: int, x: float, z: float) -> bool:
    """Is there room for the companion at a place, in m, between the others, screen and lens?"""
    room = plan.room
    inside = room.kind == "exterior" or (room.x_min + APART / 2 <= x <= room.x_max - APART / 2)
    others = [one for i, one in enumerate(people_of(plan)) if i != index + 1]
    clear = all(math.hypot(one.x - x, one.z - z) >= APART for one in others)
    return inside and clear and FROM_SCREEN <= z <= plan.camera.z - FROM_LENS


RULES = (
    Rule(
        id="subject.balance",
        stage="subject",
        measure="beside the subject's face",
        why="Faces in one picture are graded together: one that is darker or brighter looks lit by another lamp.",
        judge=_balance,
        propose=_nearer_alike,
        digits=1,
    ),
    Rule(
        id="subject.in-light",
        stage="subject",
        measure="of the face's light",
        why="A shadow of one person on another moves with both, and no plate explains it.",
        judge=_in_light,
        propose=_out_of_light,
        digits=0,
    ),
)
