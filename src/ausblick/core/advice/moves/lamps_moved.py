"""Lamps moved, aimed, softened and gridded: what hands do with stands."""

from __future__ import annotations

import math

import numpy as np

from ...camera.view import View
from ...evaluation.results import Evaluation
from ...light.emission import emission_of
from ...light.lamp_bodies import FRAME, head_in_picture, pole_in_picture, stands, through_walls
from ...plan import Change, Light, Plan, Subject, edit
from ...plan.lamps import MODIFIERS, MOST_BEYOND
from ...sentences import few, tell
from ..rule import Proposal
from .places import Place, lamp_to, stand_inside

SOFT_BOX_M, SOFT_BOX_TRANSMISSION = 1.2, MODIFIERS["softbox"]["transmission"]
"""The soft box that is proposed: a usual large one."""
TOO_LITTLE = 0.1
"""A stand moved less than this, m, is not worth walking to."""
NEAREST_KEY = 0.8
"""A lamp this near the face, m, falls off visibly across it; nearer is not proposed."""
BESIDE = 0.5
"""Beside the action's reach, m."""
OFF_THE_WALL = 0.02
"""A face is kept so far from a wall, m."""
STEP_OUT, MOST_STEPS = 0.3, 12
"""A lamp is walked out of the picture in steps of this, m."""
HUNG_UNDER, MOST_RAISED = 0.3, 1.2
"""A lamp that is hung is so far under the ceiling, and no higher than that above where it stood, m."""

LEAST_AWAY, BEHIND_MARK = 1.2, 0.4
"""A screen's lamps that are to be alike stand so far from it or farther, m, and so far behind the mark where they
can: from before it they would light the face too."""

Lamps = list[tuple[int, Light]]


def screen_lamps(plan: Plan) -> Lamps:
    return [
        (i, lamp) for i, lamp in enumerate(plan.lights) if lamp.role == "screen" and lamp.on and not lamp.is_daylight
    ]


def further_back(plan: Plan, lamps: Lamps) -> list[Proposal]:
    changes: list[Change] = []
    centre = plan.screen.x_centre
    by = min((_room_behind(plan, lamp) for _, lamp in lamps), default=0.0)
    if by < TOO_LITTLE:
        return []
    for index, lamp in lamps:
        x, y, z = lamp.position
        changes += lamp_to(plan, index, (centre + (x - centre) * 1.15, y, z + by))
    return [Proposal(tell("do/screen-lamps-back", by=by), tuple(changes), tell("cost/light"))]


def _room_behind(plan: Plan, lamp: Light) -> float:
    """How far back a lamp of the screen can go of half a metre, m."""
    x, y, z = lamp.position
    return stand_inside(plan, (x, y, z + 0.5), lamp.position)[2] - z


def clear_of_walls(plan: Plan, lamp: Light) -> Light | None:
    """A lamp whose face reaches through a wall as far off it as that takes, aimed as before; None where the room
    is too small for it."""
    for _ in range(MOST_STEPS):
        off = through_walls(plan, lamp)
        if not off.any():
            return lamp
        moved = np.array(lamp.position) + off + OFF_THE_WALL * np.sign(off)
        lamp = lamp.model_copy(update={"position": tuple(round(float(v), 2) for v in moved)})
    return None


def off_the_wall(plan: Plan, indices: list[int]) -> list[Proposal]:
    """Those lamps clear of the walls; one that the room is too small for stays."""
    found = ((index, clear_of_walls(plan, plan.lights[index])) for index in indices)
    clear = [(index, lamp) for index, lamp in found if lamp is not None]
    if not clear:
        return []
    changes = tuple(edit.lamp(index).position(list(lamp.position)) for index, lamp in clear)
    return [Proposal(tell("do/off-the-wall", names=few(tuple(lamp.name for _, lamp in clear))), changes)]


def aimed_across(plan: Plan, lamps: Lamps) -> list[Proposal]:
    """Aim each lamp past the middle, at the far third."""
    changes = [edit.lamp(index).aim([_far_third(plan, _side(plan, lamp)), lamp.aim[1], 0.0]) for index, lamp in lamps]
    return [Proposal(tell("do/aim-across"), tuple(changes))]


