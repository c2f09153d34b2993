"""The light on the subject's face as planned: each lamp's own, and what the set returns of it, zone by zone."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.direct import direct_lux_on
from ..light.emission import Emission
from ..light.mix import ambient_rgb, probes_by_lamp
from ..light.occlusion import set_triangles
from ..light.radiosity import lamps_incident, scene_of
from ..light.returned import probe_factors, scene_light
from ..plan import Plan
from .observed_face import FaceZones, face_zones


def on_face(emission: Emission, zones: FaceZones, plan: Plan) -> Floats:
    """A lamp's own light (Z,) in lux at full power, the mean of each zone."""
    points, normals = zones.points.reshape(-1, 3), zones.normals.reshape(-1, 3)
    lux = direct_lux_on(emission, points, normals, set_triangles(plan))
    return np.asarray(lux.reshape(len(zones.points), -1).mean(axis=1))


def face_light(plan: Plan, store: BasisStore) -> tuple[Floats, Floats, Floats, Floats, Floats]:
    """Of the zones of the subject's face: each lamp's own light at full power (L, Z), what is left of it (L, Z), what
    returns of it when it is white (L, Z, 3), how much brighter sheen makes it (L, Z, 3), and light of no lamp (Z, 3).

    Raises ValueError without a subject.
    """
    if plan.subject is None:
        raise ValueError("a plan without a subject has no face")
    zones = face_zones(plan, plan.subject)
    shape, lamps = zones.points.shape[:2], len(plan.lights)
    scene = scene_of(plan, store)
    points, normals = zones.points.reshape(-1, 3), zones.normals.reshape(-1, 3)
    own = probes_by_lamp(plan, points, normals, store).reshape(lamps, *shape).mean(axis=2)
    factors = probe_factors(scene, points, normals, store).reshape(*shape, -1).mean(axis=1)
    ink = scene.patches.reflectance
    white = np.array([factors @ (lux * ink) for lux in lamps_incident(scene, plan, store)]).reshape(lamps, -1, 3)
    around = np.broadcast_to(ambient_rgb(plan, zones.normals), (*shape, 3)).mean(axis=1)
    rest = around + factors @ scene_light(plan.model_copy(update={"lights": ()}), store).leaving
    return own, np.ones(own.shape), white, np.ones((*own.shape, 3)), rest
