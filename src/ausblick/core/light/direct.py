"""Direct light of one lamp on small surfaces: illuminance at full power.

All receiving points share one normal and lie in one plane, as those of a screen, a wall or a single
probe do; that makes it cheap to count only the part of an emitter in front of that plane.

Sources: E = I*cos(a)/r^2 (photometric distance law); for a Lambertian polygon the vector formula of
Lambert (Photometria, 1760) as in Baum, Rushmeier and Winget (SIGGRAPH 1989),
E = L/2 * sum(angle_i * n . unit(v_i x v_i+1)).
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from ..geometry.polygon import clip_half_plane
from ..geometry.vectors import Floats, Ints, dot, ways_between
from .emission import Emission
from .emitters import Face
from .factors import contour_factors
from .hidden_part import MOST_AT_ONCE, alike, hidden_factors
from .occlusion import Touched, blocked_pairs, seen_share, touching, visible_share
from .quadrature import polygon_points


def direct_lux(lamp: Emission, points: Floats, normal: Floats, occluders: Floats, most: int = 8) -> Floats:
    """Illuminance (P,) in lux at points (P, 3) m facing `normal` (3,), unit length.

    Lamp at full power, whatever its dimmer. `occluders` are triangles (T, 3, 3) in m that block light;
    `most` x `most` places of a face at the most are asked whether they are hidden.
    """
    return lamp.filmed(_direct(lamp, points, normal, occluders, most), points[:, 2])


def _direct(lamp: Emission, points: Floats, normal: Floats, occluders: Floats, most: int) -> Floats:
    face = lamp.face
    if lamp.normal_lux is not None:
        return _sun(lamp.normal_lux, face, points, normal, occluders)
    blocking = np.concatenate([occluders, lamp.leaves]) if len(lamp.leaves) else occluders
    if face.area == 0.0:
        return _point(lamp, points, normal, blocking)
    offset = float(points[0] @ normal)
    front = clip_half_plane(face.outline, normal, offset)
    if len(front) < 3:
        return np.zeros(len(points))
    if lamp.lambertian:
        lux = _lambert(lamp.peak / face.area, face, front, points, normal)
        return _shaded(lux, lamp, front, points, np.broadcast_to(normal, points.shape), blocking, most)
    return _lobes(lamp, front, points, normal, blocking, most)


def direct_lux_facing(lamp: Emission, points: Floats, facing: Floats, occluders: Floats, most: int = 8) -> Floats:
    """Either of both: `facing` is one normal (3,) for all points of a plane, or each point's own (P, 3)."""
    if facing.ndim == 1:
        return direct_lux(lamp, points, facing, occluders, most)
    return direct_lux_on(lamp, points, facing, occluders, most)


def direct_lux_on(lamp: Emission, points: Floats, normals: Floats, occluders: Floats, most: int = 8) -> Floats:
    """The same on points that face different ways: normals (P, 3), unit length.

    Panels, the most common lamps, are done in one sweep; others plane by plane.
    """
    if lamp.lambertian and len(lamp.face.outline) == 4:
        blocking = np.concatenate([occluders, lamp.leaves]) if len(lamp.leaves) else occluders
        return lamp.filmed(_panel(lamp, points, normals, blocking, most), points[:, 2])
    return _on_any(lamp, points, normals, occluders, most)


def _on_any(lamp: Emission, points: Floats, normals: Floats, occluders: Floats, most: int) -> Floats:
    """A face that lies wholly before a point's own plane is done in one sweep, one that it cuts plane by plane."""
    lux = np.zeros(len(points))
    offsets = np.einsum("pi,pi->p", points, normals)
    face, one_by_one = lamp.face, np.ones(len(points), dtype=bool)
    if face.area > 0.0 and lamp.normal_lux is None and not lamp.lambertian:
        heights = normals @ face.outline.T - offsets[:, None]
        whole = (heights > 0.0).all(axis=1)
        one_by_one = ~whole & (heights > 0.0).any(axis=1)
        blocking = np.concatenate([occluders, lamp.leaves]) if len(lamp.leaves) else occluders
        for rows in _by_distance(np.flatnonzero(whole), points, face):
            least = OF_A_SHADOW if len(blocking) else LEAST_ORDER
            found = _lobes(lamp, face.outline, points[rows], normals[rows], blocking, most, least)
            lux[rows] = lamp.filmed(found, points[rows, 2])
    (left,) = np.nonzero(one_by_one)
    if not len(left):
        return lux
    planes = np.round(np.column_stack([normals[left], offsets[left]]), 9)
    _, which = np.unique(planes, axis=0, return_inverse=True)
    for plane in range(int(which.max()) + 1):
        own = left[which.ravel() == plane]
        lux[own] = direct_lux(lamp, points[own], normals[own][0], occluders, most)
    return lux


