"""Light on every place of the figure: each lamp's, with the body's own shadow, and what comes back of the set.

A lamp's face is taken as a few small sources. What the body keeps from each is read from its depth as that source
sees it; flags and screen as everywhere. What returns is known by direction at a few places round the body, in
spherical harmonics, and meets there what each place of the body sees past the body.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from ..camera.view import View, view_key
from ..figure.solid_body import PARTS, BodyShape, SolidBody, solid_body
from ..geometry.harmonics import COSINE, harmonics
from ..geometry.vectors import Bools, Floats, Floats32, Ints, dot, evenly_round, put_rows
from ..plan import Light, Plan, people_of
from ..remembered.shelf import Shelf, remembered
from .basis import BasisStore
from .blocked import blocked_grid
from .body_depth import KEPT, SUN_FROM, lit, look, within_reach
from .body_itself import sent_to_itself, zone_places
from .emission import Emission, emission_of
from .few_sources import few_sources
from .figure_shadow import figure_of
from .keys import blocking_key, together
from .mix import ambient_rgb, summed
from .occlusion import set_triangles
from .others_shade import left_up_body
from .past_cards import returned_past_cards
from .returned import SceneLight

LIFT = 0.002
"""A place is asked for its own shadow from a little above the surface, m."""
AWAY = np.array([{"hair": -0.6, "moving sleeve": -0.35, "moving hand": -0.35}.get(part, 1.0) for part in PARTS])
"""By part: places that face farther from the lens than that, as a cosine, and belong to nothing that faces it, are
never seen and get no light. Loose strands stand round hair, and what moves shows more of itself."""
BESIDE = 0.05
BROAD = 14
"""Exponent of the gloss of skin and cloth: broad."""
ONE = np.ones(1, dtype=np.float32)
ROUND = 18
HEIGHTS, SIDES, AHEAD = (0.06, 0.35, 0.65, 0.92), (-0.15, 0.15), 0.06
"""Where returned light is asked for round the body: shares of stature up, aside, and toward the camera."""


@dataclass(frozen=True, eq=False)
class BodyLight:
    """Light (V, 3) in lux on the places of a body, and what of it comes back as gloss where a surface sends all of
    it that way (V, 3); there is none but of `known` (S,). `around` (9, 3): what surrounds it, as harmonics in its own
    axes, pi times the radiance."""

    body: SolidBody
    known: Ints
    lux: Floats32
    gloss: Floats32
    around: Floats32

    @cached_property
    def both(self) -> Floats32:
        """Light and gloss (V, 6) side by side."""
        return np.concatenate([self.lux, self.gloss], axis=1).astype(np.float32)


def body_light(plan: Plan, body: SolidBody, view: View, light: SceneLight, store: BasisStore) -> BodyLight:
    """Of all lamps as they are dimmed, of the surroundings, what returns, and what the body sends itself. Most places
    that cannot be seen stay dark."""
    shown = _shown_of(body, view)
    seen = shown.rows
    lux, gloss = np.zeros((2, len(body.places), 3), dtype=np.float32)
    radiance = _radiance(plan, body, light, store)
    own = _around(shown, radiance)
    if plan.lights and len(seen):

        def of(lamp: Light) -> Floats:
            emission = emission_of(lamp, plan)
            found = _lamp(emission, body, seen, view.lens, set_triangles(plan))
            if plan.companions:
                found *= left_up_body(plan, emission, body.places[:, 1].take(seen).astype(np.float64))
            return found

        others = tuple(figure_of(one) for one in plan.companions)
        ground = together("body", body.key, view_key(view), others, blocking_key(plan))
        both = summed(plan, np.stack(store.each_lamp(plan, ground, of))).astype(np.float32)
        own += both[0]
        put_rows(gloss, seen, both[1])
    put_rows(lux, seen, own)
    if plan.subject is not None:
        put_rows(lux, seen, own + sent_to_itself(plan.subject, body.shape, lux).take(seen, axis=0))
    return BodyLight(body, seen, lux, gloss, np.float32(np.pi) * radiance.mean(axis=0))


def shadow_on(body: SolidBody, lamp: Emission, places: Floats) -> Floats:
    """Share (P,) of a lamp's light that the body keeps off places (P, 3)."""
    sources, shares = _sources(lamp, body)
    kept, rows = np.zeros(len(places)), within_reach(body, sources, places)
    if not len(rows):
        return kept
    look(body, sources)
    asked = np.ascontiguousarray(places[rows].T, dtype=np.float32)
    for at, share in zip(sources, shares, strict=True):
        kept[rows] += share * (1.0 - lit(body, asked, at))
    return kept


