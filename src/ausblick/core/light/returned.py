"""What the set sends back: total light on patches, on the screen and on probes, and from which surface."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..camera.screen_grid import Grid
from ..geometry.vectors import Floats, unit
from ..plan import Plan
from .basis import BasisStore
from .every_other import linear_weights
from .keys import place_key, together
from .mix import ambient_rgb, coloured, lamp_rgb, probe_light, probes_by_lamp
from .patches import SCREEN_NAMES
from .radiosity import Scene, lamps_incident, lamps_on_patches, scene_of

NODES, SIDE_NODES = (15, 13), (9, 8)
"""Places across and up the wall, and the other surfaces, at which returned light is worked out; between them it is
linear."""
UP = np.array([0.0, 1.0, 0.0])


@dataclass(frozen=True, eq=False)
class SceneLight:
    """Light (N, 3) in lux on the patches of a scene: first-hand, and all of it."""

    scene: Scene
    direct: Floats
    incident: Floats

    @property
    def leaving(self) -> Floats:
        """Exitance (N, 3) in lm/m2 after all reflections."""
        return np.asarray(self.incident * self.scene.patches.reflectance)


def scene_light(plan: Plan, store: BasisStore) -> SceneLight:
    """Light on every patch with the plan's dimmers and colours."""
    scene = scene_of(plan, store)
    direct = _around(plan, scene)
    incident = scene.incident(direct) if direct.any() else np.zeros_like(direct)
    if plan.lights:
        rgb = coloured(plan)
        direct = direct + np.stack(lamps_on_patches(scene, plan, store), axis=1) @ rgb
        incident = incident + np.einsum("lnc,lc->nc", np.stack(lamps_incident(scene, plan, store)), rgb)
    return SceneLight(scene, direct, incident)


def _around(plan: Plan, scene: Scene) -> Floats:
    """Light without a lamp (N, 3): ambient, and light through the cloth.

    Indoors `ambient_lux` is what a meter reads with the lamps off, the room's own reflections in it:
    only the screen's return of it is still to be added. Outdoors it is the sky, and everything returns it.
    """
    patches = scene.patches
    light = np.zeros((len(patches.areas), 3))
    if not len(light):
        return light
    screen = patches.of("screen")
    lit = patches.of(*SCREEN_NAMES) if plan.room.kind == "interior" else np.ones(len(light), dtype=bool)
    if plan.room.ambient_lux > 0.0:
        overhead = ambient_rgb(plan, UP)
        share = np.ones(len(light)) if plan.room.kind == "interior" else 0.5 * (1.0 + patches.outward[:, 1])
        light[lit] += share[lit, None] * overhead
    light[screen] += plan.screen.transmittance * plan.screen.behind_lux
    return light


@dataclass(frozen=True, eq=False)
class ScreenNodes:
    """Places (M,) on the screen at which returned light is known, and what spreads it over a grid:
    `factors` (M, N) from the patches, `to_x` (W, nodes across), `to_y` (H, nodes up)."""

    factors: Floats
    to_x: Floats
    to_y: Floats

    def spread(self, coarse: Floats) -> Floats:
        """Values (..., M, C) at the nodes as a map (..., H, W, C)."""
        nodes = self.to_y.shape[1], self.to_x.shape[1]
        shaped = coarse.reshape(*coarse.shape[:-2], *nodes, coarse.shape[-1])
        across = self.to_x @ shaped
        wide, colours = across.shape[-2:]
        joined = self.to_y @ across.reshape(*across.shape[:-2], wide * colours)
        return np.asarray(joined.reshape(*joined.shape[:-1], wide, colours))

    def mean(self, coarse: Floats, shares: Floats) -> Floats:
        """Mean (..., C) of what values (..., M, C) spread to, weighted by shares (H, W) that sum to 1."""
        return np.asarray(np.einsum("m,...mc->...c", (self.to_y.T @ shares @ self.to_x).ravel(), coarse))


def screen_nodes(grid: Grid, scene: Scene, store: BasisStore) -> ScreenNodes:
    """Of one surface of the screen."""
    sheet = grid.sheet
    across, up = NODES if sheet.name == "wall" else SIDE_NODES
    (x0, x1), (y0, y1) = sheet.width, sheet.height
    xs, ys = x0 + (x1 - x0) * close_at_ends(across), y0 + (y1 - y0) * close_at_ends(up)

    def factors() -> Floats:
        x, y = (values.ravel() for values in np.meshgrid(xs, ys))
        return scene.factors(sheet.places(x, y), np.ascontiguousarray(sheet.normals(y)))

    found = store.get(("to screen", sheet, scene.shape), factors)
    return ScreenNodes(found, linear_between(xs, grid.x, store), linear_between(ys, grid.y, store))


