"""Light sent back and forth between all surfaces: E = D + F (rho E).

D is what lamps put on each patch, F the share of each patch's light that arrives at every other one.
F depends on the set's geometry alone and is kept, solved for the set's inks (exchange.py), in a `Scene`; a dimmer is
a weight, and a moved lamp one more product. Method: Goral et al. (SIGGRAPH 1984), with configuration factors from the
middle of each receiving patch.
"""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass
from functools import partial

import numpy as np

from ..camera.pane_film import PaneFilm, film_of
from ..geometry.vectors import Floats, Floats32
from ..plan import Light, Plan
from .basis import BasisStore
from .blocked import blocked_grid
from .direct import direct_lux, direct_lux_on
from .emission import emission_of
from .exchange import Exchange, among_neutral, exchange_of, neutral_inks
from .factors import patch_factors
from .keys import StoreKey, blocking_key, lamp_key, place_key, scene_key, together
from .occlusion import set_triangles
from .patches import Patches, patches_of

CORNERS_SEEN = 0.35
"""Rays toward a patch end this far from its middle toward its corners, as a share of the way."""


@dataclass(frozen=True, eq=False)
class Scene:
    """A set's geometry, ready for any light: patches, what blocks, film on a pane, and the `exchange` between
    patches. `key` tells it from others, `shape` from those of other shapes: what light meets on its way does not
    depend on inks."""

    key: Hashable
    shape: Hashable
    patches: Patches
    occluders: Floats
    film: PaneFilm | None
    exchange: Exchange

    def factors(self, points: Floats, normals: Floats, rays: int = 4) -> Floats:
        """Factors (P, N) from the patches to elements, with what stands between taken away."""
        p = self.patches
        found = patch_factors(points, normals, p.corners, p.outward, p.areas)
        return _filmed(_unhidden(found, points, p.corners, self.occluders, rays), self.film, points, p.corners)

    def incident(self, direct: Floats) -> Floats:
        """All light (N, 3) in lux on the patches from the direct light, in three channels (N, 3) or alike in all of
        them (N, 1)."""
        if not len(direct):
            return np.zeros((0, 3))
        return self.exchange.incident(direct)


def scene_of(plan: Plan, store: BasisStore) -> Scene:
    """The scene of a plan; the store remembers it by room, screen's shape and ink, and flags."""
    key = scene_key(plan)
    return store.scene(key, partial(_scene, key, plan, store))


def _scene(key: Hashable, plan: Plan, store: BasisStore) -> Scene:
    patches, film, occluders = patches_of(plan), film_of(plan), set_triangles(plan)
    centres = patches.corners.mean(axis=1)

    def factors() -> Floats32:
        found = patch_factors(centres, patches.outward, patches.corners, patches.outward, patches.areas)
        found = _unhidden(found, centres, patches.corners, occluders, rays=1)
        return _filmed(found, film, centres, patches.corners).astype(np.float32)

    shape = together("shape", place_key(patches.corners), blocking_key(plan), plan.window)
    inks = neutral_inks(patches.reflectance)
    neutral = together("neutral", shape, place_key(inks))
    among = store.scene(neutral, lambda: among_neutral(store.scene(("factors", shape), factors), inks))
    return Scene(key, shape, patches, occluders, film, exchange_of(among, patches.reflectance))


def _filmed(factors: Floats, film: PaneFilm | None, points: Floats, corners: Floats) -> Floats:
    """Factors (P, N) less what a film on a window's pane takes on the way from patches (N, 4, 3)."""
    if film is None:
        return factors
    return np.asarray(factors * film.through(points[:, None, 2], corners[None, :, :, 2].mean(axis=2)))


def _unhidden(factors: Floats, points: Floats, corners: Floats, occluders: Floats, rays: int) -> Floats:
    """The factors with the share of each patch that is hidden taken away, by one or four rays."""
    if not len(occluders):
        return factors
    centres = corners.mean(axis=1)
    if rays == 1:
        return factors * ~blocked_grid(points, centres, occluders)
    toward = [centres + 2.0 * CORNERS_SEEN * (corners[:, i] - centres) for i in range(4)]
    hidden = sum(blocked_grid(points, each, occluders).astype(np.uint8) for each in toward)
    return np.asarray(factors * (1.0 - 0.25 * hidden))


def lamps_on_patches(scene: Scene, plan: Plan, store: BasisStore) -> list[Floats]:
    """Direct light (N,) in lux of each lamp at full power on every patch, as its mean over four places."""
    return store.each_lamp(plan, _on_patches(scene, plan), partial(_lamp_on_patches, scene, plan, store))


def _on_patches(scene: Scene, plan: Plan) -> StoreKey:
    return together("patches", scene.shape, plan.screen.transmittance)


def _lamp_on_patches(scene: Scene, plan: Plan, store: BasisStore, lamp: Light) -> Floats:
    """What the cloth lets through is a share of what is known of its back, so that other cloth costs no light."""
    key = lamp_key(plan, lamp)
    lux = store.get(("before", scene.shape, key), partial(_before, scene, plan, lamp))
    own = scene.patches.of("screen")
    if plan.screen.transmittance == 0.0 or not own.any():
        return lux
    back = store.get(("behind", scene.shape, key), partial(_behind, scene, plan, lamp))
    return lux + plan.screen.transmittance * back if back.any() else lux


def _before(scene: Scene, plan: Plan, lamp: Light) -> Floats:
    lux = direct_lux_on(emission_of(lamp, plan), *scene.patches.samples, scene.occluders, most=3)
    return np.asarray(lux.reshape(-1, 4).mean(axis=1))


def _behind(scene: Scene, plan: Plan, lamp: Light) -> Floats:
    """On the back of the screen's patches (N,), and nothing on others."""
    own, lux = scene.patches.of("screen"), np.zeros(len(scene.patches.areas))
    back = np.array([0.0, 0.0, -1.0])
    lux[own] = direct_lux(emission_of(lamp, plan), scene.patches.corners[own].mean(axis=1), back, scene.occluders)
    return lux


def lamps_incident(scene: Scene, plan: Plan, store: BasisStore) -> list[Floats]:
    """All light (N, 3) in lux on the patches that each lamp, white and at full power, causes, in three channels."""

    def of(lamp: Light) -> Floats:
        key = (_on_patches(scene, plan), lamp_key(plan, lamp))
        direct = store.get(key, partial(_lamp_on_patches, scene, plan, store, lamp))
        return scene.incident(direct[:, None])

    return store.each_lamp(plan, together("incident", scene.key, plan.screen.transmittance), of)
