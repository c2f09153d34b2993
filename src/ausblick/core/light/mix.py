"""The weighted sum: what all lamps together put on the screen and on a probe, in three channels."""

from __future__ import annotations

import numpy as np

from ..colour.rec709 import LUMA
from ..colour.white_point import light_rgb
from ..geometry.vectors import Floats, unit
from ..plan import Light, Plan
from .basis import BasisStore, weights
from .direct import direct_lux_on
from .emission import emission_of
from .keys import Noted, blocking_key, place_key, together
from .occlusion import set_triangles


def lamp_rgb(plan: Plan, lamp: Light) -> Floats:
    """Weights (3,) of the lamp's colour, gel included, under the camera's white balance."""
    fixture = lamp.fixture
    white = light_rgb(fixture.cct, fixture.duv, plan.camera.white_balance_k, plan.camera.tint)
    return np.asarray(white * np.array(lamp.gel))


def _coloured(plan: Plan) -> Floats:
    colours = np.array([lamp_rgb(plan, lamp) for lamp in plan.lights]).reshape(-1, 3)
    made = np.asarray(weights(plan)[:, None] * colours)
    made.setflags(write=False)
    return made


coloured = Noted(_coloured, most=64)
"""Weights (L, 3) of all lamps of a plan: dimmer, switch and colour."""


def tints(plan: Plan) -> Floats:
    """What colour and gel leave of each lamp's lux (L,)."""
    return np.array([float(scalar_lux(lamp_rgb(plan, lamp))) for lamp in plan.lights])


def summed(plan: Plan, maps: Floats) -> Floats:
    """All lamps together (..., 3) in lux, of each one's light (L, ...) at full power: the weighted sum."""
    return np.asarray(np.tensordot(maps, coloured(plan), axes=(0, 0)))


def dimmed(plan: Plan, maps: Floats) -> Floats:
    """Each lamp's light (L, ...) as it is dimmed, of what it gives at full power."""
    return np.asarray(maps * weights(plan).reshape(-1, *(1,) * (maps.ndim - 1)))


def ambient_rgb(plan: Plan, normal: Floats) -> Floats:
    """Light (..., 3) in lux without a direction on what faces `normal` (..., 3); outdoors it comes from the upper
    half space only."""
    room = plan.room
    share = np.ones(normal.shape[:-1]) if room.kind == "interior" else 0.5 * (1.0 + normal[..., 1])
    rgb = light_rgb(room.ambient_cct, 0.0, plan.camera.white_balance_k, plan.camera.tint)
    return np.asarray(room.ambient_lux * share[..., None] * rgb)


def probe_light(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Direct light (3,) in lux on a small surface at `at` (3,) m that faces `facing` (3,).

    The figure does not block. Raises ValueError for a facing of length zero.
    """
    if not float(np.linalg.norm(facing)) > 0.0:
        raise ValueError("facing must not be of length zero")
    return np.asarray(probes_light(plan, at[None, :], unit(facing)[None, :], store)[0])


def probes_by_lamp(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Each lamp's direct light (L, P) in lux at full power on P small surfaces.

    at (P, 3) m; facing (P, 3), unit length.
    """
    occluders = set_triangles(plan)

    def full_power(lamp: Light) -> Floats:
        return direct_lux_on(emission_of(lamp, plan), at, facing, occluders)

    rows = store.each_lamp(plan, together("probe", place_key(at, facing), blocking_key(plan)), full_power)
    return np.stack(rows) if rows else np.zeros((0, len(at)))


def probes_light(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Direct light (P, 3) in lux on P small surfaces, ambient in it. The figure does not block."""
    return np.asarray(summed(plan, probes_by_lamp(plan, at, facing, store)) + ambient_rgb(plan, facing))


def scalar_lux(rgb: Floats) -> Floats:
    """Lux (...) of light in three channels (..., 3): 0.2126 R + 0.7152 G + 0.0722 B."""
    return np.asarray(rgb @ LUMA)
