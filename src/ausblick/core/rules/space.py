"""Space: the order of things along the line, the walls, and the gap between screen and subject."""

from __future__ import annotations

import math

from ..evaluate import Evaluation
from ..light.basis import BasisStore
from ..optics.view import focus_distance
from ..plan import Change, Plan
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
)