def returned_to_screen(grid: Grid, light: SceneLight, store: BasisStore) -> Floats:
    """Light (H, W, 3) in lux that all other surfaces send onto a surface of the screen."""
    nodes = screen_nodes(grid, light.scene, store)
    return nodes.spread(nodes.factors @ light.leaving)


def returned_maps(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """The same by lamp (L, H, W, 3), each at full power in its own colour."""
    scene = scene_of(plan, store)
    nodes = screen_nodes(grid, scene, store)
    return nodes.spread(returned_by_lamp(plan, scene, grid, nodes, store))


def returned_by_lamp(plan: Plan, scene: Scene, grid: Grid, nodes: ScreenNodes, store: BasisStore) -> Floats:
    """Light (L, M, 3) in lux at a surface's nodes that comes back of each lamp at full power."""
    if not plan.lights:
        return np.zeros((0, len(nodes.factors), 3))
    ink = scene.patches.reflectance
    incident = {lamp.id: lux for lamp, lux in zip(plan.lights, lamps_incident(scene, plan, store), strict=True)}
    ground = together("nodes", grid.sheet, scene.key, plan.screen.transmittance)
    white = store.each_lamp(plan, ground, lambda lamp: nodes.factors @ (incident[lamp.id] * ink))
    return np.asarray(np.stack(white) * np.array([lamp_rgb(plan, lamp) for lamp in plan.lights])[:, None])


def probe_shares(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """All light (L, 3) in lux that each lamp, dimmed as it is, causes on one small surface.

    at, facing (3,), facing of unit length. Ambient light is in none of the shares.
    """
    scene = scene_of(plan, store)
    factors = probe_factors(scene, at[None, :], facing[None, :], store)[0]
    direct = probes_by_lamp(plan, at[None, :], facing[None, :], store)[:, 0]
    if not plan.lights:
        return np.zeros((0, 3))
    sent = factors[:, None] * scene.patches.reflectance
    white = direct[:, None] + np.einsum("lnc,nc->lc", np.stack(lamps_incident(scene, plan, store)), sent)
    return np.asarray(coloured(plan) * white)


def close_at_ends(count: int) -> Floats:
    """Places 0..1, closer together near the ends, where light from an adjoining surface changes fastest."""
    return np.asarray(0.5 - 0.499 * np.cos(np.pi * np.arange(count) / (count - 1)))


def linear_between(nodes: Floats, at: Floats, store: BasisStore) -> Floats:
    """Weights (A, M) of linear interpolation from the nodes (M,) to places (A,), remembered."""
    return store.get(("linear", place_key(nodes, at)), lambda: linear_weights(nodes, at))


def probe_factors(scene: Scene, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Factors (P, N) from the patches to small surfaces at `at` (P, 3) m facing `facing` (P, 3), unit."""
    return store.get(("probes", scene.shape, place_key(at, facing)), lambda: scene.factors(at, facing))


def first_hand(light: SceneLight, factors: Floats) -> Floats:
    """Light (P, 3) in lux after exactly one reflection from screen, floor run and wings."""
    patches = light.scene.patches
    own = patches.of(*SCREEN_NAMES)
    return np.asarray(factors[:, own] @ (light.direct * patches.reflectance)[own])


def by_surface(light: SceneLight, factors: Floats) -> dict[str, Floats]:
    """Light (P, 3) in lux that arrives from each surface after all reflections, by its name."""
    patches = light.scene.patches
    apart = light.leaving[:, None, :] * patches.membership[:, :, None]
    count, groups = patches.membership.shape
    parts = (factors @ apart.reshape(count, groups * 3)).reshape(len(factors), groups, 3)
    return {name: parts[:, i] for i, name in enumerate(patches.names)}


@dataclass(frozen=True, eq=False)
class ProbeLight:
    """Light (3,) in lux on a small surface: from lamps and around, all of it, and first-hand from the screen."""

    direct: Floats
    total: Floats
    from_screen: Floats


def probe_all(plan: Plan, at: Floats, facing: Floats, light: SceneLight, store: BasisStore) -> ProbeLight:
    """Light on a small surface at `at` (3,) m that faces `facing` (3,); the figure does not block.

    Raises ValueError for a facing of length zero.
    """
    direct = probe_light(plan, at, facing, store)
    factors = probe_factors(light.scene, at[None, :], unit(facing)[None, :], store)
    return ProbeLight(direct, direct + (factors @ light.leaving)[0], first_hand(light, factors)[0])
