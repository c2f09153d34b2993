"""Flash: the sync time, ambient light beside it, takes that it can't light, and people near it."""

from __future__ import annotations

import math

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule

AMBIENT = LIMITS["camera.flash-ghost"]


def _sync(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None or evaluation.plan.medium == "video":
        return None
    camera = evaluation.plan.camera
    short = max(0.0, math.log2(camera.sync_s / camera.shutter_s))
    if evaluation.flash.fires_whole:
        says = tell("camera.sync/within", shutter=camera.shutter_s, sync=camera.sync_s)
        return Judgement("fine", camera.shutter_s, camera.sync_s, "s", says, 0.0)
    says = tell("camera.sync/short", shutter=camera.shutter_s)
    return Judgement("stop", camera.shutter_s, camera.sync_s, "s", says, short)


def _to_sync(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    at = evaluation.plan.camera.sync_s
    return [Proposal(tell("do/shutter-to", to=at), (edit.camera.shutter_s(at),), tell("cost/room-light"))]


def _video(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None or evaluation.plan.medium == "stills":
        return None
    return Judgement("stop", 1.0, 0.0, "", tell("camera.flash-video"), 1.0)


def _steady(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    off = tuple(
        edit.lamp(i).on(False) for i, lamp in enumerate(evaluation.plan.lights) if lamp.on and lamp.fixture.flash_lms
    )
    return [
        Proposal(tell("do/flashes-off"), off, tell("cost/their-light-missing")),
        Proposal(tell("do/stills"), (edit.medium("stills"),), tell("cost/no-motion")),
    ]


def _ghost(evaluation: Evaluation) -> Judgement | None:
    flash = evaluation.flash
    if flash is None or evaluation.plan.medium == "video":
        return None
    over = flash.ambient_percent - AMBIENT.at
    says = tell("camera.flash-ghost", share=flash.ambient_percent)
    return Judgement(AMBIENT.grade(over), flash.ambient_percent, AMBIENT.at, "%", says, max(0.0, over))


def _less_ambient(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, camera = evaluation.plan, evaluation.plan.camera
    found = []
    lit = tuple(i for i, lamp in enumerate(plan.lights) if lamp.on and not lamp.fixture.flash_lms)
    if lit:
        names = tuple(plan.lights[i].name for i in lit)
        off = tuple(edit.lamp(i).on(False) for i in lit)
        found.append(Proposal(tell("do/off", lamps=names), off, tell("cost/their-light")))
    if camera.shutter_s > 1.2 * camera.sync_s:
        cost = tell("cost/room-light-stops", by=math.log2(camera.shutter_s / camera.sync_s))
        change = edit.camera.shutter_s(camera.sync_s)
        found.append(Proposal(tell("do/shutter-to", to=camera.sync_s), (change,), cost))
    if plan.room.ambient_lux > 0.0:
        found.append(Proposal(tell("do/room-dark"), (edit.room.ambient_lux(0.0),)))
    return found


def _people(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None:
        return None
    count = sum(bool(lamp.on and lamp.fixture.flash_lms) for lamp in evaluation.plan.lights)
    says = tell("camera.flashing/more", count=count) if count > 1 else tell("camera.flashing/one")
    return Judgement("consider", float(count), 0.0, "", says, float(count))


RULES = (
    Rule(
        id="camera.sync",
        stage="camera",
        measure="shutter",
        why="A shutter shorter than the sync time covers a part of the sensor while the flash burns.",
        judge=_sync,
        propose=_to_sync,
        digits=4,
    ),
    Rule(
        id="camera.flash-video",
        stage="camera",
        measure="flash",
        why="Moving pictures need light that burns all the time.",
        judge=_video,
        propose=_steady,
        digits=0,
    ),
    Rule(
        id="camera.flash-ghost",
        stage="camera",
        measure="ambient share",
        why="Steady light beside the flash draws the movement over the whole shutter: a ghost round the sharp edge.",
        judge=_ghost,
        propose=_less_ambient,
        digits=0,
    ),
    Rule(
        id="camera.flashing",
        stage="camera",
        measure="flashes",
        why="Flashing light can trigger seizures; tell people before the first one. Let tubes cool.",
        judge=_people,
        propose=_steady,
        digits=0,
    ),
)
