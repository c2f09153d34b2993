"""Which lamp of the kit does which work, and where it stands."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import product
from typing import Any

import numpy as np

from ...camera.coverage import Coverage, behind_window_wall, opening_of
from ...camera.view import View
from ...geometry.vectors import Floats
from ...kit import Kit, KitLamp
from ...light.basis import FRONT
from ...light.direct import direct_lux
from ...light.emission import emission_of
from ...light.lamp_bodies import FRAME, on_pole, pole_in_picture, share_of_frame
from ...light.occlusion import before_wall
from ...plan import Fixture, Light, Plan, Subject, people_of
from ..moves import clear_of_walls

FROM_WALL = 0.35
"""A stand's foot needs this much, m."""
ROUNDED = 0.0051
"""What a whole centimetre may be off, m: places are told in those, and rooms are measured in feet, too."""
FILL_OF_KEY = {"hard": 0.25, "medium": 0.4, "soft": 0.6}
"""Fill as a share of the key's light on the face, by the plate's softness."""


@dataclass(frozen=True)
class LampRoles:
    """Lamps by the work they do; all may be missing."""

    screen: tuple[KitLamp, ...] = ()
    key: KitLamp | None = None
    fill: KitLamp | None = None
    back: KitLamp | None = None


def face_area(fixture: Fixture) -> float:
    emitter = fixture.emitter
    if emitter.shape == "rect":
        return emitter.width * emitter.height
    return math.pi * (emitter.diameter / 2.0) ** 2 if emitter.shape == "disc" else 0.0


def _half(fixture: Fixture) -> float:
    """Of the longer side of a lamp's face, m."""
    emitter = fixture.emitter
    if emitter.shape == "rect":
        return 0.5 * max(emitter.width, emitter.height)
    return 0.5 * emitter.diameter if emitter.shape == "disc" else 0.0


def lamp_roles_of(kit: Kit) -> LampRoles:
    """Two alike and large for the screen, the next large for the key, the smallest for the back.

    With two lamps only one lights the screen and the larger the subject; a single one is the key.
    """
    lamps = [lamp for lamp in kit.lamps for _ in range(lamp.count)]
    lamps.sort(key=lambda lamp: -face_area(lamp.fixture) * (lamp.fixture.flux_lm or 1.0))
    if len(lamps) <= 2:
        return LampRoles(key=lamps[0] if lamps else None, screen=tuple(lamps[1:]))
    screen, (key, *others) = _pair_first(lamps)
    return _team(screen, key, others)


def stronger_key(roles: LampRoles) -> LampRoles | None:
    """The strongest of the screen's lamps on the face, and what is left of the others on the screen; None where the
    key is as strong, or lamps are too few."""
    key = roles.key
    if key is None or len(roles.screen) < 2:
        return None
    lead = max(roles.screen, key=_strength)
    if _strength(lead) < 1.05 * _strength(key):
        return None
    rest = [*roles.screen, key, *(lamp for lamp in (roles.fill, roles.back) if lamp is not None)]
    rest.remove(lead)
    screen, others = _pair_first(rest)
    return _team(screen, lead, others)


def _strength(lamp: KitLamp) -> float:
    """What it gives along its axis, cd."""
    return emission_of(Light(fixture=lamp.fixture)).peak


def _pair_first(lamps: list[KitLamp]) -> tuple[list[KitLamp], list[KitLamp]]:
    """The first two that are alike, else the first two, and the rest."""
    pairs = [i for i in range(len(lamps) - 1) if lamps[i] is lamps[i + 1]]
    first = pairs[0] if pairs else 0
    return lamps[first : first + 2], [*lamps[:first], *lamps[first + 2 :]]


def _team(screen: list[KitLamp], key: KitLamp, others: list[KitLamp]) -> LampRoles:
    back = others.pop() if len(others) >= 2 else None
    return LampRoles(tuple(screen), key, others[0] if others else None, back)


def as_light(
    lamp: KitLamp, role: str, place: tuple[float, float, float], aim: tuple[float, float, float]
) -> dict[str, Any]:
    """A lamp of the kit as an entry of the plan document."""
    return {
        "name": f"{lamp.name}, {role}",
        "role": role,
        "fixture": lamp.fixture.model_dump(mode="json"),
        "position": [round(v, 2) for v in place],
        "aim": [round(v, 2) for v in aim],
        "dimmer": 1.0,
    }


def off_walls(plan: Plan, light: dict[str, Any]) -> dict[str, Any] | None:
    """Such an entry with its face clear of the walls; None where the room is too small for it."""
    clear = clear_of_walls(plan, Light.model_validate(light))
    return None if clear is None else {**light, "position": [round(v, 2) for v in clear.position]}


