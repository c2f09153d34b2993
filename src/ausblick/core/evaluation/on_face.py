"""Light on the face, held toward the camera as an incident meter is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats, unit
from ..light.basis import BasisStore
from ..light.mix import scalar_lux
from ..light.others_shade import OthersShade, shade_of_others, taken_by_others
from ..light.returned import SceneLight, probe_all, probe_shares
from ..plan import Plan


@dataclass(frozen=True, eq=False)
class OnFace:
    """All light (3,) in lux; lux each lamp causes, by its id; and who else stands in its light."""

    light: Floats
    by_lamp: dict[str, float]
    shade: OthersShade | None


def face_light(plan: Plan, scene: SceneLight, store: BasisStore) -> OnFace:
    """None at all without a figure."""
    if plan.subject is None:
        return OnFace(np.zeros(3), {}, None)
    place = np.array(plan.subject.skin_at)
    toward = np.array([plan.camera.x, plan.camera.y, plan.camera.z]) - place
    if float(np.linalg.norm(toward)) < 1e-6:
        toward = np.array([0.0, 0.0, 1.0])
    facing = unit(toward)
    taken = taken_by_others(plan, place, facing, store)
    lux = scalar_lux(probe_shares(plan, place, facing, store) - taken)
    total = probe_all(plan, place, facing, scene, store).total - taken.sum(axis=0)
    by_lamp = {lamp.id: float(each) for lamp, each in zip(plan.lights, lux, strict=True)}
    return OnFace(total, by_lamp, shade_of_others(plan, place, facing, store))
