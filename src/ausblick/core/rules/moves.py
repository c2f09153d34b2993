"""Changes of a set that several rules propose: the mark with its lamps, black cloth, lamps moved or softened."""

from __future__ import annotations

import math

import numpy as np

from ..plan import Change, Light, Plan
from ..plan.people import Subject
from ..results import Evaluation
from .model import Proposal
from .wording import metres

WITH_THE_MARK = ("key", "fill", "back")
FLAG_HIGH, FLAG_FROM, FLAG_BEYOND, FLAG_ASIDE = 2.4, 0.4, 0.8, 0.5
SPARE = 0.25
BLACK = [0.03, 0.03, 0.03]


def inside_room(plan: Plan, place: tuple[float, float, float]) -> list[float]:
    """The place brought inside the walls, with room for a stand, to the centimetre."""
    x, y, z = place
    room = plan.room
    if room.kind == "interior":
        x = min(max(x, room.x_min + 0.25), room.x_max - 0.25)
        y = min(max(y, 0.2), room.height - 0.2)
        z = min(max(z, room.z_min + 0.2), room.z_max - 0.25)
    return [round(x, 2), round(y, 2), round(z, 2)]


def mark_to(plan: Plan, z: float) -> tuple[Change, ...]:
    """The mark at z, and the lamps that light the subject along with it; the camera keeps its distance
    where the room allows."""
    assert plan.subject is not None
    step = z - plan.subject.z
    changes = [Change("subject.z", round(z, 2))]
    for i, lamp in enumerate(plan.lights):
        if lamp.role in WITH_THE_MARK and lamp.fixture.emitter.shape != "sun":
            x, y, back = lamp.position
            changes.append(Change(f"lights[{i}].position", inside_room(plan, (x, y, back + step))))
            changes.append(Change(f"lights[{i}].aim", [lamp.aim[0], lamp.aim[1], round(lamp.aim[2] + step, 2)]))
    reach = plan.camera.z + step
    if plan.room.kind == "interior":
        reach = min(reach, plan.room.z_max - 0.5)
    changes.append(Change("camera.z", round(max(reach, z + 0.5), 2)))
    return tuple(changes)


def mark_forward(evaluation: Evaluation, step: float = 0.6) -> list[Proposal]:
    plan = evaluation.plan
    if plan.subject is None:
        return []
    z = plan.subject.z + step
    if plan.room.kind == "interior" and z > plan.room.z_max - 1.5:
        return []
    text = f"Mark, its lamps and the camera {metres(step)} further from the screen"
    return [Proposal(text, mark_to(plan, z), "needs more screen, and the room's depth")]


def smaller_screen(evaluation: Evaluation) -> list[Proposal]:
    """The screen cut to what the action needs and a hand's breadth round it."""
    needed, screen = evaluation.coverage.needed, evaluation.plan.screen
    if needed is None:
        return []
    left, right = needed[0] - SPARE, needed[2] + SPARE
    high = needed[3] + SPARE - screen.bottom
    width, height = round(right - left, 2), round(min(screen.height, max(0.3, high)), 2)
    if width * height > 0.9 * screen.width * screen.height or width > screen.width:
        return []
    changes = (
        Change("screen.x_centre", round((left + right) / 2.0, 2)),
        Change("screen.width", width),
        Change("screen.height", height),
    )
    text = f"Screen only behind the action: {metres(width)} × {metres(height)}"
    return [Proposal(text, changes, "no room for a wider gesture")]


def less_floor(evaluation: Evaluation) -> list[Proposal]:
    """The floor piece ended behind the feet, or taken away where no feet are seen."""
    plan = evaluation.plan
    screen, subject = plan.screen, plan.subject
    if screen.floor_run <= 0.0 or subject is None:
        return []
    if not subject.feet_seen:
        return [Proposal("No floor piece: feet are not seen", (Change("screen.floor_run", 0.0),))]
    behind = round(max(0.5, subject.z + 0.1), 2)
    if screen.floor_run <= behind + 0.05:
        return []
    text = f"Floor piece only behind the feet: {metres(behind)}"
    return [Proposal(text, (Change("screen.floor_run", behind),), "feet in front of it can't be keyed")]


def black_cloth(evaluation: Evaluation, surface: str) -> list[Proposal]:
    """Black cloth before the surface that sends the colour."""
    plan, subject = evaluation.plan, evaluation.plan.subject
    if subject is None:
        return []
    if surface == "floor":
        dark = (Change("room.reflectance.floor", [0.04, 0.04, 0.04]),)
        return [Proposal("Black cloth on the floor", dark, "tape it down: people slip on loose cloth")]
    sides = {"left wall": -1.0, "right wall": 1.0}
    if surface not in sides:
        return []
    other = {"left wall": "right", "right wall": "left"}
    side = surface.removesuffix(" wall")
    first, second = _free_ids(plan)
    one = _flag(plan, subject, sides[surface], first)
    both = [_flag(plan, subject, -1.0, first), _flag(plan, subject, 1.0, second)]
    near, far = _flag_reach(subject)
    text = f"Black cloth on the {side}, {metres(far - near)} long, {metres(FLAG_HIGH)} high, beside the mark"
    present = [flag.model_dump(mode="json") for flag in plan.flags]
    return [
        Proposal(text, (Change("flags", [*present, one]),), "a frame, two stands, ballast"),
        Proposal(
            f"{text}, and on the {other[surface]}",
            (Change("flags", [*present, *both]),),
            "two frames, four stands, ballast",
        ),
    ]


