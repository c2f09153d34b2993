"""What it takes to go from one shot to the next: from the difference of their plans, minutes by kind of change."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..plan import Light, Plan
from .production_document import ChangeMinutes, PlannedShot, Production

SAME = 0.05
"""What has moved by less, m, or was dimmed by less, is where it was."""
SAME_DIMMER = 0.02


@dataclass(frozen=True)
class ShotChange:
    """Minutes in all, what has to be done in words, and the minutes of each kind."""

    minutes: float
    done: tuple[str, ...]
    kinds: tuple[tuple[str, float], ...] = ()

    def part(self, kind: str) -> float:
        """Minutes of one kind: screen, floor, lamp, camera, test, person or outfit."""
        return sum(minutes for name, minutes in self.kinds if name == kind)


def change_between(
    before: PlannedShot, was: Plan, after: PlannedShot, now: Plan, each: ChangeMinutes, dressing: float | None = None
) -> ShotChange:
    """From a shot to another. Whoever comes next is dressed already: an outfit costs where one person changes it.
    `dressing`: minutes into the next outfit, where they are its own."""
    done: list[tuple[str, float, str]] = []
    if _screen(was) != _screen(now):
        other = f"{now.screen.hue} screen instead of {was.screen.hue}"
        done.append(("screen", each.screen, other if was.screen.hue != now.screen.hue else "another screen"))
    if (was.screen.floor_run > 0.0) != (now.screen.floor_run > 0.0):
        done.append(("floor", each.floor, "floor piece in" if now.screen.floor_run > 0.0 else "floor piece out"))
    lamps = changed_lamps(was, now)
    if lamps:
        done.append(("lamp", each.lamp * lamps, "one lamp" if lamps == 1 else f"{lamps} lamps"))
    if _camera_differs(was, now):
        done.append(("camera", each.camera, "camera"))
    if done:
        done.append(("test", each.test, "test"))
    if before.person != after.person:
        done.append(("person", each.person, "another person"))
    elif before.outfit != after.outfit:
        done.append(("outfit", each.outfit if dressing is None else dressing, "outfit"))
    return ShotChange(
        sum(minutes for _, minutes, _ in done),
        tuple(words for _, _, words in done),
        tuple((kind, minutes) for kind, minutes, _ in done),
    )


def matrix_of(production: Production, plans: list[Plan]) -> list[list[ShotChange]]:
    """From every shot (row) to every shot (column), in the order given; to itself nothing."""
    shots, each = production.shots, production.minutes
    dressing = {outfit.id: outfit.minutes for outfit in production.outfits}

    def change(i: int, j: int) -> ShotChange:
        if i == j:
            return ShotChange(0.0, ())
        return change_between(shots[i], plans[i], shots[j], plans[j], each, dressing.get(shots[j].outfit or ""))

    return [[change(i, j) for j in range(len(shots))] for i in range(len(shots))]


def changed_lamps(was: Plan, now: Plan) -> int:
    """Lamps that hands have to go to: moved, turned, dimmed, dressed otherwise, put up or taken down."""
    before = {lamp.name: lamp for lamp in was.lights}
    after = {lamp.name: lamp for lamp in now.lights}
    both = before.keys() & after.keys()
    return len(before.keys() ^ after.keys()) + sum(_lamp_differs(before[name], after[name]) for name in both)


def _lamp_differs(a: Light, b: Light) -> bool:
    return (
        math.dist(a.position, b.position) > SAME
        or math.dist(a.aim, b.aim) > SAME
        or abs(a.dimmer - b.dimmer) > SAME_DIMMER
        or (a.on, a.modifiers, a.gel, a.fixture) != (b.on, b.modifiers, b.gel, b.fixture)
    )


def _screen(plan: Plan) -> tuple[object, ...]:
    s = plan.screen
    return s.hue, s.material, round(s.width, 2), round(s.height, 2), round(s.x_centre, 1)


def _camera_differs(was: Plan, now: Plan) -> bool:
    a, b = was.camera, now.camera
    moved = math.dist((a.x, a.y, a.z), (b.x, b.y, b.z)) > SAME
    turned = max(abs(a.pan - b.pan), abs(a.tilt - b.tilt), abs(a.roll - b.roll)) > 0.5
    return moved or turned or abs(a.focal_mm - b.focal_mm) > 0.5
