"""A screen that clips brought below white: by its lamps, by the aperture, by a filter."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ...camera.level_schools import key_channel
from ...damage.formula import Formula, colour_difference
from ...evaluation.results import Evaluation
from ...geometry.vectors import Floats
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Proposal
from .camera_moved import aperture_by, filtered_by
from .surfaces_changed import dimmed_screen

BELOW_WHITE = 0.85
"""Of white: how bright the key channel is proposed to be."""
SHARES = (0.5, 0.75, 0.9, 0.97)
"""Of the judged screen that is brought there: its median, or as much of it as has to be where a part of it burns."""


@dataclass(frozen=True)
class Burning:
    """By which factor of light hardly anything clips; does a part of the screen burn that its median tells nothing
    of?"""

    factor: float
    in_part: bool


def burning(evaluation: Evaluation) -> Burning:
    """Of the judged screen."""
    screen = evaluation.plan.screen
    key = key_channel(screen.hue, np.array(screen.reflectance))
    formula = evaluation.damage.kinder.formula if evaluation.damage else "mean"
    linear = np.concatenate([one.linear[one.judged] for one in evaluation.screen_maps])
    levels = np.sort(linear[:, key])
    factor, share = 1.0, SHARES[0]
    for share in SHARES:
        factor = min(1.0, BELOW_WHITE / max(_quantile(levels, share), 1e-6))
        if _lost(factor * linear, key, formula) <= LIMITS["key.clipping"].at:
            break
    return Burning(factor, share > SHARES[0])


def below_white(evaluation: Evaluation, factor: float) -> list[Proposal]:
    """So much less light on the screen, or in the camera."""
    plan, missing, cost = evaluation.plan, math.log2(factor), tell("cost/subject-level")
    dimmed = dimmed_screen(evaluation, factor) if factor < 1.0 else []
    return [*dimmed, *aperture_by(plan, missing, cost), *filtered_by(plan, float(math.floor(missing)), cost)]


def _lost(linear: Floats, key: int, formula: Formula) -> float:
    """Share in % of the median colour difference that clipping takes."""
    whole, shown = (np.sort(colour_difference(light, key, formula)) for light in (linear, np.minimum(linear, 1.0)))
    return 100.0 * (1.0 - _quantile(shown, 0.5) / max(_quantile(whole, 0.5), 1e-6))


def _quantile(ordered: Floats, share: float) -> float:
    """NumPy's own loads its masked arrays, which takes longer than a trial."""
    at = share * (len(ordered) - 1)
    low, high = math.floor(at), math.ceil(at)
    return float(ordered[low] + (at - low) * (ordered[high] - ordered[low]))
