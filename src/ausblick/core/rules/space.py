"""Space: the order of things along the line, the walls, and the gap between screen and subject."""

from __future__ import annotations

import math

import numpy as np

from ..light.basis import BasisStore
from ..optics.view import focus_distance
from ..plan import Change, Light, Plan
from ..results import Evaluation
from .model import Judgement, Proposal, Rule, graded
from .wording import metres

SCHOOL_GAP = {"1m": 1.0, "1.2-2m": 1.2, "2m-plus": 2.0, "3m": 3.0}


def _order(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    if plan.subject is None:
        return None
    ahead = focus_distance(plan.camera, plan.subject)
    room_to_spare = min(ahead, plan.subject.z)
    wrong = room_to_spare <= 0.05
    says = (
        "The subject stands behind the camera or behind the screen"
        if wrong
        else "Screen, subject and camera stand in order"
    )
    return Judgement("stop" if wrong else "fine", room_to_spare, 0.05, "m", says, 1.0 if wrong else 0.0)


def _reorder(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    reach = max(1.0, plan.camera.z - 3.0)
    return [Proposal(f"Put the mark {metres(reach)} in front of the screen", (Change("subject.z", round(reach, 2)),))]


def outside(plan: Plan) -> list[tuple[str, str, float]]:
    """(name, path, metres outside) of everything placed beyond the walls."""
    room = plan.room
    placed = [("camera", "camera", plan.camera.x, plan.camera.y, plan.camera.z)]
    if plan.subject is not None:
        placed.append(("subject", "subject", plan.subject.x, plan.subject.height, plan.subject.z))
    for index, lamp in enumerate(plan.lights):
        if lamp.fixture.emitter.shape != "sun":
            placed.append((lamp.name, f"lights[{index}]", *lamp.position))
    found = []
    for name, path, x, y, z in placed:
        beyond = max(room.x_min - x, x - room.x_max, room.z_min - z, z - room.z_max, y - room.height, -y)
        if beyond > 1e-9:
            found.append((name, path, beyond))
    return found


def _walls(evaluation: Evaluation) -> Judgement | None:
    if evaluation.plan.room.kind != "interior":
        return None
    beyond = outside(evaluation.plan)
    if not beyond:
        return Judgement("fine", 0.0, 0.0, "m", "Everything stands inside the room", 0.0)
    name, _, far = max(beyond, key=lambda item: item[2])
    others = f", and {len(beyond) - 1} more" if len(beyond) > 1 else ""
    return Judgement("stop", far, 0.0, "m", f"{name} is {metres(far)} outside the room{others}", far)


def _inside(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    room, changes, names = evaluation.plan.room, [], []
    for name, path, _ in outside(evaluation.plan):
        names.append(name)
        if path.startswith("lights"):
            lamp = evaluation.plan.lights[int(path[7:-1])]
            x, y, z = lamp.position
            moved = [
                min(max(x, room.x_min + 0.2), room.x_max - 0.2),
                min(max(y, 0.1), room.height - 0.1),
                min(max(z, room.z_min + 0.2), room.z_max - 0.2),
            ]
            changes.append(Change(f"{path}.position", moved))
        elif path == "camera":
            camera = evaluation.plan.camera
            changes += [
                Change("camera.x", min(max(camera.x, room.x_min + 0.3), room.x_max - 0.3)),
                Change("camera.y", min(max(camera.y, 0.1), room.height - 0.2)),
                Change("camera.z", min(max(camera.z, room.z_min + 0.3), room.z_max - 0.5)),
            ]
    if not changes:
        return []
    return [Proposal(f"Bring {', '.join(names)} back inside the walls", tuple(changes))]


def _gap(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    limit = SCHOOL_GAP.get(plan.targets.distance_school)
    if plan.subject is None or limit is None:
        return None
    short = limit - plan.subject.z
    return Judgement(
        graded(short, fix=0.7, stop=math.inf),
        plan.subject.z,
        limit,
        "m",
        f"The mark is {metres(plan.subject.z)} from the screen",
        max(0.0, short),
    )


def _step_forward(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    assert plan.subject is not None
    wanted = SCHOOL_GAP[plan.targets.distance_school]
    step = wanted - plan.subject.z
    back = min(plan.camera.z + step, plan.room.z_max - 0.5)
    together = (Change("subject.z", wanted), Change("camera.z", round(back, 2)))
    return [
        Proposal(
            f"Move mark and camera {metres(step)} away from the screen",
            together,
            "keeps the framing where the room gives; needs its depth",
        ),
        Proposal(
            f"Move the mark {metres(step)} toward the camera",
            (Change("subject.z", wanted),),
            "frames tighter, and needs more screen at the sides",
        ),
    ]


def _in_picture(evaluation: Evaluation) -> Judgement | None:
    """Lamps the camera sees: where the action goes they cut into it, beside it they are cropped."""
    plan = evaluation.plan
    seen = [lamp for lamp in plan.lights if lamp.fixture.emitter.shape != "sun" and _seen(evaluation, lamp)]
    if not seen:
        return Judgement("fine", 0.0, 0.0, "", "No lamp stands in the picture", 0.0)
    before = [lamp for lamp in seen if _before_action(evaluation, lamp)]
    names = ", ".join(lamp.name for lamp in before or seen)
    if before:
        says = f"{names} stands before the screen where the action goes"
        return Judgement("fix", float(len(before)), 0.0, "", says, 1.0 + len(before))
    says = f"{names} is in the picture, beside the action: crop it, or cut it off by a garbage matte"
    return Judgement("consider", float(len(seen)), 0.0, "", says, 1.0)


def _place(evaluation: Evaluation, lamp: Light) -> tuple[float, float, float]:
    frame, depth = evaluation.view.project(np.array(lamp.position))
    return float(frame[0]), float(frame[1]), float(depth)


def _seen(evaluation: Evaluation, lamp: Light) -> bool:
    u, v, depth = _place(evaluation, lamp)
    return depth > 0.05 and 0.0 < u < 1.0 and 0.0 < v < 1.0


def _before_action(evaluation: Evaluation, lamp: Light) -> bool:
    outline = evaluation.coverage.frame_outline
    if len(outline) < 3:
        return False
    u, v, _ = _place(evaluation, lamp)
    low, high = outline.min(axis=0), outline.max(axis=0)
    return bool(low[0] < u < high[0] and low[1] < v < high[1])


def _out_of_picture(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Further out to the side it stands on, in steps of 30 cm, until the camera no longer sees it."""
    plan, changes, names = evaluation.plan, [], []
    for index, lamp in enumerate(plan.lights):
        if lamp.fixture.emitter.shape == "sun" or not _seen(evaluation, lamp):
            continue
        x, y, z = lamp.position
        side = 1.0 if x >= plan.camera.x else -1.0
        for step in range(1, 13):
            moved = lamp.model_copy(update={"position": (round(x + side * 0.3 * step, 2), y, z)})
            if not _seen(evaluation, moved):
                changes.append(Change(f"lights[{index}].position", list(moved.position)))
                names.append(lamp.name)
                break
    return (
        [Proposal(f"Move {', '.join(names)} out of the picture", tuple(changes), "evenness changes")]
        if changes
        else []
    )


NEAR_FACE = 1.2


def _distortion(evaluation: Evaluation) -> Judgement | None:
    subject, focus = evaluation.plan.subject, evaluation.focus
    if subject is None or focus is None or subject.framing == "hands":
        return None
    short = max(0.0, NEAR_FACE - focus.distance_m)
    says = f"The lens is {metres(focus.distance_m)} from the face"
    return Judgement("consider" if short else "fine", focus.distance_m, NEAR_FACE, "m", says, short)


def _further_back(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, focus = evaluation.plan, evaluation.focus
    if focus is None:
        return []
    wanted = 1.5
    focal = round(plan.camera.focal_mm * wanted / focus.distance_m, 1)
    z = round(plan.camera.z + wanted - focus.distance_m, 2)
    changes = (Change("camera.z", z), Change("camera.focal_mm", focal))
    return [Proposal(f"{focal:g} mm from {metres(wanted)}: the same framing", changes, "needs the room's depth")]


RULES = (
    Rule(
        "space.order",
        "space",
        "room to spare",
        "The camera must see the subject, and the subject must be in front of the screen.",
        "Geometry of the set",
        _order,
        _reorder,
    ),
    Rule(
        "space.walls",
        "space",
        "outside the room",
        "What stands outside the walls cannot be built.",
        "The room's measurements",
        _walls,
        _inside,
    ),
    Rule(
        "space.gap",
        "space",
        "mark to screen",
        "Distance takes the subject's shadow off the screen and the screen's colour off the subject.",
        "School of distance chosen under Space: 1 m, 1.2 to 2 m, 2 m and more, or 3 m",
        _gap,
        _step_forward,
    ),
    Rule(
        "space.in-picture",
        "space",
        "lamps in the picture",
        "The subject must not cross anything that stands before the screen; what is beside it has to be cropped.",
        "Sight lines from the lens",
        _in_picture,
        _out_of_picture,
        digits=0,
    ),
    Rule(
        "space.distortion",
        "space",
        "lens to face",
        "A wide lens near by makes noses grow; a longer one from further back also needs less screen.",
        "1.2 m, where a face begins to look like itself",
        _distortion,
        _further_back,
    ),
)
