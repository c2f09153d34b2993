"""Softness: is the key as wide, as the face sees it, as the plate's light asks?"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.emission import emission_of
from ...plan import Light, Plan, edit
from ...sentences import tell
from ...standards.limits import KEY_WIDTHS, LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

SOFTNESS = LIMITS["plate.softness"]
SUN = 0.53
"""Degrees across."""


def width_at(plan: Plan, lamp: Light) -> float:
    """Degrees that a lamp's face is across where the light on skin is measured: of a disc of the same solid angle,
    its area times the cosine over the square of the distance. A point is 0."""
    if lamp.fixture.emitter.shape == "sun":
        return SUN
    assert plan.subject is not None
    face = emission_of(lamp, plan).face
    toward = np.array(plan.subject.skin_at) - face.centre
    away = max(float(np.linalg.norm(toward)), 1e-3)
    solid = face.area * abs(float(face.axis @ toward)) / away**3
    return math.degrees(2.0 * math.atan(math.sqrt(solid / math.pi)))


@dataclass(frozen=True)
class _Seen:
    """The key that gives the face most, its width in degrees, and by how many stops it is too hard (below nought) or
    too soft."""

    index: int
    width: float
    off: float


def _seen(evaluation: Evaluation) -> _Seen | None:
    plan, by_lamp = evaluation.plan, evaluation.face_by_lamp
    keys = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.role == "key" and by_lamp.get(lamp.id, 0.0) > 0.0]
    if plan.subject is None or not plan.plate.tells("softness") or not keys:
        return None
    index, lamp = max(keys, key=lambda one: by_lamp[one[1].id])
    width = width_at(plan, lamp)
    low, high = KEY_WIDTHS[plan.plate.softness]
    if width < low:
        return _Seen(index, width, math.log2(max(width, 0.1) / low))
    return _Seen(index, width, math.log2(width / high) if width > high else 0.0)


def _judge(evaluation: Evaluation) -> Judgement | None:
    seen = _seen(evaluation)
    if seen is None:
        return None
    over, lamp = abs(seen.off) - SOFTNESS.at, evaluation.plan.lights[seen.index]
    other = "plate.softness/harder" if seen.off < 0.0 else "plate.softness/softer"
    says = tell(other if over > 0.0 else "plate.softness", lamp=lamp.name, angle=seen.width)
    return Judgement(SOFTNESS.grade(over), abs(seen.off), SOFTNESS.at, SOFTNESS.unit, says, max(0.0, over))


def _as_soft(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """A wider face where it is too hard, else nearer; bare where it is too soft, else further off."""
    seen, plan = _seen(evaluation), evaluation.plan
    if seen is None or plan.subject is None:
        return []
    lamp = plan.lights[seen.index]
    if seen.off < 0.0:
        # Twice the light is a distance less by a root of two, and as much wider.
        near = moves.nearer(plan, seen.index, lamp, plan.subject, -2.0 * seen.off)
        return moves.softened(plan, seen.index, lamp) or near
    return _bare(seen.index, lamp) or moves.further_off(plan, seen.index, lamp, plan.subject, 2.0**seen.off)


def _bare(index: int, lamp: Light) -> list[Proposal]:
    if not any(one.kind in ("softbox", "umbrella", "diffusion") for one in lamp.modifiers):
        return []
    changes = (edit.lamp(index).modifier({"kind": "none"}), edit.lamp(index).beyond([]))
    return [Proposal(tell("do/bare", lamp=lamp.name), changes, tell("cost/set-level"))]


RULES = (
    Rule(
        id="plate.softness",
        stage="plate",
        measure="stops of width",
        why="A hard nose shadow in a soft plate, or none in a hard one, gives the picture away as a wrong side does.",
        judge=_judge,
        propose=_as_soft,
        digits=1,
    ),
)
