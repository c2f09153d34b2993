"""What people stand in the way of: not of light from everywhere alike, but of what they stand before.

Who stands between a screen and the floor takes more of the floor's light than its share of the sky would: the screen
is the brightest thing around.
"""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Plan
from .basis import BasisStore
from .figure_shadow import SKY_FAR, figures_of, left_of_round, solids_of
from .keys import place_key
from .returned import SceneLight, probe_factors
from .solids import Ways, hidden

LEAST = 0.1
"""Of places from which hardly anything is left to see, no more is said than of those that see so much."""


def beside_even_light(plan: Plan, points: Floats, facing: Floats, light: SceneLight, store: BasisStore) -> Floats:
    """How much of returned light people leave to places (P, 3) that face `facing` (P, 3), over what they leave of
    light that is even all round: (P, 3) in three channels."""
    figures = figures_of(plan)
    if not figures or not len(light.leaving):
        return np.ones((len(points), 3))
    key = place_key(points, facing)

    def left() -> Floats:
        ends = light.scene.patches.corners.mean(axis=1)
        begin = np.ascontiguousarray(points.T, dtype=np.float32)[:, :, None]
        way = np.ascontiguousarray(ends.T, dtype=np.float32)[:, None, :] - begin
        on = Ways(begin, way, np.sqrt(light.scene.patches.areas).astype(np.float32))
        return np.asarray(np.prod([1.0 - hidden(solid, on) for solid in solids_of(figures)], axis=0))

    factors = probe_factors(light.scene, points, facing, store)
    past = factors * store.get(("past people", figures, light.scene.shape, key), left)
    sky = store.get(("sky past people", figures, key), lambda: left_of_round(figures, points, facing, SKY_FAR))
    even = past.sum(axis=1) + np.clip(1.0 - factors.sum(axis=1), 0.0, None) * sky
    lit = (past @ light.leaving) / np.maximum(factors @ light.leaving, 1e-9)
    return np.asarray(np.maximum(lit, LEAST) / np.maximum(even, LEAST)[:, None])
