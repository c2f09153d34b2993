"""Plate: does the camera see the set as the plate's camera saw its place, and does the key agree?"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ...camera.view import angle_of_view
from ...evaluation.results import Evaluation
from ...geometry.vectors import Floats, unit
from ...light.basis import BasisStore
from ...plan import Light, Plan, PlateFact, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

KEY = LIMITS["plate.key"]


def _judge(evaluation: Evaluation, fact: PlateFact, have: float, wanted: float, ident: str) -> Judgement | None:
    if not evaluation.plan.plate.tells(fact):
        return None
    off = abs(have - wanted)
    says, limit = tell(ident, have=have, wanted=wanted), LIMITS[ident]
    return Judgement(limit.grade(off - limit.at), off, limit.at, "°", says, max(0.0, off - limit.at))


def _tilt(evaluation: Evaluation) -> Judgement | None:
    return _judge(evaluation, "tilt", evaluation.plan.camera.tilt, evaluation.plan.plate.tilt, "plate.tilt")


def _as_tilted(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    tilt = evaluation.plan.plate.tilt
    return [Proposal(tell("do/tilt", to=tilt), (edit.camera.tilt(tilt),), tell("cost/framing-moves"))]


def picture_view(plan: Plan) -> float:
    """Horizontal angle of view in degrees of the picture as it is held."""
    sensor = plan.camera.sensor
    turned = round(plan.camera.roll / 90.0) % 2 == 1
    return angle_of_view(sensor.height_mm if turned else sensor.width_mm, plan.camera.focal_mm)


def _view(evaluation: Evaluation) -> Judgement | None:
    if round(evaluation.plan.camera.roll / 90.0) % 2 == 1:
        return None
    plate = angle_of_view(36.0, evaluation.plan.plate.focal_mm_ff)
    return _judge(evaluation, "focal_mm_ff", picture_view(evaluation.plan), plate, "plate.view")


def _as_wide(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    focal = round(plan.plate.focal_mm_ff * plan.camera.sensor.width_mm / 36.0, 1)
    lenses = {"to": focal, "was": plan.camera.focal_mm}
    alone = Proposal(tell("do/focal", **lenses), (edit.camera.focal_mm(focal),), tell("cost/figure-size"))
    if plan.subject is None:
        return [alone]
    z = moves.same_framing(plan, focal)
    if z is None:
        return [alone]
    together = (edit.camera.focal_mm(focal), edit.camera.z(round(z, 2)))
    return [Proposal(tell("do/focal-from", z=z, **lenses), together, tell("cost/camera-moves")), alone]


def _elevation(plan: Plan, height: float) -> float:
    """Angle in degrees under which the lens at `height` looks down to the eyes."""
    assert plan.subject is not None
    eyes = plan.subject.eyes
    away = max(0.1, math.hypot(plan.camera.x - eyes[0], plan.camera.z - eyes[2]))
    return math.degrees(math.atan2(height - eyes[1], away))


def _height(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    if plan.subject is None:
        return None
    have, wanted = _elevation(plan, plan.camera.y), _elevation(plan, plan.plate.camera_height)
    return _judge(evaluation, "camera_height", have, wanted, "plate.height")


def _as_high(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    y = evaluation.plan.plate.camera_height
    return [Proposal(tell("do/lens-height", to=y), (edit.camera.y(y),), tell("cost/framing-moves"))]


def _direction(azimuth: float, elevation: float) -> Floats:
    a, e = math.radians(azimuth), math.radians(elevation)
    return np.array([math.sin(a) * math.cos(e), math.sin(e), math.cos(a) * math.cos(e)])


@dataclass(frozen=True)
class _Met:
    """A direction of the plate's light, and the lamp that comes nearest to it, by how many degrees."""

    wanted: Floats
    index: int
    off: float