def looked_from_lamps(plan: Plan) -> None:
    """Works out ahead what every lamp sees of everybody: what they keep from it hangs on no evaluation. Of so many
    that they would not be kept until they are asked for it does nothing."""
    bodies = [solid_body(subject, plan.camera) for subject in people_of(plan)]
    looks = [(body, _sources(emission_of(lamp, plan), body)[0]) for body in bodies for lamp in plan.lights]
    if sum(len(sources) for _, sources in looks) <= KEPT:
        for body, sources in looks:
            look(body, sources)


@dataclass(frozen=True, eq=False)
class _Shown:
    """Places (S,) that get light; their sight (S, harmonics), and their weights (S, nodes) among where returned light
    is asked for."""

    rows: Ints
    sight: Floats32
    among: Floats32


_SHOWN: Shelf[_Shown] = Shelf(4)


def places_shown(body: SolidBody, view: View) -> Ints:
    """Places (S,) of a body that get light for a picture."""
    return _shown_of(body, view).rows


def _shown_of(body: SolidBody, view: View) -> _Shown:
    return _SHOWN.get((body.key, view_key(view)), lambda: _shown(body, view))


def _shown(body: SolidBody, view: View) -> _Shown:
    """Places in the picture, or just beside it, that may face the camera, and those that stand for zones of the
    body."""
    frame, _ = view.project(body.places.astype(np.float64))
    inside = np.all((frame > -BESIDE) & (frame < 1.0 + BESIDE), axis=1)
    way = view.lens.astype(np.float32) - body.places
    cosine = dot(way, body.facing) / np.sqrt(dot(way, way))
    asked = inside & (body.turned_to(view.lens) | (cosine > AWAY[body.shape.part]))
    asked[zone_places(body.shape).places] = True
    rows = np.flatnonzero(asked)
    return _Shown(rows, body.shape.sight.take(rows, axis=0), _among(body.shape).take(rows, axis=0))


def _lamp(lamp: Emission, body: SolidBody, seen: Ints, eye: Floats, occluders: Floats) -> Floats:
    """Light (S,) in lux at full power, and gloss (S,), on the places that are seen."""
    sources, shares = _sources(lamp, body)
    look(body, sources)
    (facing,) = np.nonzero(_facing_any(sources, body.places.take(seen, axis=0), body.facing.take(seen, axis=0)))
    found = np.zeros((2, len(seen)))
    found[:, facing] = _arriving(lamp, sources, shares, body, seen[facing], eye, occluders)
    return found


def _facing_any(sources: Floats, places: Floats32, facing: Floats32) -> Bools:
    """Which places (S,) may face any of a lamp's sources."""
    middle = sources.mean(axis=0)
    half = float(np.linalg.norm(sources - middle, axis=1).max())
    return np.asarray(dot(middle.astype(np.float32) - places, facing) > -half)


