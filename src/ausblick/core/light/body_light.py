"""Light on every place of the figure: each lamp's, with the body's own shadow, and what comes back of the set.

A lamp's face is taken as a few small sources. What the body keeps from each is read from its depth as that source
sees it (Williams, Casting curved shadows on curved surfaces, SIGGRAPH 1978); flags and screen as everywhere. What
returns is known by direction at a few places round the body, in spherical harmonics, and meets there what each place
of the body sees past the body.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cached_property, lru_cache
from threading import Lock

import numpy as np

from ..camera.view import View, view_key
from ..figure.solid_body import PARTS, BodyShape, SolidBody
from ..geometry.harmonics import COSINE, harmonics
from ..geometry.raster import depth_picture
from ..geometry.vectors import Floats, Floats32, Ints, Ints32, evenly_round, unit
from ..plan import Light, Plan
from .basis import BasisStore, Shelf
from .body_itself import sent_to_itself, zone_places
from .emission import Emission, emission_of
from .emitters import Face
from .figure_shadow import figure_of
from .keys import blocking_key, together
from .mix import ambient_rgb, summed
from .occlusion import blocked_grid, set_triangles
from .others_shade import left_up_body
from .past_cards import returned_past_cards
from .quadrature import polygon_points
from .returned import SceneLight

LOOKS = (0.03, 0.2)
"""A lamp is one source, two by two, or three by three: by its half width over its distance."""
PICTURE, COARSER = 320, 160
"""Cells along each side of the body's depth as a lamp sees it, and as one of many directions of the sky does."""
CLEAR = 1.1
"""Times the body's reach: from nearer one picture does not hold it, and the source looks all round."""
ALL_ROUND, NEAREST = 240, 0.02
"""Cells along each side of the six pictures that look all round, and what is too near for them, m."""
LIFT, NEARER = 0.002, 0.008
"""A place is in the body's shadow where something lies so much nearer to the source, m; it is asked from a little
above the surface."""
TURNED_AWAY = -0.35
"""Places that face farther from the camera than that, as a cosine, are never seen and get no light."""
BESIDE = 0.05
BROAD = 14
"""Exponent of the gloss of skin and cloth: broad."""
CASTER = {"head": 0.004, "hand": 0.004, "moving hand": 0.004}
COARSE = 0.018
"""The body casts its shadow as a mesh with corners no closer than that share of stature."""
ONE = np.ones(1, dtype=np.float32)
SUN_FROM = 60.0
OVERHEAD = 48
"""Directions of the upper half space, each with as much of its light on a level place."""
ROUND = 18
HEIGHTS, SIDES, AHEAD = (0.06, 0.35, 0.65, 0.92), (-0.15, 0.15), 0.06
"""Where returned light is asked for round the body: shares of stature up, aside, and toward the camera."""


@dataclass(frozen=True, eq=False)
class BodyLight:
    """Light (V, 3) in lux on the places of a body, and what of it comes back as gloss where a surface sends all of
    it that way (V, 3). `around` (9, 3): what surrounds it, as harmonics in its own axes, pi times the radiance."""

    body: SolidBody
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
    seen = np.union1d(_seen(body, view), zone_places(body.shape).places)
    lux, gloss = np.zeros((2, len(body.places), 3), dtype=np.float32)
    radiance = _radiance(plan, body, light, store)
    lux[seen] = _around(body, seen, radiance)
    if plan.lights and len(seen):

        def of(lamp: Light) -> Floats:
            emission = emission_of(lamp, plan)
            found = _lamp(emission, body, seen, view.lens, set_triangles(plan))
            if plan.companions:
                found *= left_up_body(plan, emission, body.places[seen, 1].astype(np.float64))
            return found

        others = tuple(figure_of(one) for one in plan.companions)
        ground = together("body", body.key, view_key(view), others, blocking_key(plan))
        both = summed(plan, np.stack(store.each_lamp(plan, ground, of)))
        lux[seen] += both[0]
        gloss[seen] = both[1]
    if plan.subject is not None:
        lux[seen] += sent_to_itself(plan.subject, body.shape, lux)[seen]
    return BodyLight(body, lux, gloss, np.float32(np.pi) * radiance.mean(axis=0))


def shadow_on(body: SolidBody, lamp: Emission, places: Floats) -> Floats:
    """Share (P,) of a lamp's light that the body keeps off places (P, 3)."""
    sources, shares = _sources(lamp, body)
    _look(body, sources)
    asked = np.ascontiguousarray(places.T, dtype=np.float32)
    return np.asarray(sum(share * (1.0 - _lit(body, asked, at)) for at, share in zip(sources, shares, strict=True)))