def _keys(plan: Plan) -> list[tuple[int, Light]]:
    """Lamps that can stand for a light of the plate: key, and what comes from behind."""
    on = ((i, lamp) for i, lamp in enumerate(plan.lights) if lamp.on and lamp.dimmer > 0.0)
    return [(i, lamp) for i, lamp in on if lamp.role in ("key", "back")]


def _toward(plan: Plan, lamp: Light) -> Floats:
    assert plan.subject is not None
    origin = np.array(lamp.aim if lamp.fixture.emitter.shape == "sun" else plan.subject.skin_at)
    return unit(np.array(lamp.position) - origin)


def _met(plan: Plan) -> list[_Met]:
    """Every light of the plate with its own lamp, as far as there are lamps; the key stands for the first where there
    is only one. None without a figure, a lamp, or where the plate's light has no side."""
    plate, lamps = plan.plate, _keys(plan)
    told = plate.tells("key_azimuth", "key_elevation") and plate.light in ("one", "two")
    if plan.subject is None or not told or not any(lamp.role == "key" for _, lamp in lamps):
        return []
    wanted = [_direction(plate.key_azimuth, plate.key_elevation)]
    if plate.light == "two":
        wanted.append(_direction(plate.second_azimuth, plate.second_elevation))
    else:
        lamps = [(i, lamp) for i, lamp in lamps if lamp.role == "key"]
    found: list[_Met] = []
    for direction in wanted:
        free = [one for one in lamps if one[0] not in {met.index for met in found}] or lamps
        index, lamp = min(free, key=lambda one: -float(_toward(plan, one[1]) @ direction))
        cosine = float(np.clip(_toward(plan, lamp) @ direction, -1.0, 1.0))
        found.append(_Met(direction, index, math.degrees(math.acos(cosine))))
    return found


def _key(evaluation: Evaluation) -> Judgement | None:
    plan, found = evaluation.plan, _met(evaluation.plan)
    if not found:
        return None
    worst = max(found, key=lambda one: one.off)
    lamp = plan.lights[worst.index]
    ident = "plate.key" if worst is found[0] else "plate.key/second"
    says = tell(ident, lamp=lamp.name, off=worst.off)
    return Judgement(KEY.grade(worst.off - KEY.at), worst.off, KEY.at, "°", says, max(0.0, worst.off - KEY.at))


def _as_lit(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    assert plan.subject is not None
    worst = max(_met(plan), key=lambda one: one.off)
    lamp = plan.lights[worst.index]
    face = np.array(plan.subject.skin_at)
    away = float(np.linalg.norm(np.array(lamp.position) - face))
    proposals = []
    for distance in dict.fromkeys((away, 1.5)):
        x, y, z = face + distance * worst.wanted
        x, y, z = moves.stand_inside(plan, (float(x), float(y), float(z)), lamp.position)
        text = tell("do/lamp-to", lamp=lamp.name, across=x, high=y, z=z)
        proposals.append(Proposal(text, moves.lamp_to(plan, worst.index, (x, y, z)), tell("cost/set-level")))
    return proposals


RULES = (
    Rule(
        id="plate.height",
        stage="plate",
        measure="mismatch",
        why="Eyes are seen from above or below, and the plate's ground from its own height: both must agree.",
        judge=_height,
        propose=_as_high,
        digits=1,
    ),
    Rule(
        id="plate.tilt",
        stage="plate",
        measure="mismatch",
        why="A viewer finds the vanishing point without trying; a tilted figure before a level plate floats.",
        judge=_tilt,
        propose=_as_tilted,
        digits=1,
    ),
    Rule(
        id="plate.view",
        stage="plate",
        measure="mismatch",
        why="The plate's lens sets how fast things shrink with distance; figure and plate must shrink alike.",
        judge=_view,
        propose=_as_wide,
        digits=1,
    ),
    Rule(
        id="plate.key",
        stage="plate",
        measure="mismatch",
        why="A shadow to the left on the subject and to the right in the plate gives it away at once.",
        judge=_key,
        propose=_as_lit,
        digits=0,
    ),
)
