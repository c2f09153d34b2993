"""All light on what faces away from the camera more and more: round head, chest and legs of the figure."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ..geometry.vectors import Floats, cross, unit
from ..plan import EYE_HEIGHT, Plan
from .basis import BasisStore
from .others_shade import probes_among_others
from .returned import SceneLight, probe_factors

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
    x, z = subject.x, subject.z
    toward = np.array([plan.camera.x - x, 0.0, plan.camera.z - z])
    ahead = unit(toward) if float(np.linalg.norm(toward)) > 1e-6 else np.array([0.0, 0.0, 1.0])
    aside = cross(np.array([0.0, 1.0, 0.0]), ahead)
    turns = np.radians(TURNED)[:, None]
    out = np.cos(turns) * ahead + np.sin(turns) * aside
    places = [np.array([x, subject.up(up), z]) + reach * out for up, reach in ROUND.values()]
    at, facing = np.round(np.concatenate(places), 6), np.round(np.tile(out, (len(ROUND), 1)), 9)
    total = (
        probes_among_others(plan, at, facing, store) + probe_factors(light.scene, at, facing, store) @ light.leaving
    )
    return dict(zip(ROUND, total.reshape(len(ROUND), len(TURNED), 3), strict=True))
