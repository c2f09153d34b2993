"""What has to come along for a day: the most of each thing that any of its shots needs."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from ..kit import Kit
from ..plan import Fixture, Plan
from ..rig.rigging_sheet import rigging_sheet


@dataclass(frozen=True)
class PackingItem:
    """`missing`: how many of them the kit does not have; None where no kit was asked, or lists none of that kind."""

    kind: str
    what: str
    count: int
    missing: int | None = None


def packing_list(plans: list[Plan], kit: Kit | None = None) -> tuple[PackingItem, ...]:
    """Screens, lenses, lamps by kind, stands, weights, clamps; of each as many as the hungriest shot takes."""
    needs: Counter[tuple[str, str]] = Counter()
    for plan in plans:
        for thing, count in _of(plan).items():
            needs[thing] = max(needs[thing], count)
    have = {} if kit is None else _owned(kit, plans)
    return tuple(
        PackingItem(kind, what, count, max(0, count - have[kind, what]) if (kind, what) in have else None)
        for (kind, what), count in needs.items()
        if count
    )


def _owned(kit: Kit, plans: list[Plan]) -> dict[tuple[str, str], int]:
    """How many of each thing the kit has. Stands and bags go to the lamps first, what is left to the screen."""
    have: dict[tuple[str, str], int] = {}
    for plan in plans:
        high = plan.screen.height + plan.screen.floor_run
        if kit.screens:
            have["screen", _screen(plan)] = sum(
                one.count
                for one in kit.screens
                if one.hue == plan.screen.hue
                and one.width >= plan.screen.width
                and one.height + one.floor_run >= high
            )
        if kit.lenses:
            have["lens", _lens(plan.camera.focal_mm)] = sum(
                one.count for one in kit.lenses if abs(one.focal_mm - plan.camera.focal_mm) < 0.5
            )
        for lamp in plan.lights if kit.lamps else ():
            what = _lamp(lamp.fixture)
            have["lamp", what] = sum(one.count for one in kit.lamps if _lamp(one.fixture) == what)
    most = max((sum(not lamp.is_daylight for lamp in plan.lights) for plan in plans), default=0)
    if kit.stands:
        stands = sum(one.count for one in kit.stands)
        have["stand", "for lamps"], have["stand", "for the screen"] = stands, max(0, stands - most)
    if kit.sandbags:
        have["weight", "bags on lamp stands"] = kit.sandbags
        have["weight", "bags on the screen's stands"] = max(0, kit.sandbags - most)
    if kit.clamps:
        have["rigging", "clamps"] = kit.clamps
    return have


def _screen(plan: Plan) -> str:
    screen = plan.screen
    return f"{screen.hue} {screen.material}, {screen.width:g} × {screen.height + screen.floor_run:g} m"


def _lens(focal_mm: float) -> str:
    return f"{focal_mm:g} mm"


def _lamp(fixture: Fixture) -> str:
    power = f"{fixture.flux_lm:g} lm" if fixture.flux_lm else f"{fixture.watts:g} W"
    return f"{fixture.emitter.shape} {power}, {fixture.cct:g} K"


def _of(plan: Plan) -> Counter[tuple[str, str]]:
    sheet, need = rigging_sheet(plan), Counter[tuple[str, str]]()
    need["screen", _screen(plan)] = 1
    need["lens", _lens(plan.camera.focal_mm)] = 1
    lamps = [lamp for lamp in plan.lights if not lamp.is_daylight]
    for lamp in lamps:
        need["lamp", _lamp(lamp.fixture)] += 1
        for modifier in lamp.modifiers:
            need["modifier", modifier.kind] += 1
    need["stand", "for lamps"] = len(lamps)
    need["stand", "for the screen"] = sheet.stands
    need["weight", "bags on lamp stands"] = len(lamps)
    need["weight", "bags on the screen's stands"] = sheet.stands * sheet.bags_per_stand
    need["rigging", "clamps"] = sheet.clamps
    need["rigging", "edge weights"] = sheet.edge_weights
    need["cloth", "black, or boards"] = len(plan.flags)
    return need