def _side(plan: Plan, lamp: Light) -> float:
    return 1.0 if lamp.position[0] >= plan.screen.x_centre else -1.0


def _far_third(plan: Plan, side: float) -> float:
    return round(plan.screen.x_centre - side * plan.screen.width / 6.0, 2)


def _middle(needed: tuple[float, float, float, float]) -> float:
    """Half the height of what is needed of the screen, m."""
    return round(max(0.3, (max(needed[1], 0.0) + needed[3]) / 2.0), 2)


def partner(plan: Plan, lamps: Lamps) -> list[Proposal]:
    """A second lamp like the strongest one of the screen, mirrored, where all of them stand on one side."""
    sides = {_side(plan, lamp) for _, lamp in lamps}
    if len(sides) != 1:
        return []
    _, lamp = max(lamps, key=lambda item: item[1].dimmer * (item[1].fixture.flux_lm or 0.0))
    x, y, z = stand_inside(plan, (2.0 * plan.screen.x_centre - lamp.position[0], *lamp.position[1:]))
    taken = {other.id for other in plan.lights}
    own = {
        **lamp.model_dump(mode="json"),
        "id": next(name for n in range(1, 200) if (name := f"l{n}") not in taken),
        "name": f"{lamp.name}, other side",
        "position": [round(x, 2), round(y, 2), round(z, 2)],
        "aim": [round(2.0 * plan.screen.x_centre - lamp.aim[0], 2), *lamp.aim[1:]],
    }
    present = [other.model_dump(mode="json") for other in plan.lights]
    text = tell("do/partner", lamp=lamp.name)
    return [Proposal(text, (edit.lights([*present, own]),), tell("cost/lamp-stand"))]


def _all_stand(plan: Plan, lamps: Lamps) -> bool:
    """What hangs overhead, and lights floor and wall from there, is not brought down to stands at the sides."""
    return all(stands(plan, lamp) for _, lamp in lamps)


def half_height(evaluation: Evaluation, lamps: Lamps) -> list[Proposal]:
    needed = evaluation.coverage.needed
    if needed is None or not _all_stand(evaluation.plan, lamps):
        return []
    middle = _middle(needed)
    changes: list[Change] = []
    for index, lamp in lamps:
        (x, _, z), aim = lamp.position, lamp.aim
        changes += lamp_to(evaluation.plan, index, (x, middle, z), (aim[0], middle, aim[2]))
    return [Proposal(tell("do/half-height", high=middle), tuple(changes))]


def all_alike(evaluation: Evaluation, lamps: Lamps) -> list[Proposal]:
    """Equal distance, equal height, equal power, aimed across, behind the mark: what two stands can always do."""
    needed, plan = evaluation.coverage.needed, evaluation.plan
    if needed is None or len(lamps) < 2 or not _all_stand(plan, lamps):
        return []
    middle, away = _middle(needed), max(LEAST_AWAY, 0.75 * plan.screen.width)
    if plan.subject is not None and away > plan.subject.z - BEHIND_MARK:
        away = round(max(LEAST_AWAY, plan.subject.z - BEHIND_MARK), 2)
    dimmer = round(sum(lamp.dimmer for _, lamp in lamps) / len(lamps), 2)
    changes: list[Change] = []
    for order, (index, _) in enumerate(sorted(lamps, key=lambda item: item[1].position[0])):
        side = -1.0 if order < len(lamps) / 2 else 1.0
        rung = order if side < 0 else len(lamps) - 1 - order
        place = plan.screen.x_centre + side * (plan.screen.width / 2 + 0.4), middle, away + 0.4 * rung
        if stand_inside(plan, place, plan.lights[index].position)[2] < place[2] - TOO_LITTLE:
            return []
        changes += lamp_to(plan, index, place, (_far_third(plan, side), middle, 0.0))
        changes.append(edit.lamp(index).dimmer(dimmer))
    return [Proposal(tell("do/all-alike", away=away, high=middle), tuple(changes), tell("cost/every-stand"))]