def inside(plan: Plan, place: tuple[float, float, float]) -> bool:
    """Can a stand be put there?"""
    room, (x, y, z) = plan.room, place
    if room.kind == "exterior":
        return 0.2 <= z <= 60.0
    near = FROM_WALL - ROUNDED
    across = room.x_min + near <= x <= room.x_max - near
    return across and 0.3 <= y <= room.height - 0.15 + ROUNDED and 0.3 <= z <= room.z_max - near


def in_frame(plan: Plan, view: View, place: tuple[float, float, float], size: float = 0.3) -> bool:
    """Would the lamp be seen? `size` is the half of its face, m."""
    if behind_window_wall(plan, np.array([place]), size)[0]:
        return False
    corners = np.array(place) + size * np.array([[-1, -1, 0], [1, -1, 0], [1, 1, 0], [-1, 1, 0]], dtype=float)
    return share_of_frame(view, corners, *FRAME) > 0.0


def _in_action(plan: Plan, place: tuple[float, float, float]) -> bool:
    """Of anybody in the picture."""
    return any(_within_reach(person, place) for person in people_of(plan))


def _within_reach(person: Subject, place: tuple[float, float, float]) -> bool:
    reach, (x, _, z) = person.envelope, place
    beside = person.x - reach.left - 0.25 < x < person.x + reach.right + 0.25
    return beside and person.z - reach.back - 0.25 < z < person.z + reach.front + 0.25


def _screen_places(plan: Plan, coverage: Coverage, sides: tuple[int, ...]) -> Iterator[list[tuple[Any, Any]]]:
    """Sensible (place, aim) of the screen lamps: beside the needed part, half its height, aimed across."""
    assert coverage.needed is not None
    x0, y0, x1, y1 = coverage.needed
    middle, half = (x0 + x1) / 2.0, (x1 - x0) / 2.0
    height = max(0.6, (max(y0, 0.0) + y1) / 2.0)
    for out in (0.3, 0.7, 1.1, 1.6):
        for away in _away_from_screen(plan):
            for across in (0.0, 0.35, 0.7):
                yield [
                    (
                        (_off_wall(plan, middle + side * (half + out)), height, away),
                        (middle - side * across * half, height, 0.0),
                    )
                    for side in sides
                ]


def _away_from_screen(plan: Plan) -> tuple[float, ...]:
    """Usual distances; before a window in a wall, between the screen and that wall."""
    wall = opening_of(plan)
    if wall is None:
        return 0.6, 0.9, 1.3, 1.7, 2.2, 2.8
    most = float(wall[0, 2]) - BEHIND_WALL
    return tuple(max(NEAREST, share * most) for share in (0.6, 0.8, 1.0))


NEAREST, BEHIND_WALL = 0.3, 0.2
"""A lamp's least distance to the screen, and to a wall that it stands behind, m."""


def _off_wall(plan: Plan, x: float) -> float:
    """As far out as asked for, or as the room lets a stand be."""
    room = plan.room
    return x if room.kind == "exterior" else min(max(x, room.x_min + FROM_WALL), room.x_max - FROM_WALL)


def _from_above(plan: Plan, coverage: Coverage) -> Iterator[list[tuple[Any, Any]]]:
    """Places for a single screen lamp: over the middle, aimed low, so that near and far balance."""
    assert coverage.needed is not None
    x0, y0, x1, y1 = coverage.needed
    top = plan.room.height - 0.2 if plan.room.kind == "interior" else y1 + 1.2
    for high in (top, (top + y1) / 2.0):
        for away in (1.3, 1.8, 2.3, 2.8, 3.4):
            for low in (0.15, 0.3, 0.5):
                aim = ((x0 + x1) / 2.0, max(y0, 0.0) + low * (y1 - max(y0, 0.0)), 0.0)
                yield [((aim[0], high, away), aim)]


BEFORE, CROPPED = 5.0, 2.0
"""What a screen lamp before the mark, and one in the picture beside the action, count as in stops of unevenness: only
where nothing else fits, and rather one that is cropped away."""


def place_screen_lamps(
    plan: Plan, view: View, coverage: Coverage, lamps: tuple[KitLamp, ...], before: bool = False
) -> list[dict[str, Any]]:
    """The most even of the sensible places, judged on the needed part; none when nothing fits. `before` the mark is
    as good as behind it, else only where the room forces it."""
    if not lamps or coverage.needed is None or plan.subject is None:
        return []
    points, blocks = _points(coverage), before_wall(plan)
    best: tuple[float, list[dict[str, Any]]] | None = None
    places = list(_screen_places(plan, coverage, (-1, 1) if len(lamps) > 1 else (1,)))
    if len(lamps) == 1:
        places += _from_above(plan, coverage)
    for stands in places:
        seen = any(in_frame(plan, view, place) for place, _ in stands)
        if not all(_stands(plan, view, coverage, place) for place, _ in stands):
            continue
        entries = (as_light(lamp, "screen", *stand) for lamp, stand in zip(lamps, stands, strict=False))
        lights = [light for light in (off_walls(plan, entry) for entry in entries) if light is not None]
        if len(lights) < len(stands) or not all(_stands(plan, view, coverage, one["position"]) for one in lights):
            continue
        if len(lights) == 2:
            for light, side in zip(lights, ("left", "right"), strict=True):
                light["name"] += f" {side}"
        lux = sum(direct_lux(emission_of(Light.model_validate(light)), points, FRONT, blocks) for light in lights)
        spread = float(np.log2(np.max(lux) / max(float(np.min(lux)), 1e-6)))
        # Of equally even places the nearer one costs less light.
        # Two zones: a screen lamp in front of the face lights the face as well.
        crosses = BEFORE if not before and stands[0][0][2] > plan.subject.z - 0.15 else 0.0
        score = round(spread, 2) + 0.02 * stands[0][0][2] + crosses + (CROPPED if seen else 0.0)
        if best is None or score < best[0]:
            best = (score, lights)
    return best[1] if best else []