def _arriving(
    lamp: Emission, sources: Floats, shares: Floats, body: SolidBody, rows: Ints, eye: Floats, occluders: Floats
) -> Floats:
    """Light and gloss (2, R) on some places."""
    at = body.places.take(rows, axis=0)
    places, facing = np.ascontiguousarray(at.T), np.ascontiguousarray(body.facing.take(rows, axis=0).T)
    asked = places + np.float32(LIFT) * facing
    view = eye.astype(np.float32)[:, None] - places
    view /= _length(view)
    if len(lamp.leaves):
        occluders = np.concatenate([occluders, lamp.leaves])
    hidden = blocked_grid(at.astype(np.float64), sources, occluders) if len(occluders) else None
    found = np.zeros((2, len(rows)), dtype=np.float32)
    for i, (source, share) in enumerate(zip(sources, shares, strict=True)):
        to = source.astype(np.float32)[:, None] - places
        r = _length(to)
        to /= r
        cosine = np.clip(_along(to, facing), 0.0, None)
        if lamp.normal_lux is not None:
            strength = np.full(len(rows), lamp.normal_lux, dtype=np.float32)
        else:
            strength = np.float32(share) * lamp.candela(-to, ONE) / (r * r)
        arriving = strength * cosine * lit(body, asked, source)
        if hidden is not None:
            arriving *= ~hidden[:, i]
        half = to + view
        half /= _length(half)
        # Blinn's lobe, scaled to send back what arrives (Akenine-Moeller et al., Real-Time Rendering, 9.8).
        lobe = (BROAD + 8.0) / 8.0 * np.clip(_along(half, facing), 0.0, None) ** BROAD
        found[0] += arriving
        found[1] += arriving * lobe
    return lamp.filmed(found.astype(np.float64), places[2].astype(np.float64))


def _length(ways: Floats32) -> Floats32:
    return np.asarray(np.sqrt(_along(ways, ways)))


def _along(a: Floats32, b: Floats32) -> Floats32:
    return np.asarray(a[0] * b[0] + a[1] * b[1] + a[2] * b[2])


def _sources(lamp: Emission, body: SolidBody) -> tuple[Floats, Floats]:
    """Places (S, 3) that stand for a lamp, and their shares (S,) of its light."""
    if lamp.normal_lux is not None:
        return (body.middle - SUN_FROM * lamp.face.axis)[None, :], np.ones(1)
    return few_sources(lamp.face, body.middle)


def _radiance(plan: Plan, body: SolidBody, light: SceneLight, store: BasisStore) -> Floats32:
    """Harmonics (nodes, 9, 3) of the surroundings and what returns, at the places round the body."""
    ways = evenly_round(ROUND)
    facing = ways @ body.mark.turn.T
    at = body.mark.at(np.array([[side, up, AHEAD] for up in HEIGHTS for side in SIDES]))
    places, normals = np.repeat(at, len(ways), axis=0), np.tile(facing, (len(at), 1))
    factors = store.get(("round body", body.key, light.scene.shape), lambda: light.scene.factors(places, normals))
    arriving = returned_past_cards(plan, light, factors, places, normals, store)
    arriving = arriving.reshape(len(at), len(ways), 3) + ambient_rgb(plan, facing)
    # Least squares: light by direction as radiance in nine harmonics.
    return np.asarray(np.einsum("kw,nwc->nkc", _to_radiance(), arriving), dtype=np.float32)


def _around(shown: _Shown, radiance: Floats32) -> Floats32:
    """Light (S, 3) in lux of the surroundings on the places that are seen, past the body."""
    channels = [dot(shown.among, shown.sight @ radiance[..., i].T) for i in range(3)]
    return np.clip(np.stack(channels, axis=1), 0.0, None)


@lru_cache(maxsize=1)
def _to_radiance() -> Floats:
    return np.asarray(np.linalg.pinv(harmonics(evenly_round(ROUND)) * COSINE))


@remembered(8)
def _among(shape: BodyShape) -> Floats32:
    """Weights (V, nodes) of each place among where returned light is asked for: linear."""
    up = np.stack([np.interp(shape.own[:, 1], HEIGHTS, row) for row in np.eye(len(HEIGHTS))])
    aside = np.stack([np.interp(shape.own[:, 0], SIDES, row) for row in np.eye(len(SIDES))])
    return np.ascontiguousarray(
        (up[:, None] * aside[None]).reshape(len(HEIGHTS) * len(SIDES), -1).T, dtype=np.float32
    )
