"""What lamps' heads, black cards, hide of the light that comes back from a set: for pictures."""

from __future__ import annotations

import numpy as np

from ..geometry.vectors import Floats, Ints, cross, dot, unit
from ..plan import Light, Plan
from .basis import BasisStore
from .factors import patch_factors
from .keys import place_key, together
from .lamp_bodies import body_of
from .returned import SceneLight

TOWARD, MUCH = 0.6, 0.1
"""What a card hides is looked at through its middle, and, where that is much of all, so far from there to each of its
corners."""


def left_by_cards(plan: Plan, points: Floats, facing: Floats, store: BasisStore) -> Floats:
    """Share (P,) of light that is even all round that lamps' cards leave to places (P, 3) that face `facing` (P, 3),
    unit."""
    ground = together("cards", place_key(points, facing))
    hidden = store.each_lamp(plan, ground, lambda lamp: _hidden(_ends(plan, lamp, store), points, facing))
    return np.asarray(np.prod([np.ones(len(points)), *(1.0 - one for one in hidden)], axis=0))


def returned_past_cards(
    plan: Plan, light: SceneLight, factors: Floats, points: Floats, facing: Floats, store: BasisStore
) -> Floats:
    """Light (P, 3) in lux that comes back from the patches of a scene, known by `factors` (P, N), to places (P, 3)
    that face `facing` (P, 3), less what comes from behind the cards."""
    leaving = light.leaving
    found = factors @ leaving
    if not len(leaving):
        return np.asarray(found)
    ground = together("behind cards", light.scene.shape, place_key(points, facing))
    hidden = store.each_lamp(plan, ground, lambda lamp: _behind(plan, lamp, light, factors, points, facing, store))
    for one in hidden:
        share, *behind = one
        for which in behind:
            found -= share[:, None] / len(behind) * leaving[which.astype(np.int64)]
    return np.asarray(np.clip(found, 0.0, None))


def _behind(
    plan: Plan, lamp: Light, light: SceneLight, factors: Floats, points: Floats, facing: Floats, store: BasisStore
) -> Floats:
    """How much a lamp's card hides (P,), and numbers of patches that lie behind it: together (1 + K, P)."""
    ends = _ends(plan, lamp, store)
    if not len(ends):
        return np.zeros((2, len(points)))
    hidden, middle = _hidden(ends, points, facing), ends.mean(axis=0)
    patches, key = light.scene.patches.corners.mean(axis=1), place_key(points, facing)
    # What sends nothing here is not what is seen there: it is as if at no end.
    away = store.get(("away", light.scene.shape, key), lambda: _away(patches, points, factors))
    seen = _seen_along(middle, patches, points, away)
    behind = np.repeat(seen[None, :], 1 + len(ends), axis=0)
    (much,) = np.nonzero(hidden > MUCH)
    if len(much):
        for row, corner in zip(behind[1:], ends, strict=True):
            row[much] = _seen_along(middle + TOWARD * (corner - middle), patches, points[much], away[much])
    return np.vstack([hidden, behind])


def _away(patches: Floats, points: Floats, factors: Floats) -> Floats:
    """One over the distance (P, N) of patches (N, 3) from places (P, 3); less than 0 where they send nothing."""
    squares = np.square(points[:, None, :] - patches).sum(axis=2)
    return np.where(factors > 0.0, 1.0 / np.sqrt(np.maximum(squares, 1e-9)), -1.0)


def _seen_along(toward: Floats, patches: Floats, points: Floats, away: Floats) -> Ints:
    """Which patch (P,) is nearest to the direction of `toward` (3,), of those (N, 3) that send something here."""
    way = unit(toward - points)
    along = way @ patches.T - dot(way, points)[:, None]
    return np.asarray(np.where(away > 0.0, along * away, -2.0).argmax(axis=1))


def _ends(plan: Plan, lamp: Light, store: BasisStore) -> Floats:
    """Corners (4, 3) of a lamp's card in order; none (0, 3) where it has none."""
    card = np.zeros(0) if lamp.is_daylight else body_of(plan, lamp, store).card
    return np.array([*card[0], card[1, 2]]) if len(card) else np.zeros((0, 3))


def _hidden(ends: Floats, points: Floats, facing: Floats) -> Floats:
    """Share (P,) of what places see that a card (4, 3) takes, from either side."""
    if not len(ends):
        return np.zeros(len(points))
    card = ends[None]
    across = cross(card[:, 2] - card[:, 0], card[:, 3] - card[:, 1])
    outward, areas = unit(across), 0.5 * np.linalg.norm(across, axis=1)
    front = patch_factors(points, facing, card, outward, areas)
    return np.asarray((front + patch_factors(points, facing, card[:, ::-1], -outward, areas))[:, 0])