def _flag_reach(subject: Subject) -> tuple[float, float]:
    """From just before the screen to beyond the mark: it hides the wall and the screen's own edge."""
    return FLAG_FROM, round(2.0 * (subject.z + FLAG_BEYOND)) / 2.0


def _free_ids(plan: Plan) -> tuple[str, str]:
    taken = {flag.id for flag in plan.flags}
    first, second = [name for n in range(1, 130) if (name := f"f{n}") not in taken][:2]
    return first, second


def _flag(plan: Plan, subject: Subject, side: float, ident: str) -> dict[str, object]:
    """A frame of black cloth beside the mark, in half-metre steps so that small moves keep it in place."""
    reach = subject.envelope.left if side < 0.0 else subject.envelope.right
    x = subject.x + side * (math.ceil(2.0 * (reach + FLAG_ASIDE)) / 2.0)
    if plan.room.kind == "interior":
        x = min(max(x, plan.room.x_min + 0.05), plan.room.x_max - 0.05)
    z0, z1 = _flag_reach(subject)
    high = min(FLAG_HIGH, plan.room.height)
    corners = [[x, 0.0, z0], [x, high, z0], [x, high, z1], [x, 0.0, z1]]
    return {"id": ident, "corners": corners, "reflectance": BLACK}


def dimmed_screen(evaluation: Evaluation, factor: float = 0.7) -> list[Proposal]:
    lamps = [(i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.role == "screen" and lamp.on]
    if not lamps:
        return []
    changes = tuple(Change(f"lights[{i}].dimmer", round(lamp.dimmer * factor, 3)) for i, lamp in lamps)
    text = f"Screen lamps half a stop down, to {100.0 * factor * max(lamp.dimmer for _, lamp in lamps):.0f} %"
    return [Proposal(text, changes, "a darker screen is noisier")]


def softened(evaluation: Evaluation, index: int, lamp: Light) -> list[Proposal]:
    """A large soft box on the lamp, at full dimmer if it needs it."""
    if lamp.modifier.kind in ("softbox", "umbrella") or lamp.fixture.emitter.shape == "sun":
        return []
    box = {"kind": "softbox", "width": 1.2, "height": 1.2, "transmission": 0.55}
    dimmer = round(min(1.0, lamp.dimmer / 0.55), 3)
    changes = (Change(f"lights[{index}].modifier", box), Change(f"lights[{index}].dimmer", dimmer))
    return [Proposal(f"{lamp.name} through a 1.2 m soft box", changes, "almost a stop of its light")]


def turned_round(evaluation: Evaluation, index: int, lamp: Light, degrees: float) -> list[Proposal]:
    """The lamp swung round the mark by some degrees, further to its own side."""
    plan, subject = evaluation.plan, evaluation.plan.subject
    if subject is None or lamp.fixture.emitter.shape == "sun":
        return []
    dx, dz = lamp.position[0] - subject.x, lamp.position[2] - subject.z
    turn = math.radians(degrees) * (1.0 if dx >= 0.0 else -1.0)
    x = subject.x + dx * math.cos(turn) + dz * math.sin(turn)
    z = subject.z - dx * math.sin(turn) + dz * math.cos(turn)
    place = inside_room(plan, (x, lamp.position[1], z))
    if float(np.hypot(place[0] - lamp.position[0], place[2] - lamp.position[2])) < 0.1:
        return []
    text = f"{lamp.name} {degrees:.0f}° further round the subject"
    return [Proposal(text, (Change(f"lights[{index}].position", place),), "the light on the face changes side")]


def raised(evaluation: Evaluation, index: int, lamp: Light, step: float = 0.5) -> list[Proposal]:
    x, y, z = lamp.position
    place = inside_room(evaluation.plan, (x, y + step, z))
    if place[1] - y < 0.1:
        return []
    text = f"{lamp.name} {metres(place[1] - y)} higher"
    return [Proposal(text, (Change(f"lights[{index}].position", place),), "ballast the stand")]


def gridded(index: int, lamp: Light, degrees: float = 40.0) -> list[Proposal]:
    if lamp.modifier.kind == "grid" or lamp.fixture.emitter.shape == "sun":
        return []
    grid = (Change(f"lights[{index}].modifier", {"kind": "grid", "deg": degrees}),)
    return [Proposal(f"A {degrees:.0f}° grid on {lamp.name}", grid, "a tenth of its light, harder shadows")]
