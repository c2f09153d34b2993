"""Flash: the sync time, ambient light beside it, takes that it can't light, and people near it."""

from __future__ import annotations

import math

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule
from ..wording import shutter, stops_text

AMBIENT = LIMITS["camera.flash-ghost"]


def _sync(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None or evaluation.plan.medium == "video":
        return None
    camera = evaluation.plan.camera
    short = max(0.0, math.log2(camera.sync_s / camera.shutter_s))
    if evaluation.flash.fires_whole:
        says = f"{shutter(camera.shutter_s)} is within the sync time of {shutter(camera.sync_s)}"
        return Judgement("fine", camera.shutter_s, camera.sync_s, "s", says, 0.0)
    says = f"{shutter(camera.shutter_s)} is shorter than the sync time: a part of the picture stays dark"
    return Judgement("stop", camera.shutter_s, camera.sync_s, "s", says, short)


def _to_sync(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    at = evaluation.plan.camera.sync_s
    return [Proposal(f"Shutter {shutter(at)}", (edit.camera.shutter_s(at),), "more of the room's light")]


def _video(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None or evaluation.plan.medium == "stills":
        return None
    return Judgement("stop", 1.0, 0.0, "", "A flash lights one frame of a take, not the take", 1.0)


def _steady(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    off = tuple(
        edit.lamp(i).on(False) for i, lamp in enumerate(evaluation.plan.lights) if lamp.on and lamp.fixture.flash_lms
    )
    return [
        Proposal("Flashes off", off, "their light is missing"),
        Proposal("Shoot stills", (edit.medium("stills"),), "no moving picture"),
    ]


def _ghost(evaluation: Evaluation) -> Judgement | None:
    flash = evaluation.flash
    if flash is None or evaluation.plan.medium == "video":
        return None
    over = flash.ambient_percent - AMBIENT.at
    says = f"{flash.ambient_percent:.0f} % of the face's light is not flash"
    return Judgement(AMBIENT.grade(over), flash.ambient_percent, AMBIENT.at, "%", says, max(0.0, over))


def _less_ambient(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, camera = evaluation.plan, evaluation.plan.camera
    found = []
    lit = tuple(i for i, lamp in enumerate(plan.lights) if lamp.on and not lamp.fixture.flash_lms)
    if lit:
        names = ", ".join(plan.lights[i].name for i in lit)
        found.append(Proposal(f"Off: {names}", tuple(edit.lamp(i).on(False) for i in lit), "their light"))
    if camera.shutter_s > 1.2 * camera.sync_s:
        won = stops_text(math.log2(camera.shutter_s / camera.sync_s))
        change = edit.camera.shutter_s(camera.sync_s)
        found.append(Proposal(f"Shutter {shutter(camera.sync_s)}", (change,), f"{won} less of the room's light"))
    if plan.room.ambient_lux > 0.0:
        found.append(Proposal("Room lights off, windows covered", (edit.room.ambient_lux(0.0),)))
    return found


def _people(evaluation: Evaluation) -> Judgement | None:
    if evaluation.flash is None:
        return None
    count = sum(bool(lamp.on and lamp.fixture.flash_lms) for lamp in evaluation.plan.lights)
    says = f"{count} flash{'es' if count > 1 else ''} on the set: warn everybody, ask about photosensitivity"
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
