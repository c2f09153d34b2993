"""Daylight in a room: what comes in by the sun or a window, and that nobody can hold it."""

from __future__ import annotations

from typing import Literal

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Light, Plan, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule

DAYLIGHT = LIMITS["light.daylight"]


def daylight_in(plan: Plan) -> list[tuple[int, Light]]:
    """The sun and the windows that burn, with their place among the lamps; outdoors there is nothing else."""
    if plan.room.kind != "interior":
        return []
    return [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.is_daylight and lamp.on and lamp.dimmer > 0.0]


def black_out(plan: Plan) -> list[Proposal]:
    """Each window covered."""
    return [
        Proposal(tell("do/black-out", lamp=lamp.name), (edit.lamp(i).on(False),), tell("cost/light-missing"))
        for i, lamp in daylight_in(plan)
        if lamp.fixture.emitter.shape == "window"
    ]


def _judge(evaluation: Evaluation) -> Judgement | None:
    shares = _shares(evaluation)
    if not shares:
        return None
    share, name, where = max(shares)
    over = share - DAYLIGHT.at
    says = tell("light.daylight", lamp=name, share=share, where=where)
    return Judgement(DAYLIGHT.grade(over), share, DAYLIGHT.at, "%", says, max(0.0, over))


def _shares(evaluation: Evaluation) -> list[tuple[float, str, Literal["screen", "face"]]]:
    """What each gives of the light on the screen, and of that on the face, in %."""
    found: list[tuple[float, str, Literal["screen", "face"]]] = []
    screen, face = evaluation.screen, evaluation.face_by_lamp
    for _, lamp in daylight_in(evaluation.plan):
        if screen is not None and screen.lux_mean > 0.0:
            found.append((100.0 * evaluation.screen_by_lamp.get(lamp.id, 0.0) / screen.lux_mean, lamp.name, "screen"))
        if sum(face.values()) > 0.0:
            found.append((100.0 * face.get(lamp.id, 0.0) / sum(face.values()), lamp.name, "face"))
    return found


def _cover(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return black_out(evaluation.plan)


RULES = (
    Rule(
        id="light.daylight",
        stage="light",
        measure="of the light",
        why="Clouds and hours change daylight by stops and its colour with it: takes match neither each other nor "
        "the clean plate. Measure again before each, or cover it.",
        judge=_judge,
        propose=_cover,
        digits=0,
    ),
)
