"""Where a stand and a camera can be: inside the walls, with room for what holds them."""

from __future__ import annotations

from ...light.lamp_bodies import depths
from ...plan import Change, Plan, edit

STAND_FROM_WALL, STAND_FROM_BACK, LAMP_FROM_CEILING = 0.25, 0.2, 0.2
"""A stand's foot from a wall and from the wall behind the screen, a lamp from floor and ceiling, m: ours, because
a stand spreads its legs that far."""
CAMERA_FROM_WALL, BEHIND_CAMERA = 0.3, 0.5
"""Tripod from the side walls; room for whoever stands behind it, m."""
LENS_FROM_FLOOR = 0.1

Place = tuple[float, float, float]


def stand_inside(plan: Plan, place: Place, now: Place | None = None) -> Place:
    """The place brought inside the walls, with room for a stand, to the centimetre; what stands `now` on one side of
    a wall with a window in it stays on that side."""
    x, y, z = place
    room = plan.room
    if room.kind == "interior":
        x = _within(x, room.x_min + STAND_FROM_WALL, room.x_max - STAND_FROM_WALL)
        y = _within(y, LAMP_FROM_CEILING, room.height - LAMP_FROM_CEILING)
        near, far = (room.z_min, room.z_max) if now is None else depths(plan, now[2])
        z = _within(z, near + (STAND_FROM_BACK if near == room.z_min else STAND_FROM_WALL), far - STAND_FROM_WALL)
    return round(x, 2), round(y, 2), round(z, 2)


def camera_inside(plan: Plan, place: Place) -> Place:
    """The lens brought inside the walls, with room for a tripod and whoever stands at it, and left on its side of a
    wall with a window in it."""
    x, y, z = place
    room = plan.room
    if room.kind == "interior":
        x = _within(x, room.x_min + CAMERA_FROM_WALL, room.x_max - CAMERA_FROM_WALL)
        y = _within(y, LENS_FROM_FLOOR, room.height - LAMP_FROM_CEILING)
        near, far = depths(plan, plan.camera.z)
        z = _within(z, near + CAMERA_FROM_WALL, far - BEHIND_CAMERA)
    return round(x, 2), round(y, 2), round(z, 2)


def _within(value: float, low: float, high: float) -> float:
    return min(max(value, low), high)


def lamp_to(plan: Plan, index: int, place: Place, aim: Place | None = None) -> tuple[Change, ...]:
    """The lamp at a place, brought inside the walls, and aimed anew where an aim is given."""
    changes = [edit.lamp(index).position(list(stand_inside(plan, place, plan.lights[index].position)))]
    if aim is not None:
        changes.append(edit.lamp(index).aim([round(v, 2) for v in aim]))
    return tuple(changes)


def all_inside(plan: Plan, names: list[str]) -> tuple[Change, ...]:
    """Lamps (by id) and `camera` brought back inside the walls."""
    changes: list[Change] = []
    for index, lamp in enumerate(plan.lights):
        if lamp.id in names:
            changes += lamp_to(plan, index, lamp.position)
    if "camera" in names:
        camera = plan.camera
        x, y, z = camera_inside(plan, (camera.x, camera.y, camera.z))
        changes += [edit.camera.x(x), edit.camera.y(y), edit.camera.z(z)]
    return tuple(changes)
