"""Rim: the light from behind that parts the edge from the screen, and whether the plate would make one."""

from __future__ import annotations

import math

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Light, Plan, Plate, edit
from ...sentences import tell
from ...standards.limits import LIMITS, RIM_MOST
from ..rule import Judgement, Proposal, Rule

RIM = LIMITS["subject.rim"]
BEHIND = 100.0
"""Degrees round from the camera from which a light draws a rim."""
DARK_PLATE = 25.0
"""Mean level in % below which an edge without a rim is lost in the plate."""


def _rim(evaluation: Evaluation) -> Judgement | None:
    """Back light on the head against the light on the face."""
    lux, ratio = evaluation.exposure.subject_lux, evaluation.rim_ratio
    if not lux:
        return None
    if ratio <= 0.0:
        return _missing(evaluation.plan)
    low, high = RIM.at, RIM_MOST
    off = max(math.log2(low / ratio), math.log2(ratio / high), 0.0)
    limit = low if ratio < low else high
    says = tell("subject.rim", ratio=ratio)
    return Judgement(RIM.grade(off), ratio, limit, "", says, off)


def _missing(plan: Plan) -> Judgement | None:
    wanted = rim_wanted(plan.plate)
    if wanted is None or plan.subject is None or any(_from_behind(plan, lamp) for lamp in plan.lights):
        return None
    return Judgement(RIM.grade(1.0), 0.0, RIM.at, "", tell(wanted), 1.0)


def rim_wanted(plate: Plate) -> str | None:
    """The sentence that says why a plate wants a rim; None where nothing in it would make one."""
    turned = {"one": (plate.key_azimuth,), "two": (plate.key_azimuth, plate.second_azimuth)}.get(plate.light, ())
    if plate.tells("key_azimuth") and any(abs((azimuth + 180.0) % 360.0 - 180.0) > BEHIND for azimuth in turned):
        return "subject.rim/missing"
    return "subject.rim/missing/dark" if plate.tells("mean_level") and plate.mean_level < DARK_PLATE else None


def _from_behind(plan: Plan, lamp: Light) -> bool:
    """Does a lamp that burns, and not for the screen, stand behind the subject as the camera sees it?"""
    assert plan.subject is not None
    if lamp.role == "screen" or not lamp.on or lamp.dimmer <= 0.0:
        return False
    x, z = plan.subject.x, plan.subject.z
    there, back = (math.atan2(px - x, pz - z) for px, pz in (lamp.position[::2], (plan.camera.x, plan.camera.z)))
    return abs((math.degrees(there - back) + 180.0) % 360.0 - 180.0) > BEHIND


def _trim(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    ratio = evaluation.rim_ratio
    wanted = 0.7
    changes = [
        edit.lamp(i).dimmer(round(min(1.0, lamp.dimmer * wanted / ratio), 3))
        for i, lamp in enumerate(evaluation.plan.lights)
        if lamp.role == "back" and lamp.on and ratio > 0.0
    ]
    if not changes:
        return []
    return [Proposal(tell("do/back-light-to", share=wanted), tuple(changes), tell("cost/must-match"))]


RULES = (
    Rule(
        id="subject.rim",
        stage="subject",
        measure="of the face",
        why="A back light parts the edge from the screen and drowns its halo; too much of it looks like a lamp.",
        judge=_rim,
        propose=_trim,
        digits=1,
    ),
)
