"""What has to come along for a day: the most of each thing that any of its shots needs."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from ..plan import Plan
from ..rig.rigging_sheet import rigging_sheet


@dataclass(frozen=True)
class PackingItem:
    kind: str
    what: str
    count: int


def packing_list(plans: list[Plan]) -> tuple[PackingItem, ...]:
    """Screens, lenses, lamps by kind, stands, weights, clamps; of each as many as the hungriest shot takes."""
    needs: Counter[tuple[str, str]] = Counter()
    for plan in plans:
        for thing, count in _of(plan).items():
            needs[thing] = max(needs[thing], count)
    return tuple(PackingItem(kind, what, count) for (kind, what), count in needs.items() if count)


def _of(plan: Plan) -> Counter[tuple[str, str]]:
    screen, sheet, need = plan.screen, rigging_sheet(plan), Counter[tuple[str, str]]()
    need["screen", f"{screen.hue} {screen.material}, {screen.width:g} × {screen.height + screen.floor_run:g} m"] = 1
    need["lens", f"{plan.camera.focal_mm:g} mm"] = 1
    lamps = [lamp for lamp in plan.lights if lamp.fixture.emitter.shape != "sun"]
    for lamp in lamps:
        fixture = lamp.fixture
        power = f"{fixture.flux_lm:g} lm" if fixture.flux_lm else f"{fixture.watts:g} W"
        need["lamp", f"{fixture.emitter.shape} {power}, {fixture.cct:g} K"] += 1
        if lamp.modifier.kind != "none":
            need["modifier", lamp.modifier.kind] += 1
    need["stand", "for lamps"] = len(lamps)
    need["stand", "for the screen"] = sheet.stands
    need["weight", "bags on lamp stands"] = len(lamps)
    need["weight", "bags on the screen's stands"] = sheet.stands * sheet.bags_per_stand
    need["rigging", "clamps"] = sheet.clamps
    need["rigging", "edge weights"] = sheet.edge_weights
    need["cloth", "black, or boards"] = len(plan.flags)
    return need