def hidden_from_above(body: SolidBody, places: Floats) -> Floats:
    """Share (P,) of light from all of the upper half space that the body keeps off level places (P, 3)."""
    i = np.arange(OVERHEAD) + 0.5
    level, turn = np.sqrt(i / OVERHEAD), np.pi * (1.0 + np.sqrt(5.0)) * i
    ways = np.stack([level * np.cos(turn), np.sqrt(1.0 - level * level), level * np.sin(turn)], axis=1)
    suns = body.places.mean(axis=0).astype(np.float64) + SUN_FROM * ways
    _look(body, suns, COARSER)
    asked = np.ascontiguousarray(places.T, dtype=np.float32)
    return np.asarray(np.mean([1.0 - _lit(body, asked, sun, COARSER) for sun in suns], axis=0))


def _seen(body: SolidBody, view: View) -> Ints:
    """Places in the picture, or just beside it, that may face the camera."""
    frame, _ = view.project(body.places.astype(np.float64))
    inside = np.all((frame > -BESIDE) & (frame < 1.0 + BESIDE), axis=1)
    return np.flatnonzero(inside & (body.facing @ body.mark.turn[:, 2].astype(np.float32) > TURNED_AWAY))


def _lamp(lamp: Emission, body: SolidBody, seen: Ints, eye: Floats, occluders: Floats) -> Floats:
    """Light (V,) in lux at full power, and gloss (V,)."""
    places = np.ascontiguousarray(body.places[seen].T)
    facing = np.ascontiguousarray(body.facing[seen].T)
    asked = places + np.float32(LIFT) * facing
    view = eye.astype(np.float32)[:, None] - places
    view /= _length(view)
    sources, shares = _sources(lamp, body)
    _look(body, sources)
    if len(lamp.leaves):
        occluders = np.concatenate([occluders, lamp.leaves])
    hidden = blocked_grid(body.places[seen].astype(np.float64), sources, occluders) if len(occluders) else None
    found = np.zeros((2, len(seen)))
    for i, (source, share) in enumerate(zip(sources, shares, strict=True)):
        to = source.astype(np.float32)[:, None] - places
        r = _length(to)
        to /= r
        cosine = np.clip(_along(to, facing), 0.0, None)
        if lamp.normal_lux is not None:
            strength = np.full(len(seen), lamp.normal_lux)
        else:
            strength = share * lamp.candela(-to, ONE) / (r * r)
        arriving = strength * cosine * _lit(body, asked, source)
        if hidden is not None:
            arriving *= ~hidden[:, i]
        half = to + view
        half /= _length(half)
        # Blinn's lobe, scaled to send back what arrives (Akenine-Moeller et al., Real-Time Rendering, 9.8).
        lobe = (BROAD + 8.0) / 8.0 * np.clip(_along(half, facing), 0.0, None) ** BROAD
        found += arriving, arriving * lobe
    return lamp.filmed(found, places[2].astype(np.float64))


def _length(ways: Floats32) -> Floats32:
    return np.asarray(np.sqrt(_along(ways, ways)))


def _along(a: Floats32, b: Floats32) -> Floats32:
    return np.asarray(a[0] * b[0] + a[1] * b[1] + a[2] * b[2])


def _sources(lamp: Emission, body: SolidBody) -> tuple[Floats, Floats]:
    """Places (S, 3) that stand for a lamp's face, and their shares (S,) of its light: fewer where it looks small."""
    face = lamp.face
    middle = body.places.mean(axis=0).astype(np.float64)
    if lamp.normal_lux is not None:
        return (middle - SUN_FROM * face.axis)[None, :], np.ones(1)
    if face.area == 0.0:
        return face.centre[None, :], np.ones(1)
    away = float(np.linalg.norm(face.centre - middle))
    looks = float(np.linalg.norm(face.outline - face.centre, axis=1).max()) / max(away, 1e-6)
    order = 1 + int(np.searchsorted(LOOKS, looks))
    if len(face.outline) > 4:
        return _over_disc(face, order)
    places, areas = polygon_points(face.outline, order)
    return places, areas / face.area