def softened(plan: Plan, index: int, lamp: Light) -> list[Proposal]:
    """A large soft box on a lamp that is smaller, at full dimmer if it needs it; a grid goes before it."""
    if any(one.kind in ("softbox", "umbrella") for one in lamp.modifiers) or lamp.is_daylight:
        return []
    if emission_of(lamp, plan).face.area > 0.5 * SOFT_BOX_M**2:
        return []
    grids = [one.model_dump(mode="json") for one in lamp.modifiers if one.kind == "grid"]
    box = {
        "kind": "softbox", "width": SOFT_BOX_M, "height": SOFT_BOX_M, "transmission": SOFT_BOX_TRANSMISSION,
    }  # fmt: skip
    dimmer = round(min(1.0, lamp.dimmer / SOFT_BOX_TRANSMISSION), 3)
    changes = (edit.lamp(index).modifier(box), edit.lamp(index).beyond(grids), edit.lamp(index).dimmer(dimmer))
    return [Proposal(tell("do/soft-box", lamp=lamp.name, size=SOFT_BOX_M), changes, tell("cost/soft-box"))]


def turned_round(plan: Plan, index: int, lamp: Light, degrees: float) -> list[Proposal]:
    """The lamp swung round the mark by some degrees, further to its own side."""
    subject = plan.subject
    if subject is None or lamp.is_daylight:
        return []
    dx, dz = lamp.position[0] - subject.x, lamp.position[2] - subject.z
    turn = math.radians(degrees) * (1.0 if dx >= 0.0 else -1.0)
    x = subject.x + dx * math.cos(turn) + dz * math.sin(turn)
    z = subject.z - dx * math.sin(turn) + dz * math.cos(turn)
    place = stand_inside(plan, (x, lamp.position[1], z), lamp.position)
    if float(np.hypot(place[0] - lamp.position[0], place[2] - lamp.position[2])) < TOO_LITTLE:
        return []
    text = tell("do/turn-round", lamp=lamp.name, degrees=degrees)
    return [Proposal(text, lamp_to(plan, index, place), tell("cost/face-side"))]


def raised(plan: Plan, index: int, lamp: Light, step: float = 0.5) -> list[Proposal]:
    x, y, z = lamp.position
    place = stand_inside(plan, (x, y + step, z), lamp.position)
    if place[1] - y < TOO_LITTLE:
        return []
    text = tell("do/lamp-higher", lamp=lamp.name, by=place[1] - y)
    return [Proposal(text, lamp_to(plan, index, place), tell("cost/ballast"))]


def nearer(plan: Plan, index: int, lamp: Light, subject: Subject, stops: float) -> list[Proposal]:
    """The lamp as much closer to the face as gives it so many stops; light goes with the square of the distance."""
    if lamp.is_daylight:
        return []
    away = math.dist(lamp.position, subject.skin_at)
    closer = max(NEAREST_KEY, away * 2.0 ** (-stops / 2.0))
    if closer > away - TOO_LITTLE:
        return []
    share = closer / away
    x, y, z = (f + (p - f) * share for p, f in zip(lamp.position, subject.skin_at, strict=True))
    ident = "do/lamp-nearer/hands" if subject.framing == "hands" else "do/lamp-nearer"
    text = tell(ident, lamp=lamp.name, to=closer, was=away)
    return [Proposal(text, lamp_to(plan, index, (x, y, z)), tell("cost/fall-off"))]


def further_off(plan: Plan, index: int, lamp: Light, subject: Subject, times: float) -> list[Proposal]:
    """The lamp so many times as far from the face, as far as the room goes."""
    if lamp.is_daylight:
        return []
    x, y, z = (f + (p - f) * times for p, f in zip(lamp.position, subject.skin_at, strict=True))
    place = stand_inside(plan, (x, y, z), lamp.position)
    was, to = math.dist(lamp.position, subject.skin_at), math.dist(place, subject.skin_at)
    if to < was + TOO_LITTLE:
        return []
    ident = "do/lamp-nearer/hands" if subject.framing == "hands" else "do/lamp-nearer"
    text = tell(ident, lamp=lamp.name, to=to, was=was)
    return [Proposal(text, lamp_to(plan, index, place), tell("cost/light"))]


