"""What other people in the picture keep off somebody's face and body: who stands in whose light."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats
from ..plan import Light, Plan, Subject, name_of
from .basis import BasisStore
from .emission import Emission, emission_of
from .figure_shadow import DRAWN, figure_of, lost_share
from .keys import blocking_key, place_key, together
from .mix import ambient_rgb, coloured, dimmed, probes_by_lamp, summed
from .occlusion import set_triangles

COLUMN = 12
"""Places up a body at which it is asked what others keep off it; between them it is linear."""


@dataclass(frozen=True)
class OthersShade:
    """Who (`by`) keeps how much of a face's lamp light off it, in %, and the lamp most of it is of."""

    percent: float
    by: str
    lamp: str


def kept_off(plan: Plan, person: Subject, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Share (L, P) of each lamp's light on P small surfaces that one person keeps off them.

    at (P, 3) m; facing (P, 3), unit length.
    """
    figure, occluders = figure_of(person), set_triangles(plan)

    def of(lamp: Light) -> Floats:
        return lost_share(emission_of(lamp, plan), figure, at, facing, occluders, DRAWN)

    rows = store.each_lamp(plan, together("in light", place_key(at, facing), figure, blocking_key(plan)), of)
    return np.stack(rows) if rows else np.zeros((0, len(at)))


def left_by_others(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Share (L, P) of each lamp's light that all companions leave; what two take is taken by each from the rest."""
    left = np.ones((len(plan.lights), len(at)))
    for one in _companions(plan):
        left *= 1.0 - kept_off(plan, one, at, facing, store)
    return left


def probes_among_others(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Direct light (P, 3) in lux on P small surfaces of the subject, ambient in it, less what companions keep off."""
    direct = probes_by_lamp(plan, at, facing, store)
    if _companions(plan):
        direct = direct * left_by_others(plan, at, facing, store)
    return np.asarray(summed(plan, direct) + ambient_rgb(plan, facing))


def taken_by_others(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Light (L, 3) in lux of each lamp, as it is dimmed, that companions keep off one small surface.

    at (3,) m; facing (3,), unit length.
    """
    if not _companions(plan) or not plan.lights:
        return np.zeros((len(plan.lights), 3))
    places = at[None, :], facing[None, :]
    taken = probes_by_lamp(plan, *places, store) * (1.0 - left_by_others(plan, *places, store))
    return np.asarray(coloured(plan) * taken)


def left_up_body(plan: Plan, lamp: Emission, heights: Floats) -> Floats:
    """Share (N,) of a lamp's light that companions leave on the subject at heights (N,) m, in the body's middle."""
    left = np.ones(len(heights))
    if plan.subject is None or not plan.companions:
        return left
    column = np.linspace(0.0, plan.subject.top, COLUMN)
    at = np.stack([np.full(COLUMN, plan.subject.x), column, np.full(COLUMN, plan.subject.z)], axis=1)
    way = np.broadcast_to(-lamp.face.axis, at.shape) if lamp.normal_lux is not None else lamp.face.centre - at
    toward = way / np.maximum(np.linalg.norm(way, axis=1), 1e-6)[:, None]
    for one in plan.companions:
        lost = lost_share(lamp, figure_of(one), at, toward, set_triangles(plan), DRAWN)
        left *= 1.0 - np.interp(heights, column, lost)
    return left


def shade_of_others(plan: Plan, at: Floats, facing: Floats, store: BasisStore) -> OthersShade | None:
    """On the subject's face, (3,) each; None without companions or lamps that reach it."""
    if not _companions(plan) or not plan.lights:
        return None
    places = at[None, :], facing[None, :]
    lux = dimmed(plan, probes_by_lamp(plan, *places, store))[:, 0]
    if not lux.sum() > 0.0:
        return None
    taken = [(lux * kept_off(plan, one, *places, store)[:, 0], one) for one in _companions(plan)]
    most, who = max(taken, key=lambda each: float(each[0].sum()))
    lamp = plan.lights[int(np.argmax(most))]
    return OthersShade(100.0 * float(most.sum() / lux.sum()), name_of(who), lamp.name)


def _companions(plan: Plan) -> tuple[Subject, ...]:
    return () if plan.subject is None else plan.companions
