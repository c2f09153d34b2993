"""A screen that clips brought below white: by its lamps, by the aperture, by a filter."""

from __future__ import annotations

import math

import numpy as np

from ...camera.level_schools import key_channel
from ...damage.formula import colour_difference
from ...evaluation.results import Evaluation
from ...geometry.vectors import Floats
from ...plan import edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Proposal
from ..steps import SMALLEST, third_stop
from .camera_moved import filtered_by
from .surfaces_changed import dimmed_screen

BELOW_WHITE = 0.85
"""Of white: how bright the key channel is proposed to be."""
SHARES = (0.5, 0.75, 0.9, 0.97)
"""Of the judged screen that is brought there: its median, or as much of it as has to be where a part of it burns."""


def below_white(evaluation: Evaluation) -> list[Proposal]:
    """Less light on the screen, or in the camera, until hardly any of the key's colour clips."""
    plan, factor = evaluation.plan, _factor(evaluation)[0]
    f_number = third_stop(plan.camera.f_number / factor**0.5)
    found = dimmed_screen(evaluation, factor) if factor < 1.0 else []
    if f_number <= SMALLEST and f_number > plan.camera.f_number:
        text = tell("do/aperture", to=f_number, was=plan.camera.f_number)
        found.append(Proposal(text, (edit.camera.f_number(f_number),), tell("cost/subject-level")))
    whole_stops = float(math.ceil(-math.log2(factor)))
    return [*found, *filtered_by(plan, -whole_stops, tell("cost/subject-level"))]


def burns_in_part(evaluation: Evaluation) -> bool:
    """Does a part of the screen clip that its median tells nothing of?"""
    return _factor(evaluation)[1] > SHARES[0]


def _factor(evaluation: Evaluation) -> tuple[float, float]:
    """By how much less light hardly anything clips, and how much of the screen has to be brought below white."""
    screen = evaluation.plan.screen
    key = key_channel(screen.hue, np.array(screen.reflectance))
    linear = np.concatenate([one.linear[one.judged] for one in evaluation.screen_maps])
    levels = np.sort(linear[:, key])
    factor, share = 1.0, SHARES[0]
    for share in SHARES:
        factor = min(1.0, BELOW_WHITE / max(_quantile(levels, share), 1e-6))
        if _lost(factor * linear, key) <= LIMITS["key.clipping"].at:
            break
    return factor, share


def _lost(linear: Floats, key: int) -> float:
    """Share in % of the median colour difference that clipping takes."""
    whole, shown = (np.sort(colour_difference(light, key)) for light in (linear, np.minimum(linear, 1.0)))
    return 100.0 * (1.0 - _quantile(shown, 0.5) / max(_quantile(whole, 0.5), 1e-6))


def _quantile(ordered: Floats, share: float) -> float:
    """NumPy's own loads its masked arrays, which takes longer than a trial."""
    at = share * (len(ordered) - 1)
    low, high = math.floor(at), math.ceil(at)
    return float(ordered[low] + (at - low) * (ordered[high] - ordered[low]))
