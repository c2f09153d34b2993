"""Space: the order of things along the line, the walls, and the gap between screen and subject."""

from __future__ import annotations

import numpy as np

from ...camera.view import focus_distance
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.lamp_bodies import through_walls
from ...plan import Companion, Plan, edit, people_of
from ...sentences import few, tell
from ...standards.limits import LIMITS
from ...standards.schools import DISTANCE
from .. import moves
from ..rule import Judgement, Proposal, Rule

ORDER, WALLS, THROUGH, GAP, PICTURE, FACE = (
    LIMITS[f"space.{name}"] for name in ("order", "walls", "through-wall", "gap", "in-picture", "distortion")
)


def _order(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    if plan.subject is None:
        return None
    ahead = focus_distance(plan.camera, plan.subject)
    room_to_spare = min(ahead, plan.subject.z)
    wrong = room_to_spare <= ORDER.at
    says = tell("space.order/wrong" if wrong else "space.order/holds")
    excess = 1.0 if wrong else 0.0
    return Judgement(ORDER.grade(excess), room_to_spare, ORDER.at, "m", says, excess)


def _reorder(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    reach = max(1.0, plan.camera.z - 3.0)
    changes = moves.mark_to(plan, reach, with_camera=False)
    return [Proposal(tell("do/mark-order", z=reach), changes)]


def outside(plan: Plan) -> list[tuple[str, str, float]]:
    """(name, id, metres outside) of everything placed beyond the walls; a lamp by its id, else what it is."""
    room = plan.room
    placed = [("camera", "camera", plan.camera.x, plan.camera.y, plan.camera.z)]
    for person in people_of(plan):
        name = person.name if isinstance(person, Companion) else "subject"
        placed.append((name, "subject", person.x, person.top, person.z))
    lamps = [lamp for lamp in plan.lights if not lamp.is_daylight]
    placed += [(lamp.name, lamp.id, *lamp.position) for lamp in lamps]
    found = []
    for name, ident, x, y, z in placed:
        beyond = max(room.x_min - x, x - room.x_max, room.z_min - z, z - room.z_max, y - room.height, -y)
        if beyond > 1e-9:
            found.append((name, ident, beyond))
    return found


def _walls(evaluation: Evaluation) -> Judgement | None:
    if evaluation.plan.room.kind != "interior":
        return None
    beyond = outside(evaluation.plan)
    if not beyond:
        return Judgement("fine", 0.0, 0.0, "m", tell("space.walls/inside"), 0.0)
    name, _, far = max(beyond, key=lambda item: item[2])
    says = tell("space.walls/one", name=name, far=far)
    if len(beyond) > 1:
        says = tell("space.walls/more", name=name, far=far, others=len(beyond) - 1)
    return Judgement(WALLS.grade(far), far, WALLS.at, "m", says, far)


def _inside(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    beyond = [item for item in outside(evaluation.plan) if item[1] != "subject"]
    changes = moves.all_inside(evaluation.plan, [ident for _, ident, _ in beyond])
    if not changes:
        return []
    return [Proposal(tell("do/inside", things=tuple(name for name, _, _ in beyond)), changes)]


def _in_the_wall(plan: Plan) -> list[tuple[int, float]]:
    """Lamps by their place in the plan that stand in the room and whose face reaches through a wall, and how far, m;
    the farthest first."""
    beyond = {ident for _, ident, _ in outside(plan)}
    inside = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.id not in beyond]
    reach = [(i, float(np.abs(through_walls(plan, lamp)).max())) for i, lamp in inside]
    return sorted((one for one in reach if one[1] > THROUGH.at), key=lambda one: -one[1])


def _through_wall(evaluation: Evaluation) -> Judgement | None:
    """A face that is partly beyond a wall lights what it cannot: the numbers know no wall between."""
    plan = evaluation.plan
    if plan.room.kind != "interior" or not plan.lights:
        return None
    found = _in_the_wall(plan)
    if not found:
        return Judgement("fine", 0.0, THROUGH.at, "m", tell("space.through-wall/clear"), 0.0)
    index, far = found[0]
    says = tell("space.through-wall", name=plan.lights[index].name, far=far)
    excess = far - THROUGH.at
    return Judgement(THROUGH.grade(excess), far, THROUGH.at, "m", says, excess)


def _off_the_wall(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    return moves.off_the_wall(plan, [index for index, _ in _in_the_wall(plan)])


def _gap(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    limit = DISTANCE.get(plan.targets.distance_school)
    if plan.subject is None or limit is None or plan.targets.region:
        # A sign or a display that is replaced is where it is, in somebody's hands perhaps.
        return None
    short = limit - plan.subject.z
    return Judgement(
        GAP.grade(short),
        plan.subject.z,
        limit,
        "m",
        tell("space.gap", away=plan.subject.z),
        max(0.0, short),
    )


def _step_forward(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return moves.mark_to_school(evaluation.plan, DISTANCE[evaluation.plan.targets.distance_school])


def _in_picture(evaluation: Evaluation) -> Judgement | None:
    """Lamps the camera sees: where the action goes they cut into it, beside it they are cropped."""
    framed, lights = evaluation.lamps_in_picture, evaluation.plan.lights
    seen, before = (
        [lights[one.index] for one in some]
        for some in ([one for one in framed if not one.hidden], [one for one in framed if one.cuts])
    )
    if not seen:
        hidden = few(tuple(lights[one.index].name for one in framed))
        says = tell("space.in-picture/hidden", lamps=hidden) if framed else tell("space.in-picture/none")
        return Judgement("fine", 0.0, 0.0, "", says, 0.0)
    names = few(tuple(lamp.name for lamp in before or seen))
    if before:
        by_stand = all(one.by_stand for one in framed if one.cuts)
        says = tell("space.in-picture/stands" if by_stand else "space.in-picture/action", lamps=names)
        excess = 1.0 + len(before)
        return Judgement(PICTURE.grade(excess), float(len(before)), PICTURE.at, "", says, excess)
    says = tell("space.in-picture/beside", lamps=names)
    return Judgement(PICTURE.grade(1.0), float(len(seen)), PICTURE.at, "", says, 1.0)


def _out_of_picture(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    framed, lights = evaluation.lamps_in_picture, evaluation.plan.lights
    stands = [(one.index, lights[one.index]) for one in framed if one.by_stand]
    return [
        *moves.hung(evaluation, stands),
        *moves.out_of_picture(evaluation, [(one.index, lights[one.index]) for one in framed if not one.hidden]),
    ]


def _distortion(evaluation: Evaluation) -> Judgement | None:
    subject, focus = evaluation.plan.subject, evaluation.focus
    if subject is None or focus is None or subject.framing == "hands":
        return None
    short = max(0.0, FACE.at - focus.distance_m)
    says = tell("space.distortion", away=focus.distance_m)
    return Judgement(FACE.grade(short), focus.distance_m, FACE.at, "m", says, short)


FAR_ENOUGH = 1.5
"""From there a face looks like itself, m."""


def _further_back(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan, focus = evaluation.plan, evaluation.focus
    if focus is None:
        return []
    place = plan.camera.x, plan.camera.y, plan.camera.z + FAR_ENOUGH - focus.distance_m
    wanted = FAR_ENOUGH + round(moves.camera_inside(plan, place)[2] - place[2], 2)
    if wanted < max(FACE.at, focus.distance_m):
        return []
    focal = round(plan.camera.focal_mm * wanted / focus.distance_m, 1)
    z = round(plan.camera.z + wanted - focus.distance_m, 2)
    changes = (edit.camera.z(z), edit.camera.focal_mm(focal))
    return [Proposal(tell("do/focal-back", to=focal, away=wanted), changes, tell("cost/room-depth"))]


RULES = (
    Rule(
        id="space.order",
        stage="space",
        measure="room to spare",
        why="The camera must see the subject, and the subject must be in front of the screen.",
        judge=_order,
        propose=_reorder,
    ),
    Rule(
        id="space.walls",
        stage="space",
        measure="outside the room",
        why="What stands outside the walls cannot be built.",
        judge=_walls,
        propose=_inside,
    ),
    Rule(
        id="space.through-wall",
        stage="space",
        measure="through the wall",
        why="What is behind the wall cannot shine; the numbers count it as if it did.",
        judge=_through_wall,
        propose=_off_the_wall,
    ),
    Rule(
        id="space.gap",
        stage="space",
        measure="mark to screen",
        why="Distance takes the subject's shadow off the screen and the screen's colour off the subject.",
        judge=_gap,
        propose=_step_forward,
    ),
    Rule(
        id="space.in-picture",
        stage="space",
        measure="lamps in the picture",
        why="The subject must not cross anything that stands before the screen; what is beside it has to be cropped.",
        judge=_in_picture,
        propose=_out_of_picture,
        digits=0,
    ),
    Rule(
        id="space.distortion",
        stage="space",
        measure="lens to face",
        why="A wide lens near by makes noses grow; a longer one from further back also needs less screen.",
        judge=_distortion,
        propose=_further_back,
    ),
)