DISTANCES = (0.75, 1.5, 3.0)
"""In sizes of a face: who is further away needs fewer places of it."""
OF_A_SHADOW = 8
"""Places a side at the least where something may be in the way."""


def _by_distance(rows: Ints, points: Floats, face: Face) -> Iterator[Ints]:
    """The same points in groups that are about as far from a face."""
    size = float(np.linalg.norm(np.ptp(face.outline, axis=0)))
    away = points[rows] - face.centre
    group = np.searchsorted(DISTANCES, np.sqrt(dot(away, away)) / max(size, 1e-9))
    for one in range(len(DISTANCES) + 1):
        own = rows[group == one]
        if len(own):
            yield own


def _panel(lamp: Emission, points: Floats, normals: Floats, occluders: Floats, most: int) -> Floats:
    face = lamp.face
    lux = np.zeros(len(points))
    (ahead,) = np.nonzero((points - face.centre) @ face.axis > 1e-9)
    if not len(ahead):
        return lux
    corners = np.broadcast_to(face.outline, (len(ahead), 4, 3))
    lux[ahead] = lamp.exitance * contour_factors(points[ahead], normals[ahead], corners)
    return _shaded(lux, lamp, face.outline, points, normals, occluders, most)


def _sent(face: Face, away: Floats, areas: Floats, turned: Floats) -> Floats:
    """How much (P, S) each place of a Lambertian face gives along `away` (3, P, S) to what is turned from it by so
    much (P, S): normal times way."""
    r2 = np.maximum(away[0] * away[0] + away[1] * away[1] + away[2] * away[2], 1e-8)
    leaving = np.clip(np.tensordot(face.axis, away, 1), 0.0, None)
    return np.asarray(areas * leaving * np.clip(-turned, 0.0, None) / (r2 * r2))


def _sun(normal_lux: float, face: Face, points: Floats, normal: Floats, occluders: Floats) -> Floats:
    lux = normal_lux * max(0.0, float(-face.axis @ normal))
    if lux == 0.0 or not len(occluders):
        return np.full(len(points), lux)
    far = points - face.axis * 1000.0
    return lux * (1.0 - blocked_pairs(points, far, occluders).astype(float))


def _point(lamp: Emission, points: Floats, normal: Floats, occluders: Floats) -> Floats:
    away = np.ascontiguousarray((points - lamp.face.centre).T)
    r2 = np.maximum((away * away).sum(axis=0), 1e-8)
    r = np.sqrt(r2)
    facing = np.clip(-(normal @ away) / r, 0.0, None)
    lux = lamp.candela(away, r) * facing / r2
    if not len(occluders):
        return np.asarray(lux)
    return np.asarray(lux * visible_share(points, lamp.face.centre[None, :], np.ones((1, 1)), occluders))


def _lambert(luminance: float, face: Face, front: Floats, points: Floats, normal: Floats) -> Floats:
    lux = np.zeros(len(points))
    ahead = (points - face.centre) @ face.axis > 1e-9
    to = ways_between(points[ahead], front)
    following = np.roll(to, -1, axis=1)
    turn = np.stack([to[i] * following[j] - to[j] * following[i] for i, j in ((1, 2), (2, 0), (0, 1))])
    length = np.sqrt(np.einsum("iep,iep->ep", turn, turn))
    angle = np.arctan2(length, np.einsum("iep,iep->ep", to, following))
    edge = np.einsum("iep,i->ep", turn, normal) / np.maximum(length, 1e-300)
    lux[ahead] = 0.5 * luminance * np.abs(np.einsum("ep,ep->p", angle, edge))
    return lux


LEAST_ORDER = 4


def _near_order(front: Floats, points: Floats, face: Face, least: int = LEAST_ORDER) -> int:
    """How many quadrature points per side: few from afar, many when nearer than five sizes."""
    size = float(np.linalg.norm(np.ptp(front, axis=0)))
    away = points - face.centre
    nearest = math.sqrt(float(dot(away, away).min()))
    return int(min(24, max(least, math.ceil(2.0 + 12.0 * size / max(nearest, 1e-3)))))


