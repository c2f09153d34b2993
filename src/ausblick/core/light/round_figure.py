"""All light on what faces away from the camera more and more: round head, chest and legs of the figure."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ..geometry.vectors import Floats
from ..plan import EYE_HEIGHT, Plan
from .basis import BasisStore
from .others_shade import probes_among_others
from .returned import SceneLight, probe_factors
from .spill import facing_camera, knees_forward

TURNED = (-90.0, -45.0, 0.0, 45.0, 90.0)
"""Degrees round the figure from where it faces the camera, to its left."""
ROUND = {"head": (EYE_HEIGHT, 0.08), "chest": (0.70, 0.2), "legs": (0.25, 0.12)}
"""How high, in shares of stature, and how far from the axis, m."""


def light_round(plan: Plan, light: SceneLight, store: BasisStore) -> Mapping[str, Floats]:
    """Light (5, 3) in lux at each of TURNED, by the part of the plan's subject, which itself does not block; empty
    without one."""
    subject = plan.subject
    if subject is None:
        return {}
    ahead, aside = facing_camera(plan, subject)
    turns = np.radians(np.array(TURNED))[:, None]
    out: Floats = np.cos(turns) * ahead + np.sin(turns) * aside
    forward = {"legs": knees_forward(subject)}
    places: list[Floats] = [
        np.array([subject.x, subject.up(up), subject.z]) + forward.get(part, 0.0) * ahead + reach * out
        for part, (up, reach) in ROUND.items()
    ]
    at = np.concatenate(places).round(6)
    facing = np.tile(out, (len(ROUND), 1)).round(9)
    total = (
        probes_among_others(plan, at, facing, store) + probe_factors(light.scene, at, facing, store) @ light.leaving
    )
    return dict(zip(ROUND, total.reshape(len(ROUND), len(TURNED), 3), strict=True))
