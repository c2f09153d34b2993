"""Where the things of the kit are in use: set-ups whose plan has one."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ausblick.core.kit import Kit
from ausblick.core.plan import Plan
from ausblick.store.setups import DamagedSetup

from .services import Services


@dataclass(frozen=True)
class KitUse:
    """`kind` as the kit document calls it; `titles` of the set-ups."""

    kind: str
    name: str
    titles: tuple[str, ...]


def kit_uses(services: Services) -> tuple[KitUse, ...]:
    kit, found = services.kits.get().kit, dict[tuple[str, str], list[str]]()
    for setup in services.setups.all():
        if not isinstance(setup, DamagedSetup):
            for thing in dict.fromkeys(_used(setup.plan, kit)):
                found.setdefault(thing, []).append(setup.plan.title)
    return tuple(KitUse(kind, name, tuple(titles)) for (kind, name), titles in found.items())


def _used(plan: Plan, kit: Kit) -> Iterator[tuple[str, str]]:
    """A lamp by its fixture, a lens by its length, a screen by its colour, cloth and size."""
    fixtures = [lamp.fixture for lamp in plan.lights]
    yield from (("lamps", lamp.name) for lamp in kit.lamps if lamp.fixture in fixtures)
    yield from (("lenses", one.name) for one in kit.lenses if abs(one.focal_mm - plan.camera.focal_mm) < 0.05)
    screen = plan.screen
    yield from (
        ("screens", one.name)
        for one in kit.screens
        if (one.hue, one.material) == (screen.hue, screen.material)
        and abs(one.width - screen.width) < 0.01
        and one.height >= screen.height - 0.01
    )
    yield from (("cameras", one.name) for one in kit.cameras if one.recording == plan.camera.recording)
