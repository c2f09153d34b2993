"""What is said of a proposed set-up: what it is in a sentence, and what it asks for."""

from __future__ import annotations

import math

from ...evaluation.results import Evaluation
from ...plan import Plan
from ...sentences import Sentence, tell
from ..rule import Judgement
from .lamp_roles import LampRoles
from .room_table import Cell


def says_of(plan: Plan, cell: Cell, team: LampRoles) -> Sentence:
    camera, count, gap = plan.camera, len(plan.lights), cell.gap or 0.0
    return tell(
        "set-up/says-turned" if cell.turned else "set-up/says",
        lens=cell.lens,
        away=(cell.camera_z or 0.0) - gap,
        gap=gap,
        screen=cell.screen or "",
        lamps=tell("set-up/one-lamp") if count == 1 else tell("set-up/lamps", count=count),
        f_number=camera.f_number,
        shutter=camera.shutter_s,
        iso=camera.iso,
    )


NEAR = 1.2
"""A mark so near to the screen, m, leaves no usual place for its lamps behind it."""


def is_near(plan: Plan) -> bool:
    return plan.subject is not None and plan.subject.z <= NEAR


def costs_of(evaluation: Evaluation, judged: dict[str, Judgement], cell: Cell, missing: float) -> list[Sentence]:
    """What this alternative asks for, in words with numbers."""
    found = [cell.why] if cell.state == "tight" else []
    plan, camera = evaluation.plan, evaluation.plan.camera
    if plan.subject and any(lamp.role == "screen" and lamp.position[2] > plan.subject.z for lamp in plan.lights):
        found.append(tell("set-up/lamps-near") if is_near(plan) else tell("set-up/lamps-before"))
    if missing > 0.05:
        found.append(tell("set-up/missing", missing=missing))
    over = math.log2(camera.iso / camera.sensor.base_iso)
    if over > 0.1:
        found.append(tell("set-up/iso", over=over))
    found += [j.says for j in judged.values() if j.severity in ("fix", "consider")]
    return found


def other_hue(asked: Plan, set_up: Plan) -> list[Sentence]:
    """What was asked for and is not in the kit."""
    if asked.screen.hue in ("other", set_up.screen.hue):
        return []
    return [tell("set-up/other-hue", asked=asked.screen.hue, has=set_up.screen.hue)]


def too_few(judged: dict[str, Judgement], team: LampRoles) -> list[Sentence]:
    """Why a proposal still has something that stops it, where lamps are too few."""
    of_light = ("light.", "subject.", "key.")
    stopped = [rule for rule, j in judged.items() if j.severity == "stop" and rule.startswith(of_light)]
    if not stopped or len(team.screen) >= 2:
        return []
    return [tell("set-up/few-lamps")]
