"""Usual cautions with who is on the set: cloth underfoot, cables, minors. Local rules go before all of them."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...plan import people_of
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Rule, no_proposal

UNDERFOOT, CABLES, MINOR = LIMITS["space.underfoot"], LIMITS["light.cables"], LIMITS["subject.minor"]


def _underfoot(evaluation: Evaluation) -> Judgement | None:
    """Of who is quickest of those who stand on the screen's floor run; a painted floor is no cloth."""
    run = evaluation.plan.screen.floor_run
    if evaluation.plan.screen.material == "paint":
        return None
    on_it = [one.speed for one in people_of(evaluation.plan) if one.z < run and one.posture == "standing"]
    if not on_it:
        return None
    speed = max(on_it)
    over = speed - UNDERFOOT.at
    says = tell("space.underfoot" if over > 0.0 else "space.underfoot/still", run=run)
    return Judgement(UNDERFOOT.grade(over), speed, UNDERFOOT.at, UNDERFOOT.unit, says, max(0.0, over))


def _cables(evaluation: Evaluation) -> Judgement | None:
    count = sum(not lamp.is_daylight and lamp.fixture.watts > 0.0 for lamp in evaluation.plan.lights)
    if not count:
        return None
    over = count - CABLES.at
    says = tell("light.cables" if over > 0.0 else "light.cables/few", cables=float(count))
    return Judgement(CABLES.grade(over), float(count), CABLES.at, CABLES.unit, says, max(0.0, over))


def _minor(evaluation: Evaluation) -> Judgement | None:
    count = sum(one.body == "child" for one in people_of(evaluation.plan))
    if not count:
        return None
    says = tell("subject.minor") if count == 1 else tell("subject.minor/several", children=float(count))
    return Judgement(MINOR.grade(float(count)), float(count), MINOR.at, MINOR.unit, says, float(count))


RULES = (
    Rule(
        id="space.underfoot",
        stage="space",
        measure="on the cloth",
        why="A cloth slides on a floor and its edge trips: tape it all round, lay mats under it, and try the "
        "movement slowly first; local rules decide.",
        judge=_underfoot,
        propose=no_proposal,
        digits=1,
    ),
    Rule(
        id="light.cables",
        stage="light",
        measure="cables",
        why="People fall over cables in a dark room: along the walls, taped or under ramps, slack at the stand, and "
        "never across the way out; local rules decide.",
        judge=_cables,
        propose=no_proposal,
        digits=0,
    ),
    Rule(
        id="subject.minor",
        stage="subject",
        measure="minors",
        why="Working hours, breaks and who comes along are for local law to say, and are agreed in writing before "
        "the day. Hot lamps, stands and flashing light stay out of a child's reach.",
        judge=_minor,
        propose=no_proposal,
        digits=0,
    ),
)