AT_ONCE = 40_000
"""Points times places of a face that are worked out in one array, which then stays in a core's own memory."""


def _lobes(
    lamp: Emission,
    front: Floats,
    points: Floats,
    facing: Floats,
    occluders: Floats,
    most: int,
    least: int = LEAST_ORDER,
) -> Floats:
    """A face that sends the same lobe from every point: a sum of small sources over it, `least` places a side or
    more. `facing`: one normal (3,) of all points or each point's own (P, 3)."""
    face = lamp.face
    order = _near_order(front, points, face, least)
    # Who asks for few places of a panel is served by few of a disc.
    closely = most >= CLOSELY
    samples, areas = polygon_points(front, order if closely else min(most, order), not (closely and len(occluders)))
    # Of a sum over places single precision leaves more than is told: half of the time goes with the digits.
    middle = face.centre
    near, places = (points - middle).astype(np.float32), (samples - middle).astype(np.float32)
    ways = facing.astype(np.float32)
    shares = (areas / face.area).astype(np.float32)
    lux = np.zeros(len(points))
    chunk = max(1, AT_ONCE // len(samples))
    for begin in range(0, len(points), chunk):
        some = points[begin : begin + chunk]
        away = ways_between(places, near[begin : begin + chunk])
        r2 = np.maximum(away[0] * away[0] + away[1] * away[1] + away[2] * away[2], 1e-8)
        r = np.sqrt(r2)
        turned = (
            np.tensordot(ways, away, 1)
            if ways.ndim == 1
            else np.einsum("ips,ip->ps", away, np.ascontiguousarray(ways[begin : begin + chunk].T))
        )
        weights = shares * lamp.candela(away, r) * np.clip(-turned / r, 0.0, None) / r2
        found = weights.sum(axis=1)
        if len(occluders):
            found = found * visible_share(some, samples, weights, occluders)
        lux[begin : begin + chunk] = found
    return lux


CLOSELY = 8
"""Who asks for so many places a side, asks for what is hidden in closed form; few are cheaper and coarser."""
PAIRS = 16_000
"""Points times places of a face at a time: what is worked out of them stays in a core's own memory."""


def _shaded(
    lux: Floats, lamp: Emission, front: Floats, points: Floats, normals: Floats, occluders: Floats, most: int
) -> Floats:
    """Light (P,) of a Lambertian face less what occluders take away: `lux` is what comes of its outline `front`
    (N, 3), which is in front of the points, without them."""
    (lit,) = np.nonzero(lux > 0.0)
    if 0 < len(lit) < len(points):
        lux[lit] = _shaded(lux[lit], lamp, front, points[lit], normals[lit], occluders, most)
        return lux
    found = touching(points, front, occluders) if len(lit) else []
    if not found:
        return lux
    for one in found:
        lux[one.rows[one.wholly]] = 0.0
    if most < CLOSELY:
        partly = np.zeros(len(points), dtype=bool)
        for one in found:
            partly[one.rows[~one.wholly]] = True
        rows = np.flatnonzero(partly)
        return _sampled(lux, lamp.face, front, points, normals, found, rows, most)
    for which, rows in alike(found, lux > 0.0):
        if len(which) > MOST_AT_ONCE:
            lux = _sampled(lux, lamp.face, front, points, normals, found, rows, most)
            continue
        lux[rows] -= lamp.exitance * hidden_factors(front, points[rows], normals[rows], which)
    return np.clip(lux, 0.0, None)


def _sampled(
    lux: Floats,
    face: Face,
    front: Floats,
    points: Floats,
    normals: Floats,
    found: list[Touched],
    rows: Ints,
    most: int,
) -> Floats:
    """Where many pieces are in the way (rows), places of the face are asked one by one."""
    at_once = PAIRS // (most * most)
    for begin in range(0, len(rows), at_once):
        some = rows[begin : begin + at_once]
        place = np.full(len(points), -1)
        place[some] = np.arange(len(some))
        seen = points[some]
        samples, areas = polygon_points(front, min(most, _near_order(front, seen, face)))
        away = ways_between(samples, seen)
        turned = np.einsum("ips,ip->ps", away, np.ascontiguousarray(normals[some].T))
        weights = _sent(face, away, areas, turned)
        lux[some] *= seen_share(seen, samples, weights, [one.among(place) for one in found])
    return lux
