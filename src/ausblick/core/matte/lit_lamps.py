"""Lamps and their stands as they are seen: a box or a ball on a pole with three legs, lit as everything else is.

Their light is worked out at the corners of flat faces, by each face's normal; between them it is linear. Boxes are as
deep as usual panels and legs stand as usual ones do: the numbers know neither.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.view import NEAREST, View
from ..geometry.vectors import Floats, unit
from ..light.basis import BasisStore, weight
from ..light.keys import lamp_key, place_key
from ..light.lamp_bodies import HEAD, POLE, LampBody, body_of, round_the_lens, stands
from ..light.mix import probes_light
from ..light.returned import SceneLight, probe_factors
from ..plan import Light, Plan

BLACK, DIFFUSER = 0.04, 0.6
"""What bodies and stands reflect, matt black paint, and the front of a soft source that is off."""
DEEP = 0.08
"""Depth of a lamp with a face, m."""
LEGS_FROM, LEGS_REACH, LEG = 0.4, 0.45, 0.011
"""Three legs: height at which they leave the pole, how far out they stand, and their radius, m."""
ALONG = 6
"""Pieces of a pole."""
TURNED = np.cos(0.9), np.sin(0.9)
"""A pole's sides are lit as what faces so much toward the lens, and aside."""
ROUND = 2.0 * np.pi * np.arange(16) / 16


@dataclass(frozen=True, eq=False)
class LampFace:
    """A flat piece: corners (N, 3) in m, normals (N, 3) by which they are lit, and what it reflects; `burns`: it is
    white in any picture of a lit set."""

    corners: Floats
    normals: Floats
    ink: float
    burns: bool = False


@dataclass(frozen=True, eq=False)
class LitFace:
    """Corners (N, 3) in m and linear light (N, 3) there, white = 1."""

    corners: Floats
    look: Floats


@dataclass(frozen=True, eq=False)
class LitLamp:
    """What is seen of a lamp from the lens, in the order in which it is laid."""

    lamp: Light
    depth: float
    faces: tuple[LitFace, ...]


def lit_lamps(plan: Plan, view: View, light: SceneLight, store: BasisStore) -> tuple[LitLamp, ...]:
    """All that the frame may show, the farthest first."""
    found = []
    for lamp in plan.lights:
        if lamp.is_daylight or lamp.position[2] <= 0.0 or round_the_lens(plan, lamp):
            continue
        body = body_of(plan, lamp, store)
        if _may_be_seen(body, view):
            faces = _faces(plan, lamp, body, view.lens, store)
            depth = float((np.array(lamp.position) - view.lens) @ view.axes[2])
            found.append(LitLamp(lamp, depth, _lit(plan, faces, light, store)))
    return tuple(sorted(found, key=lambda one: -one.depth))


def _faces(plan: Plan, lamp: Light, body: LampBody, lens: Floats, store: BasisStore) -> tuple[LampFace, ...]:
    """All of a lamp that is seen from the lens."""
    burns, room = weight(lamp, plan.camera) > 0.0, plan.room
    key = "lamp faces", lamp_key(plan, lamp), place_key(lens), burns, room.height, room.kind
    return store.record(key, lambda: (*_stand(plan, lamp, lens), *_head(body, lens, burns)))


def _may_be_seen(body: LampBody, view: View) -> bool:
    legs = np.array([LEGS_REACH, 0.0, 0.0])
    corners = np.vstack([body.corners, body.corners + legs, body.corners - legs])
    frame, depth = view.project(corners)
    ahead = depth > NEAREST
    if not ahead.any():
        return False
    low, high = frame[ahead].min(axis=0), frame[ahead].max(axis=0)
    return bool(np.all(high > -0.05) and np.all(low < 1.05))


