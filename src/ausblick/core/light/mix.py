"""The weighted sum: what all lamps together put on the screen and on a probe, in three channels."""

from __future__ import annotations

from functools import partial

import numpy as np

from ..arrays import LUMA, Floats, unit
from ..optics.grid import Grid
from ..plan import Light, Plan
from .basis import BasisStore, lamp_maps, not_computed, weight
from .colour import light_rgb
from .direct import direct_lux
from .occlusion import NONE, ON_WALL, flag_triangles, screen_triangles, wing_triangles


def lamp_rgb(plan: Plan, lamp: Light) -> Floats:
    """Weights (3,) of the lamp's colour under the camera's white balance."""
    fixture = lamp.fixture
    return light_rgb(fixture.cct, fixture.duv, plan.camera.white_balance_k, plan.camera.tint)


def ambient_rgb(plan: Plan, normal: Floats) -> Floats:
    """Light (3,) in lux without a direction; outdoors it comes from the upper half space only."""
    room = plan.room
    share = 1.0 if room.kind == "interior" else 0.5 * (1.0 + float(normal[1]))
    rgb = light_rgb(room.ambient_cct, 0.0, plan.camera.white_balance_k, plan.camera.tint)
    return room.ambient_lux * share * rgb


def screen_light(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Direct light (H, W, 3) in lux on the screen's face: lamps, ambient, and through the cloth.

    Without the figure's shadow and without interreflection.
    """
    lamps, maps = lamp_maps(plan, grid, store)
    weights = np.array([weight(lamp) * lamp_rgb(plan, lamp) for lamp in lamps]).reshape(len(lamps), 3)
    everywhere = ambient_rgb(plan, np.array([0.0, 0.0, 1.0]))
    everywhere = everywhere + plan.screen.transmittance * plan.screen.behind_lux
    return np.asarray(np.tensordot(maps, weights, axes=(0, 0)) + everywhere)


def probe_light(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Direct light (3,) in lux on a small surface at `at` (3,) m that faces `facing` (3,).

    The figure does not block. Raises ValueError for a facing of length zero.
    """
    if not float(np.linalg.norm(facing)) > 0.0:
        raise ValueError("facing must not be of length zero")
    normal = unit(facing)
    ambient = ambient_rgb(plan, normal)
    return np.asarray(ambient + sum(lux for _, lux in probe_by_lamp(plan, at, normal, store)))


def probe_by_lamp(plan: Plan, at: Floats, normal: Floats, store: BasisStore) -> list[tuple[Light, Floats]]:
    """Each lamp's share (3,) in lux of the direct light on a probe, dimmers applied."""
    occluders = _set_surfaces(plan)
    place = (at.tobytes(), normal.tobytes(), occluders.tobytes())
    shares = []
    for lamp in plan.lights:
        if not_computed(lamp) is None:
            full = store.get(
                (*place, lamp.fixture, lamp.position, lamp.aim),
                partial(direct_lux, lamp, at[None, :], normal, occluders),
            )
            shares.append((lamp, float(full[0]) * weight(lamp) * lamp_rgb(plan, lamp)))
    return shares


def _set_surfaces(plan: Plan) -> Floats:
    """Everything that blocks direct light between two places in the set.

    What lies on a wall or on the floor (as a floor run does) replaces that part of it, and walls and
    floor never block a lamp.
    """
    on_wall = plan.room.kind == "interior" and abs(plan.room.z_min) <= ON_WALL
    own = NONE if on_wall else screen_triangles(plan.screen)
    return np.concatenate([flag_triangles(plan.flags), own, wing_triangles(plan.screen)])


def scalar_lux(rgb: Floats) -> Floats:
    """Lux (...) of light in three channels (..., 3): 0.2126 R + 0.7152 G + 0.0722 B."""
    return np.asarray(rgb @ LUMA)
