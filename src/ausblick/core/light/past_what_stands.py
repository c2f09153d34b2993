"""What lamps' heads and people take of the light that a set sends to and fro: for pictures. The numbers leave it out.

Heads are black, and every time light crosses a room they take their share: in a bright room light crosses it many
times. Behind a person floor and screen lie in their shadow, and send the less.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..figure.body_ink import GREY
from ..geometry.vectors import Floats
from ..plan import Plan, people_of
from .basis import BasisStore
from .figure_shadow import SKY_FAR, figures_of, left_of_round, lost_by_lamp
from .keys import place_key
from .mix import coloured
from .past_cards import left_by_cards
from .patches import Patches
from .radiosity import lamps_on_patches
from .returned import SceneLight

LEAST = 0.3
"""A patch right behind a lamp's head still sees that much."""
TIMES = 3
"""They take a few hundredths at each crossing: each time round what is left over is as much less again."""


def past_what_stands(plan: Plan, light: SceneLight, store: BasisStore) -> SceneLight:
    """Light on the patches of a scene where what lamps and patches send meets who and what stands in the room.

    With E = D + F (rho E) as it is known, and v what each patch sees past all that, E' = D' + v F (rho E') is found
    from E by as many steps as change nothing that is seen.
    """
    if not len(light.incident):
        return light
    scene, left = light.scene, _left(plan, light.scene.patches, store)
    kept_off = _kept_off(plan, light, store)
    direct, taken = light.direct - kept_off, 1.0 / left - 1.0
    found = light.incident
    for _ in range(TIMES):
        found = light.incident - scene.incident(kept_off + taken * np.clip(found - direct, 0.0, None))
    return replace(light, direct=direct, incident=np.maximum(found, direct))


def _left(plan: Plan, patches: Patches, store: BasisStore) -> Floats:
    """Share (N, 3) of what patches see that lamps' heads and people leave."""
    at, figures = patches.corners.mean(axis=1), figures_of(plan)
    left = left_by_cards(plan, at, patches.outward, store)[:, None]
    if figures:
        key = ("patches past people", figures, place_key(at, patches.outward))
        hidden = 1.0 - store.get(key, lambda: left_of_round(figures, at, patches.outward, SKY_FAR))
        left = left * (1.0 - hidden[:, None] * _keep(plan))
    return np.maximum(left, LEAST)


def _kept_off(plan: Plan, light: SceneLight, store: BasisStore) -> Floats:
    """Light (N, 3) of lamps that people keep off the patches."""
    patches = light.scene.patches
    if plan.subject is None or not plan.lights:
        return np.zeros_like(light.direct)
    lost = lost_by_lamp(plan, patches.corners.mean(axis=1), patches.outward, store)
    return np.asarray((lost * np.stack(lamps_on_patches(light.scene, plan, store))).T @ coloured(plan) * _keep(plan))


def _keep(plan: Plan) -> Floats:
    """Share (3,) of what meets people that they keep: the rest is in the room still."""
    cloth = [worn for one in people_of(plan) for worn in (one.worn_above, one.worn_below)]
    worn = [GREY if one is None else one.reflectance for one in cloth]
    return np.asarray(1.0 - np.mean(worn, axis=0))