def _lit(plan: Plan, faces: Sequence[LampFace], light: SceneLight, store: BasisStore) -> tuple[LitFace, ...]:
    every = np.vstack([np.hstack([face.corners, face.normals]) for face in faces])
    # Pieces of a pole share their corners.
    once, which = np.unique(every, axis=0, return_inverse=True)
    at, facing = np.ascontiguousarray(once[:, :3]), np.ascontiguousarray(once[:, 3:])
    lux = probes_light(plan, at, facing, store) + probe_factors(light.scene, at, facing, store) @ light.leaving
    looks = np.split(lux[which] / grey_lux(plan.camera), np.cumsum([len(face.corners) for face in faces])[:-1])
    return tuple(
        LitFace(face.corners, np.ones_like(look) if face.burns else face.ink * look)
        for face, look in zip(faces, looks, strict=True)
    )


def _stand(plan: Plan, lamp: Light, lens: Floats) -> Iterator[LampFace]:
    if not stands(plan, lamp):
        return
    x, y, z = lamp.position
    top, foot = np.array([x, y, z]), np.array([x, 0.0, z])
    from_height = min(LEGS_FROM, 0.5 * y)
    for turn in (0.5, 2.6, 4.7):
        end = foot + LEGS_REACH * np.array([np.cos(turn), 0.0, np.sin(turn)])
        yield from _rod(np.array([x, from_height, z]), end, LEG, lens, 1)
    yield from _rod(foot, top, POLE, lens, ALONG)


def _rod(begin: Floats, end: Floats, radius: float, lens: Floats, pieces: int) -> Iterator[LampFace]:
    """A round rod, seen from the lens: flat, and lit at its sides as what faces there."""
    toward = lens - 0.5 * (begin + end)
    aside = np.cross(toward, end - begin)
    if float(np.linalg.norm(aside)) < 1e-9:
        return
    aside = unit(aside)
    ahead = unit(np.cross(end - begin, aside))
    ahead = ahead if ahead @ toward > 0.0 else -ahead
    left, right = (unit(TURNED[0] * ahead + s * TURNED[1] * aside) for s in (-1.0, 1.0))
    ends = [begin + share * (end - begin) for share in np.linspace(0.0, 1.0, pieces + 1)]
    for low, high in pairwise(ends):
        corners = np.array([low - radius * aside, low + radius * aside, high + radius * aside, high - radius * aside])
        yield LampFace(corners, np.array([left, right, right, left]), BLACK)


def _head(body: LampBody, lens: Floats, burns: bool) -> Iterator[LampFace]:
    face = body.face
    if not len(body.card):
        yield _ball(face.centre, lens, burns and float((lens - face.centre) @ face.axis) > 0.0)
        return
    flat = (face.outline - face.centre) @ np.stack([face.right, face.up]).T
    half = np.append(np.abs(flat).max(axis=0), 0.5 * DEEP)
    axes = np.stack([face.right, face.up, face.axis])
    middle = face.centre - 0.5 * DEEP * face.axis
    for i, s in ((0, -1.0), (0, 1.0), (1, -1.0), (1, 1.0), (2, -1.0), (2, 1.0)):
        normal, centre = s * axes[i], middle + s * half[i] * axes[i]
        if float((lens - centre) @ normal) <= 0.0:
            continue
        j, k = (n for n in range(3) if n != i)
        corners = np.array(
            [centre + a * half[j] * axes[j] + b * half[k] * axes[k] for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
        )
        front = i == 2 and s > 0.0
        yield LampFace(corners, np.tile(normal, (4, 1)), DIFFUSER if front else BLACK, burns and front)


def _ball(centre: Floats, lens: Floats, burns: bool) -> LampFace:
    ahead = unit(lens - centre)
    aside = unit(np.cross([0.0, 1.0, 0.0], ahead)) if abs(ahead[1]) < 0.999 else np.array([1.0, 0.0, 0.0])
    rim = np.cos(ROUND)[:, None] * aside + np.sin(ROUND)[:, None] * np.cross(ahead, aside)
    normals = unit(TURNED[0] * ahead + TURNED[1] * rim)
    return LampFace(centre + HEAD * rim, normals, BLACK, burns)