def _over_disc(face: Face, order: int) -> tuple[Floats, Floats]:
    """Places of equal weight on a round face, along a sunflower's spiral (Vogel, 1979)."""
    count = order * order
    i = np.arange(count) + 0.5
    r, turn = np.sqrt(face.area / np.pi * i / count), np.pi * (3.0 - np.sqrt(5.0)) * i
    if count == 1:
        r = np.zeros(1)
    places = face.centre + (r * np.cos(turn))[:, None] * face.right + (r * np.sin(turn))[:, None] * face.up
    return places, np.full(count, 1.0 / count)


@dataclass(frozen=True, eq=False)
class _DepthSeen:
    """What a small source sees of a body: its axes (3, 3), half its picture's width at a distance of one, and how far
    the body is along its axis in each cell (N, N), inf where there is nothing of it."""

    axes: Floats32
    half: float
    depth: Floats32

    def lit(self, local: Floats32) -> Floats32:
        """Share (V,) of the source that reaches places (3, V) in its axes: soft over a cell."""
        cells, distance = len(self.depth), -local[2]
        scale = np.float32(cells / 2.0 / self.half) / distance
        middle_of = np.float32(cells / 2.0 - 0.5)
        x, y = local[0] * scale + middle_of, middle_of - local[1] * scale
        return _nearer(self.depth, x, y, distance - np.float32(NEARER))


_SEEN: dict[int, Shelf[tuple[_DepthSeen, ...]]] = {PICTURE: Shelf(96), COARSER: Shelf(240)}
"""By their cells: body, screen and floor ask for the shadow of the same sources; some 40 and 24 MB, and a few more
where a lamp is close."""
_LOOKING = Lock()


def _look(body: SolidBody, sources: Floats, cells: int = PICTURE) -> None:
    """Makes the pictures of the body that sources (S, 3) are asked for next, two at a time: a library draws them.
    Who asks for the same meanwhile waits for them."""
    with _LOOKING:
        new = [source for source in sources if _SEEN[cells].known((body.key, source.tobytes())) is None]
        if new:
            _reaches(body)
            with ThreadPoolExecutor(2) as both:
                list(both.map(lambda source: _seen_from(body, source, cells), new))


def _seen_from(body: SolidBody, source: Floats, cells: int) -> tuple[_DepthSeen, ...]:
    return _SEEN[cells].get((body.key, source.tobytes()), lambda: _depth_seen(body, source, cells))


def _lit(body: SolidBody, asked: Floats32, source: Floats, cells: int = PICTURE) -> Floats32:
    """Share (V,) of a small source that the body itself leaves to places (3, V)."""
    seen = _seen_from(body, source, cells)
    away = asked - source.astype(np.float32)[:, None]
    found = np.ones(asked.shape[1], dtype=np.float32)
    for one in seen:
        local = one.axes @ away
        aside, ahead = np.abs(local[:2]).max(axis=0), np.float32(-one.half) * local[2]
        within = np.flatnonzero(aside < ahead)
        if len(within) == len(found):
            return one.lit(local)
        found[within] = one.lit(local.take(within, axis=1))
    return found


def _depth_seen(body: SolidBody, source: Floats, cells: int) -> tuple[_DepthSeen, ...]:
    """One picture, or from near by those of six ways in which there is something of the body."""
    corners, middle, radius = _reaches(body)
    _, triangles = _caster(body.shape)
    away = float(np.linalg.norm(source - middle))
    toward = corners - source.astype(np.float32)
    if away < CLEAR * radius:
        ways = (_axes(sign * one) for one in np.eye(3) for sign in (1.0, -1.0))
        looks = (_one_way(toward, triangles, axes.astype(np.float32), away + radius) for axes in ways)
        return tuple(one for one in looks if one is not None)
    axes = _axes(unit(source - middle)).astype(np.float32)
    half = float(radius / np.sqrt(away * away - radius * radius))
    return (_DepthSeen(axes, half, _depth(toward @ axes.T, triangles, cells, half, (away - radius, away + radius))),)


def _one_way(toward: Floats32, triangles: Ints32, axes: Floats32, far: float) -> _DepthSeen | None:
    """What is seen a quarter of the way round; None where that is nothing of the body."""
    local = toward @ axes.T
    within = np.maximum(np.abs(local[:, 0]), np.abs(local[:, 1])) < -1.05 * local[:, 2]
    shown = triangles[within[triangles].any(axis=1) & (local[triangles, 2] < -NEAREST).all(axis=1)]
    if not len(shown):
        return None
    return _DepthSeen(axes, 1.0, _depth(local, shown, ALL_ROUND, 1.0, (NEAREST, far)))