def _points(coverage: Coverage) -> Floats:
    assert coverage.needed is not None
    x0, y0, x1, y1 = coverage.needed
    xs, ys = np.meshgrid(np.linspace(x0, x1, 13), np.linspace(max(y0, 0.02), y1, 9))
    return np.stack([xs.ravel(), ys.ravel(), np.zeros(xs.size)], axis=1)


BESIDE = 0.04
"""Of the picture's width between the action and a lamp that is cropped away."""


def _stands(plan: Plan, view: View, coverage: Coverage, place: tuple[float, float, float]) -> bool:
    """May a screen lamp stand there: out of the action, and in the picture only where that is cropped away?"""
    if not inside(plan, place) or _in_action(plan, place):
        return False
    outline = coverage.frame_outline
    body = np.array([place, (place[0], 0.0, place[2])]) + np.array([[[-0.3, 0.0, 0.0]], [[0.3, 0.0, 0.0]]])
    frame, depth = view.project(body.reshape(-1, 3))
    across = frame[depth > 0.05][:, 0]
    apart = (
        not len(across) or across.max() < outline[:, 0].min() - BESIDE or across.min() > outline[:, 0].max() + BESIDE
    )
    hidden = bool(behind_window_wall(plan, np.array([place]), 0.3)[0])
    return bool(apart or hidden or not in_frame(plan, view, place))


def may_stand(plan: Plan, view: View, place: tuple[float, float, float], size: float = 0.3) -> bool:
    """Is a place for a lamp in the room, and neither in the picture nor in the action? `size` is the half of its
    face, m."""
    return inside(plan, place) and not in_frame(plan, view, place, size) and not _in_action(plan, place)


def around_face(subject: Subject, azimuth: float, elevation: float, away: float) -> tuple[float, float, float]:
    """A place seen from the face: azimuth 0 toward the camera, negative to the left; degrees, m."""
    a, e = math.radians(azimuth), math.radians(elevation)
    return (
        subject.x + away * math.sin(a) * math.cos(e),
        subject.skin_at[1] + away * math.sin(e),
        subject.z + away * math.cos(a) * math.cos(e),
    )


LIFTS = (0, -8, 8, 16, 26, -16, -24, -32, -40)
"""Degrees by which a lamp stands higher or lower than wanted where it cannot stand as wanted: a low room has no place
for a steep key, and a key that is too low is better than none."""


def place_on_face(
    plan: Plan, view: View, lamp: KitLamp, role: str, azimuth: float, elevation: float
) -> dict[str, Any] | None:
    """As near to the wanted direction as room and frame allow, where no pole is seen if that is near enough; None
    when there is no place at all."""
    subject = plan.subject
    assert subject is not None
    aim = (subject.x, subject.up(0.9), subject.z)
    size = max(0.3, _half(lamp.fixture))
    usable = None
    for turn, lift, away in product((0, -10, 10, -20, 20, -35, 35, -50, 50), LIFTS, (1.8, 1.5, 2.2, 1.2, 2.8, 3.4)):
        place = around_face(subject, azimuth + turn, elevation + lift, away)
        if usable is not None and (abs(turn) > NEAR_ENOUGH or abs(lift) > NEAR_ENOUGH):
            continue
        if may_stand(plan, view, place, size):
            light = off_walls(plan, as_light(lamp, role, place, aim))
            if light is None or not may_stand(plan, view, light["position"], size):
                continue
            place = light["position"]
            if not (on_pole(plan, place[1]) and pole_in_picture(view, place)):
                return light
            usable = usable or light
    return usable


NEAR_ENOUGH = 20.0
"""Degrees from the wanted direction within which a place is better whose pole is out of the picture."""


def place_back(plan: Plan, view: View, lamp: KitLamp) -> dict[str, Any] | None:
    """High behind the subject, out of the frame, to the side that the key doesn't come from."""
    side = -1.0 if plan.plate.key_azimuth >= 0.0 else 1.0
    return place_on_face(plan, view, lamp, "back", side * 150.0, 40.0)