def out_of_picture(evaluation: Evaluation, lamps: Lamps) -> list[Proposal]:
    """Each further out to the side it stands on, step by step, until the camera no longer sees it; where that is
    beyond the wall, as far as the room goes, to be cropped."""
    plan, view = evaluation.plan, evaluation.view
    changes: list[Change] = []
    names, still_seen = [], False
    for index, lamp in lamps:
        x, y, z = lamp.position
        side = 1.0 if x >= plan.camera.x else -1.0
        tries = ((x + side * STEP_OUT * step, y, z) for step in range(1, MOST_STEPS + 1))
        poled = stands(plan, lamp)
        clear = next((at for at in tries if not _seen_at(plan, view, lamp, at, poled)), None)
        if clear is not None:
            changes += lamp_to(plan, index, clear)
            names.append(lamp.name)
            still_seen |= _seen_at(plan, view, lamp, stand_inside(plan, clear, lamp.position), poled)
    if not changes:
        return []
    word = "do/aside-cropped" if still_seen else "do/out-of-picture"
    return [Proposal(tell(word, lamps=tuple(names)), tuple(changes), tell("cost/evenness-changes"))]


def hung(evaluation: Evaluation, lamps: Lamps) -> list[Proposal]:
    """Each of some lamps, of which only the stand is in the way, under the ceiling, where it needs none."""
    plan, view = evaluation.plan, evaluation.view
    high = round(plan.room.height - HUNG_UNDER, 2)
    changes: list[Change] = []
    for index, lamp in lamps:
        x, y, z = lamp.position
        up = lamp.model_copy(update={"position": (x, high, z)})
        if stands(plan, up) or not y <= high <= y + MOST_RAISED or through_walls(plan, up).any():
            # Outdoors nothing hangs.
            return []
        if _seen_at(plan, view, up, (x, high, z), False):
            return []
        changes.append(edit.lamp(index).position([x, high, z]))
    if not changes:
        return []
    names = few(tuple(lamp.name for _, lamp in lamps))
    return [Proposal(tell("do/hang", lamps=names, high=high), tuple(changes), tell("cost/rigging"))]


def _seen_at(plan: Plan, view: View, lamp: Light, at: Place, poled: bool) -> bool:
    moved = lamp.model_copy(update={"position": at})
    return (
        view.frames(at) or (poled and pole_in_picture(view, at)) or head_in_picture(plan, moved, view, *FRAME) > 0.0
    )


def beside_the_action(plan: Plan, subject: Subject, lamps: Lamps) -> list[Proposal]:
    """Lamps that hang over people, beside them instead."""
    changes: list[Change] = []
    for index, lamp in lamps:
        side = 1.0 if lamp.position[0] >= subject.x else -1.0
        reach = subject.envelope.right if side > 0 else subject.envelope.left
        place: Place = (subject.x + side * (reach + BESIDE), lamp.position[1], lamp.position[2])
        changes += lamp_to(plan, index, place)
    names = tuple(lamp.name for _, lamp in lamps)
    return [Proposal(tell("do/beside-action", lamps=names), tuple(changes), tell("cost/side-light"))]


def gridded(index: int, lamp: Light, degrees: float = 40.0) -> list[Proposal]:
    """A grid before all that is on the lamp already."""
    if any(one.kind == "grid" for one in lamp.modifiers) or lamp.is_daylight:
        return []
    grid = {"kind": "grid", "deg": degrees}
    on_it = [one.model_dump(mode="json") for one in lamp.beyond]
    if lamp.modifier.kind == "none" and not on_it:
        change = edit.lamp(index).modifier(grid)
    elif len(on_it) < MOST_BEYOND:
        change = edit.lamp(index).beyond([*on_it, grid])
    else:
        return []
    return [Proposal(tell("do/grid", degrees=degrees, lamp=lamp.name), (change,), tell("cost/grid"))]


def on_circuit(index: int, lamp: Light, circuit: str) -> Proposal:
    change = edit.lamp(index).circuit(circuit)
    return Proposal(tell("do/circuit", lamp=lamp.name, circuit=circuit), (change,), tell("cost/longer-cable"))