def _depth(local: Floats32, triangles: Ints32, cells: int, half: float, span: tuple[float, float]) -> Floats32:
    depth = depth_picture(np.asarray(local, dtype=np.float32), triangles, (cells, cells), half, *span)
    # Where nothing of the body is seen nothing is in the way, however far.
    depth[depth > 0.999 * span[1]] = np.inf
    return depth


_REACHES: Shelf[tuple[Floats32, Floats, float]] = Shelf(8)


def _reaches(body: SolidBody) -> tuple[Floats32, Floats, float]:
    return _REACHES.get(body.key, lambda: _reach(body))


def _reach(body: SolidBody) -> tuple[Floats32, Floats, float]:
    """Corners (N, 3) of the mesh that casts its shadow, their middle (3,), and how far they reach from it, m."""
    corners = body.mark.at(_caster(body.shape)[0]).astype(np.float32)
    middle = 0.5 * (corners.min(axis=0) + corners.max(axis=0)).astype(np.float64)
    return corners, middle, float(np.linalg.norm(corners - middle, axis=1).max())


def _nearer(depth: Floats32, x: Floats32, y: Floats32, distance: Floats32) -> Floats32:
    """Share (V,) of the four cells round each place that are not nearer than `distance`, weighted by how near they
    are."""
    step = depth.shape[1]
    column, row = (np.clip(v, 0.0, step - 2.0).astype(np.int32) for v in (x, y))
    fx, fy = np.clip(x - column, 0.0, 1.0), np.clip(y - row, 0.0, 1.0)
    flat, at = depth.ravel(), row * step + column
    seen = [(np.take(flat, at + more) >= distance).astype(np.float32) for more in (0, 1, step, step + 1)]
    upper, lower = seen[0] + fx * (seen[1] - seen[0]), seen[2] + fx * (seen[3] - seen[2])
    return np.asarray(upper + fy * (lower - upper), dtype=np.float32)


def _axes(toward: Floats) -> Floats:
    """Rows right, up, and toward the eye."""
    right = np.cross([0.0, 1.0, 0.0] if abs(toward[1]) < 0.95 else [0.0, 0.0, 1.0], toward)
    right /= np.linalg.norm(right)
    return np.stack([right, np.cross(toward, right), toward])


@lru_cache(maxsize=4)
def _caster(body: BodyShape) -> tuple[Floats, Ints32]:
    """A coarser mesh of the body (corners in shares of stature, triangles): corners in one cell become their mean."""
    size = np.array([CASTER.get(name, COARSE) for name in PARTS], dtype=np.float32)[body.part]
    cell = np.floor(body.own / size[:, None]).astype(np.int64) + 1024
    coded = (body.part.astype(np.int64) << 36) + (cell[:, 0] << 24) + (cell[:, 1] << 12) + cell[:, 2]
    _, which = np.unique(coded, return_inverse=True)
    count = np.bincount(which)
    corners = np.stack([np.bincount(which, weights=body.shares[:, i]) / count for i in range(3)], axis=1)
    triangles = which[body.triangles]
    kept = (triangles[:, 0] != triangles[:, 1]) & (triangles[:, 1] != triangles[:, 2])
    kept &= triangles[:, 0] != triangles[:, 2]
    return corners, triangles[kept].astype(np.int32)


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


def _around(body: SolidBody, seen: Ints, radiance: Floats32) -> Floats32:
    """Light (S, 3) in lux of the surroundings on the places that are seen, past the body."""
    weights, sight = _among(body.shape.own[seen]), body.shape.sight[seen]
    found = np.zeros((len(seen), 3), dtype=np.float32)
    for weight, own in zip(weights, radiance, strict=True):
        found += weight[:, None] * (sight @ own)
    return np.clip(found, 0.0, None)


@lru_cache(maxsize=1)
def _to_radiance() -> Floats:
    return np.asarray(np.linalg.pinv(harmonics(evenly_round(ROUND)) * COSINE))


def _among(own: Floats32) -> Floats32:
    """Weights (nodes, V) of each place among where returned light is asked for: linear."""
    up = np.stack([np.interp(own[:, 1], HEIGHTS, row) for row in np.eye(len(HEIGHTS))])
    aside = np.stack([np.interp(own[:, 0], SIDES, row) for row in np.eye(len(SIDES))])
    return np.asarray((up[:, None] * aside[None]).reshape(len(HEIGHTS) * len(SIDES), len(own)), dtype=np.float32)
